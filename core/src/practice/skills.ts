import { type Cause, REPLACE_CAUSES } from '../diagnosis/index.js';
import { startsByWaking } from '../machine/index.js';
import type { Debrief, Failing } from './debrief.js';
import type { RungId } from './rungs.js';
import { codeOfCase, startCase } from './start-case.js';
import { areStopsLookedFor, isChargingUnread, isPolarityRead } from './support.js';
import { isSurelyBarred, type PracticeCase, type World } from './world.js';

/** One skill of the trade, as cases of practice show it. */
interface Skill {
  /**
   * The rungs whose cases ask for it, in the order in which they are drawn. No rung is named after the fault that its case would have to hold:
   * its name would give the fault away.
   */
  readonly rungs: readonly RungId[];
  /** True of a case that asks for it whatever is done in it; left out: any of those rungs may. */
  readonly isAskedBy?: (practice: PracticeCase) => boolean;
  /** Returns whether a run showed it; null of a run that had no occasion. */
  readonly isShownIn: (world: World, debrief: Debrief) => boolean | null;
}

const JOINT_CAUSES: readonly Cause[] = ['joint-positive', 'joint-negative', 'joint-loose', 'cable'];
const FLAT_CAUSES: readonly Cause[] = ['discharged', 'left-on', 'drain'];
const SPENT_CAUSES: readonly Cause[] = [...REPLACE_CAUSES, 'dead-cell', 'broken-link'];
const PART_CAUSES: readonly Cause[] = ['starter', 'main-fuse', 'interlock', 'immobiliser', 'fuel', 'seized'];
const SMALL = ['motorcycle', 'ride-on'];

const holds =
  (causes: readonly Cause[]) =>
  ({ hidden }: PracticeCase): boolean =>
    hidden.holds.some((cause) => causes.includes(cause));

/** Reasons that are of the verdict. */
const OF_THE_VERDICT: readonly Failing[] = [
  'wrong-verdict',
  'wrong-part',
  'sound-condemned',
  'unproved',
  'not-ended',
];

/** The verdict was right, its part was the part, and the findings bore it out. */
const isVerdictRight = ({ failings }: Debrief): boolean =>
  !failings.some((failing) => OF_THE_VERDICT.includes(failing));

/** A skill that the verdict shows, in cases of one kind. */
const verdictIn = (
  rungs: readonly RungId[],
  isAskedBy: (practice: PracticeCase) => boolean,
): Skill & Required<Pick<Skill, 'isAskedBy'>> => ({
  rungs,
  isAskedBy,
  isShownIn: ({ practice }, debrief) => (isAskedBy(practice) ? isVerdictRight(debrief) : null),
});

const handsOn = ({ log, takenBack }: World): boolean =>
  [...log, ...takenBack].some(({ action }) => action.kind === 'hands');
const helpedTries = ({ log }: World) => log.filter(({ key }) => key?.helped === true);
const isFirstOf = (world: World, ...kinds: readonly string[]): boolean => {
  const first = world.log.findIndex(({ action }) => kinds.includes(action.kind));
  const read = world.log.findIndex(({ action }) => action.kind === 'check' && action.check === 'rest');
  return read >= 0 && (first < 0 || read < first);
};

const SKILL_TABLE = {
  polarity: {
    rungs: ['order', 'mixed', 'motorcycle'],
    isShownIn: (world) => (handsOn(world) ? isPolarityRead(world) : null),
  },
  order: {
    rungs: ['order', 'mixed', 'leads'],
    isShownIn: (world, { risks, failings }) =>
      handsOn(world)
        ? !failings.includes('still-joined') &&
          !risks.some(({ what, hazard }) => what.action.kind === 'hands' && hazard.severity === 'severe')
        : null,
  },
  leads: {
    rungs: ['leads', 'motorcycle', 'order'],
    isShownIn: (world, { failings }) =>
      helpedTries(world).length > 0 ? !failings.includes('not-started') : null,
  },
  reading: {
    rungs: ['worn-or-flat', 'string', 'mixed'],
    // The key and the source change what the posts show for an hour.
    isShownIn: (world) => isFirstOf(world, 'key', 'hands'),
  },
  joints: verdictIn(['mixed', 'leads', 'order', 'worn-or-flat'], holds(JOINT_CAUSES)),
  charging: {
    rungs: ['mixed', 'worn-or-flat'],
    isAskedBy: holds(['charging']),
    isShownIn: (world, debrief) => {
      if (isChargingUnread(world)) return false;
      if (holds(['charging'])(world.practice)) return isVerdictRight(debrief);
      return world.runs ? true : null;
    },
  },
  strings: verdictIn(['string'], ({ machine }) => machine.batteries.length > 1),
  'small-batteries': verdictIn(['motorcycle'], ({ machine }) => SMALL.includes(machine.machineClass)),
  waking: verdictIn(['waking'], ({ machine }) => startsByWaking(machine)),
  stops: {
    rungs: ['stop', 'leads', 'mixed'],
    isShownIn: (world, { failings }) =>
      areStopsLookedFor(world) &&
      !failings.includes('hurt') &&
      (!isSurelyBarred(world) || world.verdict?.verdict === 'unsafe'),
  },
  'flat-batteries': verdictIn(['mixed', 'leads', 'order', 'motorcycle'], holds(FLAT_CAUSES)),
  'spent-batteries': verdictIn(['mixed', 'leads', 'string', 'order'], holds(SPENT_CAUSES)),
  parts: verdictIn(['mixed', 'order', 'leads', 'stop'], holds(PART_CAUSES)),
  'sound-machines': verdictIn(
    ['mixed', 'order', 'leads', 'motorcycle'],
    ({ hidden }) => hidden.cause === 'none',
  ),
  verdicts: {
    rungs: ['mixed', 'string', 'not-the-battery'],
    isShownIn: (_, debrief) => isVerdictRight(debrief),
  },
} satisfies Readonly<Record<string, Skill>>;

export type SkillId = keyof typeof SKILL_TABLE;
const TABLE: Readonly<Record<SkillId, Skill>> = SKILL_TABLE;
/** Every skill, in the order of a job. */
export const SKILL_IDS = Object.keys(TABLE) as readonly SkillId[];

/** A skill of a run, and whether it was there. */
export interface ShownSkill {
  readonly id: SkillId;
  readonly good: boolean;
}

/** Returns the skills that a run had an occasion for, and whether it showed each. Use it once a run has ended. */
export const skillsShown = (world: World, debrief: Debrief): readonly ShownSkill[] =>
  SKILL_IDS.flatMap((id) => {
    const good = TABLE[id].isShownIn(world, debrief);
    return good === null ? [] : [{ id, good }];
  });

/** A case on its rung, by its number. */
export interface RungCase {
  readonly rung: RungId;
  readonly number: number;
}

/** So many numbers are looked through: the rarest fault of a rung comes in one of twelve cases. */
const LOOKED_THROUGH = 60;

/**
 * Returns the next case that asks for a skill. A later attempt takes another rung, so that the same skill comes back in another guise.
 *
 * @param attempts so many cases asked for this skill before
 * @param nextOf the number that comes next on a rung
 * @example caseFor('strings', 0, () => 1).rung // => 'string'
 */
export function caseFor(skill: SkillId, attempts: number, nextOf: (rung: RungId) => number): RungCase {
  const { rungs, isAskedBy } = TABLE[skill];
  const rung = rungs[attempts % rungs.length]!;
  const first = nextOf(rung);
  const number = Array.from({ length: LOOKED_THROUGH }, (_, i) => first + i).find(
    (n) => !isAskedBy || isAskedBy(startCase(codeOfCase(rung, n)).practice),
  );
  return { rung, number: number ?? first };
}

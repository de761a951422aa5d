import {
  type Cause,
  type Crowd,
  LEAST_GAIN_BITS,
  type Proposal,
  proposals,
  sharesByCause,
  weigh,
} from '../diagnosis/index.js';
import { act } from './act.js';
import type { Debrief, Failing } from './debrief.js';
import { startCase } from './start-case.js';
import { canBeDone, firstClampOf } from './support.js';
import type { World } from './world.js';

/** The suspicion of each cause at a minute of a run. */
export interface BeliefPoint {
  readonly atMinutes: number;
  readonly shares: ReadonlyMap<Cause, number>;
}

/** A finding of a run: how it moved the belief, and the check that would have told more for its minutes. */
export interface Lesson {
  /** The cause whose suspicion it moved most. */
  readonly moved: { readonly cause: Cause; readonly before: number; readonly after: number };
  /** Null where nothing within reach was worth clearly more. */
  readonly better: Proposal | null;
}

/** The belief over a run, by the findings of the one who worked it. */
export interface Course {
  /** Before the first act, and after each finding. */
  readonly points: readonly BeliefPoint[];
  /** One for each act of the log; null of an act that found nothing. */
  readonly lessons: readonly (Lesson | null)[];
  /** The moment from which the run could not be passed; null of one that was passed. */
  readonly lost: { readonly failing: Failing; readonly atMinutes: number } | null;
}

/** A check is better when its worth is so many times as large. */
const BETTER_TIMES = 1.5;
/** A move of less is none, in shares of one. */
const LEAST_MOVE = 0.01;

/**
 * Returns the belief over a run: the suspicions after each finding, the better check at each, and the moment the case was lost. Use it once a run
 * has ended.
 *
 * @param mind by `mindFor`
 */
export function courseOf(world: World, mind: Crowd, debrief: Debrief): Course {
  let now = startCase(world.practice.code);
  const points: BeliefPoint[] = [suspectedAt(now, mind, 0)];
  const lessons: (Lesson | null)[] = [];
  for (const { action, atMinutes, minutes } of world.log) {
    const next = act(now, action);
    if (next.evidence.length > now.evidence.length) {
      const before = points.at(-1)!;
      const after = suspectedAt(next, mind, atMinutes + minutes);
      points.push(after);
      lessons.push({
        moved: mostMoved(before, after),
        better: action.kind === 'check' ? betterThan(action.check, now, mind) : null,
      });
    } else lessons.push(null);
    now = next;
  }
  return { points, lessons, lost: lostAt(world, debrief) };
}

const suspectedAt = ({ evidence }: World, mind: Crowd, atMinutes: number): BeliefPoint => ({
  atMinutes,
  shares: sharesByCause(mind, weigh(mind, evidence)),
});

function mostMoved(before: BeliefPoint, after: BeliefPoint): Lesson['moved'] {
  const moves = [...after.shares].map(([cause, share]) => ({
    cause,
    before: before.shares.get(cause) ?? 0,
    after: share,
  }));
  return moves.reduce((most, move) =>
    Math.abs(move.after - move.before) > Math.abs(most.after - most.before) + LEAST_MOVE ? move : most,
  );
}

/** The check that was worth clearly more than this one before it was done. */
function betterThan(check: string, world: World, mind: Crowd): Proposal | null {
  const offered = proposals(mind, world.evidence, world.practice.tools).filter(
    (proposal) => proposal.gainBits >= LEAST_GAIN_BITS && canBeDone(world, proposal.check),
  );
  const own = offered.find((proposal) => proposal.check === check)?.worth ?? 0;
  const [best] = offered;
  return best && best.check !== check && best.worth > BETTER_TIMES * own ? best : null;
}

/** Reasons that stand from the first clamp on. */
const OF_THE_FIRST_CLAMP: readonly Failing[] = ['polarity-unread', 'stops-unlooked'];

function lostAt(world: World, { failings, risks, slowAfterMinutes }: Debrief): Course['lost'] {
  const clampAt = firstClampOf(world)?.atMinutes ?? world.minutes;
  const hurtAt = risks.find(({ hazard }) => hazard.severity === 'severe')?.what.atMinutes;
  const at = (failing: Failing): number => {
    if (failing === 'hurt') return hurtAt ?? world.minutes;
    if (failing === 'too-slow') return slowAfterMinutes;
    return OF_THE_FIRST_CLAMP.includes(failing) ? clampAt : world.minutes;
  };
  const moments = failings.map((failing) => ({ failing, atMinutes: at(failing) }));
  return moments.reduce<Course['lost']>(
    (first, moment) => (first && first.atMinutes <= moment.atMinutes ? first : moment),
    null,
  );
}

import { checksFor, type Crowd, isWeighed, proposals, type Suspect } from '../src/diagnosis/index.js';
import { CLAMP_IDS } from '../src/circuit/index.js';
import {
  act,
  optionsOf,
  type PracticeAction,
  readCaseCode,
  type RungId,
  startCase,
  toolVerdict,
  type World,
} from '../src/practice/index.js';
import { type Random, seededRandom } from '../src/quantities/index.js';
import { type VerdictKind, VERDICTS } from '../src/verdict/index.js';

/** Somebody who works a case by a habit. */
export type Bot = (world: World, mind: () => Crowd) => World;

const check = (
  id: Extract<PracticeAction, { kind: 'check' }>['check'],
  battery?: number,
): PracticeAction => ({
  kind: 'check',
  check: id,
  ...(battery !== undefined && { battery }),
});
const verdict = (kind: VerdictKind, suspect: Suspect | null = null): PracticeAction => ({
  kind: 'verdict',
  verdict: kind,
  suspect,
});
const doing = (world: World, ...actions: readonly PracticeAction[]): World => actions.reduce(act, world);

/** Somebody who does anything at all. */
function anything(world: World, random: Random): PracticeAction {
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
  const { machine, donor } = world.practice;
  const isSource = random() < 0.5;
  const clamp = pick(CLAMP_IDS.filter((id) => id.endsWith('Source') === isSource));
  const pointId = pick((isSource ? donor : machine).points).id;
  const actions: readonly (() => PracticeAction)[] = [
    () => ({ kind: 'check', check: pick(['rest', 'look-joints', 'ask-left-on', 'conductance'] as const) }),
    () => ({ kind: 'fetch', optionId: pick(optionsOf(world)).id }),
    () => ({ kind: 'hands', action: { kind: 'attach', clamp, pointId } }),
    () => ({ kind: 'hands', action: { kind: 'attach', clamp, pointId } }),
    () => ({ kind: 'hands', action: { kind: 'detach', clamp: pick(CLAMP_IDS) } }),
    () => ({ kind: 'hands', action: { kind: 'pack', on: random() < 0.7 } }),
    () => ({ kind: 'hands', action: { kind: 'donor-engine', running: random() < 0.7 } }),
    () => ({ kind: 'hands', action: { kind: 'bridge', pointId: pick(machine.points).id } }),
    () => ({ kind: 'hands', action: { kind: 'loosen', pointId: pick(machine.points).id } }),
    () => ({ kind: 'wait', minutes: Math.ceil(5 * random()) }),
    () => ({ kind: 'key' }),
    () => ({ kind: 'probe', red: pick(machine.points).id, black: pick(machine.points).id }),
    () => ({ kind: 'back' }),
    () => ({ kind: 'hint', level: 'nudge' }),
  ];
  return pick(actions)();
}

/** Does so many things at random, whatever they are. */
export function wandering(
  start: World,
  seed: number,
  length: number,
): { world: World; actions: PracticeAction[] } {
  const random = seededRandom(seed);
  let world = start;
  const actions: PracticeAction[] = [];
  for (let i = 0; i < length; i++) {
    const action = anything(world, random);
    actions.push(action);
    world = act(world, action);
  }
  return { world, actions };
}

/** A pack on, the key, and off again: what fits nearly everything. */
function jump(world: World): World {
  const { machine } = world.practice;
  const option = optionsOf(world).find(({ sourceKind }) => sourceKind === 'lithium-pack');
  const at = (...kinds: readonly string[]): string | undefined =>
    machine.points.find(({ kind }) => kinds.includes(kind))?.id;
  const red = at('jump-positive', 'battery-positive');
  const black = at('ground-point', 'battery-negative');
  if (!option || !red || !black) return world;
  const hands = (action: Extract<PracticeAction, { kind: 'hands' }>['action']): PracticeAction => ({
    kind: 'hands',
    action,
  });
  return doing(
    world,
    { kind: 'fetch', optionId: option.id },
    hands({ kind: 'attach', clamp: 'redCasualty', pointId: red }),
    hands({ kind: 'attach', clamp: 'blackCasualty', pointId: black }),
    hands({ kind: 'pack', on: true }),
    { kind: 'key' },
    hands({ kind: 'pack', on: false }),
    hands({ kind: 'detach', clamp: 'blackCasualty' }),
    hands({ kind: 'detach', clamp: 'redCasualty' }),
  );
}

/** Rest volts of every battery, and a look at the case: what every drill begins with. */
function looks(world: World): World {
  const { batteries } = world.practice.machine;
  const isString = batteries.length > 1;
  return doing(
    world,
    ...batteries.map((_, battery) => check('rest', isString ? battery : undefined)),
    check('case'),
  );
}

const lowestRead = (world: World): number =>
  Math.min(...world.evidence.flatMap(({ check: id, found }) => (id === 'rest' ? [Number(found)] : [])));

/** The answer that is right most often on a rung, by its name. */
const BY_RUNG: Readonly<Record<RungId, readonly [VerdictKind, Suspect | null]>> = {
  mixed: ['charge-first', null],
  order: ['charge-first', null],
  leads: ['charge-first', null],
  joints: ['not-the-battery', 'joint'],
  charging: ['not-the-battery', 'charging'],
  'worn-or-flat': ['replace-now', null],
  'not-the-battery': ['not-the-battery', 'interlock'],
  string: ['charge-first', null],
  motorcycle: ['charge-first', null],
  waking: ['not-the-battery', 'traction-battery'],
  stop: ['unsafe', null],
};

/** Habits that a trainer meets. All but the last ask nothing of the belief. */
export const BOTS: Readonly<Record<string, Bot>> = {
  /** Asks nothing, reads nothing, proves no polarity. */
  blind: (world) => doing(jump(world), verdict('charge-first')),
  'battery-first': (world) => {
    const after = jump(looks(world));
    return doing(after, verdict(lowestRead(after) < 12.45 ? 'charge-first' : 'replace-soon'));
  },
  'always-stop': (world) => doing(looks(world), verdict('unsafe')),
  'guess-by-rung': (world) => doing(jump(looks(world)), verdict(...BY_RUNG[world.practice.rung!])),
  'ask-everything': (world) => {
    const { profile, tools } = world.practice;
    const still = checksFor(profile, tools).filter((one) => isWeighed(one) && one.when !== 'running');
    const asked = still.filter(({ id }) => id !== 'symptom' && id !== 'with-help' && id !== 'promise');
    const after = jump(doing(looks(world), ...asked.map(({ id }) => check(id))));
    return doing(after, verdict(lowestRead(after) < 12.45 ? 'charge-first' : 'replace-soon'));
  },
  /** Does anything at all. */
  wandering: (start) => {
    const { number } = readCaseCode(start.practice.code)!;
    const { world } = wandering(start, number, 12);
    return doing(world, verdict(VERDICTS[number % VERDICTS.length]!));
  },
  /** Takes the check that tells most for its minutes, four times, and says what the belief says. */
  greedy: (world, mind) => {
    let after = looks(world);
    for (let i = 0; i < 4; i++) {
      const [best] = proposals(mind(), after.evidence, after.practice.tools).filter(
        ({ check: id }) => !['with-help', 'promise', 'try-alone', 'acceptance'].includes(id),
      );
      if (best && checksFor(after.practice.profile, after.practice.tools).some(({ id }) => id === best.check))
        after = doing(after, check(best.check, best.battery));
    }
    after = after.evidence.some(({ check: id }) => id === 'charging') ? after : jump(after);
    const { verdict: kind, suspect } = toolVerdict(after, mind());
    return doing(after, verdict(kind, suspect));
  },
};

export const worked = (name: string, code: string, mind: () => Crowd): World =>
  BOTS[name]!(startCase(code), mind);

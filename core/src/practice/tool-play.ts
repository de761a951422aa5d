import { batteryBar } from '../battery/index.js';
import { type Crowd, drawCrowd, proposals } from '../diagnosis/index.js';
import {
  anyClampOn,
  clearingOrder,
  type HookupScene,
  type HookupStep,
  isDone,
  safestOrder,
} from '../hookup/index.js';
import { startsByWaking } from '../machine/index.js';
import { casualtyBatteries } from '../belief/index.js';
import { type RankedOption, rankOptions, ruledWaitMinutes } from '../plan/index.js';
import { type Case, conclude, type VerdictRecord } from '../verdict/index.js';
import { act } from './act.js';
import { startCase } from './start-case.js';
import type { PracticeAction, World } from './world.js';

/** The crowd that the tool weighs evidence against: drawn once for a case. */
export const mindFor = ({ practice }: World): Crowd => drawCrowd(practice.profile);

/** After so many findings it is concluded from what there is. */
const FINDINGS_MOST = 12;
/** A check that overturns the verdict more rarely than this is not worth its minutes here. */
const DECIDES_FROM = 0.12;
/** A whole run is no longer than this. */
const ACTIONS_MOST = 90;

/** Returns the known rest volts, battery by battery; null where not read. */
function restVoltsKnown({ evidence, practice }: World): (number | null)[] {
  return practice.machine.batteries.map((_, i) => {
    const read = evidence.filter((e) => e.check === 'rest' && (e.battery ?? 0) === i).at(-1)?.found;
    return typeof read === 'number' ? read : null;
  });
}

/** Returns the facts beside the evidence. */
export function factsOf(world: World): Case {
  const { practice, evidence } = world;
  return {
    chemistry: practice.profile.rating.chemistry,
    wakes: startsByWaking(practice.machine),
    tempC: practice.tempC,
    stops: [],
    restVolts: restVoltsKnown(world),
    earlierFlatCalls: evidence.some((e) => e.check === 'ask-flats' && e.found === 'yes') ? 1 : 0,
    diedInService: false,
  };
}

/** Returns the tool's verdict on the case by the findings so far. */
export function toolVerdict(world: World, mind: Crowd): VerdictRecord {
  const { practice, evidence } = world;
  return conclude(mind, evidence, factsOf(world), practice.tools, practice.rules);
}

/** The way that the tool would help it: what fits best by what was read, with its order; null where nothing does. */
function helpFor(world: World): {
  readonly ranked: RankedOption;
  readonly order: readonly HookupStep[];
  readonly waitMinutes: number;
} | null {
  const { machine, kit, tempC, rules, donor } = world.practice;
  const batteries = casualtyBatteries(machine, restVoltsKnown(world), tempC);
  const [best] = rankOptions(machine, kit, batteries, tempC, rules, {
    mainsNear: false,
    donorMetres: null,
  }).filter(({ unfit, option }) => !unfit && !option.chargeOnly);
  if (!best) return null;
  const { option } = best;
  const scene: HookupScene = {
    machine,
    donor: option.sourceKind === 'donor' ? donor : null,
    option,
    batteries,
    tempC,
    enclosed: false,
    casualtyRuns: false,
  };
  const waitMinutes = ruledWaitMinutes(machine, option, Math.min(...batteries.socs), rules);
  return { ranked: best, order: safestOrder(scene, waitMinutes, rules), waitMinutes };
}

const done = (world: World, ...checks: string[]): boolean =>
  world.evidence.some(({ check }) => checks.includes(check));
const hasTurnedHelped = (world: World): boolean => world.log.some(({ key }) => key?.helped === true);

/**
 * Returns the tool's next action by the findings and nothing else; null once the verdict was given.
 *
 * @param mind by `mindFor`
 */
export function toolNext(world: World, mind: Crowd): PracticeAction | null {
  if (world.verdict) return null;
  const { practice } = world;
  const isString = practice.machine.batteries.length > 1;
  const restVolts = restVoltsKnown(world);
  const unread = restVolts.indexOf(null);
  if (unread >= 0) return { kind: 'check', check: 'rest', ...(isString && { battery: unread }) };
  const now = toolVerdict(world, mind);
  const give: PracticeAction = { kind: 'verdict', verdict: now.verdict, suspect: now.suspect };
  if (now.verdict === 'unsafe') return give;
  const isBarred = restVolts.some(
    (volts) => batteryBar(practice.profile.rating.chemistry, volts, practice.tempC) !== null,
  );
  if (isBarred) return give;
  if (!hasTurnedHelped(world) && !done(world, 'with-help') && world.evidence.length >= LOOKS_BEFORE_HELP) {
    const next = helping(world);
    if (next) return next;
  }
  // A machine that has just been started is read before help comes off: does it feed itself now?
  const feeding = startsByWaking(practice.machine) ? 'converter' : 'charging';
  if (world.runs && !done(world, feeding)) return { kind: 'check', check: feeding };
  if (anyClampOn(world.hookup)) return clearing(world) ?? give;
  if (world.evidence.length >= FINDINGS_MOST) return give;
  const worth = proposals(mind, world.evidence, practice.tools).find(({ check }) => isLook(check));
  const decides =
    now.deciding && now.deciding.chance >= DECIDES_FROM && isLook(now.deciding.check) ? now.deciding : null;
  const check = world.evidence.length < LOOKS_BEFORE_HELP ? worth : decides;
  if (!check) return give;
  return {
    kind: 'check',
    check: check.check,
    ...(check.battery !== undefined && { battery: check.battery }),
  };
}
/** So much is asked and read before anything is joined. */
const LOOKS_BEFORE_HELP = 4;
/** A check that joins a source is done by joining it. */
const isLook = (check: string): boolean =>
  ![
    'with-help',
    'promise',
    'charging',
    'charging-loaded',
    'ripple',
    'converter',
    'acceptance',
    'try-alone',
  ].includes(check);

/** The next thing on the way to a start with help; null where nothing helps. */
function helping(world: World): PracticeAction | null {
  const help = helpFor(world);
  if (!help) return null;
  const { option } = help.ranked;
  if (world.option?.id !== option.id) return { kind: 'fetch', optionId: option.id };
  for (const step of help.order) {
    if (step.action.kind === 'confirm' && step.action.what === 'wait') {
      const hasWaited = world.log.some(({ action }) => action.kind === 'wait');
      if (!hasWaited) return { kind: 'wait', minutes: step.minutes ?? help.waitMinutes };
    } else if (!isDone(world.hookup, step.action)) return { kind: 'hands', action: step.action };
  }
  return { kind: 'key' };
}

/** The next thing on the way off again; null when all is off. */
function clearing(world: World): PracticeAction | null {
  const help = helpFor(world);
  if (!help) return null;
  const order = clearingOrder(help.order, world.practice.machine, world.practice.rules);
  const next = order.find(({ action }) => !isDone(world.hookup, action));
  return next ? { kind: 'hands', action: next.action } : null;
}

/** The whole case as the tool would work it. */
export function toolRun(code: string, mind?: Crowd): World {
  let world = startCase(code);
  const known = mind ?? mindFor(world);
  for (let i = 0; i < ACTIONS_MOST; i++) {
    const next = toolNext(world, known);
    if (!next) return world;
    world = act(world, next);
  }
  return world;
}

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
import { act } from './act.js';
import { looksAtCase, restVoltsKnown } from './facts.js';
import { startCase } from './start-case.js';
import { canBeDone, decidingHere, toolVerdict } from './support.js';
import type { PracticeAction, World } from './world.js';

/** The crowd that the tool weighs evidence against: drawn once for a case. */
export const mindFor = ({ practice }: World): Crowd => drawCrowd(practice.profile);

/** After so many findings it is concluded from what there is. */
const FINDINGS_MOST = 18;
/** A whole run is no longer than this. */
const ACTIONS_MOST = 90;

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
  if (!world.log.some(looksAtCase)) return { kind: 'check', check: 'case' };
  const now = toolVerdict(world, mind);
  const give: PracticeAction = { kind: 'verdict', verdict: now.verdict, suspect: now.suspect };
  if (now.verdict === 'unsafe') return give;
  const isBarred = restVolts.some(
    (volts) => batteryBar(practice.profile.rating.chemistry, volts, practice.tempC) !== null,
  );
  if (isBarred) return give;
  if (isToBeTried(world)) return { kind: 'key' };
  if (
    !world.runs &&
    !hasTurnedHelped(world) &&
    !done(world, 'with-help') &&
    world.evidence.length >= LOOKS_BEFORE_HELP
  ) {
    const next = helping(world);
    if (next) return next;
  }
  // A machine that has just been started is read before help comes off: does it feed itself now?
  const feeding = startsByWaking(practice.machine) ? 'converter' : 'charging';
  if (world.runs && !done(world, feeding)) return { kind: 'check', check: feeding };
  if (anyClampOn(world.hookup)) return clearing(world) ?? give;
  if (world.evidence.length >= FINDINGS_MOST) return give;
  const worth = proposals(mind, world.evidence, practice.tools).find(({ check }) => canBeDone(world, check));
  const decides =
    decidingHere(world, now, TOOL_LOOKS_FROM) ?? (now.verdict === 'not-known' ? worth : undefined);
  const check = world.evidence.length < LOOKS_BEFORE_HELP ? worth : decides;
  if (!check) return give;
  return {
    kind: 'check',
    check: check.check,
    ...(check.battery !== undefined && { battery: check.battery }),
  };
}
/** A machine that cranks is tried by itself once the looks are done: the driver may be wrong, and it says much. */
const isToBeTried = (world: World): boolean =>
  world.evidence.length >= LOOKS_BEFORE_HELP &&
  !startsByWaking(world.practice.machine) &&
  !anyClampOn(world.hookup) &&
  !done(world, 'try-alone', 'with-help');

/** The tool is more careful than it asks of others: it looks from this chance of another verdict on. */
const TOOL_LOOKS_FROM = 0.06;
/** So much is asked and read before anything is joined. */
const LOOKS_BEFORE_HELP = 4;
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

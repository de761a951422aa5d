import { type ClampId, type Solution, voltsAcross } from '../../circuit/index.js';
import { hasSwitch } from '../../plan/index.js';
import { startsByWaking } from '../../machine/index.js';
import { KIT_KINDS } from '../../sources/index.js';
import type { HouseRules } from '../../rules/index.js';
import { act } from '../actions.js';
import { freeClamps } from '../order/free-clamps.js';
import { type Hazard, newHazard, type HazardCode, severityRank } from './hazard.js';
import { clampPlaces } from '../order/order.js';
import { solved } from './solve-state.js';
import {
  casualtyRuns,
  type HookupScene,
  type HookupState,
  rescueWired,
  isInForce,
  TRICKLE_VOLTS,
  usualAlternatorVolts,
} from './state.js';

/** A shorted source falls below this share of its open volts. */
const SHORTED_SHARE = 0.75;
const SHORT_AMPS = 150;
/** Volts the wrong way round that harm electronics, V. */
const REVERSED_VOLTS = -0.5;

/** The effect of the standing circuit on metal, batteries and electronics. */
function activeHazards(scene: HookupScene, state: HookupState, rules: HouseRules): Hazard[] {
  const { machine, option, batteries } = scene;
  const solution = solved(scene, state);
  const found: Hazard[] = [];
  const top = machine.batteries.length - 1;
  const post = voltsAcross(solution, `casualty.battery${top}+`, 'casualty.body');
  const scale = machine.systemVolts / 12;
  const limit = startsByWaking(machine) ? rules.wakeMaxVolts : rules.electronicsMaxVolts * scale;
  const redAmps = Math.abs(solution.amps.get('lead.red') ?? 0);
  const blackAmps = Math.abs(solution.amps.get('lead.black') ?? 0);
  const amps = Math.max(redAmps, blackAmps);
  if (post < REVERSED_VOLTS) found.push(newHazard('reversed', 'severe', amps, post));
  if (post > limit) found.push(newHazard('over-voltage', 'severe', amps, post));
  const source = voltsAcross(solution, 'source.plus', 'source.minus');
  const isOn = rescueWired(scene, state).sourceOn;
  if (isOn && source > (rules.electronicsMaxVolts * option.outputVolts) / 12)
    found.push(newHazard('over-voltage-source', 'severe', amps, source));
  if (isOn && source < REVERSED_VOLTS) found.push(newHazard('reversed', 'severe', amps, source));
  const sourceFalls = isOn && source < SHORTED_SHARE * option.source.openVolts;
  const batteryFalls = post < SHORTED_SHARE * batteries.totalVolts && batteries.totalVolts > LIVING_VOLTS;
  const isShort = amps > SHORT_AMPS && (batteryFalls || (sourceFalls && !isBankFilling(scene, solution)));
  if (isShort) found.push(newHazard('dead-short', 'severe', amps, source));
  else if (amps > Math.min(rules.unequalSevereAmps, option.source.maxAmps ?? Infinity))
    found.push(newHazard('unequal-sources', 'severe', amps));
  else if (amps > rules.unequalWatchAmps) found.push(newHazard('unequal-sources', 'watch', amps));
  if (isOn) found.push(...sourceCharged(scene, state, rules));
  const bankLimit = option.source.capacitor?.maxVolts ?? Infinity;
  if (isOn && source > bankLimit) found.push(newHazard('bank-over-voltage', 'severe', amps, source));
  found.push(...atLimit(scene, state, Math.abs(solution.amps.get('alternator') ?? 0)));
  const isLending = state.donorRunning && amps > rules.sourceChargedAmps;
  if (casualtyRuns(scene, state) && isLending) found.push(newHazard('two-regulators', 'note', amps));
  const isStringFed = top > 0 && isFedAsAWhole(solution, machine.batteries.length);
  machine.batteries.forEach(({ rating }, i) => {
    const own = voltsAcross(solution, `casualty.battery${i}+`, `casualty.battery${i}-`);
    const into = -(solution.amps.get(`casualty.battery${i}`) ?? 0);
    if (own > rules.batteryMaxVolts)
      found.push(
        isStringFed && post <= limit
          ? newHazard('string-uneven', own > rules.stringUnevenSevereVolts ? 'severe' : 'watch', into, own)
          : newHazard('battery-over-voltage', 'severe', amps, own),
      );
    // A bank has no plates to warm: it takes what it is given, and `unequal-sources` speaks of the rush.
    if (rating.chemistry === 'capacitor') return;
    if (into > rules.batteryChargeSeverePerAh * rating.capacityAh)
      found.push(newHazard('over-charges-battery', 'severe', into));
    else if (into > rules.batteryChargeWatchPerAh * rating.capacityAh)
      found.push(newHazard('over-charges-battery', 'watch', into));
  });
  return found.filter((hazard) => hazard.code !== 'over-charges-battery' || !isToldAsRush(hazard, found));
}

/** True where the rush between two sources, or a short, tells the current into a battery already, and no milder. */
const isToldAsRush = ({ severity, amps }: Hazard, found: readonly Hazard[]): boolean =>
  found.some(
    (rush) =>
      (rush.code === 'unequal-sources' || rush.code === 'dead-short') &&
      (rush.severity === 'severe' || rush.severity === severity) &&
      (amps ?? 0) > SAME_AMPS * (rush.amps ?? Infinity),
  );
/** Whether what goes into a string goes through all of it: a source across one of its batteries feeds that one alone. */
function isFedAsAWhole(solution: Solution, count: number): boolean {
  const into = Array.from({ length: count }, (_, i) => -(solution.amps.get(`casualty.battery${i}`) ?? 0));
  return Math.min(...into) > SAME_AMPS * Math.max(...into);
}
/** The machine's own units tap no string in its middle: what differs by less is the same current. */
const SAME_AMPS = 0.9;

/** Whether the amps go into an empty bank in the battery's place, and not through metal: it fills, and they cease. */
function isBankFilling({ machine, option }: HookupScene, solution: Solution): boolean {
  const into = -(solution.amps.get('casualty.battery0') ?? 0);
  const amps = Math.abs(solution.amps.get('lead.red') ?? 0);
  return (
    machine.batteries[0]?.rating.chemistry === 'capacitor' &&
    option.across.kind !== 'battery' &&
    into > amps / 2
  );
}

/** A donor's alternator that gives all it can runs hot: minutes at idle, no longer, and not at raised revs. */
function atLimit(scene: HookupScene, state: HookupState, amps: number): Hazard[] {
  const { alternator } = rescueWired(scene, state).source ?? {};
  if (scene.option.sourceKind !== 'donor' || !alternator || amps < AT_LIMIT_SHARE * alternator.maxAmps)
    return [];
  const severity = isInForce(state, 'donor-revs-raised') ? 'watch' : 'note';
  return [newHazard('alternator-at-limit', severity, amps)];
}
/** From this share of what it has to spare its regulator is at its end. */
const AT_LIMIT_SHARE = 0.97;

/**
 * Whether the running casualty charges a source that is on and was meant to lend to it. Judged with its battery full: then nothing takes the alternator's amps
 * but the source, which is what comes of leaving it joined.
 */
function sourceCharged(scene: HookupScene, state: HookupState, rules: HouseRules): Hazard[] {
  const severity = KIT_KINDS[scene.option.sourceKind].lends.charged;
  if (!severity || !casualtyRuns(scene, state)) return [];
  // A reading that finds its alternator weak makes nothing of this milder: a bad contact in it comes and goes.
  const usual = usualAlternatorVolts(scene.machine);
  const alternatorVolts = Math.max(usual, scene.alternatorVolts ?? usual);
  const held = alternatorVolts / scene.batteries.models.length - TRICKLE_VOLTS;
  const models = scene.batteries.models.map((m) => ({ ...m, openVolts: Math.max(m.openVolts, held) }));
  const solution = solved({ ...scene, alternatorVolts, batteries: { ...scene.batteries, models } }, state);
  const into = -(solution.amps.get('source') ?? 0);
  const volts = voltsAcross(solution, 'source.plus', 'source.minus');
  return into > rules.sourceChargedAmps ? [newHazard('source-charged', severity, into, volts)] : [];
}
/** A string under this is too far gone for a fall of its volts to mean a short. */
const LIVING_VOLTS = 6;

/** Standing hazards that an action adds. */
export function newHazards(
  scene: HookupScene,
  before: HookupState,
  after: HookupState,
  rules: HouseRules,
): Hazard[] {
  const known = new Map(activeHazards(scene, before, rules).map((h) => [h.code, h]));
  return activeHazards(scene, after, rules).filter((h) => {
    const was = known.get(h.code);
    return !was || severityRank(h) > severityRank(was) || (h.amps ?? 0) > WORSE_FACTOR * (was.amps ?? 0);
  });
}
/** Amps grown by this much make an old hazard new again. */
const WORSE_FACTOR = 1.2;

/** Returns the end of the hook-up as planned: a wrong clamp carries no current yet, but will. */
export function ahead(scene: HookupScene, state: HookupState, rules: HouseRules): Hazard[] {
  const left = freeClamps(scene, state);
  const isArmed = !hasSwitch(scene.option) || state.packOn;
  if (left.length === 0 && isArmed) return [];
  const places = clampPlaces(scene.machine, scene.donor, scene.option, rules);
  const placeOf = (clamp: ClampId): string => {
    const place = places[clamp];
    return typeof place === 'string' ? place : place.id;
  };
  const finished = left.reduce(
    (s, clamp) => act(s, { kind: 'attach', clamp, pointId: placeOf(clamp) }),
    state,
  );
  const armed = hasSwitch(scene.option) ? { ...finished, packOn: true, pluggedIn: true } : finished;
  const foretold: Partial<Record<HazardCode, HazardCode>> = {
    'dead-short': 'will-short',
    reversed: 'will-reverse',
    'over-voltage': 'will-over-voltage',
    'over-voltage-source': 'will-over-voltage',
  };
  return activeHazards(scene, armed, rules).flatMap((h) => {
    const code = h.severity === 'severe' ? foretold[h.code] : undefined;
    return code ? [{ ...h, code }] : [];
  });
}

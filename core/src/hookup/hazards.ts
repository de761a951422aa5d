import { type ClampId, clampNode, type Rescue, rescueCircuit, terminalNode } from '../circuit/rescue.js';
import type { NodeName, Solution } from '../circuit/circuit.js';
import { solveDc, voltsAcross } from '../circuit/solve-dc.js';
import { terminalOf } from '../crank/clamp-points.js';
import { GRID_TRY_SECONDS, leadRiseC } from '../crank/lead-grid.js';
import { hasLooseLeads, hasSwitch } from '../crank/options.js';
import { crankPoint } from '../crank/quick.js';
import { isPositivePoint, pointOf, startsByWaking } from '../machine/machine.js';
import type { HouseRules } from '../rules/house-rules.js';
import { act, actByHand, type HandAction } from './actions.js';
import { type Contact, contactAt } from './contact.js';
import { clampPlaces } from './order.js';
import { anyClampOn, clampsInHand, type HookupScene, type HookupState, rescueOf } from './state.js';

export const HAZARDS = [
  'spark-in-gas',
  'hard-spark',
  'spike',
  'dead-short',
  'reversed',
  'over-voltage',
  'over-voltage-source',
  'unequal-sources',
  'over-charges-block',
  'live-free-clamp',
  'two-live-free-clamps',
  'armed-too-early',
  'plugged-too-early',
  'source-still-on',
  'will-short',
  'will-reverse',
  'will-over-voltage',
  'crank-on-charger',
  'crank-with-free-clamp',
  'over-current',
  'leads-too-hot',
  'ev-donor-running',
  'ev-as-donor',
  'clamps-touch',
  'tool-short',
  'positive-first',
  'loosened-while-joined',
  'lithium-from-outside',
  'closed-in-charging',
] as const;
export type HazardCode = (typeof HAZARDS)[number];
/** A note is told; a watch asks for care; nothing severe is ever part of an order. */
export const SEVERITIES = ['note', 'watch', 'severe'] as const;
export type Severity = (typeof SEVERITIES)[number];

/** What an action brings with it, with the figures that make it so. */
export interface Hazard {
  readonly code: HazardCode;
  readonly severity: Severity;
  readonly amps: number | null;
  readonly volts: number | null;
}

/** Metal on metal, ohms: a tool, bodywork, two clamps. */
export const TOUCH_OHMS = 0.002;
/** Watts of a contact below which nothing is seen, above which metal flies, and above which a likely gas must not meet it. */
export const SPARK_WATTS = { seen: 1, hard: 5000, inGas: 5 } as const;
/** A shorted source falls below this share of its open volts. */
const SHORTED_SHARE = 0.75;
const SHORT_AMPS = 150;
/** Volts the wrong way round that harm electronics, V. */
const REVERSED_VOLTS = -0.5;
/** A running casualty's leads that carry less come off without a spike worth naming, A. */
const SPIKE_AMPS = 5;

const hazard = (
  code: HazardCode,
  severity: Severity,
  amps: number | null = null,
  volts: number | null = null,
): Hazard => ({ code, severity, amps, volts });

/**
 * What one action brings, found by solving the circuit before and after it.
 *
 * @param action judged in this state, not done
 * @returns the worst first; empty when nothing is worth saying
 */
export function hazardsOf(
  scene: HookupScene,
  state: HookupState,
  action: HandAction,
  rules: HouseRules,
): Hazard[] {
  const found = judged(scene, state, action, rules);
  const worst = new Map<HazardCode, Hazard>();
  for (const h of found) {
    const known = worst.get(h.code);
    if (!known || rank(h) > rank(known)) worst.set(h.code, h);
  }
  return [...worst.values()].sort((a, b) => rank(b) - rank(a));
}

const rank = ({ severity }: Hazard): number => SEVERITIES.indexOf(severity);

function judged(scene: HookupScene, state: HookupState, action: HandAction, rules: HouseRules): Hazard[] {
  const next = actByHand(state, action, scene.machine);
  switch (action.kind) {
    case 'attach': {
      const contact = contactAt(scene, state, action.clamp, action.pointId, rules);
      return [
        ...(hasSwitch(scene.option) && state.packOn ? [hazard('source-still-on', 'severe')] : []),
        ...(state.pluggedIn ? [hazard('plugged-too-early', 'severe')] : []),
        ...ruleHazards(scene, next),
        ...sparks(scene, contact, 'made'),
        ...news(scene, state, next, rules),
        ...ahead(scene, next, rules),
        ...liveFree(scene, next, rules),
      ];
    }
    case 'detach': {
      const pointId = state.clamps[action.clamp];
      if (pointId === null) return [];
      const contact = contactAt(scene, state, action.clamp, pointId, rules);
      const spikes =
        scene.casualtyRuns &&
        contact.biteAmps > SPIKE_AMPS &&
        !state.confirmed.includes('big-consumer-on') &&
        !startsByWaking(scene.machine);
      return [
        ...(hasSwitch(scene.option) && (state.packOn || state.pluggedIn)
          ? [hazard('source-still-on', 'severe')]
          : []),
        ...sparks(scene, contact, 'broken'),
        ...(spikes ? [hazard('spike', 'note', contact.biteAmps)] : []),
        ...liveFree(scene, next, rules),
      ];
    }
    case 'pack':
      if (!action.on) return [];
      return [
        ...(freeClamps(scene, state).length > 0
          ? [hazard('armed-too-early', 'severe', freeEndsAmps(scene, next))]
          : []),
        ...news(scene, state, next, rules),
        ...closedInCharging(scene, state),
      ];
    case 'plug':
      return action.in && freeClamps(scene, state).length > 0 ? [hazard('plugged-too-early', 'severe')] : [];
    case 'donor-engine':
      return action.running ? [...ruleHazards(scene, next), ...news(scene, state, next, rules)] : [];
    case 'confirm':
      return [];
    case 'crank':
      return crankHazards(scene, state, rules);
    case 'touch':
      return touching(scene, state, action.a, action.b);
    case 'bridge':
      return bridged(scene, state, action.pointId, 'tool-short');
    case 'loosen':
      return [
        ...(anyClampOn(state) ? [hazard('loosened-while-joined', 'severe')] : []),
        ...(isPositivePoint(pointOf(scene.machine, action.pointId).kind)
          ? bridged(scene, state, action.pointId, 'positive-first')
          : []),
      ];
  }
}

function solved(scene: HookupScene, state: HookupState, bridges: Rescue['bridges'] = []): Solution {
  return solveDc(rescueCircuit({ ...rescueOf(scene, state), bridges }));
}

/** What the standing circuit does to metal, blocks and electronics. */
function standing(scene: HookupScene, state: HookupState, rules: HouseRules): Hazard[] {
  const { machine, option, blocks } = scene;
  const solution = solved(scene, state);
  const found: Hazard[] = [];
  const top = machine.blocks.length - 1;
  const post = voltsAcross(solution, `casualty.block${top}+`, 'casualty.body');
  const scale = machine.systemVolts / 12;
  const limit = startsByWaking(machine) ? rules.wakeMaxVolts : rules.electronicsMaxVolts * scale;
  const redAmps = Math.abs(solution.amps.get('lead.red') ?? 0);
  const blackAmps = Math.abs(solution.amps.get('lead.black') ?? 0);
  const amps = Math.max(redAmps, blackAmps);
  if (post < REVERSED_VOLTS) found.push(hazard('reversed', 'severe', amps, post));
  if (post > limit) found.push(hazard('over-voltage', 'severe', amps, post));
  const source = voltsAcross(solution, 'source.plus', 'source.minus');
  const isOn = rescueOf(scene, state).sourceOn;
  if (isOn && source > (rules.electronicsMaxVolts * option.outputVolts) / 12)
    found.push(hazard('over-voltage-source', 'severe', amps, source));
  if (isOn && source < REVERSED_VOLTS) found.push(hazard('reversed', 'severe', amps, source));
  const sourceFalls = isOn && source < SHORTED_SHARE * option.source.openVolts;
  const blockFalls = post < SHORTED_SHARE * blocks.totalVolts && blocks.totalVolts > LIVING_VOLTS;
  const isShort = amps > SHORT_AMPS && (sourceFalls || blockFalls);
  if (isShort) found.push(hazard('dead-short', 'severe', amps, source));
  else if (amps > Math.min(rules.unequalSevereAmps, option.source.maxAmps ?? Infinity))
    found.push(hazard('unequal-sources', 'severe', amps));
  else if (amps > rules.unequalWatchAmps) found.push(hazard('unequal-sources', 'watch', amps));
  machine.blocks.forEach(({ rating }, i) => {
    const into = -(solution.amps.get(`casualty.block${i}`) ?? 0);
    if (into > rules.blockChargeSeverePerAh * rating.capacityAh)
      found.push(hazard('over-charges-block', 'severe', into));
    else if (into > rules.blockChargeWatchPerAh * rating.capacityAh)
      found.push(hazard('over-charges-block', 'watch', into));
  });
  return found;
}
/** A string under this is too far gone for a fall of its volts to mean a short. */
const LIVING_VOLTS = 6;

/** Standing hazards that an action adds. */
function news(scene: HookupScene, before: HookupState, after: HookupState, rules: HouseRules): Hazard[] {
  const known = new Map(standing(scene, before, rules).map((h) => [h.code, h]));
  return standing(scene, after, rules).filter((h) => {
    const was = known.get(h.code);
    return !was || rank(h) > rank(was) || (h.amps ?? 0) > WORSE_FACTOR * (was.amps ?? 0);
  });
}
/** Amps grown by this much make an old hazard news again. */
const WORSE_FACTOR = 1.2;

/** Where the hook-up leads when it is finished as planned: a wrong clamp carries no current yet, but will. */
function ahead(scene: HookupScene, state: HookupState, rules: HouseRules): Hazard[] {
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
  return standing(scene, armed, rules).flatMap((h) => {
    const code = h.severity === 'severe' ? foretold[h.code] : undefined;
    return code ? [{ ...h, code }] : [];
  });
}

function freeClamps(scene: HookupScene, state: HookupState): ClampId[] {
  return clampsInHand(scene.option).filter((clamp) => state.clamps[clamp] === null);
}

/** Whether gas can be at a contact: more at a block that has been charging or abused, or stands in a closed space. */
export function gasAt(scene: HookupScene, contact: Contact): 'none' | 'possible' | 'likely' {
  const isAtCasualtyBlock = contact.metresToBlock !== null && contact.gasNear;
  const isAbused =
    scene.casualtyRuns ||
    scene.machine.blocks.some((b) => b.closedIn) ||
    scene.blocks.beliefs.some((b) => b.overDischargedVolts !== undefined);
  if (isAtCasualtyBlock) return isAbused || scene.enclosed ? 'likely' : 'possible';
  return scene.enclosed || contact.metresToBlock === null ? 'possible' : 'none';
}

function sparks(scene: HookupScene, contact: Contact, how: 'made' | 'broken'): Hazard[] {
  const watts = contact.gapVolts * contact.biteAmps;
  if (watts < SPARK_WATTS.seen) return [];
  const gas = gasAt(scene, contact);
  const { biteAmps, gapVolts } = contact;
  if (gas === 'likely' && watts >= SPARK_WATTS.inGas)
    return [hazard('spark-in-gas', 'severe', biteAmps, gapVolts)];
  if (gas !== 'none') return [hazard('spark-in-gas', 'watch', biteAmps, gapVolts)];
  if (watts >= SPARK_WATTS.hard) return [hazard('hard-spark', 'watch', biteAmps, gapVolts)];
  return how === 'made' ? [hazard('hard-spark', 'note', biteAmps, gapVolts)] : [];
}

/** The most that each free clamp would drive into either vehicle's body if it touched, amps. */
function freeAmps(scene: HookupScene, state: HookupState): number[] {
  const free = freeClamps(scene, state);
  const isLoose = hasLooseLeads(scene.option);
  return free.map((clamp) =>
    Math.max(
      ...['casualty.body', ...(isLoose ? ['source.minus'] : [])].map((body) => {
        const touched = solved(scene, state, [{ a: clampNode(clamp), b: body, ohms: TOUCH_OHMS }]);
        return Math.abs(touched.amps.get('bridge.0') ?? 0);
      }),
    ),
  );
}

function liveFree(scene: HookupScene, state: HookupState, rules: HouseRules): Hazard[] {
  const live = freeAmps(scene, state).filter((amps) => amps > rules.liveFreeAmps);
  if (live.length === 0) return [];
  const most = Math.max(...live);
  const both = freeEndsAmps(scene, state);
  return both > rules.liveFreeAmps
    ? [hazard('two-live-free-clamps', 'watch', both)]
    : [hazard('live-free-clamp', most > rules.unequalSevereAmps ? 'watch' : 'note', most)];
}

/** Amps if the two free ends of red and black met. */
function freeEndsAmps(scene: HookupScene, state: HookupState): number {
  const free = freeClamps(scene, state);
  const red = free.find((c) => c === 'redCasualty' || c === 'redSource');
  const black = free.find((c) => c === 'blackCasualty' || c === 'blackSource');
  if (!red || !black) return 0;
  const touched = solved(scene, state, [{ a: clampNode(red), b: clampNode(black), ohms: TOUCH_OHMS }]);
  return Math.abs(touched.amps.get('bridge.0') ?? 0);
}

function touching(scene: HookupScene, state: HookupState, a: ClampId, b: ClampId): Hazard[] {
  const met = solved(scene, state, [{ a: clampNode(a), b: clampNode(b), ohms: TOUCH_OHMS }]);
  return shorted(Math.abs(met.amps.get('bridge.0') ?? 0), 'clamps-touch');
}

function bridged(scene: HookupScene, state: HookupState, pointId: string, code: HazardCode): Hazard[] {
  const at: NodeName = terminalNode(terminalOf(scene.machine, pointId));
  const met = solved(scene, state, [{ a: at, b: 'casualty.body', ohms: TOUCH_OHMS }]);
  return shorted(Math.abs(met.amps.get('bridge.0') ?? 0), code);
}

/** Amps through a slip: nothing, a fright, or a burn. */
function shorted(amps: number, code: HazardCode): Hazard[] {
  if (amps < 1) return [];
  return [hazard(code, amps > SLIP_SEVERE_AMPS ? 'severe' : 'watch', amps)];
}
const SLIP_SEVERE_AMPS = 50;

/** Rules of the trade that no circuit shows. */
function ruleHazards({ machine, donor, option }: HookupScene, state: HookupState): Hazard[] {
  const found: Hazard[] = [];
  if (option.sourceKind === 'donor' && startsByWaking(machine) && state.donorRunning)
    found.push(hazard('ev-donor-running', 'severe'));
  if (option.sourceKind === 'donor' && donor && startsByWaking(donor) && !startsByWaking(machine))
    found.push(hazard('ev-as-donor', 'severe'));
  const isLithium = machine.blocks.some((b) => b.rating.chemistry === 'lfp');
  if (isLithium && !machine.points.some((p) => p.kind === 'red-post'))
    found.push(hazard('lithium-from-outside', 'severe'));
  return found;
}

/** Charging a block in a closed boot gathers gas there: only through posts elsewhere, or with the block out. */
function closedInCharging({ machine, option }: HookupScene, state: HookupState): Hazard[] {
  const red = state.clamps.redCasualty;
  const block = red === null ? undefined : machine.points.find((p) => p.id === red)?.block;
  const isClosedIn = block !== undefined && machine.blocks[block]?.closedIn === true;
  return option.sourceKind === 'mains-charger' && isClosedIn ? [hazard('closed-in-charging', 'watch')] : [];
}

function crankHazards(scene: HookupScene, state: HookupState, rules: HouseRules): Hazard[] {
  const { machine, option } = scene;
  if (!machine.engine) return [];
  const found: Hazard[] = [];
  if (option.chargeOnly && (anyClampOn(state) || state.pluggedIn))
    found.push(hazard('crank-on-charger', 'severe'));
  if (anyClampOn(state) && freeClamps(scene, state).length > 0)
    found.push(hazard('crank-with-free-clamp', 'severe', Math.max(...freeAmps(scene, state))));
  if (!anyClampOn(state)) return found;
  const { sourceAmps } = crankPoint(rescueOf(scene, state), machine.engine);
  const amps = Math.abs(sourceAmps);
  if (amps > (option.source.maxAmps ?? Infinity)) found.push(hazard('over-current', 'severe', amps));
  const rise = leadRiseC(option.leads, amps, GRID_TRY_SECONDS, scene.tempC);
  if (rise > rules.leadRiseMaxC) found.push(hazard('leads-too-hot', 'watch', amps));
  return found;
}

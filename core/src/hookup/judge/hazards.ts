import { type ClampId, clampNode, terminalNode } from '../../circuit/index.js';
import { GRID_TRY_SECONDS, hasSwitch, leadRiseC, terminalOf } from '../../plan/index.js';
import { crankPoint } from '../../crank/index.js';
import { isPositivePoint, pointOf, startsByWaking } from '../../machine/index.js';
import type { HouseRules } from '../../rules/index.js';
import { actWired, type HandAction } from '../actions.js';
import { type Contact, contactWired } from './contact.js';
import { bodyAmps, freeAmps, freeClamps, freeEndsAmps, liveFree } from '../order/free-clamps.js';
import { type Hazard, newHazard, type HazardCode, severityRank } from './hazard.js';
import { touchAmps } from './solve-state.js';
import { ahead, newHazards } from './active-hazards.js';
import { storiesOf } from './stories.js';
import { circumstanceHazards } from './judge-circumstance.js';
import {
  anyClampOn,
  casualtyRuns,
  type HookupScene,
  type HookupState,
  isCutOff,
  rescueWired,
} from './state.js';

/** Watts of a contact. Below the first nothing is seen, above the second metal flies. Above the third a likely gas must not meet it. */
export const SPARK_WATTS = { seen: 1, hard: 5000, inGas: 5 } as const;
/** A running casualty's leads that carry less come off without a spike worth naming, A. */
const SPIKE_AMPS = 5;

/**
 * Returns the hazards of one action: the circuit solved before and after it, at the worst of the unknown.
 *
 * @param action judged in this state, not done
 * @returns the worst first; empty when nothing is worth saying
 * @example
 * // What a spanner from the battery's plus to the body would drive.
 * hazardsWired(scene, NOTHING_CONNECTED, { kind: 'bridge', pointId: 'battery-plus' }, DEFAULT_RULES)[0]?.amps;
 */
export function hazardsWired(
  scene: HookupScene,
  state: HookupState,
  action: HandAction,
  rules: HouseRules,
): Hazard[] {
  const worst = new Map<HazardCode, Hazard>();
  for (const possible of storiesOf(scene))
    for (const found of judged(possible.scene, state, action, rules)) {
      const h = possible.story ? { ...found, story: possible.story } : found;
      const known = worst.get(h.code);
      if (!known || isWorse(h, known)) worst.set(h.code, h);
    }
  return [...worst.values()].sort((a, b) => severityRank(b) - severityRank(a));
}

/** Returns the hazards of one action in a scene that is known as it truly is: nothing of it is taken at its worst. */
export function asIsWired(
  scene: HookupScene,
  state: HookupState,
  action: HandAction,
  rules: HouseRules,
): Hazard[] {
  return judged(scene, state, action, rules).sort((a, b) => severityRank(b) - severityRank(a));
}

/** Worse by its severity, or, beyond a mere note, found at a plainly larger figure. */
const isWorse = (a: Hazard, b: Hazard): boolean =>
  severityRank(a) !== severityRank(b)
    ? severityRank(a) > severityRank(b)
    : a.severity !== 'note' && (a.amps ?? 0) > LARGER * (b.amps ?? 0);
const LARGER = 1.2;

function judged(scene: HookupScene, state: HookupState, action: HandAction, rules: HouseRules): Hazard[] {
  const next = actWired(state, action, scene.machine);
  return [
    ...(putsCurrentThrough(action) ? barHazards(scene) : []),
    ...judgedAct(scene, state, next, action, rules),
    ...circumstanceHazards(scene, state, next, action),
  ];
}

/** An action on the way to a current through the casualty's batteries. */
const putsCurrentThrough = (action: HandAction): boolean =>
  action.kind === 'attach' ||
  action.kind === 'crank' ||
  (action.kind === 'pack' && action.on) ||
  (action.kind === 'plug' && action.in) ||
  (action.kind === 'donor-engine' && action.running);

/** A reversed or frozen battery is never joined, whatever current the circuit shows. */
const barHazards = ({ batteries }: HookupScene): Hazard[] =>
  batteries.beliefs.flatMap(({ bar }, i) =>
    bar ? [newHazard(`battery-${bar}`, 'severe', null, batteries.models[i]!.openVolts)] : [],
  );

function judgedAct(
  scene: HookupScene,
  state: HookupState,
  next: HookupState,
  action: HandAction,
  rules: HouseRules,
): Hazard[] {
  switch (action.kind) {
    case 'attach': {
      const contact = contactWired(scene, state, action.clamp, action.pointId, rules);
      return [
        ...(hasSwitch(scene.option) && state.packOn ? [newHazard('source-still-on', 'severe')] : []),
        ...(state.pluggedIn ? [newHazard('plugged-too-early', 'severe')] : []),
        ...ruleHazards(scene, next),
        ...sparks(scene, state, contact, 'made'),
        ...newHazards(scene, state, next, rules),
        ...ahead(scene, next, rules),
        ...liveFree(scene, next, rules),
      ];
    }
    case 'detach': {
      const pointId = state.clamps[action.clamp];
      if (pointId === null) return [];
      const contact = contactWired(scene, state, action.clamp, pointId, rules);
      const spikes =
        casualtyRuns(scene, state) &&
        contact.contactAmps > SPIKE_AMPS &&
        !state.confirmed.includes('big-consumer-on') &&
        !startsByWaking(scene.machine);
      return [
        ...(hasSwitch(scene.option) && (state.packOn || state.pluggedIn)
          ? [newHazard('source-still-on', 'severe')]
          : []),
        ...sparks(scene, state, contact, 'broken'),
        ...(spikes ? [newHazard('spike', 'note', contact.contactAmps)] : []),
        ...loadDump(scene, state, next, rules),
        ...liveFree(scene, next, rules),
      ];
    }
    case 'pack':
      if (!action.on) return [];
      return [
        ...(freeClamps(scene, state).length > 0
          ? [newHazard('armed-too-early', 'severe', freeEndsAmps(scene, next))]
          : []),
        ...newHazards(scene, state, next, rules),
        ...closedInCharging(scene, state),
      ];
    case 'plug':
      return action.in && freeClamps(scene, state).length > 0
        ? [newHazard('plugged-too-early', 'severe')]
        : [];
    case 'donor-engine':
      return action.running ? [...ruleHazards(scene, next), ...newHazards(scene, state, next, rules)] : [];
    case 'confirm':
      return loadDump(scene, state, next, rules);
    case 'crank':
      return crankHazards(scene, state, rules);
    case 'circumstance':
      return [...newHazards(scene, state, next, rules), ...loadDump(scene, state, next, rules)];
    case 'touch':
      return touching(scene, state, action.a, action.b);
    case 'lay':
      return shorted(bodyAmps(scene, state, action.clamp), 'laid-on-metal');
    case 'bridge':
      return bridged(scene, state, action.pointId, 'tool-short');
    case 'loosen':
      return [
        ...(anyClampOn(state) ? [newHazard('loosened-while-joined', 'severe')] : []),
        ...(casualtyRuns(scene, state) && !startsByWaking(scene.machine) ? [dumped(scene, rules)] : []),
        ...(isPositivePoint(pointOf(scene.machine, action.pointId).kind)
          ? bridged(scene, state, action.pointId, 'positive-first')
          : []),
      ];
  }
}

/**
 * Whether gas can be at a contact, at either end: more at a battery that has been charging or abused, or stands in a closed space. A donor
 * has just been driven here and gasses most.
 */
export function gasAt(
  scene: HookupScene,
  state: HookupState,
  contact: Contact,
): 'none' | 'possible' | 'likely' {
  if (contact.end === 'source') return 'possible';
  if (!contact.gasNear) return 'none';
  const isCharging =
    contact.end === 'donor' ||
    casualtyRuns(scene, state) ||
    scene.machine.batteries.some((b) => b.closedIn) ||
    scene.batteries.beliefs.some((b) => b.overDischargedVolts !== undefined);
  return isCharging || scene.enclosed ? 'likely' : 'possible';
}

function sparks(scene: HookupScene, state: HookupState, contact: Contact, how: 'made' | 'broken'): Hazard[] {
  const watts = contact.gapVolts * contact.contactAmps;
  if (watts < SPARK_WATTS.seen) return [];
  const gas = gasAt(scene, state, contact);
  const { contactAmps, gapVolts } = contact;
  if (gas === 'likely' && watts >= SPARK_WATTS.inGas)
    return [newHazard('spark-in-gas', 'severe', contactAmps, gapVolts)];
  if (gas !== 'none') return [newHazard('spark-in-gas', 'watch', contactAmps, gapVolts)];
  if (watts >= SPARK_WATTS.hard) return [newHazard('hard-spark', 'watch', contactAmps, gapVolts)];
  return how === 'made' ? [newHazard('hard-spark', 'note', contactAmps, gapVolts)] : [];
}

function touching(scene: HookupScene, state: HookupState, a: ClampId, b: ClampId): Hazard[] {
  return shorted(touchAmps(scene, state, clampNode(a), clampNode(b)), 'clamps-touch');
}

function bridged(scene: HookupScene, state: HookupState, pointId: string, code: HazardCode): Hazard[] {
  const at = terminalNode(terminalOf(scene.machine, pointId));
  return shorted(touchAmps(scene, state, at, 'casualty.body'), code);
}

/** Amps through a slip: nothing, a fright, or a burn. */
function shorted(amps: number, code: HazardCode): Hazard[] {
  if (amps < 1) return [];
  return [newHazard(code, amps > SLIP_SEVERE_AMPS ? 'severe' : 'watch', amps)];
}
const SLIP_SEVERE_AMPS = 50;

/** A running machine whose own battery is off, and that nothing joined to it holds any more. */
function loadDump(scene: HookupScene, before: HookupState, after: HookupState, rules: HouseRules): Hazard[] {
  if (!casualtyRuns(scene, after) || startsByWaking(scene.machine) || !isCutOff(after)) return [];
  const held = (state: HookupState): boolean =>
    !isCutOff(state) || (freeClamps(scene, state).length === 0 && rescueWired(scene, state).sourceOn);
  return held(before) && !held(after) ? [dumped(scene, rules)] : [];
}
const dumped = ({ machine }: HookupScene, rules: HouseRules): Hazard =>
  newHazard('load-dump', 'severe', null, (rules.loadDumpVolts * machine.systemVolts) / 12);

/** Rules of the trade that no circuit shows. */
function ruleHazards({ machine, donor, option }: HookupScene, state: HookupState): Hazard[] {
  const found: Hazard[] = [];
  if (option.sourceKind === 'donor' && startsByWaking(machine) && state.donorRunning)
    found.push(newHazard('ev-donor-running', 'severe'));
  if (option.sourceKind === 'donor' && donor && startsByWaking(donor) && !startsByWaking(machine))
    found.push(newHazard('ev-as-donor', 'severe'));
  const isLithium = machine.batteries.some((b) => b.rating.chemistry === 'lfp');
  if (isLithium && !machine.points.some((p) => p.kind === 'red-post'))
    found.push(newHazard('lithium-from-outside', 'severe'));
  return found;
}

/** Charging a battery in a closed boot gathers gas there: only through posts elsewhere, or with the battery out. */
function closedInCharging({ machine, option }: HookupScene, state: HookupState): Hazard[] {
  const red = state.clamps.redCasualty;
  const battery = red === null ? undefined : machine.points.find((p) => p.id === red)?.battery;
  const isClosedIn = battery !== undefined && machine.batteries[battery]?.closedIn === true;
  return option.sourceKind === 'mains-charger' && isClosedIn
    ? [newHazard('closed-in-charging', 'watch')]
    : [];
}

function crankHazards(scene: HookupScene, state: HookupState, rules: HouseRules): Hazard[] {
  const { machine, option } = scene;
  if (!machine.engine) return [];
  const found: Hazard[] = [];
  if (option.chargeOnly && (anyClampOn(state) || state.pluggedIn))
    found.push(newHazard('crank-on-charger', 'severe'));
  if (anyClampOn(state) && freeClamps(scene, state).length > 0)
    found.push(newHazard('crank-with-free-clamp', 'severe', Math.max(...freeAmps(scene, state))));
  if (!anyClampOn(state)) return found;
  const { sourceAmps } = crankPoint(rescueWired(scene, state), machine.engine);
  const amps = Math.abs(sourceAmps);
  if (amps > (option.source.maxAmps ?? Infinity)) found.push(newHazard('over-current', 'severe', amps));
  const rise = leadRiseC(option.leads, amps, GRID_TRY_SECONDS, scene.tempC);
  if (rise > rules.leadRiseMaxC) found.push(newHazard('leads-too-hot', 'watch', amps));
  return found;
}

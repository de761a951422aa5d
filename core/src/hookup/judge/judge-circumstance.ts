import { terminalNode, voltsAcross } from '../../circuit/index.js';
import { isPositiveEarth } from '../../machine/index.js';
import { hasSwitch } from '../../plan/index.js';
import { LINK_LEAD_OHMS } from '../../sources/index.js';
import type { Confirmation, HandAction } from '../actions.js';
import { isFeed, type WrongMetal } from './circumstances.js';
import { freeClamps } from '../order/free-clamps.js';
import { type Hazard, newHazard } from './hazard.js';
import { solved, touchAmps } from './solve-state.js';
import { anyClampOn, type HookupScene, type HookupState, rescueWired, isInForce } from './state.js';

/** A clamp of the casualty goes on its starter itself. */
const isOnStud = ({ machine }: HookupScene, { pointId }: { readonly pointId: string }): boolean =>
  machine.points.some(({ id, kind }) => id === pointId && kind === 'starter-stud');

/** Less than this through a closed loop is none, A. */
const NOTHING_AMPS = 0.05;
/** Volts apart from which a closed loop must carry something, V. */
const APART_VOLTS = 0.1;
/** A slip that carries less is not shown, A. */
const SLIP_AMPS = 1;

/** Returns the hazards of an action by the way things stand, beside those of its contact. */
export function circumstanceHazards(
  scene: HookupScene,
  before: HookupState,
  after: HookupState,
  action: HandAction,
): Hazard[] {
  switch (action.kind) {
    case 'attach':
      return [
        ...(action.onto ? wrongMetal(action.onto) : []),
        ...(isPositiveEarth(scene.machine) || isInForce(before, 'positive-earth')
          ? [newHazard('positive-earth', 'severe')]
          : []),
        ...(isInForce(before, 'casualty-engine-runs') ? [newHazard('engine-runs', 'watch')] : []),
        ...(isOnStud(scene, action) && !before.confirmed.includes('machine-secured')
          ? [newHazard('machine-not-secured', 'severe')]
          : []),
        ...(!anyClampOn(before) && !before.confirmed.includes('all-off')
          ? [newHazard('not-all-off', 'watch')]
          : []),
        ...closesNothing(scene, after),
      ];
    case 'detach':
      return [
        ...(before.donorRunning && isInForce(before, 'donor-revs-raised')
          ? [newHazard('revs-raised', 'watch')]
          : []),
        ...(isInForce(before, 'casualty-engine-runs') ? [newHazard('engine-runs', 'watch')] : []),
      ];
    case 'pack': {
      const isGuarded = scene.option.sourceKind === 'lithium-pack';
      const isUnseen = isGuarded && action.on && !before.confirmed.includes('guard-lamp');
      const isBare = scene.option.sourceKind === 'hobby-lithium';
      const isReady = CELLS_READY.every((what) => before.confirmed.includes(what));
      return [
        ...(action.on ? tripped(scene, before) : []),
        ...(isBare && action.on && !isReady ? [newHazard('cells-not-ready', 'watch')] : []),
        ...(isUnseen ? [newHazard('guard-not-seen', 'watch')] : []),
        ...(action.on ? closesNothing(scene, after) : []),
      ];
    }
    case 'crank': {
      const mayMove = isInForce(before, 'gear-engaged') || isInForce(before, 'not-secured');
      return [...(mayMove ? [newHazard('may-move', 'severe')] : []), ...tripped(scene, before)];
    }
    case 'confirm':
    case 'loosen':
      return after.negativeOff && !before.negativeOff ? stillFed(scene, after) : [];
    case 'circumstance':
      return action.on ? noted(scene, after, action.what) : [];
    default:
      return [];
  }
}

/** Acts on bare cells before they are on. */
const CELLS_READY: readonly Confirmation[] = ['cells-bagged', 'cells-read'];

/** The meaning of this circumstance. */
function noted(
  scene: HookupScene,
  state: HookupState,
  what: Extract<HandAction, { kind: 'circumstance' }>['what'],
): Hazard[] {
  if (isFeed(what)) return state.negativeOff ? stillFed(scene, state) : [];
  switch (what) {
    case 'vehicles-touch': {
      const amps = Math.abs(solved(scene, state).amps.get('bridge.0') ?? 0);
      return [newHazard('vehicles-touch', 'watch', amps)];
    }
    case 'gear-engaged':
    case 'not-secured':
      return [newHazard('may-move', 'watch')];
    case 'positive-earth':
      return [newHazard('positive-earth', 'severe')];
    case 'series-link-wrong': {
      const { openVolts, ohms } = scene.option.source;
      const isSeries = scene.option.sourceKind === 'spare-batteries' && scene.option.outputVolts === 24;
      // The link, which the source's ohms hold once, lies across one of the two batteries.
      const amps = openVolts / 2 / ((ohms - LINK_LEAD_OHMS) / 2 + LINK_LEAD_OHMS);
      return isSeries ? [newHazard('link-short', 'severe', amps)] : [];
    }
    case 'casualty-engine-runs':
      return anyClampOn(state) && freeClamps(scene, state).length > 0
        ? [newHazard('engine-runs', 'watch')]
        : [];
    case 'isolator-open':
      return closesNothing(scene, state);
    case 'source-tripped':
      return tripped(scene, state);
    default:
      return [];
  }
}

/** A source that has gone off by itself, with what was asked of it before: amps that no battery of this machine asks are a fault of the joining. */
function tripped(scene: HookupScene, state: HookupState): Hazard[] {
  if (!isInForce(state, 'source-tripped')) return [];
  const before = {
    ...state,
    circumstances: (state.circumstances ?? []).filter((what) => what !== 'source-tripped'),
  };
  const amps = Math.abs(solved(scene, { ...before, packOn: true }).amps.get('lead.red') ?? 0);
  return [newHazard('source-tripped', amps > FAULT_AMPS ? 'severe' : 'watch', amps)];
}
/** More than this through a source while nothing cranks is a short, or a battery that is joined backwards, A. */
const FAULT_AMPS = 300;

function wrongMetal(onto: WrongMetal): Hazard[] {
  switch (onto) {
    case 'pipe':
      return [newHazard('on-pipe', 'severe')];
    case 'moving-part':
      return [newHazard('on-moving-part', 'severe')];
    case 'thin-sheet':
      return [newHazard('on-thin-sheet', 'watch')];
    case 'bare-post':
      return [newHazard('on-bare-post', 'note')];
    case 'battery-sensor':
      return [newHazard('past-the-sensor', 'watch')];
    case 'forty-eight-volts':
      return [newHazard('wrong-system', 'severe', null, FORTY_EIGHT)];
    case 'isolated-body':
      // Its effect on the loop is seen in the circuit.
      return [];
  }
}
/** Of the second system that some vehicles carry, V. */
const FORTY_EIGHT = 48;

/** Everything is on, and nothing flows though the volts differ: a body that is not bonded, a main switch that is open. */
function closesNothing(scene: HookupScene, state: HookupState): Hazard[] {
  const isCut =
    isInForce(state, 'isolator-open') ||
    Object.values(state.onto ?? {}).some((onto) => onto === 'isolated-body');
  if (!isCut) return [];
  const isArmed = !hasSwitch(scene.option) || state.packOn;
  if (!isArmed || freeClamps(scene, state).length > 0 || !rescueWired(scene, state).sourceOn) return [];
  const solution = solved(scene, state);
  const amps = Math.abs(solution.amps.get('lead.red') ?? 0);
  if (amps > NOTHING_AMPS) return [];
  const source = voltsAcross(solution, 'source.plus', 'source.minus');
  const casualty = scene.batteries.totalVolts;
  return Math.abs(source - casualty) > APART_VOLTS ? [newHazard('closes-nothing', 'watch', amps)] : [];
}

/** With its own minus off the plus may be live all the same: what a spanner from there to the body would carry. */
function stillFed(scene: HookupScene, state: HookupState): Hazard[] {
  const top = terminalNode({ kind: 'plus', battery: scene.machine.batteries.length - 1 });
  const amps = touchAmps(scene, state, top, 'casualty.body');
  const isFed = (state.circumstances ?? []).some(isFeed);
  return isFed && amps > SLIP_AMPS ? [newHazard('still-fed', 'watch', amps)] : [];
}

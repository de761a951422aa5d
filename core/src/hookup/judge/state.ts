import { CLAMP_IDS, type ClampId, type Rescue, type Terminal } from '../../circuit/index.js';
import type { CasualtyBatteries } from '../../belief/index.js';
import { hasLooseLeads, hasSwitch, type SourceOption, terminalOf } from '../../plan/index.js';
import { whileCranking } from '../../crank/index.js';
import { isPositivePoint, type Machine } from '../../machine/index.js';
import { RAISED_REVS_FACTOR } from '../../sources/index.js';
import { type Circumstance, feedsOf, type WrongMetal } from './circumstances.js';

/** Stands for a pack's own post, where its fixed lead begins. */
export const PACK_END = 'pack';
/** The posts of spare batteries, where loose leads go on. */
export const SPARE_POSTS = { plus: 'spare-plus', minus: 'spare-minus' } as const;

/** The state that hands have made so far: the place of each clamp, and the engines and sources that run. */
export interface HookupState {
  /** Point id on the clamp's own machine; null = free. */
  readonly clamps: Readonly<Record<ClampId, string | null>>;
  /** Clamps in the order they went on. */
  readonly attachedInOrder: readonly ClampId[];
  readonly donorRunning: boolean;
  readonly packOn: boolean;
  /** The battery's own negative clamp is off, as when it is taken out. */
  readonly negativeOff: boolean;
  /** A mains charger's plug is in its socket. */
  readonly pluggedIn: boolean;
  /** Steps that leave no trace in the circuit, such as a look or a wait. */
  readonly confirmed: readonly string[];
  /** How things stand beside the clamps. Left out in older logs: nothing known. */
  readonly circumstances?: readonly Circumstance[];
  /** Clamps that are on other metal than they were meant for. */
  readonly onto?: Readonly<Partial<Record<ClampId, WrongMetal>>>;
}

/**
 * True while this is so.
 *
 * @example isInForce(NOTHING_CONNECTED, 'gear-engaged') // => false
 */
export const isInForce = ({ circumstances = [] }: HookupState, what: Circumstance): boolean =>
  circumstances.includes(what);

export const NOTHING_CONNECTED: HookupState = {
  clamps: { redCasualty: null, redSource: null, blackSource: null, blackCasualty: null },
  attachedInOrder: [],
  donorRunning: false,
  packOn: false,
  negativeOff: false,
  pluggedIn: false,
  confirmed: [],
};

/**
 * A pack's source ends are built in; only its casualty ends are clamps.
 *
 * @example clampsInHand({ leadSetId: null }) // => ['redCasualty', 'blackCasualty']
 */
export function clampsInHand(option: Pick<SourceOption, 'leadSetId'>): readonly ClampId[] {
  return hasLooseLeads(option) ? CLAMP_IDS : ['redCasualty', 'blackCasualty'];
}

/** Everything the circuit of a hook-up is made from. */
export interface HookupScene {
  readonly machine: Machine;
  /** The donor's atlas entry; null when no vehicle lends. */
  readonly donor: Machine | null;
  readonly option: SourceOption;
  readonly batteries: CasualtyBatteries;
  readonly tempC: number;
  readonly enclosed: boolean;
  /** The casualty's engine runs and charges (or its converter has taken over). */
  readonly casualtyRuns: boolean;
  /** Volts that its own alternator was read to hold while it runs; undefined where nobody read it: then it counts as sound. */
  readonly alternatorVolts?: number | undefined;
}

/** Its own battery is out of the circuit: the clamp off, or a main switch open. */
export const isCutOff = (state: HookupState): boolean =>
  state.negativeOff || isInForce(state, 'isolator-open');

/** True while the casualty's engine runs and charges: as the scene has it, or as it was noted. */
export const casualtyRuns = (scene: HookupScene, state: HookupState): boolean =>
  scene.casualtyRuns || isInForce(state, 'casualty-engine-runs');

/** A running casualty's alternator, per 12 V of system. */
export const CASUALTY_ALTERNATOR = { voltsPer12: 14.2, maxAmps: 60 };

/** Returns the volts that the sound alternator of a machine holds. */
export const usualAlternatorVolts = ({ systemVolts }: Pick<Machine, 'systemVolts'>): number =>
  (CASUALTY_ALTERNATOR.voltsPer12 * systemVolts) / 12;

/** A full battery under its own alternator takes but a trickle: it stands this little below the alternator, V. */
export const TRICKLE_VOLTS = 0.1;
/** Two vehicles that touch, through paint, hinges and bearings, ohms. */
const BODIES_OHMS = 0.02;
const SOURCE_PLUS: Terminal = { kind: 'plus', battery: 0 };
const SOURCE_MINUS: Terminal = { kind: 'minus', battery: 0 };

/** The pole of the source that a place on it belongs to. A place nobody knows counts as the one its clamp is meant for. */
export function sourceTerminalOf(
  { donor }: Pick<HookupScene, 'donor'>,
  clamp: 'redSource' | 'blackSource',
  pointId: string,
): Terminal {
  if (pointId === SPARE_POSTS.plus) return SOURCE_PLUS;
  if (pointId === SPARE_POSTS.minus) return SOURCE_MINUS;
  const point = donor?.points.find((p) => p.id === pointId);
  const isPlus = point ? isPositivePoint(point.kind) : clamp === 'redSource';
  return isPlus ? SOURCE_PLUS : SOURCE_MINUS;
}

/** The circuit as the clamps stand now. */
export function rescueWired(scene: HookupScene, state: HookupState): Rescue {
  const { machine, option, batteries, tempC } = scene;
  const isLoose = hasLooseLeads(option);
  const casualtyEnd = (clamp: 'redCasualty' | 'blackCasualty'): Terminal | null => {
    const pointId = state.clamps[clamp];
    // On metal that nothing bonds to the battery a clamp is as good as in the air.
    const isInTheAir = state.onto?.[clamp] === 'isolated-body';
    return pointId === null || isInTheAir ? null : terminalOf(machine, pointId);
  };
  const sourceEnd = (clamp: 'redSource' | 'blackSource'): Terminal | null => {
    if (!isLoose) return clamp === 'redSource' ? SOURCE_PLUS : SOURCE_MINUS;
    const pointId = state.clamps[clamp];
    return pointId === null ? null : sourceTerminalOf(scene, clamp, pointId);
  };
  const { alternator, ...rest } = option.source;
  // Its rating stands for the middle of a crank; a contact meets a bank's own resistance.
  const still = rest.capacitor ? { ...rest, ohms: rest.capacitor.esrOhms } : rest;
  const isOn =
    !isInForce(state, 'source-tripped') &&
    (!hasSwitch(option) || (state.packOn && (option.sourceKind !== 'mains-charger' || state.pluggedIn)));
  const lent = alternator ?? option.engineAlternator;
  const isRaised = option.sourceKind === 'donor' && isInForce(state, 'donor-revs-raised');
  const supply = lent && isRaised ? { ...lent, maxAmps: lent.maxAmps * RAISED_REVS_FACTOR } : lent;
  // A donor's alternator needs its engine; a charger's regulator works whenever it is on.
  const regulates = option.sourceKind === 'donor' ? state.donorRunning : isOn;
  return {
    casualty: batteries.models,
    load: { kind: 'none' },
    strapOff: isCutOff(state),
    feeds: feedsOf(state.circumstances ?? [], machine.systemVolts),
    ...(isInForce(state, 'vehicles-touch') &&
      scene.donor && { bridges: [{ a: 'source.minus', b: 'casualty.body', ohms: BODIES_OHMS }] }),
    leads: option.leads,
    tempC,
    source:
      regulates && supply
        ? { ...still, openVolts: Math.max(still.openVolts, supply.volts - TRICKLE_VOLTS), alternator: supply }
        : still,
    sourceOn: isOn,
    ...(casualtyRuns(scene, state) && {
      casualtyAlternator: {
        volts: scene.alternatorVolts ?? usualAlternatorVolts(machine),
        maxAmps: CASUALTY_ALTERNATOR.maxAmps,
      },
    }),
    clamps: {
      redCasualty: casualtyEnd('redCasualty'),
      blackCasualty: casualtyEnd('blackCasualty'),
      redSource: sourceEnd('redSource'),
      blackSource: sourceEnd('blackSource'),
    },
  };
}

/**
 * The rescue of this state while its starter turns steadily; as it stands where nothing cranks. A battery that the regulator held up falls
 * to its own volts as the starter draws. A bank is met in the middle of its crank: the source is the one that was ranked.
 */
export function crankingWired(scene: HookupScene, state: HookupState): Rescue {
  const still = rescueWired(scene, state);
  const { engine } = scene.machine;
  if (!engine) return still;
  const { openVolts, ohms } = scene.option.source;
  return whileCranking({ ...still, source: still.source && { ...still.source, openVolts, ohms } }, engine);
}

/**
 * True while any clamp in hand is on something.
 *
 * @example anyClampOn(NOTHING_CONNECTED) // => false
 */
export function anyClampOn(state: HookupState): boolean {
  return CLAMP_IDS.some((clamp) => state.clamps[clamp] !== null);
}

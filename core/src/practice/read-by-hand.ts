import { GRAVITY_BAD_SPREAD, GRAVITY_SPREAD, gravityAt, socFromCells } from '../battery/index.js';
import {
  aloneRescue,
  type Rescue,
  rescueCircuit,
  solveDc,
  terminalNode,
  voltsAcross,
} from '../circuit/index.js';
import { type DiagnosisEvidence, restVoltsOf } from '../diagnosis/index.js';
import { anyClampOn, CASUALTY_ALTERNATOR, rescueOf } from '../hookup/index.js';
import { asWired, type Machine, pointOf } from '../machine/index.js';
import { terminalOf } from '../plan/index.js';
import { normal, type Random, seededRandom } from '../quantities/index.js';
import { seedOf } from './seed.js';
import {
  type AmpsAround,
  type Happened,
  type PracticeAction,
  type ProbesOn,
  trueBatteries,
  ownSupplyVolts,
  trueScene,
  type World,
} from './world.js';

/** The value of an instrument, and the finding where it was held as a check asks. */
export interface ReadByHand {
  readonly shown: Partial<Pick<Happened, 'volts' | 'amps' | 'gravity'>>;
  readonly minutes: number;
  readonly piece: DiagnosisEvidence | null;
}
type Of<K extends PracticeAction['kind']> = Extract<PracticeAction, { kind: K }>;

/** The meter's own spread, and what its last digit is worth, V. */
const METER_SPREAD_VOLTS = 0.008;
const METER_STEP_VOLTS = 0.01;
/** Both probes held on, and read, minutes. */
const PROBE_MINUTES = 0.5;

/** Volts between two points of the machine, by the circuit as it truly is: probes may be anywhere. */
export function voltsBetween(world: World, { red, black }: ProbesOn): number {
  const { machine } = world.practice;
  const node = (pointId: string) => terminalNode(terminalOf(asWired(machine), pointId));
  return voltsAcross(solveDc(rescueCircuit(rescueNow(world))), node(red), node(black));
}

/** Returns the value of the meter between its probes: the case's own, or the one of a training bench. */
export function readVolts(world: World, { red, black, shown }: Of<'probe'>, random: Random): ReadByHand {
  const { machine } = world.practice;
  const own = inSteps(
    normal(random, voltsBetween(world, { red, black }), METER_SPREAD_VOLTS),
    METER_STEP_VOLTS,
  );
  const volts = readable(shown, BENCH_VOLTS_MOST) ?? own;
  // Across a battery's own posts at rest it is its rest volts; anywhere else it is what it is.
  const battery = batteryAcross(machine, { red, black });
  const isRest = battery !== null && !world.runs && !anyClampOn(world.hookup);
  const isString = machine.batteries.length > 1;
  return {
    shown: { volts },
    minutes: PROBE_MINUTES,
    piece: isRest ? { check: 'rest', found: volts, ...(isString && { battery }) } : null,
  };
}

/** Returns the battery whose own posts the probes are on, red on plus; null for probes anywhere else. */
export function batteryAcross(machine: Machine, { red, black }: ProbesOn): number | null {
  const [plus, minus] = [pointOf(machine, red), pointOf(machine, black)];
  const battery = plus.battery ?? 0;
  const isAcross =
    plus.kind === 'battery-positive' && minus.kind === 'battery-negative' && battery === (minus.battery ?? 0);
  return isAcross ? battery : null;
}

/** Units of a parked machine fall asleep when the key was left alone for this long, minutes: the time that the check of its drain takes. */
export const ASLEEP_AFTER_MINUTES = 8;
/** Current of units until then, and of a consumer left on, A per 12 V machine: a lamp in the door and control units; side lamps and a radio. */
const AWAKE_AMPS = 4;
const LEFT_ON_AMPS = 5;
/** A clamp meter is closed around a cable and read, minutes. */
const AMPS_MINUTES = 0.6;
/** Its own spread, and what its last digit is worth, A. */
const AMPS_SPREAD = 0.006;
const AMPS_STEP = 0.01;

/** Its units have been left alone for as long as they take to fall asleep. */
const isAsleepNow = (world: World): boolean => world.minutes - lastStirred(world) >= ASLEEP_AFTER_MINUTES;

/** Amps in a lead, towards the casualty in the red one; or into the machine's own battery: below zero it is drained. */
export function ampsAround(world: World, around: AmpsAround): number {
  const { amps } = solveDc(rescueCircuit(rescueNow(world)));
  return around === 'own-cable'
    ? -(amps.get('casualty.battery0') ?? 0) - (world.runs ? 0 : parkedAmps(world, isAsleepNow(world)))
    : (amps.get(around === 'red-lead' ? 'lead.red' : 'lead.black') ?? 0);
}

/** Returns the value of the clamp meter: the case's own, or the one of a training bench. */
export function readAmps(world: World, { around, shown: onBench }: Of<'amps'>, random: Random): ReadByHand {
  const own = inSteps(normal(random, ampsAround(world, around), AMPS_SPREAD), AMPS_STEP);
  const shown = readable(onBench, BENCH_AMPS_MOST) ?? own;
  const isAsleep = isAsleepNow(world);
  const isFed = restVoltsOf(world.hidden, world.practice.profile).every((volts) => volts >= FED_FROM_VOLTS);
  const isDrain = around === 'own-cable' && isAsleep && isFed && !world.runs && !anyClampOn(world.hookup);
  return {
    shown: { amps: shown },
    minutes: AMPS_MINUTES,
    piece: isDrain ? { check: 'drain', found: Math.max(0, -shown) } : null,
  };
}

/** Minutes of the case when its units were last woken: by the driver before it, by the key, by what asks the key. */
const lastStirred = ({ log, takenBack }: World): number =>
  [...takenBack, ...log].reduce(
    (last, { action, atMinutes, minutes }) => (STIRS.includes(named(action)) ? atMinutes + minutes : last),
    0,
  );
const STIRS: readonly string[] = [
  'key',
  'try-alone',
  'key-on',
  'crank',
  'with-help',
  'ask-dims',
  'immobiliser-lamp',
];
const named = (action: PracticeAction): string => (action.kind === 'check' ? action.check : action.kind);

function parkedAmps({ hidden, evidence, hookup, practice }: World, isAsleep: boolean): number {
  // With its own minus off, or the main circuit open, nothing is fed.
  if (hookup.negativeOff || hidden.open) return 0;
  const wasFound = evidence.some(({ check, found }) => check === 'look-switches' && found === 'one-is-on');
  const whole =
    hidden.drainAmps + (isAsleep ? 0 : AWAKE_AMPS) + (hidden.leftOn && !wasFound ? LEFT_ON_AMPS : 0);
  // Units and lamps take less of a battery that is down.
  const lowest = Math.min(...restVoltsOf(hidden, practice.profile));
  return whole * Math.min(1, Math.max(0, lowest / FED_FROM_VOLTS));
}
/** Below this nothing that sleeps is fed as it is meant to be, V per battery: what is read then is no drain. */
const FED_FROM_VOLTS = 10;

/** Cells of a 12 V battery. */
export const CELLS = 6;
/** A hydrometer is drawn full, read and emptied, minutes a cell. */
const GRAVITY_MINUTES = 1;
/** The loss of a shorted cell against the others. */
const SHORTED_BELOW = GRAVITY_BAD_SPREAD * 1.8;
const GRAVITY_STEP = 0.005;

/** Specific gravity of one cell; nothing where the acid cannot be reached. All six of a battery tell what the check of them tells. */
export function readGravity(world: World, { battery, cell }: Of<'gravity'>, random: Random): ReadByHand {
  const { practice, hidden } = world;
  const state = hidden.batteries[battery];
  if (practice.profile.rating.chemistry !== 'flooded' || !state || !(cell >= 0 && cell < CELLS))
    throw new RangeError(`no hydrometer reaches cell ${cell} of battery ${battery}`);
  const first = firstShorted(practice.code);
  const isShorted = (state.deadCells ?? 0) > (cell - first + CELLS) % CELLS;
  const whole = gravityAt(state.soc, practice.tempC) - (isShorted ? SHORTED_BELOW : 0);
  const gravity = inSteps(normal(random, Math.max(1, whole), GRAVITY_SPREAD / 2), GRAVITY_STEP);
  const read = new Map(
    world.log.flatMap(({ action, gravity: g }) =>
      action.kind === 'gravity' && action.battery === battery && g !== undefined ? [[action.cell, g]] : [],
    ),
  ).set(cell, gravity);
  return {
    shown: { gravity },
    minutes: GRAVITY_MINUTES,
    piece: read.size === CELLS ? gravityPiece(world, battery, [...read.values()]) : null,
  };
}

function gravityPiece({ practice }: World, battery: number, cells: readonly number[]): DiagnosisEvidence {
  const { badCell, soc } = socFromCells(cells, practice.tempC);
  const found = badCell !== null ? 'one-cell-low' : soc > EVEN_HIGH_SOC ? 'even-high' : 'even-low';
  const isString = practice.machine.batteries.length > 1;
  return { check: 'specific-gravity', found, ...(isString && { battery }) };
}
/** Above this the cells count as high. */
const EVEN_HIGH_SOC = 0.6;

/** The cell of a case that is shorted first. */
const firstShorted = (code: string): number => Math.floor(seededRandom(seedOf(`${code} cell`))() * CELLS);

/** The range of a meter and a clamp of a training bench, V and A. */
const BENCH_VOLTS_MOST = 60;
const BENCH_AMPS_MOST = 1500;

/** A figure of a bench that can be one; nothing where none was given. @throws RangeError for one that cannot be */
function readable(shown: number | undefined, most: number): number | undefined {
  if (shown !== undefined && !(Math.abs(shown) <= most)) throw new RangeError(`no instrument shows ${shown}`);
  return shown;
}

const inSteps = (value: number, step: number): number => Math.round(value / step) * step;

/** The circuit as it stands now and as it truly is, its own joints and what charges it with it. */
export function rescueNow(world: World): Rescue {
  const { practice, hookup, runs } = world;
  const scene = trueScene(world);
  const batteries = trueBatteries(world);
  const rescue = scene ? rescueOf(scene, hookup) : aloneRescue(batteries.models, practice.tempC);
  const casualtyAlternator = { volts: ownSupplyVolts(world), maxAmps: CASUALTY_ALTERNATOR.maxAmps };
  return { ...rescue, ...(runs && { casualtyAlternator }), joints: batteries.joints! };
}

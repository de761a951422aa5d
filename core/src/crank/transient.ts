import {
  type BlockRating,
  type BlockState,
  blockOhms,
  openVoltsByCharge,
  POLARISATION,
  RESISTANCE_BY_SOC,
} from '../battery/block.js';
import { interpolate, interpolator } from '../quantities/interpolate.js';
import { ALTERNATOR_OHMS, type Rescue, rescueCircuit } from '../circuit/rescue.js';
import { solveDc, voltsAcross } from '../circuit/solve-dc.js';
import type { Circuit } from '../circuit/circuit.js';
import {
  breakawayNm,
  compressionRipple,
  defaultStarter,
  type Engine,
  frictionAt,
  inertiaKgM2,
  neededRpm,
  rpmFromRadS,
  type Starter,
} from '../engine/engine.js';
import { leadHeatCapacity } from '../leads/lead-set.js';
import type { Bank } from '../sources/cell-bank.js';

/** What stands in the place of a casualty block: a block, or a capacitor bank instead of one. */
export type CrankBlock =
  | { readonly rating: BlockRating; readonly state: BlockState }
  | { readonly bank: Bank; readonly volts: number };

/** A crank to be followed in time: the rescue, what is known of the casualty's blocks, and the engine. */
export interface CrankCase {
  readonly rescue: Rescue;
  readonly blocks: readonly CrankBlock[];
  readonly engine: Engine;
  readonly starter?: Starter;
  readonly seconds: number;
}

/** What is followed. All lists have one entry a step. */
export interface CrankTrace {
  readonly stepSeconds: number;
  readonly seconds: Float64Array;
  readonly postVolts: Float64Array;
  readonly starterVolts: Float64Array;
  readonly starterAmps: Float64Array;
  readonly sourceVolts: Float64Array;
  readonly sourceAmps: Float64Array;
  readonly rpm: Float64Array;
  /** Lowest volts at the posts, anywhere. */
  readonly dipVolts: number;
  readonly neededRpm: number;
  /** When the engine has turned fast enough, on volts enough, for long enough; null when it never does. */
  readonly startsAtSeconds: number | null;
  /** Warming of the lead set over the crank, degC. */
  readonly leadRiseC: number;
  /** State of charge of each casualty block at the end; of a bank, its volts as a share of its limit. */
  readonly endSoc: readonly number[];
}

/** Step of the simulation: a fortieth of the shortest time constant, that of starter and flywheel. */
export const STEP_SECONDS = 0.001;
/** Speed and volts must hold this long for the engine to fire and run. */
export const HOLD_SECONDS = 1;

/**
 * Follows a crank from the closing of the starter contact, in fixed steps. The network between sources and starter does not change
 * within a step, so it is solved once for each source at one volt; a step is then a few multiplications. Charge, polarisation and
 * back-EMF move between steps.
 */
export function simulateCrank(input: CrankCase): CrankTrace {
  const starter = input.starter ?? defaultStarter(input.engine);
  const network = buildNetwork(input, starter);
  const steps = Math.round(input.seconds / STEP_SECONDS);
  const trace = emptyTrace(steps);
  const { tempC, leads } = input.rescue;
  const inertia = inertiaKgM2(input.engine);
  const ripple = compressionRipple(input.engine);
  const pulses = input.engine.cylinders / 2;
  const breakaway = breakawayNm(input.engine, tempC);
  const friction = frictionAt(input.engine, tempC);
  const { kVoltSeconds } = starter;
  const torquePerAmp = starter.efficiency * kVoltSeconds;
  // Back-EMF brakes the starter as it speeds up: taken at the middle of the step, which keeps the step long and exact.
  const braking =
    1 + (torquePerAmp * kVoltSeconds * network.starterAmpsPerVolt * STEP_SECONDS) / (2 * inertia);
  const { outputs } = network;
  let radS = 0;
  // Sine and cosine of the compression angle, turned a little each step: far cheaper than asking for the sine anew.
  let sine = 0;
  let cosine = 1;
  for (let i = 0; i < steps; i++) {
    if (i % LOOK_UP_EVERY === 0) network.sources.forEach(lookUp);
    solveMoment(network, kVoltSeconds * radS);
    const starterAmps = outputs[STARTER_AMPS]!;
    trace.seconds[i] = i * STEP_SECONDS;
    trace.postVolts[i] = outputs[POST_VOLTS]!;
    trace.starterVolts[i] = outputs[STARTER_VOLTS]!;
    trace.starterAmps[i] = starterAmps;
    trace.sourceVolts[i] = outputs[SOURCE_VOLTS]!;
    trace.sourceAmps[i] = outputs[SOURCE_AMPS]!;
    trace.rpm[i] = rpmFromRadS(radS);
    for (let k = 0; k < network.sources.length; k++) move(network.sources[k]!, outputs[FIRST_FLOW + k]!);
    const torque = torquePerAmp * starterAmps;
    if (radS > 0 || torque > breakaway) {
      const half = (pulses * radS * STEP_SECONDS) / 2;
      const middle = sine * smallCosine(half) + cosine * smallSine(half);
      const against = friction(radS) * (1 + ripple * middle);
      const faster = Math.max(0, radS + (((torque - against) / inertia) * STEP_SECONDS) / braking);
      const turn = (pulses * (radS + faster) * STEP_SECONDS) / 2;
      const before = sine;
      sine = sine * smallCosine(turn) + cosine * smallSine(turn);
      cosine = cosine * smallCosine(turn) - before * smallSine(turn);
      radS = faster;
    }
  }
  const needed = neededRpm(input.engine, tempC);
  const leadJoules =
    trace.sourceAmps.reduce((sum, amps) => sum + amps * amps, 0) * network.leadOhms * STEP_SECONDS;
  return {
    ...trace,
    stepSeconds: STEP_SECONDS,
    dipVolts: trace.postVolts.reduce((low, volts) => Math.min(low, volts), Infinity),
    neededRpm: needed,
    startsAtSeconds: startMoment(trace, needed, starter.controlMinVolts),
    leadRiseC: leads ? leadJoules / leadHeatCapacity(leads) : 0,
    endSoc: input.blocks.map((block, k) => {
      const source = network.sources[k]!;
      return 'bank' in block ? source.openVolts / block.bank.maxVolts : source.soc;
    }),
  };
}

/** Sine and cosine of the few hundredths of a radian that a step turns, true to a part in a thousand million. */
function smallSine(angle: number): number {
  const square = angle * angle;
  return angle * (1 - square / 6 + (square * square) / 120);
}
function smallCosine(angle: number): number {
  const square = angle * angle;
  return 1 - square / 2 + (square * square) / 24 - (square * square * square) / 720;
}

/** When speed and volts have held for long enough, seconds; null when they never do. */
function startMoment(trace: Lists, needed: number, controlMinVolts: number): number | null {
  let held = 0;
  for (let i = 0; i < trace.rpm.length; i++) {
    const isFast = trace.rpm[i]! >= needed && trace.starterVolts[i]! >= controlMinVolts;
    held = isFast ? held + STEP_SECONDS : 0;
    if (held >= HOLD_SECONDS) return i * STEP_SECONDS;
  }
  return null;
}

type Lists = Pick<
  CrankTrace,
  'seconds' | 'postVolts' | 'starterVolts' | 'starterAmps' | 'sourceVolts' | 'sourceAmps' | 'rpm'
>;

function emptyTrace(steps: number): Lists {
  const list = (): Float64Array => new Float64Array(steps);
  return {
    seconds: list(),
    postVolts: list(),
    starterVolts: list(),
    starterAmps: list(),
    sourceVolts: list(),
    sourceAmps: list(),
    rpm: list(),
  };
}

/** Places of the outputs in the vector of one moment; the amps of each source follow. */
const POST_VOLTS = 0;
const STARTER_VOLTS = 1;
const STARTER_AMPS = 2;
const SOURCE_VOLTS = 3;
const SOURCE_AMPS = 4;
const FIRST_FLOW = 5;

/**
 * One source of the network as it moves in time: volts behind the resistance that is there at once. Plain mutable fields, since a crank
 * moves them thousands of times.
 */
interface MovingSource {
  readonly name: string;
  /** Resistance that is there at once; the network is solved with it. */
  readonly ohms: number;
  /** Volts by charge, for a block whose charge counts; otherwise `openVolts` stands. */
  readonly openAt: ((soc: number) => number) | null;
  /** Whole resistance by charge, ohms; null where it stays. */
  readonly wholeAt: ((soc: number) => number) | null;
  /** Whole resistance at the start, ohms. */
  readonly firstOhms: number;
  /** Share of the whole that comes in with time. */
  readonly share: number;
  readonly coulombs: number;
  /** For a capacitor bank: its farads. */
  readonly farads: number;
  openVolts: number;
  wholeOhms: number;
  soc: number;
  polarised: number;
  /** Growth of the resistance as charge leaves, beyond what the network was solved with, ohms. */
  grown: number;
}

interface Network {
  readonly sources: readonly MovingSource[];
  /** One row an output, one column a source and then the starter: volts and amps for one volt of each. */
  readonly table: Float64Array;
  /** Volts of the sources and the starter in this moment. */
  readonly emfs: Float64Array;
  /** Volts and amps of this moment, by the places above. */
  readonly outputs: Float64Array;
  readonly alternator: { readonly volts: number; readonly maxAmps: number } | null;
  /** Answer of every output to one amp of the alternator. */
  readonly perAlternatorAmp: Float64Array;
  readonly leadOhms: number;
  /** How much less the starter draws for each volt of back-EMF. */
  readonly starterAmpsPerVolt: number;
}

function buildNetwork({ rescue, blocks }: CrankCase, starter: Starter): Network {
  const sources = [
    ...blocks.map((block, i) => {
      const name = `casualty.block${i}`;
      if ('rating' in block) return movingBlock(name, block.rating, block.state);
      return movingSupply(name, block.volts, block.bank.esrOhms, 0, block.bank.farads);
    }),
    ...movingRescueSource(rescue),
  ];
  const names = [...sources.map((m) => m.name), 'starter'];
  const alternator = rescue.sourceOn ? (rescue.source?.alternator ?? null) : null;
  const base = bareCircuit(rescue, sources, starter);
  const respond = (drive: string): Float64Array => responseTo(base, drive, names, blocks.length);
  const responses = names.map(respond);
  const size = FIRST_FLOW + names.length;
  const table = new Float64Array(size * names.length);
  responses.forEach((response, column) => {
    response.forEach((value, row) => (table[row * names.length + column] = value));
  });
  return {
    sources,
    table,
    emfs: new Float64Array(names.length),
    outputs: new Float64Array(size),
    alternator,
    perAlternatorAmp: alternator ? respond('alternator') : new Float64Array(size),
    leadOhms: leadOhmsOf(base),
    starterAmpsPerVolt: -responses[names.length - 1]![STARTER_AMPS]!,
  };
}

/** Volts and amps of this moment into `outputs`: the table times the volts of the sources. */
function solveMoment(network: Network, backEmfVolts: number): void {
  const { sources, table, outputs, emfs, alternator, perAlternatorAmp } = network;
  const columns = sources.length + 1;
  for (let k = 0; k < sources.length; k++) {
    const source = sources[k]!;
    // A source still remembers its own amps of the step before.
    emfs[k] = source.openVolts - source.polarised - source.grown * outputs[FIRST_FLOW + k]!;
  }
  emfs[columns - 1] = backEmfVolts;
  for (let row = 0, at = 0; row < outputs.length; row++) {
    let sum = 0;
    for (let column = 0; column < columns; column++, at++) sum += table[at]! * emfs[column]!;
    outputs[row] = sum;
  }
  if (!alternator) return;
  // Current it would take to hold its volts, between none and its limit: the network is linear, so one division settles it.
  const lift = perAlternatorAmp[SOURCE_VOLTS]! + ALTERNATOR_OHMS;
  const amps = Math.min(alternator.maxAmps, Math.max(0, (alternator.volts - outputs[SOURCE_VOLTS]!) / lift));
  for (let row = 0; row < outputs.length; row++) outputs[row]! += perAlternatorAmp[row]! * amps;
}

function movingBlock(name: string, rating: BlockRating, start: BlockState): MovingSource {
  const firstOhms = blockOhms(rating, start);
  const perTable = firstOhms / interpolate(RESISTANCE_BY_SOC, start.soc);
  const resistance = interpolator(RESISTANCE_BY_SOC);
  return {
    name,
    ohms: firstOhms * (1 - POLARISATION.share),
    openAt: interpolator(openVoltsByCharge(rating, start)),
    wholeAt: (soc) => perTable * resistance(soc),
    firstOhms,
    share: POLARISATION.share,
    coulombs: rating.capacityAh * 3600,
    farads: Infinity,
    openVolts: 0,
    wholeOhms: firstOhms,
    soc: start.soc,
    polarised: 0,
    grown: 0,
  };
}

/** The lending source, if its switch is on. */
function movingRescueSource({ source, sourceOn, leads }: Rescue): MovingSource[] {
  if (!source || !sourceOn || !leads) return [];
  const { openVolts, ohms, capacitor } = source;
  const share = source.polarises ? POLARISATION.share : 0;
  return [
    capacitor
      ? movingSupply('source', openVolts, capacitor.esrOhms, 0, capacitor.farads)
      : movingSupply('source', openVolts, ohms, share, Infinity),
  ];
}

/** A source whose charge does not count within a crank: steady, polarising, or a bank whose volts fall. */
function movingSupply(
  name: string,
  openVolts: number,
  ohms: number,
  share: number,
  farads: number,
): MovingSource {
  return {
    name,
    ohms: ohms * (1 - share),
    openAt: null,
    wholeAt: null,
    firstOhms: ohms,
    share,
    coulombs: Infinity,
    farads,
    openVolts,
    wholeOhms: ohms,
    soc: 0,
    polarised: 0,
    grown: 0,
  };
}

/** Charge moves by a hundred-thousandth of capacity in a step, so what depends on it is looked up anew only every so many. */
const LOOK_UP_EVERY = 10;

/** What a block's charge now makes of its volts and resistance. */
function lookUp(source: MovingSource): void {
  if (!source.openAt || !source.wholeAt) return;
  source.openVolts = source.openAt(source.soc);
  source.wholeOhms = source.wholeAt(source.soc);
  source.grown = (source.wholeOhms - source.firstOhms) * (1 - source.share);
}

/** One step of a source that gives `amps`. */
function move(source: MovingSource, amps: number): void {
  source.soc = Math.min(1, Math.max(0, source.soc - (amps * STEP_SECONDS) / source.coulombs));
  source.polarised +=
    ((amps * source.wholeOhms * source.share - source.polarised) * STEP_SECONDS) /
    (POLARISATION.seconds + STEP_SECONDS);
  source.openVolts -= (amps * STEP_SECONDS) / source.farads;
}

/** The network with every source silent but at its own resistance. */
function bareCircuit(rescue: Rescue, moving: readonly MovingSource[], starter: Starter): Circuit {
  const circuit = rescueCircuit({
    ...rescue,
    load: { kind: 'starter', backEmfVolts: 0, ohms: starter.ohms },
  });
  const ohmsOf = new Map(moving.map((m) => [m.name, m.ohms]));
  const elements = circuit.elements
    .filter((e) => e.kind !== 'regulated')
    .map((e) => (e.kind === 'source' ? { ...e, volts: 0, ohms: ohmsOf.get(e.name) ?? e.ohms } : e));
  return { ...circuit, elements };
}

function responseTo(base: Circuit, drive: string, names: readonly string[], blocks: number): Float64Array {
  const elements =
    drive === 'alternator'
      ? [
          ...base.elements,
          { kind: 'load', name: 'drive', plus: 'source.minus', minus: 'source.plus', amps: 1 } as const,
        ]
      : base.elements.map((e) => (e.kind === 'source' && e.name === drive ? { ...e, volts: 1 } : e));
  const solution = solveDc({ ...base, elements });
  const response = new Float64Array(FIRST_FLOW + names.length);
  response[POST_VOLTS] = voltsAcross(solution, `casualty.block${blocks - 1}+`, 'casualty.block0-');
  response[STARTER_VOLTS] = voltsAcross(solution, 'casualty.starter', 'casualty.body');
  response[STARTER_AMPS] = -solution.amps.get('starter')!;
  response[SOURCE_VOLTS] = voltsAcross(solution, 'source.plus', 'source.minus');
  response[SOURCE_AMPS] = solution.amps.get('lead.red') ?? 0;
  names.forEach((name, i) => (response[FIRST_FLOW + i] = solution.amps.get(name)!));
  return response;
}

function leadOhmsOf(circuit: Circuit): number {
  return circuit.elements
    .filter((e) => e.kind === 'resistor' && e.name.startsWith('lead.'))
    .reduce((sum, e) => sum + (e.kind === 'resistor' ? e.ohms : 0), 0);
}

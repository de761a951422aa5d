import {
  type BlockRating,
  type BlockState,
  blockOhms,
  openVoltsByCharge,
  POLARISATION,
  RESISTANCE_BY_SOC,
} from '../battery/block.js';
import type { Circuit } from '../circuit/circuit.js';
import { ALTERNATOR_OHMS, type Rescue, rescueCircuit } from '../circuit/rescue.js';
import { solveDc, voltsAcross } from '../circuit/solve-dc.js';
import type { Starter } from '../engine/engine.js';
import { interpolate, interpolator } from '../quantities/interpolate.js';
import type { CrankCase } from './crank-case.js';

/** Step of the simulation: a fortieth of the shortest time constant, that of starter and flywheel. */
export const STEP_SECONDS = 0.001;
/** Places of the outputs in the vector of one moment; the amps of each source follow. */
export const POST_VOLTS = 0;
export const STARTER_VOLTS = 1;
export const STARTER_AMPS = 2;
export const SOURCE_VOLTS = 3;
export const SOURCE_AMPS = 4;
export const FIRST_FLOW = 5;

/**
 * One source of the network as it moves in time: volts behind the resistance that is there at once. Plain mutable fields, since a crank
 * moves them thousands of times.
 */
export interface MovingSource {
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

/** The linear network of a crank, ready to be asked step by step. */
export interface Network {
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

/** The network of a crank, solved once for each source at one volt. */
export function buildNetwork({ rescue, blocks }: CrankCase, starter: Starter): Network {
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
export function solveMoment(network: Network, backEmfVolts: number): void {
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
export const LOOK_UP_EVERY = 10;

/** What a block's charge now makes of its volts and resistance. */
export function lookUp(source: MovingSource): void {
  if (!source.openAt || !source.wholeAt) return;
  source.openVolts = source.openAt(source.soc);
  source.wholeOhms = source.wholeAt(source.soc);
  source.grown = (source.wholeOhms - source.firstOhms) * (1 - source.share);
}

/** One step of a source that gives `amps`. */
export function move(source: MovingSource, amps: number): void {
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

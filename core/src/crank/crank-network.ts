import {
  batteryOhms,
  type BatteryRating,
  type BatteryState,
  openVoltsByCharge,
  POLARISATION,
  polarisedShare,
  resistanceByCharge,
} from '../battery/index.js';
import {
  type Circuit,
  type Element,
  prepareDc,
  type Rescue,
  rescueCircuit,
  type Solution,
  voltsAcross,
} from '../circuit/index.js';
import type { Starter } from '../engine/index.js';
import { interpolate, interpolator } from '../quantities/index.js';
import type { CrankCase } from './crank-case.js';

/** One source of the network: volts behind the resistance that is there at once. */
export interface MovingSource {
  readonly name: string;
  /** Resistance that is there at once; the network is solved with it. */
  readonly ohms: number;
  /** Volts by charge, for a battery whose charge counts; otherwise `openVolts` stands. */
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
  /** Volts at the start, where no charge decides them. */
  readonly openVolts: number;
  /** Charge at the start. */
  readonly soc: number;
}

/** The figures that are asked of the network at every moment. */
export const ASKED = ['postVolts', 'starterVolts', 'starterAmps', 'sourceVolts', 'sourceAmps'] as const;
type Asked = (typeof ASKED)[number];

/** Places of the drives in every row of a network: back-EMF of the starter, V; the alternator, A; then the sources, V. */
export const STARTER = 0;
export const ALTERNATOR = 1;
const FIRST_SOURCE = 2;
/** Two batteries of a string, and what helps them. */
export const MOST_SOURCES = 3;

/** The linear network of a crank, solved: every answer is a row of shares, one for one volt, or one amp, of each drive. Zero where none is. */
export interface Network extends Readonly<Record<Asked, Float64Array>> {
  readonly sources: readonly MovingSource[];
  /** Amps of each source. */
  readonly flows: readonly Float64Array[];
  readonly alternator: { readonly volts: number; readonly maxAmps: number } | null;
  readonly leadOhms: number;
}

/**
 * The network of a crank, solved once for each drive alone.
 *
 * @throws CircuitError as `solveDc` does; RangeError for more sources than a crank has
 */
export function buildNetwork({ rescue, batteries }: CrankCase, starter: Starter): Network {
  const sources = [
    ...batteries.map((battery, i) => {
      const name = `casualty.battery${i}`;
      if ('rating' in battery) return movingBattery(name, battery.rating, battery.state);
      return movingSupply(name, battery.volts, battery.bank.esrOhms, 0, battery.bank.farads);
    }),
    ...movingRescueSource(rescue),
  ];
  if (sources.length > MOST_SOURCES) {
    throw new RangeError(`a crank has ${MOST_SOURCES} sources at most`);
  }
  const alternator = rescue.sourceOn ? (rescue.source?.alternator ?? null) : null;
  const base = bareCircuit(rescue, sources, starter);
  const { solve } = prepareDc(base);
  const drives = ['starter', 'alternator', ...sources.map((m) => m.name)];
  const solutions = drives.map((drive) => solve(drivenBy(base, drive)));
  const row = (answer: (solution: Solution) => number): Float64Array => {
    const shares = new Float64Array(FIRST_SOURCE + MOST_SOURCES);
    solutions.forEach((solution, place) => (shares[place] = answer(solution)));
    return shares;
  };
  return {
    sources,
    postVolts: row((s) => voltsAcross(s, `casualty.battery${batteries.length - 1}+`, 'casualty.battery0-')),
    starterVolts: row((s) => voltsAcross(s, 'casualty.starter', 'casualty.body')),
    starterAmps: row((s) => -s.amps.get('starter')!),
    sourceVolts: row((s) => voltsAcross(s, 'source.plus', 'source.minus')),
    sourceAmps: row((s) => s.amps.get('lead.red') ?? 0),
    flows: sources.map(({ name }) => row((s) => s.amps.get(name)!)),
    alternator,
    leadOhms: leadOhmsOf(base),
  };
}

function movingBattery(name: string, rating: BatteryRating, start: BatteryState): MovingSource {
  const firstOhms = batteryOhms(rating, start);
  const byCharge = resistanceByCharge(rating.chemistry);
  const share = polarisedShare(rating.chemistry);
  const perTable = firstOhms / interpolate(byCharge, start.soc);
  const resistance = interpolator(byCharge);
  return {
    name,
    ohms: firstOhms * (1 - share),
    openAt: interpolator(openVoltsByCharge(rating, start)),
    wholeAt: (soc) => perTable * resistance(soc),
    firstOhms,
    share,
    coulombs: rating.capacityAh * 3600,
    farads: Infinity,
    openVolts: 0,
    soc: start.soc,
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
    soc: 0,
  };
}

/** The network with every source silent but at its own resistance; the alternator is a supply of no amps. */
function bareCircuit(rescue: Rescue, moving: readonly MovingSource[], starter: Starter): Circuit {
  const circuit = rescueCircuit({
    ...rescue,
    load: { kind: 'starter', backEmfVolts: 0, ohms: starter.ohms },
  });
  const ohmsOf = new Map(moving.map((m) => [m.name, m.ohms]));
  const elements = circuit.elements.map((e): Element => {
    if (e.kind === 'source') return { ...e, volts: 0, ohms: ohmsOf.get(e.name) ?? e.ohms };
    return e.kind === 'regulated' ? { kind: 'load', name: e.name, plus: e.minus, minus: e.plus, amps: 0 } : e;
  });
  return { ...circuit, elements };
}

/** Elements of the same network with one drive at one volt, or one amp of the alternator. */
function drivenBy({ elements }: Circuit, drive: string): Element[] {
  return elements.map((e) => {
    if (e.name !== drive) return e;
    return e.kind === 'source' ? { ...e, volts: 1 } : e.kind === 'load' ? { ...e, amps: 1 } : e;
  });
}

function leadOhmsOf(circuit: Circuit): number {
  return circuit.elements
    .filter((e) => e.kind === 'resistor' && e.name.startsWith('lead.'))
    .reduce((sum, e) => sum + (e.kind === 'resistor' ? e.ohms : 0), 0);
}

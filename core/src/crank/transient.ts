import {
  type BlockRating,
  type BlockState,
  blockOhms,
  POLARISATION,
  RESISTANCE_BY_SOC,
} from '../battery/block.js';
import { restVoltsByCharge } from '../battery/rest-volts.js';
import { interpolate } from '../quantities/interpolate.js';
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

/** A crank to be followed in time: the rescue, what is known of the casualty's blocks, and the engine. */
export interface CrankCase {
  readonly rescue: Rescue;
  readonly blocks: readonly { readonly rating: BlockRating; readonly state: BlockState }[];
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
  /** State of charge of each casualty block at the end. */
  readonly endSoc: readonly number[];
}

/** Step of the simulation: a fortieth of the shortest time constant, that of starter and flywheel. */
export const STEP_SECONDS = 0.001;
/** Speed and volts must hold this long for the engine to fire and run. */
const HOLD_SECONDS = 1;

/**
 * Follows a crank from the closing of the starter contact, in fixed steps. The network between sources and starter does not change
 * within a step, so it is solved once for each source at one volt; a step is then a few multiplications. Charge, polarisation and
 * back-EMF move between steps.
 */
export function simulateCrank(input: CrankCase): CrankTrace {
  const starter = input.starter ?? defaultStarter(input.engine);
  const model = buildModel(input, starter);
  const steps = Math.round(input.seconds / STEP_SECONDS);
  const trace = emptyTrace(steps);
  const { tempC } = input.rescue;
  const inertia = inertiaKgM2(input.engine);
  const ripple = compressionRipple(input.engine);
  const pulses = input.engine.cylinders / 2;
  const breakaway = breakawayNm(input.engine, tempC);
  const friction = frictionAt(input.engine, tempC);
  const torquePerAmp = starter.efficiency * starter.kVoltSeconds;
  // Back-EMF brakes the starter as it speeds up: taken at the middle of the step, which keeps the step long and exact.
  const braking =
    1 + (torquePerAmp * starter.kVoltSeconds * model.starterAmpsPerVolt * STEP_SECONDS) / (2 * inertia);
  const needed = neededRpm(input.engine, tempC);
  let radS = 0;
  let angle = 0;
  let held = 0;
  let startsAt: number | null = null;
  let leadJoules = 0;
  let dipVolts = Infinity;
  for (let i = 0; i < steps; i++) {
    const out = model.solve(starter.kVoltSeconds * radS);
    const starterAmps = out[STARTER_AMPS]!;
    trace.seconds[i] = i * STEP_SECONDS;
    trace.postVolts[i] = out[POST_VOLTS]!;
    trace.starterVolts[i] = out[STARTER_VOLTS]!;
    trace.starterAmps[i] = starterAmps;
    trace.sourceVolts[i] = out[SOURCE_VOLTS]!;
    trace.sourceAmps[i] = out[SOURCE_AMPS]!;
    trace.rpm[i] = rpmFromRadS(radS);
    dipVolts = Math.min(dipVolts, out[POST_VOLTS]!);
    const isFast = rpmFromRadS(radS) >= needed && out[STARTER_VOLTS]! >= starter.controlMinVolts;
    held = isFast ? held + STEP_SECONDS : 0;
    if (startsAt === null && held >= HOLD_SECONDS) startsAt = i * STEP_SECONDS;
    leadJoules += out[SOURCE_AMPS]! * out[SOURCE_AMPS]! * model.leadOhms * STEP_SECONDS;
    model.advance(STEP_SECONDS);
    const torque = torquePerAmp * starterAmps;
    if (radS > 0 || torque > breakaway) {
      const against = friction(radS) * (1 + ripple * Math.sin(pulses * (angle + (radS * STEP_SECONDS) / 2)));
      const faster = Math.max(0, radS + (((torque - against) / inertia) * STEP_SECONDS) / braking);
      angle += ((radS + faster) / 2) * STEP_SECONDS;
      radS = faster;
    }
  }
  const { leads } = input.rescue;
  return {
    ...trace,
    stepSeconds: STEP_SECONDS,
    dipVolts,
    neededRpm: needed,
    startsAtSeconds: startsAt,
    leadRiseC: leads ? leadJoules / leadHeatCapacity(leads) : 0,
    endSoc: model.socs(),
  };
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

/** One source of the network as it moves in time. */
interface MovingSource {
  readonly name: string;
  /** Resistance that is there at once; the network is solved with it. */
  readonly ohms: number;
  emf: (amps: number) => number;
  advance: (amps: number, dt: number) => void;
}

interface Model {
  /** Volts and amps of this moment, by the places above. The same vector is filled again at each call. */
  readonly solve: (backEmfVolts: number) => Float64Array;
  readonly advance: (dt: number) => void;
  readonly socs: () => readonly number[];
  readonly leadOhms: number;
  /** How much less the starter draws for each volt of back-EMF. */
  readonly starterAmpsPerVolt: number;
}

function buildModel({ rescue, blocks }: CrankCase, starter: Starter): Model {
  const cells = blocks.map((block, i) => movingBlock(`casualty.block${i}`, block.rating, block.state));
  const moving: MovingSource[] = [...cells.map((c) => c.source), ...movingRescueSource(rescue)];
  const names = [...moving.map((m) => m.name), 'starter'];
  const alternator = rescue.sourceOn ? rescue.source?.alternator : undefined;
  const base = bareCircuit(rescue, moving, starter);
  // Answer of the network to one volt of each source, or one amp of the alternator at its limit.
  const respond = (drive: string): Float64Array => responseTo(base, drive, names, blocks.length);
  const responses = names.map(respond);
  const ofStarter = responses[names.length - 1]!;
  const ofAlternator = alternator && respond('alternator');
  const size = FIRST_FLOW + names.length;
  const out = new Float64Array(size);
  const emfs = new Float64Array(names.length);
  // One row an output, one column a source: a step is this table times the volts of the sources.
  const table = new Float64Array(size * names.length);
  responses.forEach((response, column) => {
    response.forEach((value, row) => (table[row * names.length + column] = value));
  });
  return {
    leadOhms: leadOhmsOf(base),
    starterAmpsPerVolt: -ofStarter[STARTER_AMPS]!,
    solve: (backEmfVolts) => {
      // Each source still remembers its own amps of the step before when its volts are asked.
      for (let i = 0; i < moving.length; i++) emfs[i] = moving[i]!.emf(out[FIRST_FLOW + i]!);
      emfs[moving.length] = backEmfVolts;
      for (let row = 0, at = 0; row < size; row++) {
        let sum = 0;
        for (let column = 0; column < emfs.length; column++, at++) sum += table[at]! * emfs[column]!;
        out[row] = sum;
      }
      if (alternator && ofAlternator) {
        // Current it would take to hold its volts, between none and its limit: the network is linear, so one division settles it.
        const lift = ofAlternator[SOURCE_VOLTS]! + ALTERNATOR_OHMS;
        const amps = Math.min(
          alternator.maxAmps,
          Math.max(0, (alternator.volts - out[SOURCE_VOLTS]!) / lift),
        );
        for (let row = 0; row < size; row++) out[row]! += ofAlternator[row]! * amps;
      }
      return out;
    },
    advance: (dt) => {
      for (let i = 0; i < moving.length; i++) moving[i]!.advance(out[FIRST_FLOW + i]!, dt);
    },
    socs: () => cells.map((c) => c.soc()),
  };
}

function movingBlock(
  name: string,
  rating: BlockRating,
  start: BlockState,
): { source: MovingSource; soc: () => number } {
  const coulombs = rating.capacityAh * 3600;
  const first = blockOhms(rating, start);
  const perTable = first / interpolate(RESISTANCE_BY_SOC, start.soc);
  const openByCharge = restVoltsByCharge(rating.chemistry, start.tempC);
  let soc = start.soc;
  let polarised = 0;
  let grown = 0;
  return {
    soc: () => soc,
    source: {
      name,
      ohms: first * (1 - POLARISATION.share),
      emf: (amps) => (start.overDischargedVolts ?? interpolate(openByCharge, soc)) - polarised - grown * amps,
      advance: (amps, dt) => {
        const whole = perTable * interpolate(RESISTANCE_BY_SOC, soc);
        // Growth of the resistance as charge leaves, beyond what the network was solved with.
        grown = (whole - first) * (1 - POLARISATION.share);
        polarised += ((amps * whole * POLARISATION.share - polarised) * dt) / (POLARISATION.seconds + dt);
        soc = Math.min(1, Math.max(0, soc - (amps * dt) / coulombs));
      },
    },
  };
}

/** The lending source, if its switch is on. */
function movingRescueSource({ source, sourceOn, leads }: Rescue): MovingSource[] {
  if (!source || !sourceOn || !leads) return [];
  if (source.capacitor) {
    let volts = source.openVolts;
    const { farads, esrOhms } = source.capacitor;
    const advance = (amps: number, dt: number): void => void (volts -= (amps * dt) / farads);
    return [{ name: 'source', ohms: esrOhms, emf: () => volts, advance }];
  }
  const share = source.polarises ? POLARISATION.share : 0;
  let polarised = 0;
  return [
    {
      name: 'source',
      ohms: source.ohms * (1 - share),
      emf: () => source.openVolts - polarised,
      advance: (amps, dt) => {
        polarised += ((amps * source.ohms * share - polarised) * dt) / (POLARISATION.seconds + dt);
      },
    },
  ];
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

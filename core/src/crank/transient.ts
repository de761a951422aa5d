import {
  breakawayNm,
  compressionRipple,
  defaultStarter,
  frictionAt,
  inertiaKgM2,
  neededRpm,
  rpmFromRadS,
} from '../engine/engine.js';
import { leadHeatCapacity } from '../leads/lead-set.js';
import type { CrankCase } from './crank-case.js';
import {
  buildNetwork,
  FIRST_FLOW,
  lookUp,
  LOOK_UP_EVERY,
  move,
  POST_VOLTS,
  solveMoment,
  SOURCE_AMPS,
  SOURCE_VOLTS,
  STARTER_AMPS,
  STARTER_VOLTS,
  STEP_SECONDS,
} from './crank-network.js';

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
  // Taken out of their objects once: the loop below runs thousands of times.
  const { outputs, sources } = network;
  const { seconds, postVolts, starterVolts, starterAmps, sourceVolts, sourceAmps, rpm } = trace;
  let radS = 0;
  // Sine and cosine of the compression angle, turned a little each step: far cheaper than asking for the sine anew.
  let sine = 0;
  let cosine = 1;
  // Compressions so far: tells which cylinder is next, where they differ.
  let passed = 0;
  const { compression } = input;
  for (let i = 0; i < steps; i++) {
    if (i % LOOK_UP_EVERY === 0) for (const source of sources) lookUp(source);
    solveMoment(network, kVoltSeconds * radS);
    seconds[i] = i * STEP_SECONDS;
    postVolts[i] = outputs[POST_VOLTS]!;
    starterVolts[i] = outputs[STARTER_VOLTS]!;
    starterAmps[i] = outputs[STARTER_AMPS]!;
    sourceVolts[i] = outputs[SOURCE_VOLTS]!;
    sourceAmps[i] = outputs[SOURCE_AMPS]!;
    rpm[i] = rpmFromRadS(radS);
    for (let k = 0; k < sources.length; k++) move(sources[k]!, outputs[FIRST_FLOW + k]!);
    const torque = torquePerAmp * outputs[STARTER_AMPS]!;
    if (radS > 0 || torque > breakaway) {
      const half = (pulses * radS * STEP_SECONDS) / 2;
      const middle = sine * smallCosine(half) + cosine * smallSine(half);
      const swing = compression ? ripple * compression[Math.floor(passed) % compression.length]! : ripple;
      const against = friction(radS) * (1 + swing * middle);
      const faster = Math.max(0, radS + (((torque - against) / inertia) * STEP_SECONDS) / braking);
      const turn = (pulses * (radS + faster) * STEP_SECONDS) / 2;
      passed += turn / (2 * Math.PI);
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

/** All lists in one piece of memory, which is asked for once. */
function emptyTrace(steps: number): Lists {
  const room = new ArrayBuffer(7 * steps * Float64Array.BYTES_PER_ELEMENT);
  const list = (nth: number): Float64Array =>
    new Float64Array(room, nth * steps * Float64Array.BYTES_PER_ELEMENT, steps);
  return {
    seconds: list(0),
    postVolts: list(1),
    starterVolts: list(2),
    starterAmps: list(3),
    sourceVolts: list(4),
    sourceAmps: list(5),
    rpm: list(6),
  };
}

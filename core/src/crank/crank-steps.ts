import { parameter } from '../quantities/index.js';
import { POLARISATION } from '../battery/index.js';
import { ALTERNATOR_OHMS } from '../circuit/index.js';
import {
  breakawayNm,
  compressionRipple,
  type Engine,
  frictionAt,
  inertiaKgM2,
  rpmFromRadS,
  type Starter,
} from '../engine/index.js';
import { ALTERNATOR, ASKED, MOST_SOURCES, type Network, STARTER } from './crank-network.js';

/** Step of the simulation: a fortieth of the shortest time constant, that of starter and flywheel. */
export const STEP_SECONDS = parameter(0.001, {
  id: 'step',
  name: 'step of the simulation',
  low: 0.0005,
  high: 0.002,
  unit: 's',
  reason: 'A fortieth of the shortest time constant.',
});
/** A step moves charge by a hundred-thousandth of capacity. So values that depend on charge are read every few steps. */
const LOOK_UP_EVERY = 10;
/** First terms of the series of sine and cosine. */
const SINE_3 = 1 / 6;
const SINE_5 = 1 / 120;
const COSINE_4 = 1 / 24;
const COSINE_6 = 1 / 720;

/** The figures that are followed of a crank; one entry a step in every list. */
const FOLLOWED = ['seconds', ...ASKED, 'rpm'] as const;
export type CrankLists = Readonly<Record<(typeof FOLLOWED)[number], Float64Array>>;

/** The turning parts, and the drag on them. */
export interface Turning {
  readonly engine: Engine;
  readonly starter: Starter;
  readonly tempC: number;
  /** How well each cylinder compresses, in firing order; left out: all sound. */
  readonly compression: readonly number[] | undefined;
}

/** The state that a crank has come to. */
export interface FollowedCrank {
  readonly lists: CrankLists;
  /** Of each source, at the end: its charge, and its volts behind its resistance. */
  readonly endSocs: Float64Array;
  readonly endVolts: Float64Array;
}

/**
 * Follows a crank step by step from the closing of the starter contact. Every answer of the network is a few multiplications; charge,
 * polarisation and back-EMF move between steps. One function with everything in locals and typed arrays: it runs thousands of times a
 * crank. A property or an import read inside the loop costs a sixth of the whole.
 *
 * @param steps how many, of `STEP_SECONDS` each
 */
export function followCrank(network: Network, turning: Turning, steps: number): FollowedCrank {
  const { sources, flows, alternator, postVolts, starterVolts, starterAmps, sourceVolts, sourceAmps } =
    network;
  const { engine, starter, tempC, compression } = turning;
  const step = STEP_SECONDS;
  const lists = emptyLists(steps);

  const count = sources.length;
  const socs = Float64Array.from(sources, (s) => s.soc);
  const openVolts = Float64Array.from(sources, (s) => s.openVolts);
  const polarised = new Float64Array(count);
  // Growth of the resistance as charge leaves, beyond what the network was solved with; and the part of it that comes in with time.
  const grownOhms = new Float64Array(count);
  const laterOhms = Float64Array.from(sources, (s) => s.firstOhms * s.share);
  const perCoulomb = Float64Array.from(sources, (s) => step / s.coulombs);
  const perFarad = Float64Array.from(sources, (s) => step / s.farads);
  const catchUp = step / (POLARISATION.seconds + step);
  const amps = new Float64Array(count);
  const drives = new Float64Array(MOST_SOURCES);
  const maxAmps = alternator?.maxAmps ?? 0;
  const heldVolts = alternator?.volts ?? 0;
  const ampsPerVolt = alternator ? 1 / (sourceVolts[ALTERNATOR]! + ALTERNATOR_OHMS) : 0;

  const { kVoltSeconds } = starter;
  const torquePerAmp = starter.efficiency * kVoltSeconds;
  const inertia = inertiaKgM2(engine);
  // Back-EMF brakes the starter as it speeds up: taken at the middle of the step, which keeps the step long and exact.
  const braking = 1 - (torquePerAmp * kVoltSeconds * starterAmps[STARTER]! * step) / (2 * inertia);
  const perTorque = step / (inertia * braking);
  const breakaway = breakawayNm(engine, tempC);
  const friction = frictionAt(engine, tempC);
  const ripple = compressionRipple(engine);
  const halfTurn = (engine.cylinders / 2) * (step / 2);
  let radS = 0;
  // Sine and cosine of the compression angle, turned a little each step: far cheaper than asking for the sine anew.
  let sine = 0;
  let cosine = 1;
  // Angle so far: tells which cylinder is next, where they differ.
  let turned = 0;

  for (let i = 0; i < steps; i++) {
    if (i % LOOK_UP_EVERY === 0) {
      for (let k = 0; k < count; k++) {
        const { openAt, wholeAt, firstOhms, share } = sources[k]!;
        if (!openAt || !wholeAt) continue;
        const whole = wholeAt(socs[k]!);
        openVolts[k] = openAt(socs[k]!);
        grownOhms[k] = (whole - firstOhms) * (1 - share);
        laterOhms[k] = whole * share;
      }
    }
    // A source still remembers its own amps of the step before.
    for (let k = 0; k < count; k++) {
      drives[k] = openVolts[k]! - polarised[k]! - grownOhms[k]! * amps[k]!;
    }
    const backEmf = kVoltSeconds * radS;
    const first = drives[0]!;
    const second = drives[1]!;
    const third = drives[2]!;
    // Current it would take to hold its volts, between none and its limit: the network is linear, so one division settles it.
    const alone = answer(sourceVolts, backEmf, 0, first, second, third);
    const lent = Math.min(maxAmps, Math.max(0, (heldVolts - alone) * ampsPerVolt));
    const draw = answer(starterAmps, backEmf, lent, first, second, third);
    for (let k = 0; k < count; k++) {
      const given = answer(flows[k]!, backEmf, lent, first, second, third);
      amps[k] = given;
      socs[k] = Math.min(1, Math.max(0, socs[k]! - given * perCoulomb[k]!));
      polarised[k]! += (given * laterOhms[k]! - polarised[k]!) * catchUp;
      openVolts[k]! -= given * perFarad[k]!;
    }
    lists.seconds[i] = i * step;
    lists.postVolts[i] = answer(postVolts, backEmf, lent, first, second, third);
    lists.starterVolts[i] = answer(starterVolts, backEmf, lent, first, second, third);
    lists.starterAmps[i] = draw;
    lists.sourceVolts[i] = answer(sourceVolts, backEmf, lent, first, second, third);
    lists.sourceAmps[i] = answer(sourceAmps, backEmf, lent, first, second, third);
    lists.rpm[i] = rpmFromRadS(radS);

    const torque = torquePerAmp * draw;
    if (radS > 0 || torque > breakaway) {
      const half = halfTurn * radS;
      const halfSquare = half * half;
      const middle =
        sine * (1 - halfSquare * (0.5 - halfSquare * COSINE_4)) + cosine * half * (1 - halfSquare * SINE_3);
      const swing = compression
        ? ripple * compression[Math.floor(turned / (2 * Math.PI)) % compression.length]!
        : ripple;
      const faster = Math.max(0, radS + (torque - friction(radS) * (1 + swing * middle)) * perTorque);
      const turn = halfTurn * (radS + faster);
      const square = turn * turn;
      const turnSine = turn * (1 - square * (SINE_3 - square * SINE_5));
      const turnCosine = 1 - square * (0.5 - square * (COSINE_4 - square * COSINE_6));
      const before = sine;
      sine = sine * turnCosine + cosine * turnSine;
      cosine = cosine * turnCosine - before * turnSine;
      turned += turn;
      radS = faster;
    }
  }
  return { lists, endSocs: socs, endVolts: openVolts };
}

/** One answer of the network: its row of shares times the drives, in their places. Written out: as a loop it takes three times as long. */
function answer(
  row: Float64Array,
  backEmf: number,
  lent: number,
  first: number,
  second: number,
  third: number,
): number {
  return row[0]! * backEmf + row[1]! * lent + row[2]! * first + row[3]! * second + row[4]! * third;
}

/** All lists in one piece of memory, which is asked for once. */
function emptyLists(steps: number): CrankLists {
  const room = new ArrayBuffer(FOLLOWED.length * steps * Float64Array.BYTES_PER_ELEMENT);
  const lists = FOLLOWED.map((name, nth) => [
    name,
    new Float64Array(room, nth * steps * Float64Array.BYTES_PER_ELEMENT, steps),
  ]);
  return Object.fromEntries(lists) as CrankLists;
}

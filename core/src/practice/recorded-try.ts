import { batteryOhms, batteryOpenVolts, POLARISATION, polarisedShare } from '../battery/index.js';
import { type CrankCase, simulateCrank } from '../crank/index.js';
import { normal, type Random } from '../quantities/index.js';
import type { Recording } from '../trace/index.js';

/** A try as a meter at the posts would log it. */
export interface RecordedTry {
  readonly crank: CrankCase;
  readonly restSeconds: number;
  /** Drawn from key-on to contact by lamps and control units, A, for this long. */
  readonly keyOnAmps: number;
  readonly keyOnSeconds: number;
  readonly afterSeconds: number;
  /** Volts that the alternator brings in after the crank; null when it did not start. */
  readonly chargingVolts: number | null;
  readonly stepSeconds: number;
}

/** An instrument's own error on top of the truth. */
export interface Noise {
  readonly random: Random;
  /** Spread of a reading, and its least step, in the reading's unit. */
  readonly volts: number;
  readonly voltsStep: number;
}

/** The alternator takes this long to bring its volts in, seconds. */
export const CHARGING_SECONDS = 0.4;

/** The recording of a try: rest, key-on, crank, and what follows, from the electrical model. */
export function recordTry(recordedTry: RecordedTry, noise?: Noise): Recording {
  const { crank, restSeconds, keyOnAmps, keyOnSeconds, afterSeconds, chargingVolts, stepSeconds } =
    recordedTry;
  const trace = simulateCrank(crank);
  const own = crank.batteries.flatMap((b) => ('rating' in b ? [b] : []));
  const openVolts = own.reduce((sum, b) => sum + batteryOpenVolts(b.rating, b.state), 0);
  const ohms = own.reduce((sum, b) => sum + batteryOhms(b.rating, b.state), 0);
  const polarisingOhms = own.reduce(
    (sum, b) => sum + polarisedShare(b.rating.chemistry) * batteryOhms(b.rating, b.state),
    0,
  );
  const keyOnAt = restSeconds;
  const contactAt = restSeconds + keyOnSeconds;
  const overAt = contactAt + crank.seconds;
  const count = Math.round((overAt + afterSeconds) / stepSeconds);
  const seconds = new Float64Array(count);
  const volts = new Float64Array(count);
  const amps = new Float64Array(count);
  const last = trace.seconds.length - 1;
  const polarised = trace.starterAmps[last]! * polarisingOhms;
  for (let i = 0; i < count; i++) {
    const t = i * stepSeconds;
    seconds[i] = t;
    if (t >= contactAt && t < overAt) {
      const at = Math.min(last, Math.floor((t - contactAt) / trace.stepSeconds));
      volts[i] = trace.postVolts[at]!;
      amps[i] = trace.starterAmps[at]!;
    } else {
      const drawn = t < keyOnAt ? 0 : keyOnAmps;
      const after = t - overAt;
      const recovering = after >= 0 ? polarised * Math.exp(-after / POLARISATION.seconds) : 0;
      const resting = openVolts - drawn * ohms - recovering;
      const come = after >= 0 ? 1 - Math.exp(-after / CHARGING_SECONDS) : 0;
      volts[i] = chargingVolts === null ? resting : resting + (chargingVolts - resting) * come;
      amps[i] = drawn;
    }
    if (noise) {
      const read = normal(noise.random, volts[i]!, noise.volts);
      volts[i] = Math.round(read / noise.voltsStep) * noise.voltsStep;
    }
  }
  return { seconds, volts, amps };
}

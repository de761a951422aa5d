import { parameter } from '../quantities/index.js';
import type { BatteryRating, BatteryState } from '../battery/index.js';
import { modelBattery, type Rescue, rescueCircuit, solveDc, voltsAcross } from '../circuit/index.js';

/** The converter of an EV or hybrid, which feeds the low-voltage side once the contactors close. */
export interface Converter {
  readonly volts: number;
  readonly maxAmps: number;
  /** From the first press to contactors closed, if the traction battery has charge, seconds. */
  readonly closesAfterSeconds: number;
}
export const USUAL_CONVERTER: Converter = {
  volts: parameter(14.2, {
    id: 'converter.volts',
    name: 'converter of an EV or hybrid',
    low: 13.2,
    high: 14.8,
    unit: 'V',
    reason: 'Feeds back once the contactors close.',
  }),
  maxAmps: 120,
  closesAfterSeconds: parameter(3, {
    id: 'converter.seconds',
    name: 'press to contactors closed',
    low: 1,
    high: 8,
    unit: 's',
    reason: 'Self-test first.',
  }),
};

/** A wake-up to be followed in time. */
export interface WakeCase {
  /** Clamps on, source on. */
  readonly rescue: Rescue;
  readonly batteries: readonly { readonly rating: BatteryRating; readonly state: BatteryState }[];
  /** Current of the control units, A. */
  readonly amps: number;
  /** Under this the control units fall asleep again, V. */
  readonly minVolts: number;
  readonly maxVolts: number;
  /** Null when the traction battery is flat: the contactors never close. */
  readonly converter: Converter | null;
  readonly seconds: number;
}

export type WakeOutcome = 'takes-over' | 'stays-on-help' | 'falls-asleep' | 'over-voltage';

export interface WakeTrace {
  readonly seconds: Float64Array;
  readonly postVolts: Float64Array;
  readonly sourceAmps: Float64Array;
  readonly outcome: WakeOutcome;
  /** When the converter lifts the volts; null when it never does. */
  readonly takesOverAtSeconds: number | null;
  /** Charge the source gave, A s. */
  readonly sourceCoulombs: number;
}

const STEP_SECONDS = 0.05;

/**
 * Follows a wake-up: the units draw their amps. If the traction battery has charge, the converter takes over after a while and feeds back.
 * Without it the casualty lives on the source for as long as that lasts.
 *
 * @throws CircuitError for a rescue that cannot be solved
 */
export function simulateWake(input: WakeCase): WakeTrace {
  const { rescue, batteries, amps, converter } = input;
  const steps = Math.round(input.seconds / STEP_SECONDS);
  const seconds = new Float64Array(steps);
  const postVolts = new Float64Array(steps);
  const sourceAmps = new Float64Array(steps);
  const socs = batteries.map((b) => b.state.soc);
  let takesOverAtSeconds: number | null = null;
  let isAsleep = false;
  let sourceCoulombs = 0;
  for (let i = 0; i < steps; i++) {
    const now = i * STEP_SECONDS;
    const feeds = converter && !isAsleep && now >= converter.closesAfterSeconds;
    const solution = solveDc(
      rescueCircuit({
        ...rescue,
        casualty: batteries.map(({ rating, state }, k) => modelBattery(rating, { ...state, soc: socs[k]! })),
        load: { kind: 'wake', amps: isAsleep ? 0 : amps },
        ...(feeds && { casualtyAlternator: { volts: converter.volts, maxAmps: converter.maxAmps } }),
      }),
    );
    const volts = voltsAcross(solution, `casualty.battery${batteries.length - 1}+`, 'casualty.battery0-');
    const given = solution.amps.get('lead.red') ?? 0;
    seconds[i] = now;
    postVolts[i] = volts;
    sourceAmps[i] = given;
    sourceCoulombs += given * STEP_SECONDS;
    if (feeds) takesOverAtSeconds ??= now;
    else if (volts < input.minVolts) isAsleep = true;
    batteries.forEach(({ rating }, k) => {
      const out = solution.amps.get(`casualty.battery${k}`) ?? 0;
      socs[k] = Math.min(1, Math.max(0, socs[k]! - (out * STEP_SECONDS) / (rating.capacityAh * 3600)));
    });
  }
  const beforeHelp = takesOverAtSeconds === null ? steps : Math.round(takesOverAtSeconds / STEP_SECONDS);
  const isOver = postVolts.subarray(0, beforeHelp).some((v) => v > input.maxVolts);
  return {
    seconds,
    postVolts,
    sourceAmps,
    outcome: isOver
      ? 'over-voltage'
      : isAsleep
        ? 'falls-asleep'
        : takesOverAtSeconds === null
          ? 'stays-on-help'
          : 'takes-over',
    takesOverAtSeconds,
    sourceCoulombs,
  };
}

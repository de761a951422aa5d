import type { Recording } from './recording.js';
import { meanOf, medianOf, slopeOf } from './series.js';

/** The repairs to a recording before it was read. */
export const MENDED = ['probes-reversed', 'clamp-reversed', 'spikes'] as const;
export type Mended = (typeof MENDED)[number];

/** No battery at rest lies as far below zero by itself when its crank is logged: the probes are the wrong way round, V. */
const REVERSED_VOLTS = -3;
/** A clamp must have seen a current this large before its direction is known, A. */
const AMPS_LEAST = 20;
/** A battery does not let a point or two leap by more than this from agreeing neighbours, V and A. */
const SPIKE = { volts: 1.2, amps: 150 } as const;
/** Neighbours of a spike agree within this share of its leap. */
const AGREE_SHARE = 0.25;
/** Points of a spike. */
const SPIKE_POINTS = 2;

/** The recording with probes and clamp the right way round and lone spikes left out, and what was done. */
export function cleaned(recording: Recording): {
  readonly recording: Recording;
  readonly mended: readonly Mended[];
} {
  const mended: Mended[] = [];
  const whole = { from: 0, to: recording.volts.length };
  let { volts, amps } = recording;
  if (volts.length > 2 && medianOf(volts, whole) < REVERSED_VOLTS) {
    volts = volts.map((v) => -v);
    mended.push('probes-reversed');
  }
  if (amps && volts.length > 2) {
    const most = amps.reduce((high, a) => Math.max(high, Math.abs(a)), 0);
    // Volts fall as amps rise; where they rise with them the clamp looks the other way.
    if (most > AMPS_LEAST && slopeOf(amps, volts, whole) > 0 && meanOf(amps, whole) < 0) {
      amps = amps.map((a) => -a);
      mended.push('clamp-reversed');
    }
  }
  const calm = { volts: withoutSpikes(volts, SPIKE.volts), amps: amps && withoutSpikes(amps, SPIKE.amps) };
  if (calm.volts !== volts || calm.amps !== amps) mended.push('spikes');
  return { recording: { ...recording, ...calm }, mended };
}

/** The same list where nothing leaps; else a copy in which each leap lies on the line between its neighbours. */
function withoutSpikes(values: Float64Array, leap: number): Float64Array {
  let out = values;
  for (let i = 1; i < values.length - 1; i++) {
    const before = out[i - 1]!;
    for (let points = 1; points <= SPIKE_POINTS && i + points < values.length; points++) {
      const after = values[i + points]!;
      const off = Math.min(
        ...Array.from({ length: points }, (_, k) => Math.abs(values[i + k]! - (before + after) / 2)),
      );
      if (off <= leap || Math.abs(after - before) > AGREE_SHARE * off) continue;
      if (out === values) out = Float64Array.from(values);
      for (let k = 0; k < points; k++) out[i + k] = before + ((after - before) * (k + 1)) / (points + 1);
      break;
    }
  }
  return out;
}

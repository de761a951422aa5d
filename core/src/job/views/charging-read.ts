import { changes } from '../../diagnosis/index.js';
import type { Job, Reading } from '../job.js';
import { latestOwnReading } from './queries.js';

/** Returns when the charging was last mended; empty where nobody mended it. */
export const chargingMendedAt = ({ repairs }: Pick<Job, 'repairs'>): string =>
  repairs.filter((repair) => changes(repair, 'charging')).at(-1)?.at ?? '';

/** Returns the last charging volts that were read alone since the charging was mended, at idle and with loads on; null where not read. */
export function chargingReadings(
  job: Pick<Job, 'readings' | 'repairs'>,
): Readonly<Record<'idle' | 'loaded', Reading | null>> {
  const mendedAt = chargingMendedAt(job);
  const since = { readings: job.readings.filter(({ at }) => at > mendedAt) };
  return {
    idle: latestOwnReading(since, 'charging-idle'),
    loaded: latestOwnReading(since, 'charging-loaded'),
  };
}

/**
 * Returns the volts that the casualty's own alternator holds: the later of its charging readings, undefined where nobody read them. Use it
 * for the circuit of a running casualty.
 *
 * @example alternatorVoltsOf(job) // 11.9 after charging was read at 11.9 V
 */
export function alternatorVoltsOf(job: Pick<Job, 'readings' | 'repairs'>): number | undefined {
  const { idle, loaded } = chargingReadings(job);
  const last = loaded && loaded.at >= (idle?.at ?? '') ? loaded : idle;
  return last?.volts;
}

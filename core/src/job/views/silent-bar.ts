import { batteryBar, type BatteryBar } from '../../battery/index.js';
import { againstCrankLimit, type DiagnosisEvidence } from '../../diagnosis/index.js';
import type { Machine } from '../../machine/index.js';
import { silentVolts } from '../../verdict/index.js';
import type { Attempt, Job } from '../job.js';
import { coldestTempC, latestOwnReading, wasHelped, workingTempC } from './queries.js';

/** The part of a job that tells the posts' volts while a key was turned and nothing drew. */
export type SilentTurns = Pick<
  Job,
  'symptoms' | 'readings' | 'figures' | 'attempts' | 'scene' | 'call' | 'parked' | 'thawedAt' | 'replaced'
>;

/** Lowest volts of a crank as evidence: how far from the limit of that cold, and as they were read. */
export const crankEvidence = (volts: number, tempC: number, systemVolts: 12 | 24): DiagnosisEvidence => ({
  check: 'crank',
  found: againstCrankLimit(volts, tempC, systemVolts),
  postVolts: (volts * 12) / systemVolts,
});

/** Tries that read what the machine's own battery fell to. */
export const ownLowest = (attempts: readonly Attempt[]): Attempt[] =>
  attempts.filter(({ helped, rolled, lowestVolts }) => !helped && !rolled && lowestVolts !== null);

/** The readings of turns of the key in a job: nothing while there was none, so that a tap changes nothing. */
export function turnsOf({
  symptoms,
  readings,
  figures,
  attempts,
}: Pick<Job, 'symptoms' | 'readings' | 'figures' | 'attempts'>) {
  const tried = ownLowest(attempts);
  const recovery = figures.filter(({ check }) => check === 'recovery');
  const isRead = tried.length + recovery.length > 0 || readings.some(({ kind }) => kind === 'crank-minimum');
  return { symptoms: isRead ? symptoms : [], figures: recovery, attempts: tried };
}

/**
 * Returns the state that a silent turn of the key shows against any current, where the rest volts show none: they may have been read beside
 * the post, or typed wrongly. Null where nothing says so. Of a string it is not known which battery it is: then it holds for each.
 */
export function silentBar(job: SilentTurns, machine: Machine): BatteryBar | null {
  const { engine, systemVolts, batteries } = machine;
  if (!engine) return null;
  const tempC = workingTempC(job);
  // A battery that was fitted since was not there.
  const fitted =
    job.replaced
      .map(({ at }) => at)
      .sort()
      .at(-1) ?? '';
  const against = (volts: number, at: number): DiagnosisEvidence => crankEvidence(volts, at, systemVolts);
  const read = latestOwnReading({ readings: job.readings.filter((r) => r.at > fitted) }, 'crank-minimum');
  const recovery = job.figures
    .filter((f) => f.check === 'recovery' && f.at > fitted && !wasHelped(f.during))
    .at(-1);
  const evidence: DiagnosisEvidence[] = [
    ...job.symptoms.map((found) => ({ check: 'symptom', found }) as const),
    ...(read ? [against(read.volts, read.tempC)] : []),
    ...ownLowest(job.attempts)
      .filter(({ startedAt }) => startedAt > fitted)
      .map((attempt) => against(attempt.lowestVolts!, attempt.tempC ?? tempC)),
    ...(recovery ? [{ check: 'recovery', found: recovery.found } as const] : []),
  ];
  const { chemistry } = batteries[0]!.rating;
  return (
    silentVolts(evidence, tempC)
      .map((volts) => batteryBar(chemistry, volts, coldestTempC(job)))
      .find((bar) => bar !== null) ?? null
  );
}

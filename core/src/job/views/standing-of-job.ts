import { socFromRestVolts } from '../../battery/index.js';
import type { StandingVehicle, VehicleUse } from '../../belief/index.js';
import type { Symptom } from '../../diagnosis/index.js';
import type { Job } from '../job.js';
import { wasCharged, wasHelped } from './queries.js';

/** The things that a closed job tells of its vehicle in the weeks after. */
export type StandingOfJob = Pick<StandingVehicle, 'found' | 'use'> & {
  /** Charge that it was left with, share of full; null where nothing tells. */
  readonly leftSoc: number | null;
  /** Age of its batteries by the date mark, or by the job that fitted them, years; null where nobody read one. */
  readonly years: number | null;
};

/** The batteries that sat in it, from the chassis end. */
type Sat = Pick<StandingVehicle['machine'], 'batteries'>;

/** Charge after a charger has done its work, and of a battery that was just fitted. */
const CHARGED_SOC = 0.95;
const FITTED_SOC = 0.9;
/** Charge that the advised drive after a start puts back, share of full. */
const DRIVE_GAIN = 0.15;

/** Middle of the years that each answer to the date mark stands for. */
const YEARS_OF_MARK: Readonly<Record<string, number>> = { 'under-3': 1.5, '3-to-6': 4.5, 'over-6': 8 };
/** A symptom that tells whether its own battery turned it as it should; the others tell nothing of the crank. */
const TURNED_IT: Readonly<Partial<Record<Symptom, boolean>>> = {
  'slow-crank': false,
  'rapid-click': false,
  'no-doors': false,
  'brisk-no-fire': true,
  'warning-lamps': true,
};

const USES: readonly VehicleUse[] = ['regular', 'short-trips', 'stood-weeks'];

/**
 * Tells what a job leaves for the nights after it. Use it where a vehicle is watched that nobody looks at now.
 *
 * @param machine with the batteries that sat in it
 */
export function standingOfJob(job: Job, machine: Sat): StandingOfJob {
  const isFitted = job.replaced.length > 0;
  const soc = foundSoc(job, machine);
  const turned = job.symptoms.map((symptom) => TURNED_IT[symptom]).find((known) => known !== undefined);
  return {
    found:
      soc === null || turned === undefined || isFitted
        ? null
        : { soc, tempC: job.scene?.ambientC ?? job.call.ambientC, started: turned },
    use: USES.find((use) => use === job.findings['ask-use']) ?? null,
    leftSoc: leftSoc(job, soc),
    years: isFitted ? 0 : (YEARS_OF_MARK[job.findings['look-date'] ?? ''] ?? null),
  };
}

/** The charge of the weakest battery as it was first read, before anything charged it; null where nobody read it. */
function foundSoc({ readings }: Job, { batteries }: Sat): number | null {
  const socs = batteries.flatMap(({ rating }, i) => {
    const first = readings.find(
      ({ kind, battery, during }) => kind === 'rest' && battery === i && !wasHelped(during),
    );
    return first ? [socFromRestVolts(rating.chemistry, first.volts, first.tempC).soc] : [];
  });
  return socs.length > 0 ? Math.min(...socs) : null;
}

function leftSoc(job: Job, soc: number | null): number | null {
  if (job.replaced.length > 0) return FITTED_SOC;
  if (wasCharged(job) || job.followedUp.includes('charge')) return CHARGED_SOC;
  if (soc === null) return null;
  const isRunning = job.attempts.some(({ outcome }) => outcome === 'started');
  return isRunning ? Math.min(CHARGED_SOC, soc + DRIVE_GAIN) : soc;
}

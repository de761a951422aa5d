import type { DiagnosisEvidence } from '../diagnosis/belief.js';
import type { DiagnosisProfile } from '../diagnosis/causes.js';
import { type Found, type ProbeId, PROBE_IDS, type Tool } from '../diagnosis/probes.js';
import { crankLimitVolts } from '../diagnosis/reading.js';
import { type AttemptOutcome, type CheckId, checksFor, suspectOf } from '../diagnosis/vocabulary.js';
import type { Machine } from '../machine/machine.js';
import type { KitItem } from '../sources/kit.js';
import { standingJob } from './doubts.js';
import { type Job, latestReading, restVoltsByBlock, workingTempC } from './job.js';

/** The machine as the diagnosis needs it. */
export function profileOfJob(job: Pick<Job, 'scene' | 'call'>, machine: Machine): DiagnosisProfile {
  return {
    machineClass: machine.machineClass,
    systemVolts: machine.systemVolts,
    engine: machine.engine,
    rating: machine.blocks[0]!.rating,
    tempC: workingTempC(job),
  };
}

/** Lends power: help can be joined to see what it changes. */
const LENDERS: readonly KitItem['kind'][] = [
  'donor',
  'lithium-pack',
  'lead-pack',
  'capacitor-booster',
  'spare-blocks',
];

/** What the van has to check with. A charger counts where there is a socket. */
export function toolsOfKit(kit: readonly KitItem[], mainsNear = false): Tool[] {
  const instruments = kit.flatMap((item): Tool[] => (item.kind === 'instrument' ? [item.tool] : []));
  const hasCharger = mainsNear && kit.some((item) => item.kind === 'mains-charger');
  const lends = kit.some((item) => LENDERS.includes(item.kind));
  return [...instruments, ...(lends ? ['source' as const] : []), ...(hasCharger ? ['charger' as const] : [])];
}

/** Checks that open the main circuit when they are at fault, rather than merely hold the starter. */
const OPENERS: readonly CheckId[] = ['isolator', 'main-fuse', 'emergency-stop', 'both-blocks'];
const OUTCOMES: Record<AttemptOutcome, string> = {
  started: 'started',
  'brisk-no-fire': 'brisk-no-fire',
  slow: 'slow',
  clicks: 'clicks',
  nothing: 'nothing',
};

/** Everything a job has recorded that tells of its cause, each check once. */
export function evidenceOfJob(
  recorded: Job,
  machine: Machine,
  earlierFlatCalls: number,
): DiagnosisEvidence[] {
  const job = standingJob(recorded, machine);
  const found: Partial<Record<ProbeId, Found>> = {
    ...fromChecks(job, machine),
    ...fromReadings(job, machine),
    ...fromTries(job, machine),
    ...(earlierFlatCalls > 0 && { 'ask-flats': 'yes' }),
    // What was recorded for a check itself is the nearest word on it.
    ...job.findings,
  };
  const [symptom] = job.symptoms;
  if (symptom) found.symptom = symptom;
  return PROBE_IDS.flatMap((probe) => (found[probe] === undefined ? [] : [{ probe, found: found[probe] }]));
}

function fromChecks({ checks }: Job, machine: Machine): Partial<Record<ProbeId, Found>> {
  const found: Partial<Record<ProbeId, Found>> = {};
  if (checks.joints) found['look-joints'] = checks.joints === 'fault' ? 'deposits' : 'clean';
  if (checks.belt) found['look-belt'] = checks.belt === 'fault' ? 'bad' : 'sound';
  if (checks.immobiliser) found['immobiliser-lamp'] = checks.immobiliser === 'fault' ? 'lit' : 'out';
  const fuel = checks.fuel ?? checks['fuel-tap'];
  if (fuel && machine.engine) found['fuel-gauge'] = fuel === 'fault' ? 'empty' : 'has-fuel';
  if (checks['charge-port-free'])
    found['traction-gauge'] = checks['charge-port-free'] === 'fault' ? 'flat' : 'has-charge';
  const own = checksFor(machine);
  const openers = own.filter((c) => OPENERS.includes(c));
  const interlocks = own.filter(
    (c) => suspectOf(c) === 'interlock' && c !== 'immobiliser' && !OPENERS.includes(c),
  );
  const whole = (list: readonly CheckId[]): 'fault' | 'clear' | undefined => {
    if (list.some((c) => checks[c] === 'fault')) return 'fault';
    return list.length > 0 && list.every((c) => checks[c] === 'clear') ? 'clear' : undefined;
  };
  const opened = whole(openers);
  if (opened) found['isolator-fuse'] = opened;
  const held = machine.engine ? whole(interlocks) : undefined;
  if (held) found.interlocks = held;
  return found;
}

function fromReadings(job: Job, machine: Machine): Partial<Record<ProbeId, Found>> {
  const found: Partial<Record<ProbeId, Found>> = {};
  const rest = restVoltsByBlock(job, machine.blocks.length).filter((v) => v !== null);
  if (rest.length > 0) found.rest = Math.min(...rest);
  if (rest.length > 1) found['string-balance'] = Math.max(...rest) - Math.min(...rest);
  const crank = latestReading(job, 'crank-minimum');
  if (crank && machine.engine)
    found.crank = (crank.volts * 12) / machine.systemVolts - crankLimitVolts(crank.tempC, 12);
  const charging = latestReading(job, 'charging-idle');
  if (charging)
    found[machine.engine ? 'charging' : 'converter'] = (charging.volts * 12) / machine.systemVolts;
  return found;
}

function fromTries(job: Job, machine: Machine): Partial<Record<ProbeId, Found>> {
  const found: Partial<Record<ProbeId, Found>> = {};
  const { attempts } = job;
  const helped = attempts.filter((a) => a.helped && a.outcome).at(-1)?.outcome;
  if (helped) found['with-help'] = OUTCOMES[helped];
  const promised = job.plan?.chargeOnly ? null : job.plan?.postVolts;
  const measured = attempts.filter((a) => a.helped && a.lowestVolts !== null).at(-1)?.lowestVolts;
  if (promised != null && measured != null && machine.engine)
    found.promise = ((measured - promised) * 12) / machine.systemVolts;
  const unaided = attempts.filter((a) => !a.helped && a.outcome).at(-1)?.outcome;
  if (unaided && machine.engine) found['try-alone'] = OUTCOMES[unaided];
  const alone = attempts.filter((a) => !a.helped && a.lowestVolts !== null).at(-1);
  if (alone && machine.engine)
    found.crank = (alone.lowestVolts! * 12) / machine.systemVolts - crankLimitVolts(workingTempC(job), 12);
  return found;
}

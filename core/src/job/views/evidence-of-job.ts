import {
  changes,
  type CheckId,
  checkOf,
  type DiagnosisEvidence,
  type DiagnosisProfile,
  type Found,
  isAtFault,
  shownBy,
  type Tool,
  walkRound,
  WEIGHED_CHECK_IDS,
} from '../../diagnosis/index.js';
import type { Machine } from '../../machine/index.js';
import type { KitItem } from '../../sources/index.js';
import { withoutDoubts } from './doubts.js';
import type { Job } from '../job.js';
import { crankEvidence, ownLowest } from './silent-bar.js';
import {
  latestOwnReading,
  latestReading,
  restVoltsByBattery,
  wasHelped,
  machineAsFound,
  workingTempC,
} from './queries.js';

/** The machine as the diagnosis needs it. */
export function profileOfJob(job: Pick<Job, 'scene' | 'call' | 'modelId'>, entry: Machine): DiagnosisProfile {
  const machine = machineAsFound(job, entry);
  return {
    machineClass: machine.machineClass,
    systemVolts: machine.systemVolts,
    engine: machine.engine,
    rating: machine.batteries[0]!.rating,
    tempC: workingTempC(job),
  };
}

/** Lends power: help can be joined to see what it changes. */
const LENDERS: readonly KitItem['kind'][] = [
  'donor',
  'lithium-pack',
  'lead-pack',
  'capacitor-booster',
  'spare-batteries',
];

/** Returns the tools of the van. A charger counts where there is a socket. */
export function toolsOfKit(kit: readonly KitItem[], mainsNear = false): Tool[] {
  const instruments = kit.flatMap((item): Tool[] => (item.kind === 'instrument' ? [item.tool] : []));
  const hasCharger = mainsNear && kit.some((item) => item.kind === 'mains-charger');
  const lends = kit.some((item) => LENDERS.includes(item.kind));
  return [...instruments, ...(lends ? ['source' as const] : []), ...(hasCharger ? ['charger' as const] : [])];
}

/**
 * Everything a job has recorded that tells of its cause: each check once, and once more after a repair. Evidence before a repair tells of
 * the machine as it was.
 */
export function evidenceOfJob(
  recorded: Job,
  machine: Machine,
  earlierFlatCalls: number,
): DiagnosisEvidence[] {
  const job = withoutDoubts(recorded, machine);
  const evidence = spansOf(job).flatMap((span, repaired) =>
    inSpan(span, machine, repaired === 0 ? earlierFlatCalls : 0).map((piece) =>
      repaired === 0 ? piece : { ...piece, repaired },
    ),
  );
  // A finding that no repair changes is one thing read twice: the later reading stands for it.
  return evidence.filter(
    ({ check, battery }, i) =>
      job.repairs.some((repair) => changes(repair, check)) ||
      !evidence.slice(i + 1).some((later) => later.check === check && later.battery === battery),
  );
}

/** The findings between two repairs, with those that stood by then. */
interface Span extends Job {
  /** Checks that were recorded in it. */
  readonly fresh: readonly CheckId[];
}

/** The job before its first repair, between them, and after the last. */
function spansOf(job: Job): Span[] {
  const ends = [...job.repairs, { at: '\uffff', found: job.findings }];
  return ends.map(({ at, found }, i): Span => {
    const last = job.repairs[i - 1];
    const within = (when: string): boolean => when <= at && when > (last?.at ?? '');
    const again = last ? shownBy(last) : [];
    const stood = (check: CheckId): Found | undefined =>
      again.includes(check) ? undefined : last?.found[check];
    return {
      ...job,
      findings: found,
      fresh: (Object.keys(found) as CheckId[]).filter((check) => stood(check) !== found[check]),
      symptoms: last ? [] : job.symptoms,
      figures: job.figures.filter((f) => within(f.at)),
      readings: job.readings.filter((r) => within(r.at)),
      attempts: job.attempts.filter((a) => within(a.startedAt)),
    };
  });
}

function inSpan(job: Span, machine: Machine, earlierFlatCalls: number): DiagnosisEvidence[] {
  const tries = fromTries(job, machine);
  const found: Partial<Record<CheckId, Found>> = {
    ...fromParts(job, machine),
    ...fromReadings(job, machine),
    ...Object.fromEntries(tries.map((piece) => [piece.check, piece.found])),
    ...(earlierFlatCalls > 0 && { 'ask-flats': 'yes' }),
    // A finding recorded for a check itself is the nearest word on it.
    ...ownFindings(job),
  };
  const [symptom] = job.symptoms;
  if (symptom) found.symptom = symptom;
  // A part is weighed in its whole, and a stop is no evidence of a cause.
  return WEIGHED_CHECK_IDS.flatMap((check) => {
    const byBattery = machine.batteries.length > 1 ? batteryByBattery(check, job, machine) : [];
    if (byBattery.length > 0) return byBattery;
    if (found[check] === undefined) return [];
    const cranked = check === 'crank' ? crankOf(job, machine) : null;
    if (cranked?.found === found[check]) return [cranked];
    const tried = tries.find((piece) => piece.check === check && piece.found === found[check]);
    return [tried ?? { check, found: found[check], ...spreadOf(job.figures, check) }];
  });
}

/** How far apart the cells were read last, where they were read one by one. */
function spreadOf(figures: Job['figures'], check: CheckId): Pick<DiagnosisEvidence, 'cellSpread'> {
  const cells = figures.filter((f) => f.check === check).at(-1)?.figures ?? [];
  if (check !== 'specific-gravity' || cells.length < 2) return {};
  return { cellSpread: Math.max(...cells) - Math.min(...cells) };
}

/** Returns the readings of each battery of a string by itself, the latest of each. */
function batteryByBattery(check: CheckId, job: Job, machine: Machine): DiagnosisEvidence[] {
  const rest = restVoltsByBattery(job, machine.batteries.length);
  return machine.batteries.flatMap((_, battery) => {
    const figures = job.figures.filter(
      (f) => f.check === check && f.battery === battery && !wasHelped(f.during),
    );
    const found = check === 'rest' ? rest[battery] : figures.at(-1)?.found;
    return found == null ? [] : [{ check, found, battery, ...spreadOf(figures, check) }];
  });
}

/** Findings, less those of the battery that were taken with help joined: they are the helper's. An earlier one of its own stands again. */
function ownFindings({ findings, figures, fresh }: Span): Partial<Record<CheckId, Found>> {
  return Object.fromEntries(
    fresh.flatMap((check) => {
      const found = findings[check]!;
      const taken = checkOf(check).isOfItself ? figures.filter((f) => f.check === check) : [];
      if (taken.length === 0 || !wasHelped(taken.at(-1)!.during)) return [[check, found]];
      const alone = taken.filter((f) => !wasHelped(f.during)).at(-1);
      return alone ? [[check, alone.found]] : [];
    }),
  );
}

/** Wholes that were looked at part by part: at fault when one part is, clear when all the parts of this machine are. */
function fromParts({ findings, fresh }: Span, machine: Machine): Partial<Record<CheckId, Found>> {
  const found: Partial<Record<CheckId, Found>> = {};
  const parts = walkRound(machine).filter((id) => checkOf(id).partOf);
  for (const whole of new Set(parts.map((id) => checkOf(id).partOf!))) {
    if (!machine.engine && whole === 'interlocks') continue;
    const own = parts.filter((id) => checkOf(id).partOf === whole);
    if (!own.some((id) => fresh.includes(id))) continue;
    const { outcomes } = checkOf(whole);
    const isRead = (id: CheckId): boolean => findings[id] !== undefined;
    if (own.some((id) => isRead(id) && isAtFault(id, findings[id]!))) found[whole] = outcomes[0]!;
    else if (own.every(isRead)) found[whole] = outcomes.at(-1)!;
  }
  return found;
}

function fromReadings(job: Job, machine: Machine): Partial<Record<CheckId, Found>> {
  const found: Partial<Record<CheckId, Found>> = {};
  const rest = restVoltsByBattery(job, machine.batteries.length).filter((v) => v !== null);
  if (rest.length > 0) found.rest = Math.min(...rest);
  const crank = crankOf(job, machine);
  if (crank) found.crank = crank.found;
  // A converter takes over while help is still joined; an alternator beside a donor's tells nothing.
  const charging = machine.engine
    ? latestOwnReading(job, 'charging-idle')
    : latestReading(job, 'charging-idle');
  if (charging)
    found[machine.engine ? 'charging' : 'converter'] = (charging.volts * 12) / machine.systemVolts;
  const loaded = latestOwnReading(job, 'charging-loaded');
  if (loaded && machine.engine) found['charging-loaded'] = (loaded.volts * 12) / machine.systemVolts;
  return found;
}

/** Tries with help, and by itself: each the last word, with the times of all. */
function fromTries(job: Job, machine: Machine): DiagnosisEvidence[] {
  // Rolled, the starter took no part: it tells of neither.
  const attempts = job.attempts.filter((a) => !a.rolled);
  const ended = (isHelped: boolean, check: CheckId): DiagnosisEvidence[] => {
    const tries = attempts.filter((a) => a.helped === isHelped && a.outcome);
    const last = tries.at(-1)?.outcome;
    return last ? [{ check, found: last, tried: tries.map(({ startedAt }) => startedAt) }] : [];
  };
  const measured = attempts.filter((a) => a.helped && a.lowestVolts !== null).at(-1);
  // A promise of another plan is not held against it.
  const isAsPlanned = measured?.optionId === job.plan?.optionId && !job.plan?.chargeOnly;
  const promised = isAsPlanned ? job.plan?.postVolts : null;
  const promise: DiagnosisEvidence[] =
    promised != null && measured && machine.engine
      ? [
          {
            check: 'promise',
            found: ((measured.lowestVolts! - promised) * 12) / machine.systemVolts,
            tried: [measured.startedAt],
          },
        ]
      : [];
  return [...ended(true, 'with-help'), ...promise, ...(machine.engine ? ended(false, 'try-alone') : [])];
}

/** The lowest volts of a crank by itself: of the last try that was read, or else as they were measured; null where nobody read any. */
function crankOf(job: Job, { engine, systemVolts }: Machine): DiagnosisEvidence | null {
  if (!engine) return null;
  const alone = ownLowest(job.attempts).at(-1);
  if (alone)
    return {
      ...crankEvidence(alone.lowestVolts!, alone.tempC ?? workingTempC(job), systemVolts),
      tried: [alone.startedAt],
    };
  const read = latestOwnReading(job, 'crank-minimum');
  return read && crankEvidence(read.volts, read.tempC, systemVolts);
}

import type { Chemistry } from '../battery/chemistry.js';
import {
  type AttemptOutcome,
  type CheckId,
  type ReadingKind,
  type StopCondition,
  type Suspect,
  suspectOf,
  type Symptom,
} from '../diagnosis/vocabulary.js';
import { chargingMeaning, crankMeaning, restMeaning } from '../diagnosis/reading.js';
import { socFromRestVolts } from '../battery/rest-volts.js';
import type { HouseRules } from '../rules/house-rules.js';

export const VERDICTS = [
  'keep',
  'recheck',
  'replace-soon',
  'replace-now',
  'not-the-battery',
  'unsafe',
] as const;
export type VerdictKind = (typeof VERDICTS)[number];

export const CERTAINTIES = ['sure', 'fairly-sure', 'unsure'] as const;
export type Certainty = (typeof CERTAINTIES)[number];

export const EVIDENCE_CODES = [
  'stop-stands',
  'rest-charged',
  'rest-part',
  'rest-low',
  'rest-flat',
  'rest-dead-cell-or-deep',
  'rest-reversed',
  'rest-unread',
  'string-uneven',
  'crank-holds',
  'crank-early-warning',
  'crank-under-charged',
  'crank-under-discharged',
  'charging-right',
  'charging-absent',
  'charging-high',
  'check-fault',
  'brisk-no-fire',
  'started-with-help',
  'started-alone',
  'no-start-with-help',
  'silence-though-charged',
  'dies-again',
  'no-doors',
  'earlier-flat',
] as const;
export type EvidenceCode = (typeof EVIDENCE_CODES)[number];

/** A finding that evidence leans to: a verdict, or a suspect when it is not the battery. */
export type Finding = Exclude<VerdictKind, 'not-the-battery'> | Suspect;

/** One line of the ledger. Weight 1 hints, 3 tells, 6 settles. */
export interface Evidence {
  readonly code: EvidenceCode;
  readonly leansTo: Finding;
  readonly weight: number;
  /** The figure or name behind it, for the screen. */
  readonly value: number | null;
  readonly subject: string | null;
}

export const FOLLOW_UPS = ['recheck', 'replace', 'inspect', 'workshop', 'charge'] as const;

/** A date to keep, in days from the verdict. */
export interface FollowUp {
  readonly kind: (typeof FOLLOW_UPS)[number];
  readonly days: number;
}

export interface VerdictRecord {
  readonly verdict: VerdictKind;
  readonly suspect: Suspect | null;
  readonly certainty: Certainty;
  readonly evidenceFor: readonly Evidence[];
  readonly evidenceAgainst: readonly Evidence[];
  /** The one reading that would change it most; null when none would. */
  readonly decidingReading: ReadingKind | null;
  readonly followUps: readonly FollowUp[];
}

/** What the job has recorded, as the judge needs it. */
export interface Case {
  readonly chemistry: Chemistry;
  readonly systemVolts: 12 | 24;
  readonly wakes: boolean;
  readonly tempC: number;
  readonly stops: readonly StopCondition[];
  readonly faults: readonly CheckId[];
  readonly symptoms: readonly Symptom[];
  /** From the chassis side up; null where not read. */
  readonly restVolts: readonly (number | null)[];
  /** Lowest volts of the string while cranking, and whether help was joined. */
  readonly crankMinimum: { readonly volts: number; readonly helped: boolean } | null;
  readonly chargingIdleVolts: number | null;
  readonly chargingLoadedVolts: number | null;
  readonly attempts: readonly { readonly outcome: AttemptOutcome; readonly helped: boolean }[];
  /** Other flat calls of this machine within the repeat window. */
  readonly earlierFlatCalls: number;
}

/** Lead in weight of the first finding over the second. */
const SURE_LEAD = 4;
const FAIR_LEAD = 2;

/** The verdict over the recorded evidence: the finding with most weight behind it, and how far it leads. */
export function judge(facts: Case, rules: HouseRules): VerdictRecord {
  const ledger = evidenceOf(facts, rules);
  const totals = new Map<Finding, number>();
  for (const e of ledger) totals.set(e.leansTo, (totals.get(e.leansTo) ?? 0) + e.weight);
  const ranked = [...totals].sort((a, b) => b[1] - a[1]);
  const [finding, weight] = ranked[0] ?? (['recheck', 0] as const);
  const lead = weight - (ranked[1]?.[1] ?? 0);
  const isVerdict = (VERDICTS as readonly string[]).includes(finding);
  const verdict = isVerdict ? (finding as VerdictKind) : 'not-the-battery';
  return {
    verdict,
    suspect: isVerdict ? null : (finding as Suspect),
    certainty: lead >= SURE_LEAD ? 'sure' : lead >= FAIR_LEAD ? 'fairly-sure' : 'unsure',
    evidenceFor: ledger.filter((e) => e.leansTo === finding),
    evidenceAgainst: ledger.filter((e) => e.leansTo !== finding),
    decidingReading: decidingReading(facts),
    followUps: followUps(verdict, facts, rules),
  };
}

function evidenceOf(facts: Case, rules: HouseRules): Evidence[] {
  return [
    ...facts.stops.map((stop) => line('stop-stands', 'unsafe', 20, null, stop)),
    ...restEvidence(facts, rules),
    ...crankEvidence(facts, rules),
    ...chargingEvidence(facts, rules),
    ...facts.faults.flatMap((check) => {
      const suspect = suspectOf(check);
      return suspect ? [line('check-fault', suspect, 5, null, check)] : [];
    }),
    ...attemptEvidence(facts, rules),
  ];
}

function restEvidence(facts: Case, rules: HouseRules): Evidence[] {
  const read = facts.restVolts.filter((v): v is number => v !== null);
  if (read.length === 0) return [line('rest-unread', 'recheck', 1)];
  const lines = read.map((volts) => {
    const { code } = restMeaning(facts.chemistry, volts, facts.tempC, rules);
    switch (code) {
      case 'reversed':
      case 'maybe-reversed':
        return line('rest-reversed', 'replace-now', 6, volts);
      case 'frozen':
        return line('rest-flat', 'unsafe', 20, volts);
      case 'dead-cell-or-deep':
        // Discharged is not the same as bad: charge it first, but lean hard on the second look.
        return line('rest-dead-cell-or-deep', 'recheck', 4, volts);
      case 'flat':
        return line('rest-flat', 'recheck', 3, volts);
      case 'low':
        return line('rest-low', 'recheck', 3, volts);
      case 'part-charged':
        return line('rest-part', 'keep', 1, volts);
      case 'charged':
      case 'surface-charge':
        return line('rest-charged', 'keep', 2, volts);
    }
  });
  const spread = Math.max(...read) - Math.min(...read);
  if (read.length > 1 && spread > rules.stringImbalanceVolts)
    lines.push(line('string-uneven', 'recheck', 2, spread));
  return lines;
}

function crankEvidence(facts: Case, rules: HouseRules): Evidence[] {
  const crank = facts.crankMinimum;
  // With help joined the posts show the helper's volts, not the block's.
  if (!crank || crank.helped || facts.wakes) return [];
  const read = facts.restVolts.filter((v): v is number => v !== null);
  const soc = read.length
    ? Math.min(...read.map((v) => socFromRestVolts(facts.chemistry, v, facts.tempC).soc))
    : null;
  const meaning = crankMeaning(crank.volts, facts.tempC, facts.systemVolts, soc, rules);
  switch (meaning.code) {
    case 'holds':
      return [line('crank-holds', 'keep', 3, crank.volts)];
    case 'early-warning':
      return [line('crank-early-warning', 'replace-soon', 1, crank.volts)];
    case 'under-limit':
      return meaning.mayCondemn
        ? [line('crank-under-charged', 'replace-soon', 6, crank.volts)]
        : [line('crank-under-discharged', 'recheck', 1, crank.volts)];
    case 'collapses':
      return meaning.mayCondemn
        ? [line('crank-under-charged', 'replace-now', 7, crank.volts)]
        : [line('crank-under-discharged', 'recheck', 1, crank.volts)];
  }
}

function chargingEvidence(facts: Case, rules: HouseRules): Evidence[] {
  const read = [facts.chargingIdleVolts, facts.chargingLoadedVolts].filter((v): v is number => v !== null);
  return read.map((volts) => {
    const { code } = chargingMeaning(volts, facts.chemistry, facts.tempC, facts.systemVolts, rules);
    switch (code) {
      case 'charging':
      case 'high-but-normal':
        return line('charging-right', 'recheck', 1, volts);
      case 'not-charging':
        return line('charging-absent', 'charging', 4, volts);
      case 'above-band':
        return line('charging-high', 'charging', 3, volts);
      case 'over-voltage':
        return line('charging-high', 'charging', 6, volts);
    }
  });
}

function attemptEvidence(facts: Case, rules: HouseRules): Evidence[] {
  const lines: Evidence[] = [];
  const has = (outcome: AttemptOutcome, helped?: boolean): boolean =>
    facts.attempts.some((a) => a.outcome === outcome && (helped === undefined || a.helped === helped));
  const hasSymptom = (symptom: Symptom): boolean => facts.symptoms.includes(symptom);
  if (has('brisk-no-fire') || (hasSymptom('brisk-no-fire') && !has('started'))) {
    lines.push(line('brisk-no-fire', 'fuel-or-engine', 5));
  }
  if (has('started', true)) lines.push(line('started-with-help', 'recheck', 2));
  if (has('started', false)) lines.push(line('started-alone', 'keep', 2));
  const failedWithHelp = facts.attempts.some(
    (a) => a.helped && ['nothing', 'clicks', 'slow'].includes(a.outcome),
  );
  if (failedWithHelp && !has('started')) {
    lines.push(line('no-start-with-help', has('nothing', true) ? 'joint' : 'starter', 4));
  }
  const charged = facts.restVolts.some(
    (v) => v !== null && socFromRestVolts(facts.chemistry, v, facts.tempC).soc >= rules.judgeMinSoc,
  );
  if (hasSymptom('silence') && charged) lines.push(line('silence-though-charged', 'joint', 3));
  if (hasSymptom('dies-again')) lines.push(line('dies-again', 'charging', 2));
  // A low-voltage block that has died once in service is near its end.
  if (facts.wakes && hasSymptom('no-doors')) lines.push(line('no-doors', 'replace-soon', 3));
  if (facts.earlierFlatCalls > 0) {
    lines.push(line('earlier-flat', 'replace-soon', 4 * facts.earlierFlatCalls, facts.earlierFlatCalls));
  }
  return lines;
}

function line(
  code: EvidenceCode,
  leansTo: Finding,
  weight: number,
  value: number | null = null,
  subject: string | null = null,
): Evidence {
  return { code, leansTo, weight, value, subject };
}

function decidingReading(facts: Case): ReadingKind | null {
  if (facts.restVolts.some((v) => v === null)) return 'rest';
  if (facts.attempts.some((a) => a.outcome === 'started')) {
    if (facts.chargingIdleVolts === null) return 'charging-idle';
    if (facts.chargingLoadedVolts === null) return 'charging-loaded';
  }
  return !facts.wakes && (facts.crankMinimum === null || facts.crankMinimum.helped) ? 'crank-minimum' : null;
}

function followUps(verdict: VerdictKind, facts: Case, rules: HouseRules): FollowUp[] {
  switch (verdict) {
    case 'keep':
      return [{ kind: 'inspect', days: rules.inspectDays }];
    case 'recheck':
      return [
        { kind: 'charge', days: 0 },
        { kind: 'recheck', days: rules.recheckDays },
      ];
    case 'replace-soon':
      return [{ kind: 'replace', days: rules.replaceSoonDays }];
    case 'replace-now':
      return [{ kind: 'replace', days: 0 }];
    case 'not-the-battery':
      return facts.restVolts.some((v) => v !== null)
        ? [
            { kind: 'workshop', days: 0 },
            { kind: 'recheck', days: rules.recheckDays },
          ]
        : [{ kind: 'workshop', days: 0 }];
    case 'unsafe':
      return [{ kind: 'workshop', days: 0 }];
  }
}

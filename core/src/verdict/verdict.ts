import type {
  BatteryCondition,
  Cause,
  CheckId,
  DiagnosisEvidence,
  Repair,
  Suspect,
} from '../diagnosis/index.js';

export const VERDICTS = [
  'keep',
  'charge-first',
  'replace-soon',
  'replace-now',
  'not-the-battery',
  'repaired',
  'not-known',
  'unsafe',
] as const;
export type VerdictKind = (typeof VERDICTS)[number];

export const CERTAINTIES = ['sure', 'fairly-sure', 'unsure'] as const;
export type Certainty = (typeof CERTAINTIES)[number];

/** Why the verdict is what it is, beside the shares of the causes. */
export const GROUNDS = [
  'stop-stands',
  'frozen-likely',
  'frozen-by-volts',
  'reversed-by-volts',
  'proved-spent',
  'proved-worn',
  'likely-but-unproved',
  'discharged-not-bad',
  'cells-apart',
  'flat-again',
  'died-in-service',
  'sound-and-charged',
  'fault-elsewhere',
  'mended-here',
  'load-it-now',
  'undecided',
  'no-evidence',
] as const;
export type Ground = (typeof GROUNDS)[number];

export const FOLLOW_UPS = [
  'recheck',
  'replace',
  'inspect',
  'workshop',
  'charge',
  'charge-monthly',
  'maintainer',
] as const;

/** A date to keep, in days from the verdict. */
export interface FollowUp {
  readonly kind: (typeof FOLLOW_UPS)[number];
  readonly days: number;
}

/** One line of the ledger. */
export interface LedgerLine extends Omit<DiagnosisEvidence, 'tried'> {
  /** How far it moved the odds of what the verdict rests on: doublings for, halvings against as negative. */
  readonly bits: number;
}

/** The one check that is likeliest to change the verdict, and how likely. */
export interface DecidingCheck {
  readonly check: CheckId;
  /** At this battery of a string, where others were read by themselves. */
  readonly battery?: number;
  readonly chance: number;
}

export interface VerdictRecord {
  readonly verdict: VerdictKind;
  /** The part to blame; beside a verdict on the battery, what must be mended as well. */
  readonly suspect: Suspect | null;
  readonly certainty: Certainty;
  /** Share that the causes behind the verdict hold together. Left out in older logs, like the three below. */
  readonly share?: number;
  readonly ground?: Ground;
  /** The likeliest causes. */
  readonly causes?: readonly { readonly cause: Cause; readonly share: number }[];
  readonly ledger?: readonly LedgerLine[];
  /** Null when no check would change it. */
  readonly deciding?: DecidingCheck | null;
  readonly followUps: readonly FollowUp[];
  /** Of a string, battery by battery from the chassis side; left out where there is one, and in older logs. */
  readonly batteries?: readonly BatteryFinding[];
  /** Repairs on the spot of parts that were likely at fault, whatever else the verdict asks for; left out where there were none. */
  readonly repaired?: readonly Repair[];
}

/** How one battery of a string stands by everything that was found, and what tells it from sound. */
export interface BatteryFinding {
  readonly condition: BatteryCondition;
  /** Of the likeliest condition. */
  readonly share: number;
  readonly ledger: readonly LedgerLine[];
}

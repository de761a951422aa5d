import type { Story } from './stories.js';

export const HAZARDS = [
  'spark-in-gas',
  'machine-not-secured',
  'hard-spark',
  'spike',
  'dead-short',
  'reversed',
  'over-voltage',
  'over-voltage-source',
  'unequal-sources',
  'over-charges-battery',
  'live-free-clamp',
  'two-live-free-clamps',
  'armed-too-early',
  'plugged-too-early',
  'source-still-on',
  'will-short',
  'will-reverse',
  'will-over-voltage',
  'crank-on-charger',
  'crank-with-free-clamp',
  'over-current',
  'leads-too-hot',
  'ev-donor-running',
  'ev-as-donor',
  'clamps-touch',
  'tool-short',
  'positive-first',
  'loosened-while-joined',
  'lithium-from-outside',
  'closed-in-charging',
  'load-dump',
  'source-charged',
  'battery-over-voltage',
  'string-uneven',
  'bank-over-voltage',
  'two-regulators',
  'battery-reversed',
  'battery-frozen',
  'on-pipe',
  'on-moving-part',
  'on-thin-sheet',
  'on-bare-post',
  'past-the-sensor',
  'wrong-system',
  'closes-nothing',
  'laid-on-metal',
  'vehicles-touch',
  'may-move',
  'engine-runs',
  'revs-raised',
  'still-fed',
  'positive-earth',
  'link-short',
  'not-all-off',
  'guard-not-seen',
  'cells-not-ready',
  'alternator-at-limit',
  'source-tripped',
] as const;
export type HazardCode = (typeof HAZARDS)[number];
/** A note is shown; a watch asks for care; nothing severe is ever part of an order. */
export const SEVERITIES = ['note', 'watch', 'severe'] as const;
export type Severity = (typeof SEVERITIES)[number];

/** A hazard of an action, with the figures that make it so. */
export interface Hazard {
  readonly code: HazardCode;
  readonly severity: Severity;
  readonly amps: number | null;
  readonly volts: number | null;
  /** The story behind the figures where it is not the reading but the worst that it may mean. */
  readonly story?: Story;
  /** The machine's plus is on its body: what is usually plus is minus here. */
  readonly isMirrored?: true;
}

/** A hazard with its figures. */
export const newHazard = (
  code: HazardCode,
  severity: Severity,
  amps: number | null = null,
  volts: number | null = null,
): Hazard => ({ code, severity, amps, volts });

/**
 * How bad, as a number that grows.
 *
 * @example severityRank({ severity: 'severe' }) // => 2
 */
export const severityRank = ({ severity }: Hazard): number => SEVERITIES.indexOf(severity);

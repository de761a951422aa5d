import { socFromCells, socFromRestVolts } from '@voltrek/core/battery';
import { fixed } from '@words/numbers';
import { daysToFlat } from '@voltrek/core/charging';
import {
  chargingMeaning,
  type ChargingMeaningCode,
  crankMeaning,
  type CrankMeaningCode,
  type Found,
  type MeasureKind,
  outcomeOf,
  type ReadingKind,
  restMeaning,
  type RestMeaningCode,
  type Tone,
} from '@voltrek/core/diagnosis';
import { type RuleKey, RULES } from '@voltrek/core/rules';
import { RULE_REASONS } from '@words/rule-words';
import { percent, percentBand } from '@words/figures';
import { OUTCOME_MEANINGS } from '@words/measure-words';
import { chargingWords, crankWords, restWords } from '@words/reading-words';
import type { Work } from '../../../shared/job/job-selectors';
import { MEANING as T } from '@words/screens/job-stages-measure';

export interface Meaning {
  readonly tone: Tone;
  readonly text: string;
  /** The rule that decided it; left out where none did. */
  readonly rule?: RuleKey;
}

/** The rule that decides what rest volts mean, by what they mean; the curve of the chemistry decides the others. */
const REST_RULES: Partial<Record<RestMeaningCode, RuleKey>> = {
  'dead-cell-or-deep': 'deadCellVolts',
  'maybe-reversed': 'reversedVolts',
  'bank-spent': 'capacitorMinVolts',
};
const CRANK_RULES: Record<CrankMeaningCode, RuleKey> = {
  holds: 'crankMinimum',
  'under-limit': 'crankMinimum',
  'early-warning': 'crankMinimumStrictVolts',
  collapses: 'crankMinimumBadVolts',
};
const CHARGING_RULES: Partial<Record<ChargingMeaningCode, RuleKey>> = {
  charging: 'chargingMinVolts',
  weak: 'chargingMinVolts',
  'high-but-normal': 'chargingNoteVolts',
  'over-voltage': 'chargingStopVolts',
};
const decidedBy = (rule: RuleKey | undefined): Pick<Meaning, 'rule'> => (rule ? { rule } : {});

/** Returns the meaning of a reading of volts for this machine. */
export function readingMeaning(
  work: Work,
  kind: ReadingKind,
  value: number,
  battery: number,
  tempC: number = work.situation.tempC,
): Meaning {
  const { machine, situation, rules } = work;
  const { chemistry } = (machine.batteries[battery] ?? machine.batteries[0]!).rating;
  switch (kind) {
    case 'rest': {
      const meaning = restMeaning(chemistry, value, tempC, rules, Math.min(tempC, situation.coldestC));
      const isByFullVolts = meaning.code === 'charged' || meaning.code === 'part-charged';
      const rule = isByFullVolts && chemistry === 'flooded' ? 'fullVolts' : REST_RULES[meaning.code];
      return { tone: meaning.tone, text: restWords(meaning), ...decidedBy(rule) };
    }
    case 'crank-minimum': {
      const rest = situation.restVolts.filter((v) => v !== null);
      const soc = rest.length ? socFromRestVolts(chemistry, Math.min(...rest), tempC).soc : null;
      const meaning = crankMeaning(value, tempC, machine.systemVolts, soc, rules);
      return { tone: meaning.tone, text: crankWords(meaning), rule: CRANK_RULES[meaning.code] };
    }
    case 'charging-idle':
    case 'charging-loaded': {
      const meaning = chargingMeaning(value, chemistry, tempC, machine.systemVolts, rules);
      const text = chargingWords(meaning, machine.machineClass === 'motorcycle');
      return { tone: meaning.tone, text, ...decidedBy(CHARGING_RULES[meaning.code]) };
    }
  }
}

const BAD_OUTCOMES: readonly string[] = [
  'bad',
  'very-bad',
  'sags-far',
  'no-volts',
  'spent',
  'one-cell-low',
  'full-at-once',
  'fails',
  'much',
  'stays-down',
  'collapses',
];
const WATCH_OUTCOMES: readonly string[] = [
  'worth-cleaning',
  'low',
  'worn',
  'near',
  'high',
  'slow',
  'sags',
  'even-low',
  'tired',
];

/** How an outcome of a check should be felt. */
export function toneOf(outcome: string): Tone {
  if (BAD_OUTCOMES.includes(outcome)) return 'bad';
  return WATCH_OUTCOMES.includes(outcome) ? 'watch' : 'good';
}

/** Returns the meaning of any other figure. */
export function figureMeaning(
  { machine, situation }: Work,
  { check }: MeasureKind,
  found: Found,
  figures: readonly number[],
): Meaning {
  const outcome = outcomeOf(check, found);
  const { rating } = machine.batteries[0]!;
  const { tempC } = situation;
  const more =
    check === 'conductance'
      ? `, ${percent(found as number)}`
      : check === 'drain' && typeof found === 'number' && found > 0
        ? T.daysToFlat({ days: fixed(daysToFlat(rating, 1, found)) })
        : check === 'specific-gravity'
          ? gravityBand(figures, tempC)
          : '';
  const text = `${OUTCOME_MEANINGS[check]?.[outcome] ?? outcome}${more}`;
  return { tone: toneOf(outcome), text, ...(check === 'drain' && { rule: 'parasiticMaxAmps' }) };
}

function gravityBand(figures: readonly number[], tempC: number): string {
  const { low, high, spread, badCell } = socFromCells(figures, tempC);
  const which = badCell === null ? '' : T.cell({ badCell: badCell + 1 });
  return T.chargeApart({ which, high: percentBand(low, high), spread: fixed(spread, 3) });
}

/** Why the limit is where it is; null where no rule decided what was read. */
export function limitReason({ rule: key }: Pick<Meaning, 'rule'>): string | null {
  if (!key) return null;
  return `${RULES[key].limit ? T.houseRule : T.limit}: ${RULE_REASONS[key]}.`;
}

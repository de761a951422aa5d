import { coldestOf, socFromCells, socFromRestVolts } from '@voltrek/core/battery';
import { daysToFlat } from '@voltrek/core/charging';
import {
  chargingMeaning,
  crankMeaning,
  type Found,
  type MeasureKind,
  outcomeOf,
  type ReadingKind,
  restMeaning,
  type Tone,
} from '@voltrek/core/diagnosis';
import { restVoltsByBattery, workingTempC } from '@voltrek/core/job';
import { type RuleKey, RULES } from '@voltrek/core/rules';
import { ruleReason } from '@words/rule-words';
import { percent, percentBand } from '@words/figures';
import { OUTCOME_MEANINGS } from '@words/measure-words';
import { chargingWords, crankWords, restWords } from '@words/reading-words';
import type { Work } from '../../../shared/job/job-selectors';
import { MEANING as T } from '@words/screens/job-stages-measure';

export interface Meaning {
  readonly tone: Tone;
  readonly text: string;
}

/** What a reading of volts says of this machine. */
export function readingMeaning(
  work: Work,
  kind: ReadingKind,
  value: number,
  battery: number,
  tempC: number = workingTempC(work.job),
): Meaning {
  const { machine, job, rules } = work;
  const { chemistry } = (machine.batteries[battery] ?? machine.batteries[0]!).rating;
  switch (kind) {
    case 'rest': {
      const meaning = restMeaning(chemistry, value, tempC, rules, coldestOf(tempC, job.scene?.coldestC));
      return { tone: meaning.tone, text: restWords(meaning) };
    }
    case 'crank-minimum': {
      const rest = restVoltsByBattery(job, machine.batteries.length).filter((v) => v !== null);
      const soc = rest.length ? socFromRestVolts(chemistry, Math.min(...rest), tempC).soc : null;
      const meaning = crankMeaning(value, tempC, machine.systemVolts, soc, rules);
      return { tone: meaning.tone, text: crankWords(meaning) };
    }
    case 'charging-idle':
    case 'charging-loaded': {
      const meaning = chargingMeaning(value, chemistry, tempC, machine.systemVolts, rules);
      return { tone: meaning.tone, text: chargingWords(meaning, machine.machineClass === 'motorcycle') };
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

/** What a figure that is no such reading says. */
export function figureMeaning(
  { job, machine }: Work,
  { check }: MeasureKind,
  found: Found,
  figures: readonly number[],
): Meaning {
  const outcome = outcomeOf(check, found);
  const { rating } = machine.batteries[0]!;
  const tempC = workingTempC(job);
  const more =
    check === 'conductance'
      ? `, ${percent(found as number)}`
      : check === 'drain' && typeof found === 'number' && found > 0
        ? T.flatInDaysFromFull(daysToFlat(rating, 1, found).toFixed(0))
        : check === 'specific-gravity'
          ? gravityBand(figures, tempC)
          : '';
  return { tone: toneOf(outcome), text: `${OUTCOME_MEANINGS[check]?.[outcome] ?? outcome}${more}` };
}

function gravityBand(figures: readonly number[], tempC: number): string {
  const { low, high, spread, badCell } = socFromCells(figures, tempC);
  const which = badCell === null ? '' : T.cell(badCell + 1);
  return T.chargeApart(which, percentBand(low, high), spread.toFixed(3));
}

/** The rule that sets the limit of a reading, with its reason. */
const LIMIT_RULES: Partial<Record<string, RuleKey>> = {
  rest: 'fullVolts',
  'crank-minimum': 'crankMinimum',
  'charging-idle': 'chargingMinVolts',
  'charging-loaded': 'chargingMinVolts',
  'load-test': 'judgeMinSoc',
  drain: 'parasiticMaxAmps',
};

/** Why the limit is where it is; null where no rule sets it. */
export function limitReason(kindId: string): string | null {
  const key = LIMIT_RULES[kindId];
  if (!key) return null;
  return `${RULES[key].limit ? T.houseRule : T.limit}: ${ruleReason(key)}.`;
}

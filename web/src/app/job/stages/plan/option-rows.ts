import { rpmText } from '@words/figures';
import type { Odds } from '@voltrek/core/belief';
import type { RankedOption } from '@voltrek/core/plan';
import type { KitItem } from '@voltrek/core/sources';
import { inHundred, volts } from '@words/figures';
import { OUTLOOK_WORDS, unfitWords } from '@words/words';
import { optionName } from '@words/option-name';

/** One option as the list shows it. */
export interface OptionRow {
  readonly ranked: RankedOption;
  readonly name: string;
  readonly outlook: string;
  readonly tone: string;
  /** Length of the bar and the place of the needed mark, per cent of its track. */
  readonly bar: number;
  readonly mark: number;
  /** Odds once they are drawn, else the speed or volts. */
  readonly figure: string;
}

/** A bar's full track stands for this many times the needed speed (or the least wake volts). */
const TRACK_RATIO = 3;
const WAKE_TRACK_RATIO = 1.4;

/** By odds once all are drawn, so that nothing moves under a finger before; what must charge for long comes last. */
export function byOdds(
  fit: readonly OptionRow[],
  odds: Readonly<Record<string, Odds>>,
): readonly OptionRow[] {
  const points = (row: OptionRow): number => Math.round((odds[row.ranked.option.id]?.start ?? 0) * 100);
  const areAllDrawn = fit.every((r) => odds[r.ranked.option.id]);
  return areAllDrawn
    ? [...fit].sort(
        (a, b) =>
          Number(a.ranked.option.chargeOnly) - Number(b.ranked.option.chargeOnly) || points(b) - points(a),
      )
    : fit;
}

/**
 * An option as the list shows it.
 *
 * @param isStopAhead its hook-up meets a severe hazard
 */
export function rowOf(
  ranked: RankedOption,
  kit: readonly KitItem[],
  odds: Odds | undefined,
  isStopAhead = false,
): OptionRow {
  const { crank, wake, outlook, unfit } = ranked;
  const track = wake ? WAKE_TRACK_RATIO : TRACK_RATIO;
  const ratio = crank && !crank.turns ? 0 : ranked.score;
  const speed = crank ? rpmText(crank.rpm) : wake ? volts(wake.postVolts) : '';
  return {
    ranked,
    name: optionName(ranked, kit),
    outlook: unfit ? unfitWords(unfit) : outlook ? OUTLOOK_WORDS[isStopAhead ? 'stop-ahead' : outlook] : '',
    tone: isStopAhead
      ? 'bad'
      : outlook === 'cranks' || outlook === 'wakes'
        ? 'good'
        : outlook === 'marginal'
          ? 'watch'
          : 'bad',
    bar: Math.min(100, (ratio / track) * 100),
    mark: 100 / track,
    figure: odds ? inHundred(odds.start) : speed,
  };
}

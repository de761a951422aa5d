import { type CheckId, checkOf, type MeasureKind, measuresFor } from '@voltrek/core/diagnosis';
import { foldJob, type JobEvent } from '@voltrek/core/job';
import { DEFAULT_RULES } from '@voltrek/core/rules';
import { CAR, detailOf, event, opened } from '../../../../testing/fixtures';
import type { Work } from '../../../shared/job/job-selectors';
import { OUTCOME_MEANINGS } from '@words/measure-words';
import { figureMeaning, limitReason, readingMeaning } from './meaning';

const rest = (volts: number): JobEvent =>
  event('reading.taken', { kind: 'rest', volts, battery: 0, tempC: 20, source: 'typed' });
function workOf(...events: JobEvent[]): Work {
  const all = [opened(), ...events];
  return { ...detailOf(all), job: foldJob(all)! } as unknown as Work;
}
const kind = (id: string): MeasureKind =>
  measuresFor(CAR.batteries[0]!.rating, true).find((k) => k.id === id)!;

describe('readingMeaning', () => {
  it('reads rest volts by the curve of the chemistry', () => {
    expect(readingMeaning(workOf(), 'rest', 12.7, 0, 20)).toEqual(jasmine.objectContaining({ tone: 'good' }));
    expect(readingMeaning(workOf(), 'rest', 11.7, 0, 20).text).toContain('Charge before judging');
    expect(readingMeaning(workOf(), 'rest', 9, 0, 20).text).toContain('Dead cell');
    expect(readingMeaning(workOf(), 'rest', -11.9, 0, 20).text).toContain('Reads backwards');
  });

  it('calls a flat battery in the cold frozen', () => {
    expect(readingMeaning(workOf(), 'rest', 11.5, 0, -20).text).toContain('Treat as frozen');
  });

  it('does not condemn a battery on a crank that it was not charged for', () => {
    const text = 'Not charged enough to condemn it';
    expect(readingMeaning(workOf(rest(11.9)), 'crank-minimum', 8.6, 0, 20).text).toContain(text);
    expect(readingMeaning(workOf(rest(12.7)), 'crank-minimum', 8.6, 0, 20).text).not.toContain(text);
  });

  it('judges charging by the band of the house', () => {
    const tone = (volts: number): string => readingMeaning(workOf(), 'charging-idle', volts, 0, 20).tone;
    expect(tone(14.2)).toBe('good');
    expect(tone(DEFAULT_RULES.chargingMinVolts - 0.5)).not.toBe('good');
    expect(tone(15.8)).toBe('stop');
  });
});

describe('figureMeaning', () => {
  it('says the tested share of the rating', () => {
    expect(figureMeaning(workOf(), kind('conductance'), 0.93, [0.93]).text).toContain('93 %');
    expect(figureMeaning(workOf(), kind('conductance'), 0.5, [0.5]).tone).toBe('bad');
    expect(figureMeaning(workOf(), kind('conductance'), 0.7, [0.7]).tone).toBe('watch');
  });

  it('turns a draw into days to flat', () => {
    // Half of 60 Ah at 0.25 A: 120 h, five days.
    expect(figureMeaning(workOf(), kind('drain'), 0.25, [250]).text).toContain('flat in 5 days from full');
  });

  it('names the bad cell of a battery by its gravity', () => {
    const cells = [1.26, 1.255, 1.26, 1.18, 1.26, 1.255];
    expect(figureMeaning(workOf(), kind('specific-gravity'), 'one-cell-low', cells).text).toContain('cell 4');
  });

  it('has words for every outcome that a figure can fall on', () => {
    for (const check of Object.keys(OUTCOME_MEANINGS) as CheckId[])
      expect(Object.keys(OUTCOME_MEANINGS[check]!).sort())
        .withContext(check)
        .toEqual([...checkOf(check).outcomes].sort());
  });

  it('is never felt better as more is lost over a joint, or at key-on', () => {
    const rank = ['good', 'watch', 'bad', 'stop'];
    for (const check of ['joint-plus', 'joint-minus', 'key-on'] as const) {
      const tones = [0.05, 0.3, 0.6, 1, 1.6, 2.5, 4, 9].map((lost) =>
        rank.indexOf(figureMeaning(workOf(), kind(check), lost, [lost]).tone),
      );
      expect(tones)
        .withContext(check)
        .toEqual([...tones].sort());
      expect(tones.at(-1)).withContext(check).toBe(rank.indexOf('bad'));
    }
  });
});

describe('limitReason', () => {
  it('gives the rule behind a limit, and nothing where none sets it', () => {
    expect(limitReason('rest')).toMatch(/^(House rule|Limit): .+\.$/);
    expect(limitReason('nothing-such')).toBeNull();
  });
});

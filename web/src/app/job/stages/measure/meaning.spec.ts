import { type CheckId, checkOf, type MeasureKind, measuresFor } from '@voltrek/core/diagnosis';
import type { JobEvent } from '@voltrek/core/job';
import { DEFAULT_RULES } from '@voltrek/core/rules';
import { CAR, event, opened, workOf } from '../../../../testing/fixtures';
import type { Work } from '../../../shared/job/job-selectors';
import { OUTCOME_MEANINGS } from '@words/measure-words';
import { figureMeaning, limitReason, readingMeaning } from './meaning';

const rest = (volts: number): JobEvent =>
  event('reading.taken', { kind: 'rest', volts, battery: 0, tempC: 20, source: 'typed' });
const workWith = (...events: JobEvent[]): Work => workOf([opened(), ...events]);
const kind = (id: string): MeasureKind =>
  measuresFor(CAR.batteries[0]!.rating, true).find((k) => k.id === id)!;

describe('readingMeaning', () => {
  it('reads rest volts by the curve of the chemistry', () => {
    expect(readingMeaning(workWith(), 'rest', 12.7, 0, 20)).toEqual(
      jasmine.objectContaining({ tone: 'good' }),
    );
    expect(readingMeaning(workWith(), 'rest', 11.7, 0, 20).text).toContain('Charge before judging');
    const warm = workWith(
      event('scene.recorded', {
        ...{ ambientC: 20, place: 'yard', sloping: false, dark: false, enclosed: false, mainsNear: false },
      }),
    );
    expect(readingMeaning(warm, 'rest', 9, 0, 20).text).toContain('Dead cell');
    expect(readingMeaning(workWith(), 'rest', -11.9, 0, 20).text).toContain('Reads backwards');
  });

  it('calls a flat battery in the cold frozen', () => {
    expect(readingMeaning(workWith(), 'rest', 11.5, 0, -20).text).toContain('Treat as frozen');
  });

  it('does not condemn a battery on a crank that it was not charged for', () => {
    const text = 'Not charged enough to condemn it';
    expect(readingMeaning(workWith(rest(11.9)), 'crank-minimum', 8.6, 0, 20).text).toContain(text);
    expect(readingMeaning(workWith(rest(12.7)), 'crank-minimum', 8.6, 0, 20).text).not.toContain(text);
  });

  it('judges charging by the band of the house', () => {
    const tone = (volts: number): string => readingMeaning(workWith(), 'charging-idle', volts, 0, 20).tone;
    expect(tone(14.2)).toBe('good');
    expect(tone(DEFAULT_RULES.chargingMinVolts - 0.5)).not.toBe('good');
    expect(tone(15.8)).toBe('stop');
  });
});

describe('figureMeaning', () => {
  it('says the tested share of the rating', () => {
    expect(figureMeaning(workWith(), kind('conductance'), 0.93, [0.93]).text).toContain('93 %');
    expect(figureMeaning(workWith(), kind('conductance'), 0.5, [0.5]).tone).toBe('bad');
    expect(figureMeaning(workWith(), kind('conductance'), 0.7, [0.7]).tone).toBe('watch');
  });

  it('turns a draw into days to flat', () => {
    // Half of 60 Ah at 0.25 A: 120 h, five days.
    expect(figureMeaning(workWith(), kind('drain'), 0.25, [250]).text).toContain('flat in 5 days from full');
  });

  it('names the bad cell of a battery by its gravity', () => {
    const cells = [1.26, 1.255, 1.26, 1.18, 1.26, 1.255];
    expect(figureMeaning(workWith(), kind('specific-gravity'), 'one-cell-low', cells).text).toContain(
      'cell 4',
    );
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
        rank.indexOf(figureMeaning(workWith(), kind(check), lost, [lost]).tone),
      );
      expect(tones)
        .withContext(check)
        .toEqual([...tones].sort());
      expect(tones.at(-1)).withContext(check).toBe(rank.indexOf('bad'));
    }
  });
});

describe('limitReason', () => {
  it('gives the rule that decided, and nothing where the curve of the battery did', () => {
    const reasonOf = (volts: number) => limitReason(readingMeaning(workWith(), 'rest', volts, 0, 20));
    expect(reasonOf(12.7)).toMatch(/^(House rule|Limit): .+\.$/);
    // Flat by its curve: what counts as charged has nothing to do with it.
    expect(reasonOf(11.5)).toBeNull();
  });
});

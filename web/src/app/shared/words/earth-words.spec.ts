import { FITTING_STEPS } from '@voltrek/core/hookup';
import { CAR } from '../../../testing/fixtures';
import { confirmWords, earthedWords, fittingWords, reasonWords, repairStepWords } from './earth-words';
import { CONFIRM_WORDS, REASON_WORDS } from './words';

describe('words of steps', () => {
  const turned = { ...CAR, earth: 'positive' } as const;

  it('are the usual ones where minus is on the body', () => {
    expect(reasonWords({ reason: 'red-closes' })).toBe(REASON_WORDS['red-closes']);
    expect(confirmWords('negative-off', CAR)).toEqual(CONFIRM_WORDS['negative-off']);
    expect(fittingWords('negative-off', CAR).act).toBe('Take the negative clamp off first');
    expect(earthedWords('last black clamp', CAR)).toBe('last black clamp');
  });

  it('are turned round where plus is', () => {
    expect(reasonWords({ reason: 'red-closes', isMirrored: true })).toBe(
      'Black to black: the free end was guarded until now.',
    );
    expect(confirmWords('negative-off', turned).title).toBe('Take the positive clamp off the battery');
    expect(confirmWords('all-off', turned)).toEqual(CONFIRM_WORDS['all-off']);
    expect(fittingWords('positive-off', turned)).toEqual({
      act: 'Take the positive clamp off first',
      why: 'A spanner here meets only its own metal.',
    });
    expect(fittingWords('negative-on', turned).act).toBe('Put the negative clamp on first');
    expect(repairStepWords('plus-on', turned).act).toBe('Put the positive clamp back last');
    expect(repairStepWords('bright-metal', turned)).toEqual(repairStepWords('bright-metal', CAR));
  });

  it('never speak of a post that the step does not touch', () => {
    for (const step of FITTING_STEPS) {
      const other = step.startsWith('negative') ? 'positive clamp' : 'negative clamp';
      if (/^(negative|positive)/.test(step))
        expect(fittingWords(step, turned).act).withContext(step).not.toContain(other);
    }
  });
});

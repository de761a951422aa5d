import {
  ANSWERS,
  CALENDAR_WORDS,
  FOLLOW_UP_WORDS as FOLLOW_UPS,
  hazardLine as lineOnTheWire,
  HAZARD_WORDS,
  REFUSAL_WORDS as REFUSALS,
  WRITTEN_FAULT_WORDS as WRITTEN,
} from '@voltrek/contracts/words';
import type { Hazard, HazardCode } from '@voltrek/core/hookup';
import german from '../../../messages/de/terms.json';
import { answerText } from './answer-words';
import { FOLLOW_UP_WORDS } from './follow-up-words';
import { hazardLine } from './hazard-words';
import { REFUSAL_WORDS } from './refusal-words';
import { WRITTEN_FAULT_WORDS } from './written-case-words';

/** The wire and the screen speak one language. */
describe('words that contracts have as well', () => {
  it('say each hazard alike, with its figures, on any machine', () => {
    const codes = Object.keys(HAZARD_WORDS) as HazardCode[];
    expect(codes.length).toBeGreaterThan(50);
    for (const code of codes)
      for (const mirrored of [{}, { isMirrored: true }] as const) {
        const hazard: Hazard = { code, severity: 'severe', amps: 417.6, volts: 12.34, ...mirrored };
        expect(hazardLine(hazard)).withContext(code).toBe(lineOnTheWire(hazard));
      }
  });

  it('say each refusal, follow-up and fault of a case alike', () => {
    expect({ ...REFUSAL_WORDS }).toEqual({ ...REFUSALS });
    expect({ ...FOLLOW_UP_WORDS }).toEqual({ ...FOLLOW_UPS });
    expect({ ...WRITTEN_FAULT_WORDS }).toEqual({ ...WRITTEN });
  });

  it('say each follow-up alike in German, on the screen and in the calendar', () => {
    expect(german.followUp).toEqual({ ...CALENDAR_WORDS.de.kinds });
  });

  it('say each answer of the server alike, with its parameters', () => {
    for (const [code, words] of Object.entries(ANSWERS)) {
      const params: unknown[] =
        code === 'thereIsNo'
          ? ['van', 'x']
          : code === 'notInTheNetworks'
            ? [['a', 'b']]
            : code === 'methodNotHere'
              ? ['PUT', ['GET']]
              : ['1', '2'];
      const detail = typeof words === 'string' ? words : (words as (...all: unknown[]) => string)(...params);
      const problem = {
        type: '',
        title: '',
        status: 409,
        code,
        params: typeof words === 'string' ? [] : params,
      };
      expect(answerText(problem)).withContext(code).toBe(detail);
    }
  });
});

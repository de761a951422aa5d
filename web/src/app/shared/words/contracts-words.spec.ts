import {
  ANSWERS,
  CALENDAR_WORDS,
  FOLLOW_UP_WORDS as FOLLOW_UPS,
  hazardLine as lineOnTheWire,
  HAZARD_WORDS,
  REFUSAL_WORDS as REFUSALS,
  type FaultCode,
  FAULTS,
  LISTS,
  VALUE_KINDS,
} from '@voltrek/contracts/words';
import { faultAt } from '@voltrek/contracts';
import type { Hazard, HazardCode } from '@voltrek/core/hookup';
import german from '../../../messages/de/terms.json';
import { answerText } from './answer-words';
import { faultLine, faultText } from './fault-words';
import { FOLLOW_UP_WORDS } from './follow-up-words';
import { hazardLine } from './hazard-words';
import { REFUSAL_WORDS } from './refusal-words';

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

  it('say each refusal and follow-up alike', () => {
    expect({ ...REFUSAL_WORDS }).toEqual({ ...REFUSALS });
    expect({ ...FOLLOW_UP_WORDS }).toEqual({ ...FOLLOW_UPS });
  });

  it('say each fault of a field, a row or a file alike, with its parameters', () => {
    const codes = Object.keys(FAULTS) as FaultCode[];
    expect(codes.length).toBeGreaterThan(80);
    for (const code of codes)
      for (const kind of Object.keys(VALUE_KINDS))
        for (const list of Object.keys(LISTS)) {
          const places = [...FAULTS[code].matchAll(/\$\{(\w+)\}/g)].map(([, name]) => name!);
          const params = { ...Object.fromEntries(places.map((name, i) => [name, `x${i}`])), kind, list };
          const fault = faultAt('engine.fuel', code, params);
          expect(faultText(fault)).withContext(code).toBe(fault.message);
          expect(fault.message)
            .withContext(code)
            .not.toMatch(/[{}$]|undefined/);
        }
  });

  it('have German for each fault, with all its places', () => {
    const ofGerman: Readonly<Record<string, string>> = german.fault;
    for (const [code, english] of Object.entries(FAULTS)) {
      const places = (text: string): string[] => text.match(/\{\w+\}/g)?.sort() ?? [];
      expect(ofGerman[code]).withContext(code).not.toBe(english);
      expect(places(ofGerman[code]!))
        .withContext(code)
        .toEqual(places(english).filter((p) => p !== '{path}' || ofGerman[code]!.includes(p)));
    }
  });

  it('name the place of a fault where no field stands beside it, and say a newer fault as it came', () => {
    expect(faultLine(faultAt('points[2]', 'point-outside'))).toBe(
      'points[2]: the point lies outside the outline',
    );
    expect(faultLine(faultAt('plate', 'required'))).toBe('plate is missing');
    const newer = { path: 'x', code: 'of-tomorrow' as FaultCode, params: {}, message: 'x is new' };
    expect(faultText(newer)).toBe('x is new');
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

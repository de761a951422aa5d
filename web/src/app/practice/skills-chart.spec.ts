import type { Exam } from '@voltrek/contracts';
import type { RungId } from '@voltrek/core/practice';
import { examDocument, resultWords } from './exam-pdf';
import { skillsOf } from './skills-chart';

const oneCase = (rung: RungId, passed: boolean): Exam['cases'][number] => ({
  ...{ code: `${rung}-100001`, rung, passed, severeRisks: 0, verdict: 'charge-first', truth: 'left-on' },
  ...{ failings: passed ? [] : ['not-started'], minutes: 21.4, toolMinutes: 14 },
});
const exam = (crewId: string, cases: Exam['cases'], more: Partial<Exam> = {}): Exam => ({
  ...{ format: 'voltrek-exam', version: 1, id: crewId, crewId, number: 12, isInTime: true, passed: true },
  ...{ startedAt: '2027-01-15T18:00:00.000Z', endedAt: '2027-01-15T18:42:00.000Z' },
  ...{ signedBy: null, signedAt: null, cases },
  ...more,
});

describe('how skills sit', () => {
  it('is the share of cases passed, by person and rung; a rung that nobody was asked is no weakness', () => {
    const { people, cells, weakest } = skillsOf([
      exam('crew-4', [oneCase('order', true), oneCase('joints', false)]),
      exam('crew-2', [oneCase('order', true), oneCase('joints', true)]),
      exam('crew-4', [oneCase('order', false), oneCase('stop', true)]),
    ]);
    expect(people).toEqual(['crew-2', 'crew-4']);
    const of = (crewId: string, rung: RungId) => cells.find((c) => c.crewId === crewId && c.rung === rung);
    expect(of('crew-4', 'order')).toEqual({ crewId: 'crew-4', rung: 'order', passed: 1, asked: 2 });
    expect(of('crew-2', 'stop')).toBeUndefined();
    // 1 of 2, 2 of 3, 1 of 1.
    expect(weakest).toEqual(['joints', 'order', 'stop']);
  });

  it('is of the newest exams: what could not be done long ago is forgotten', () => {
    const long = Array.from({ length: 8 }, () => exam('crew-4', [oneCase('order', true)]));
    const { cells } = skillsOf([...long, exam('crew-4', [oneCase('order', false)])]);
    expect(cells).toEqual([{ crewId: 'crew-4', rung: 'order', passed: 8, asked: 8 }]);
  });
});

describe('an exam on paper', () => {
  const textOf = (made: unknown): string => JSON.stringify(made);

  it('tells whose it is, each case, and has a place to sign until somebody did', () => {
    const taken = exam('crew-4', [oneCase('order', true), oneCase('joints', false)], { passed: false });
    const open = textOf(examDocument(taken, 'Ana', null));
    for (const words of [
      'Exam 12: Ana',
      '42 minutes',
      'not passed, 1 of 2 right',
      'Polarity and order',
      '21, 14',
    ])
      expect(open).toContain(words);
    expect(open).toContain('could have been started');
    expect(open).toContain('____');
    const signed = textOf(
      examDocument({ ...taken, signedBy: 'crew-1', signedAt: '2027-01-16T08:00:00.000Z' }, 'Ana', 'Bo'),
    );
    expect(signed).toContain('Signed by Bo');
    expect(signed).not.toContain('____');
  });

  it('says apart what was wrong and what was out of time', () => {
    expect(resultWords(exam('a', [oneCase('order', true)]))).toBe('passed, 1 of 1 right');
    expect(resultWords(exam('a', [oneCase('order', true)], { passed: false, isInTime: false }))).toBe(
      'not passed: out of time, 1 of 1 right',
    );
  });
});

import { TestBed } from '@angular/core/testing';
import {
  codeOfCase,
  type RungCase,
  type RungId,
  SKILL_IDS,
  type SkillId,
  startCase,
} from '@voltrek/core/practice';
import { type CaseEnd, PracticeRecord } from './practice-record';

describe('PracticeRecord', () => {
  beforeEach(() => localStorage.clear());
  afterEach(() => localStorage.clear());
  const record = (): PracticeRecord => TestBed.inject(PracticeRecord);

  it('keeps a run under its code, and nothing of another', () => {
    record().keep('order-1', [{ kind: 'key' }, { kind: 'wait', minutes: 3 }]);
    expect(record().actions('order-1')).toEqual([{ kind: 'key' }, { kind: 'wait', minutes: 3 }]);
    expect(record().actions('order-2')).toEqual([]);
  });

  const end = (passed: boolean, more: Partial<CaseEnd> = {}): CaseEnd => ({
    passed,
    hints: 0,
    skills: [],
    ...more,
  });
  const case_ = (rung: RungId, number: number): RungCase => ({ rung, number });
  /** A case that asked for one skill. */
  const showing = (id: SkillId, good: boolean, hints = 0): CaseEnd =>
    end(good, { hints, skills: [{ id, good }] });
  const day = (count: number): Date => new Date(Date.UTC(2027, 0, 1, 8 + 24 * count));

  it('moves a rung on by the case that comes next, once', () => {
    expect(record().progressOf('joints')).toEqual({ next: 1, passed: 0, lastPassed: null });
    record().ended(case_('joints', 1), end(true));
    record().ended(case_('joints', 1), end(true));
    expect(record().progressOf('joints')).toEqual({ next: 2, passed: 1, lastPassed: true });
    // A case further on is no next one of the ladder.
    record().ended(case_('joints', 40), end(true));
    expect(record().progressOf('joints').next).toBe(2);
    record().ended(case_('joints', 2), end(false));
    expect(record().progressOf('joints')).toEqual({ next: 3, passed: 1, lastPassed: false });
    expect(record().progressOf('stop').next).toBe(1);
  });

  it('keeps what a device knew of its rungs before it knew of skills', () => {
    localStorage.setItem(
      'voltrek.practice.rungs',
      JSON.stringify({ order: { next: 7, passed: 5, lastPassed: true, card: { due: day(1) } } }),
    );
    expect(record().progressOf('order')).toEqual({ next: 7, passed: 5, lastPassed: true });
    expect(record().next(day(0)).number).toBeGreaterThanOrEqual(7);
  });

  it('brings a skill back: within the day where it was missed, later each time it was shown, sooner where it took hints', () => {
    const days = (id: SkillId, from: Date): number =>
      (record()
        .skills(from)
        .find((skill) => skill.id === id)!
        .dueAt!.getTime() -
        from.getTime()) /
      86_400_000;
    record().ended(case_('order', 1), showing('order', false), day(0));
    expect(days('order', day(0))).toBeLessThan(1);
    record().ended(case_('leads', 1), showing('leads', true), day(0));
    record().ended(case_('leads', 2), showing('leads', true), day(1));
    const once = days('leads', day(1));
    const then = new Date(day(1).getTime() + once * 86_400_000);
    record().ended(case_('leads', 3), showing('leads', true), then);
    expect(once).toBeGreaterThanOrEqual(1);
    expect(days('leads', then)).toBeGreaterThan(once);
    record().ended(case_('stop', 1), showing('stops', true), day(0));
    record().ended(case_('stop', 2), showing('stops', true, 3), day(1));
    expect(days('stops', day(1))).toBeLessThanOrEqual(once);
  });

  it('draws a case of a missed skill in another guise, else of a new skill, else of the least sure', () => {
    // Nothing known yet: the first skill of a job.
    expect(record().next(day(0))).toEqual(case_('order', 1));
    for (const id of SKILL_IDS)
      record().ended(case_('mixed', SKILL_IDS.indexOf(id) + 1), showing(id, true), day(0));
    record().ended(case_('leads', 1), showing('joints', false), day(0));
    // The joints were asked for twice, by a mixed case and on the rung of leads: now it is the rung after those.
    const again = record().next(day(0.25));
    expect(again.rung).toBe('order');
    const { holds } = startCase(codeOfCase(again.rung, again.number)).practice.hidden;
    expect(holds.some((cause) => cause.startsWith('joint') || cause === 'cable')).toBeTrue();
    // A case that was worked does not come again.
    record().ended(again, showing('joints', false), day(0.25));
    expect(record().next(day(0.5))).not.toEqual(again);
  });

  it('takes what it cannot read for nothing', () => {
    localStorage.setItem('voltrek.practice.run.order-1', '{"cut');
    localStorage.setItem('voltrek.practice.rungs', 'no');
    expect(record().actions('order-1')).toEqual([]);
    expect(record().progressOf('order').next).toBe(1);
    localStorage.setItem('voltrek.practice.ended', '[{');
    expect(record().endedCases()).toEqual([]);
  });
});

import { TestBed } from '@angular/core/testing';
import { PracticeRecord } from './practice-record';

describe('PracticeRecord', () => {
  beforeEach(() => localStorage.clear());
  afterEach(() => localStorage.clear());
  const record = (): PracticeRecord => TestBed.inject(PracticeRecord);

  it('keeps a run under its code, and nothing of another', () => {
    record().keep('order-1', [{ kind: 'key' }, { kind: 'wait', minutes: 3 }]);
    expect(record().actions('order-1')).toEqual([{ kind: 'key' }, { kind: 'wait', minutes: 3 }]);
    expect(record().actions('order-2')).toEqual([]);
  });

  const PASSED = { passed: true, hints: 0 };
  const FAILED = { passed: false, hints: 0 };

  it('moves a rung on by the case that comes next, once', () => {
    expect(record().progressOf('joints')).toEqual({ next: 1, passed: 0, lastPassed: null, card: null });
    record().ended('joints', 1, PASSED);
    record().ended('joints', 1, PASSED);
    expect(record().progressOf('joints')).toEqual(
      jasmine.objectContaining({ next: 2, passed: 1, lastPassed: true }),
    );
    // A case that somebody sent is no rung of the ladder.
    record().ended('joints', 40, PASSED);
    expect(record().progressOf('joints').next).toBe(2);
    record().ended('joints', 2, FAILED);
    expect(record().progressOf('joints')).toEqual(
      jasmine.objectContaining({ next: 3, passed: 1, lastPassed: false }),
    );
    expect(record().progressOf('stop').next).toBe(1);
  });

  it('brings a rung back: within the day where it went wrong, later each time it went well, sooner where it took hints', () => {
    const day = (count: number): Date => new Date(Date.UTC(2027, 0, 1 + count, 8));
    const days = (rung: 'order' | 'leads' | 'stop', from: Date): number =>
      (new Date(record().progressOf(rung).card!.due).getTime() - from.getTime()) / 86_400_000;
    record().ended('order', 1, FAILED, day(0));
    expect(days('order', day(0))).toBeLessThan(1);
    record().ended('leads', 1, PASSED, day(0));
    record().ended('leads', 2, PASSED, day(1));
    const once = days('leads', day(1));
    record().ended('leads', 3, PASSED, new Date(day(1).getTime() + once * 86_400_000));
    const twice = days('leads', new Date(day(1).getTime() + once * 86_400_000));
    expect(once).toBeGreaterThanOrEqual(1);
    expect(twice).toBeGreaterThan(once);
    record().ended('stop', 1, PASSED, day(0));
    record().ended('stop', 2, { passed: true, hints: 3 }, day(1));
    expect(days('stop', day(1))).toBeLessThanOrEqual(once);
  });

  it('takes what it cannot read for nothing', () => {
    localStorage.setItem('voltrek.practice.run.order-1', '{"cut');
    localStorage.setItem('voltrek.practice.rungs', 'no');
    expect(record().actions('order-1')).toEqual([]);
    expect(record().progressOf('order').next).toBe(1);
  });
});

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

  it('moves a rung on by the case that comes next, once', () => {
    expect(record().standing('joints')).toEqual({ next: 1, passed: 0, lastPassed: null });
    record().ended('joints', 1, true);
    record().ended('joints', 1, true);
    expect(record().standing('joints')).toEqual({ next: 2, passed: 1, lastPassed: true });
    // A case that somebody sent is no rung of the ladder.
    record().ended('joints', 40, true);
    expect(record().standing('joints').next).toBe(2);
    record().ended('joints', 2, false);
    expect(record().standing('joints')).toEqual({ next: 3, passed: 1, lastPassed: false });
    expect(record().standing('stop').next).toBe(1);
  });

  it('takes what it cannot read for nothing', () => {
    localStorage.setItem('voltrek.practice.run.order-1', '{"cut');
    localStorage.setItem('voltrek.practice.rungs', 'no');
    expect(record().actions('order-1')).toEqual([]);
    expect(record().standing('order').next).toBe(1);
  });
});

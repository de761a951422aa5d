import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideRouter, Router } from '@angular/router';
import { codeOfCase, RUNGS } from '@voltrek/core/practice';
import { LadderPage } from './ladder-page';
import { PracticeRecord } from './practice-record';

describe('LadderPage', () => {
  beforeEach(() => localStorage.clear());
  async function show(before: (record: PracticeRecord) => void = () => undefined) {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection(), provideRouter([])] });
    before(TestBed.inject(PracticeRecord));
    const fixture = TestBed.createComponent(LadderPage);
    await fixture.whenStable();
    const root = fixture.nativeElement as HTMLElement;
    const rows = [...root.querySelectorAll('ol li')];
    return { fixture, root, rows };
  }

  it('offers the first case of every rung', async () => {
    const { rows } = await show();
    expect(rows.length).toBe(RUNGS.length);
    expect(rows[0]!.querySelector('a')!.getAttribute('href')).toBe(
      `/practice/${codeOfCase(RUNGS[0]!.id, 1)}`,
    );
    expect(rows[0]!.querySelector('.stands')!.textContent.trim()).not.toBe('');
  });

  it('goes on with a case that is under way, and to the next after one that ended', async () => {
    const [first, second] = RUNGS;
    const { rows } = await show((record) => {
      record.keep(codeOfCase(first!.id, 1), [{ kind: 'check', check: 'rest' }]);
      record.ended(second!.id, 1, { passed: true, hints: 0 });
    });
    expect(rows[0]!.querySelector('a')!.textContent).not.toBe(rows[2]!.querySelector('a')!.textContent);
    expect(rows[1]!.querySelector('a')!.getAttribute('href')).toBe(`/practice/${codeOfCase(second!.id, 2)}`);
  });

  it('opens a case by its code, and says when there is none', async () => {
    const { fixture, root } = await show();
    const go = spyOn(TestBed.inject(Router), 'navigate').and.resolveTo(true);
    const open = async (code: string): Promise<void> => {
      root.querySelector('input')!.value = code;
      root.querySelector('form')!.dispatchEvent(new Event('submit', { cancelable: true }));
      await fixture.whenStable();
    };
    await open('nothing');
    expect(root.querySelector('[role=alert]')).not.toBeNull();
    expect(go).not.toHaveBeenCalled();
    const code = codeOfCase('order', 12);
    await open(code.toUpperCase());
    expect(go).toHaveBeenCalledWith(['/practice', code]);
    expect(root.querySelector('[role=alert]')).toBeNull();
  });
});

import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideRouter, Router } from '@angular/router';
import { codeOfCase, RUNGS, type ShownSkill } from '@voltrek/core/practice';
import { provideState, provideStore } from '@ngrx/store';
import { sessionFeature } from '../shared/data/session';
import { LadderPage } from './ladder-page';
import { PracticeRecord } from './practice-record';

describe('LadderPage', () => {
  beforeEach(() => localStorage.clear());
  async function show(before: (record: PracticeRecord) => void = () => undefined) {
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        provideRouter([]),
        provideStore(),
        provideState(sessionFeature),
      ],
    });
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
      record.ended({ rung: second!.id, number: 1 }, { passed: true, hints: 0, skills: [] });
    });
    expect(rows[0]!.querySelector('a')!.textContent).not.toBe(rows[2]!.querySelector('a')!.textContent);
    expect(rows[1]!.querySelector('a')!.getAttribute('href')).toBe(`/practice/${codeOfCase(second!.id, 2)}`);
  });

  it('draws the case with most to teach, and tells of each skill how it stands, least sure first', async () => {
    const { root } = await show((record) => {
      const at = (number: number, skills: readonly ShownSkill[]): void =>
        record.ended({ rung: 'order', number }, { passed: true, hints: 0, skills }, new Date());
      at(1, [{ id: 'polarity', good: true }]);
      at(2, [
        { id: 'polarity', good: true },
        { id: 'stops', good: false },
      ]);
    });
    const rows = [...root.querySelectorAll('.skill')].map((row) => row.textContent.replace(/\s+/g, ' '));
    expect(rows.length).toBe(2);
    expect(rows.find((row) => row.includes('Proving polarity'))).toMatch(/●● ?2 of 2/);
    expect(rows.find((row) => row.includes('When to stop'))).toMatch(/○ ?0 of 1/);
    expect(root.querySelector('vt-chart [role=img]')!.getAttribute('aria-label')).toBe(
      '67 in 100 of the last 3 skills asked for were shown.',
    );
    // The address tells nothing of the fault, and the words nothing of the skill.
    const now = root.querySelector('.now')!;
    expect(now.querySelector('a')!.getAttribute('href')).toMatch(/^\/practice\/[a-z0-9]+$/);
    expect(now.textContent).not.toMatch(/polarity|stop/i);
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

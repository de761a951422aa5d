import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { VerdictRecord } from '@voltrek/core/verdict';
import { Ledger } from './ledger';

const RECORD: VerdictRecord = {
  verdict: 'replace-soon',
  suspect: null,
  certainty: 'sure',
  share: 0.97,
  ground: 'proved-worn',
  causes: [
    { cause: 'worn', share: 0.97 },
    { cause: 'discharged', share: 0.02 },
  ],
  ledger: [
    { check: 'conductance', found: 0.62, bits: 4 },
    { check: 'ask-use', found: 'short-trips', bits: -0.5 },
    { check: 'drain', found: 0.02, bits: 12 },
  ],
  followUps: [],
};

describe('Ledger', () => {
  async function shown(record: VerdictRecord): Promise<HTMLElement> {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    const fixture = TestBed.createComponent(Ledger);
    fixture.componentRef.setInput('record', record);
    await fixture.whenStable();
    return fixture.nativeElement as HTMLElement;
  }

  it('says each finding, which way it speaks and how strongly, in words as in the bar', async () => {
    const root = await shown(RECORD);
    const lines = [...root.querySelectorAll('.move')].map((l) => l.textContent.replace(/\s+/g, ' ').trim());
    expect(lines[0]).toBe('Tested, of its rating: 62 %speaks for it, strongly');
    expect(lines[1]).toBe('Use: short tripsspeaks against it, a little');
    expect(lines[2]).toBe('Drain, asleep: 20 mAspeaks for it, strongly');
    const bars = [...root.querySelectorAll<HTMLElement>('.scale i')];
    expect(bars.map((b) => b.classList.contains('against'))).toEqual([false, true, false]);
    // For grows from the middle to the right, against ends there, and no bar leaves its scale.
    expect(bars[0]!.style.left).toBe('50%');
    expect(Number.parseFloat(bars[1]!.style.left) + Number.parseFloat(bars[1]!.style.width)).toBeCloseTo(
      50,
      3,
    );
    expect(Number.parseFloat(bars[2]!.style.width)).toBe(50);
  });

  it('shows a verdict from before ledgers were kept for what it is', async () => {
    const { causes: _causes, ledger: _ledger, ...old } = RECORD;
    const root = await shown(old);
    expect(root.textContent).toContain('Causes were not recorded then.');
    expect(root.querySelector('.move')).toBeNull();
  });
});

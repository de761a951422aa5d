import { TestBed } from '@angular/core/testing';
import { provideZonelessChangeDetection } from '@angular/core';
import { NgbActiveModal } from '@ng-bootstrap/ng-bootstrap/modal';
import { type Steps, StepsDialog } from './steps-dialog';

const STEPS: Steps = {
  title: 'Clean a clamp',
  steps: [
    { act: 'Off first', why: 'harmless' },
    { act: 'Plus off', why: 'wrap it', risk: 'A slip carries 50 A.' },
  ],
  note: 'With care.',
  yes: 'Mended',
  leave: 'Not mended',
};

describe('Steps', () => {
  async function show(steps: Steps) {
    const ended: unknown[] = [];
    const modal = { close: (how: unknown) => ended.push(how), dismiss: () => ended.push(null) };
    TestBed.configureTestingModule({
      providers: [provideZonelessChangeDetection(), { provide: NgbActiveModal, useValue: modal }],
    });
    const fixture = TestBed.createComponent(StepsDialog);
    fixture.componentInstance.asked.set(steps);
    await fixture.whenStable();
    const root = fixture.nativeElement as HTMLElement;
    const tap = (name: string): void =>
      [...root.querySelectorAll('button')].find((b) => b.textContent.trim() === name)!.click();
    return { root, tap, ended };
  }

  it('are told in order, each with what to mind and what it risks now', async () => {
    const { root } = await show(STEPS);
    const steps = [...root.querySelectorAll('li')].map((li) => li.textContent);
    expect(steps.map((text) => text.includes('A slip carries 50 A.'))).toEqual([false, true]);
    expect(steps[0]).toContain('Off first');
    expect(root.querySelectorAll('button').length).toBe(2);
  });

  it('end well, otherwise, or were not done', async () => {
    const { tap, ended } = await show({
      ...STEPS,
      yes: 'It runs',
      no: 'It does not run',
      leave: 'Not rolled',
    });
    tap('It runs');
    tap('It does not run');
    tap('Not rolled');
    expect(ended).toEqual([true, false, null]);
  });
});

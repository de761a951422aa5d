import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import { provideState, provideStore } from '@ngrx/store';
import {
  courseOf,
  debriefOf,
  measureOf,
  mindFor,
  type PracticeAction,
  replay,
  skillsShown,
  startCase,
  toolRun,
} from '@voltrek/core/practice';
import { fakeRunner } from '../../testing/fake-runner';
import { crewCopy } from '../shared/data/crew';
import { sessionFeature } from '../shared/data/session';
import { settingsFeature } from '../shared/data/settings';
import { CasePage } from './case-page';
import { KeySound } from './key-sound';
import { PracticeRecord } from './practice-record';
import { TrainingBench } from './training-bench';

const CODE = 'order-2';
const BENCH = {
  look: () => Promise.resolve(),
  isReading: () => false,
  fault: () => null,
  linked: () => [],
  isChosen: () => false,
  choose: () => undefined,
  has: () => false,
};

describe('CasePage', () => {
  beforeEach(() => localStorage.clear());
  async function show(code = CODE, inExam?: { readonly place: number; readonly key: string }) {
    const { provider, asked } = fakeRunner({
      practiceNext: { next: { kind: 'check', check: 'rest' } },
      practiceDebrief: (of: string, actions: readonly PracticeAction[]) => {
        const world = replay(of, actions);
        const mind = mindFor(world);
        const tool = toolRun(of, mind);
        const debrief = debriefOf(world, measureOf(tool), mind);
        return { tool, debrief, course: courseOf(world, mind, debrief), skills: skillsShown(world, debrief) };
      },
    });
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        provideRouter([]),
        provideStore(),
        ...[provideState(crewCopy), provideState(sessionFeature), provideState(settingsFeature)],
        { provide: KeySound, useValue: { play: () => undefined } },
      ],
    });
    TestBed.overrideComponent(CasePage, {
      set: { providers: [provider, { provide: TrainingBench, useValue: BENCH }] },
    });
    const fixture = TestBed.createComponent(CasePage);
    fixture.componentRef.setInput('code', code);
    if (inExam) fixture.componentRef.setInput('inExam', inExam);
    await fixture.whenStable();
    const root = fixture.nativeElement as HTMLElement;
    const button = (name: RegExp): HTMLButtonElement | undefined =>
      [...root.querySelectorAll('button')].find((b) => name.test(b.textContent.trim()));
    const tap = async (name: RegExp): Promise<void> => {
      button(name)!.click();
      await fixture.whenStable();
    };
    return { fixture, root, tap, button, asked };
  }

  it('says that there is no such case', async () => {
    const { root } = await show('nothing-0');
    expect(root.querySelector('[role=alert]')).not.toBeNull();
    expect(root.querySelector('vt-circuit')).toBeNull();
  });

  it('shows the driver’s word and the machine, and nothing of the fault', async () => {
    const { root } = await show();
    expect(root.querySelector('blockquote')!.textContent.length).toBeGreaterThan(5);
    const { hidden } = startCase(CODE);
    for (const cause of hidden.holds) expect(root.textContent).not.toContain(cause);
  });

  it('keeps what was done over a reload', async () => {
    const { tap } = await show();
    await tap(/Give the verdict|verdict/i);
    const record = TestBed.inject(PracticeRecord);
    const { points } = startCase(CODE).practice.machine;
    const at = (kind: string): string => points.find((p) => p.kind === kind)!.id;
    record.keep(CODE, [{ kind: 'probe', red: at('battery-positive'), black: at('battery-negative') }]);
    TestBed.resetTestingModule();
    const again = await show();
    expect(again.root.querySelector('.meter .figure')!.textContent).toContain('V');
  });

  it('gives no hints in an exam, and asks the tool nothing', async () => {
    const { root, asked } = await show(CODE, { place: 2, key: 'exam' });
    expect(root.querySelector('h1')!.textContent).toContain('2');
    expect(root.querySelector('.counts')!.textContent).not.toMatch(/hint/i);
    expect(asked).toEqual([]);
  });
});

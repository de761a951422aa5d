import { kitCopy } from '../../../shared/data/kit';
import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { JobEvent } from '@voltrek/core/job';
import type { Machine } from '@voltrek/core/machine';
import { provideState, provideStore, Store } from '@ngrx/store';
import { CAR, detailOf, event, JOB_ID, opened, workOf } from '../../../../testing/fixtures';
import { crewCopy } from '../../../shared/data/crew';
import { sessionFeature } from '../../../shared/data/session';
import { selectSituation } from '../../../shared/job/job-selectors';
import { JobActions, jobFeature } from '../../../shared/model/job-state';
import { ARMS_AFTER_MS } from '../../arming';
import { Measure } from './measure';

describe('Measure', () => {
  function show(events: readonly JobEvent[] = [opened()], machine: Machine = CAR) {
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        provideHttpClient(),
        provideHttpClientTesting(),
        provideStore(),
        provideState(jobFeature),
        provideState(kitCopy),
        provideState(sessionFeature),
        provideState(crewCopy),
        { provide: ARMS_AFTER_MS, useValue: 0 },
      ],
    });
    const store = TestBed.inject(Store);
    store.dispatch(JobActions.opened({ jobId: JOB_ID }));
    store.dispatch(
      JobActions.loaded({ jobId: JOB_ID, detail: { ...detailOf(events), machine }, waiting: [] }),
    );
    const fixture = TestBed.createComponent(Measure);
    fixture.componentRef.setInput('work', workOf(events, { machine }));
    const root = fixture.nativeElement as HTMLElement;
    const press = async (keys: string): Promise<void> => {
      for (const key of keys) {
        [...root.querySelectorAll<HTMLButtonElement>('vt-number-pad .key')]
          .find((b) => b.textContent.trim() === key)!
          .click();
      }
      await fixture.whenStable();
    };
    const pending = () => store.selectSignal(jobFeature.selectPending)();
    const situation = () => store.selectSignal(selectSituation)()!;
    return { fixture, root, press, pending, situation };
  }

  it('takes away what stands below where the meter was at the far post of a string', async () => {
    const [battery] = CAR.batteries;
    const string: Machine = { ...CAR, systemVolts: 24, batteries: [battery!, battery!] };
    const first = event('reading.taken', {
      kind: 'rest',
      volts: 12.6,
      battery: 0,
      tempC: 5,
      source: 'typed',
    });
    const { fixture, root, press, pending } = show([opened(), first], string);
    await fixture.whenStable();
    await press('2200');
    expect(root.querySelector('.preview')!.textContent).toContain('less 12.60 V below it: 9.40 V');
    root.querySelector<HTMLButtonElement>('.next')!.click();
    await fixture.whenStable();
    const taken = pending().find((e) => e.type === 'reading.taken')!.data as {
      volts: number;
      battery: number;
    };
    expect(taken.battery).toBe(1);
    expect(taken.volts).toBeCloseTo(9.4, 6);
  });

  it('takes an engine that was found running as running, without a try', async () => {
    const { fixture, root, pending } = show();
    await fixture.whenStable();
    const runs = root.querySelector<HTMLButtonElement>('.runs')!;
    expect(runs.getAttribute('aria-pressed')).toBe('false');
    runs.click();
    await fixture.whenStable();
    expect(pending().map((e) => e.data)).toEqual([{ what: 'casualty-engine-runs', on: true }]);
    const noted = event('circumstance.noted', { what: 'casualty-engine-runs', on: true });
    TestBed.resetTestingModule();
    const running = show([opened(), noted]);
    await running.fixture.whenStable();
    expect(running.root.querySelector('.runs')!.getAttribute('aria-pressed')).toBe('true');
    // Its charging is asked first then.
    expect(running.root.querySelector('.kinds .key[aria-checked=true]')!.textContent).toMatch(/charging/i);
  });

  it('asks for the battery below first where the meter was at the far post', async () => {
    const [battery] = CAR.batteries;
    const string: Machine = { ...CAR, systemVolts: 24, batteries: [battery!, battery!] };
    const { fixture, root, press } = show([opened()], string);
    await fixture.whenStable();
    [...root.querySelectorAll<HTMLButtonElement>('.kinds .key')]
      .find((b) => b.textContent.includes('battery 2'))!
      .click();
    await fixture.whenStable();
    await press('2200');
    expect(root.querySelector('.problem')!.textContent).toContain('Read the batteries below it first');
  });

  it('shows what the figure means before it is taken, then takes it', async () => {
    const { fixture, root, press, pending } = show();
    await fixture.whenStable();
    await press('1195');
    expect(root.querySelector('.display')!.textContent).toContain('11.95');
    expect(root.querySelector('.preview')!.textContent).toContain('Low');
    root.querySelector<HTMLButtonElement>('.next')!.click();
    expect(pending().map((e) => e.type)).toEqual(['reading.taken']);
    expect(pending()[0]!.data).toEqual(jasmine.objectContaining({ kind: 'rest', volts: 11.95, tempC: -4 }));
  });

  it('refuses a figure one battery cannot read, and says the range', async () => {
    const { fixture, root, press, pending } = show();
    await fixture.whenStable();
    await press('2510');
    expect(root.querySelector('[role=alert]')!.textContent).toContain('between -16 and 16 V');
    expect(root.querySelector<HTMLButtonElement>('.next')!.disabled).toBeTrue();
    expect(pending()).toEqual([]);
  });

  it('stops the job by the reading alone when the battery must be frozen', async () => {
    const cold = event('scene.recorded', {
      ambientC: -12,
      place: 'yard',
      sloping: false,
      dark: true,
      enclosed: false,
      mainsNear: false,
    });
    const { fixture, root, press, pending, situation } = show([opened(), cold]);
    await fixture.whenStable();
    await press('1120');
    root.querySelector<HTMLButtonElement>('.next')!.click();
    expect(pending().map((e) => e.type)).toEqual(['reading.taken']);
    expect(situation().stops).toEqual(['frozen']);
  });

  it('moves on to the next reading once one is taken', async () => {
    const rest = event('reading.taken', {
      kind: 'rest',
      volts: 11.9,
      battery: 0,
      tempC: -4,
      source: 'typed',
    });
    const { fixture, root } = show([opened(), rest]);
    await fixture.whenStable();
    expect(root.querySelector('.kinds [aria-checked=true]')!.textContent).toContain('Crank minimum');
  });

  const group = (root: HTMLElement, name: string): HTMLButtonElement =>
    [...root.querySelectorAll<HTMLButtonElement>('.groups .key, .kinds .key')].find(
      (b) => b.textContent.trim() === name,
    )!;

  it('turns tested amps into a share of the rating', async () => {
    const { fixture, root, press, pending } = show();
    await fixture.whenStable();
    group(root, 'The battery').click();
    await fixture.whenStable();
    await press('300');
    expect(root.querySelector('.preview')!.textContent).toContain('Spent: under 60 % of its rating, 56 %');
    root.querySelector<HTMLButtonElement>('.next')!.click();
    expect(pending().at(-1)!.data).toEqual({
      check: 'conductance',
      found: 0.556,
      source: 'typed',
      figures: [300],
    });
  });

  it('wants the rest volts before a drop at key-on', async () => {
    const { fixture, root, press } = show();
    await fixture.whenStable();
    group(root, 'Key on').click();
    await fixture.whenStable();
    await press('1210');
    expect(root.querySelector('[role=alert]')!.textContent).toContain('Read the rest volts first');
  });

  it('reads six cells, names one out of range, and takes them together', async () => {
    const { fixture, root, pending } = show();
    await fixture.whenStable();
    group(root, 'The battery').click();
    await fixture.whenStable();
    group(root, 'Hydrometer').click();
    await fixture.whenStable();
    const fields = [...root.querySelectorAll<HTMLInputElement>('.cells input')];
    const type = async (values: readonly string[]): Promise<void> => {
      fields.forEach((field, i) => {
        field.value = values[i]!;
        field.dispatchEvent(new Event('input'));
      });
      await fixture.whenStable();
    };
    await type(['1265', '1.26', '1,26', '1265', '3', '1260']);
    expect(root.querySelector('[role=alert]')!.textContent).toContain('Cell 5 must be between 1 and 1.4');
    await type(['1265', '1.26', '1,26', '1265', '1190', '1260']);
    expect(root.querySelector('.preview')!.textContent).toContain('One cell stands out: bad: cell 5');
    root.querySelector<HTMLButtonElement>('.next')!.click();
    expect(pending().at(-1)!.data).toEqual(
      jasmine.objectContaining({
        check: 'specific-gravity',
        found: 'one-cell-low',
        figures: [1.265, 1.26, 1.26, 1.265, 1.19, 1.26],
      }),
    );
  });

  it('drops an entry that was begun when its tab is left, so that six cells never become another reading', async () => {
    const { fixture, root, pending } = show();
    await fixture.whenStable();
    const open = async (name: string): Promise<void> => {
      group(root, name).click();
      await fixture.whenStable();
    };
    await open('The battery');
    await open('Hydrometer');
    root.querySelectorAll<HTMLInputElement>('.cells input').forEach((field) => {
      field.value = '1.25';
      field.dispatchEvent(new Event('input'));
    });
    await fixture.whenStable();
    expect(root.querySelector('.next')!.textContent).toContain('six cells');
    for (const elsewhere of ['At the posts', 'Over joints', 'Trace']) {
      await open(elsewhere);
      expect(root.querySelector('.next')!.textContent).not.toContain('six cells');
      root.querySelector<HTMLButtonElement>('.next')!.click();
    }
    expect(pending()).toEqual([]);
    await open('The battery');
    await open('Hydrometer');
    expect(
      [...root.querySelectorAll<HTMLInputElement>('.cells input')].every((f) => f.value === ''),
    ).toBeTrue();
  });

  it('questions a reading that contradicts the log, and lets it be withdrawn', async () => {
    const charging = event('reading.taken', {
      kind: 'charging-idle',
      volts: 14.4,
      battery: 0,
      tempC: -4,
      source: 'typed',
    });
    const { fixture, root, pending } = show([opened(), charging]);
    await fixture.whenStable();
    const line = root.querySelector('vt-taken .doubted')!;
    expect(line.textContent).toContain('Does it run? Read it again');
    line.querySelector('button')!.click();
    expect(pending().at(-1)!.data).toEqual({ readingId: charging.id });
  });

  it('tells stand-ins where the probes are', async () => {
    const { fixture } = show();
    await fixture.whenStable();
    const request = TestBed.inject(HttpTestingController).expectOne('/api/instruments/probes');
    expect(request.request.body).toEqual({ jobId: JOB_ID, check: 'rest', battery: 0 });
  });
});

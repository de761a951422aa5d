import { crewCopy } from '../app/shared/data/crew';
import { kitCopy } from '../app/shared/data/kit';
import { provideHttpClient } from '@angular/common/http';
import { provideHttpClientTesting } from '@angular/common/http/testing';
import { type Provider, provideZonelessChangeDetection, type Type } from '@angular/core';
import { type ComponentFixture, TestBed } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import type { JobEvent } from '@voltrek/core/job';
import { provideState, provideStore, Store } from '@ngrx/store';
import { ARMS_AFTER_MS } from '../app/job/arming';
import { LOOKS_AT_STEPS } from '../app/job/step-seen';
import { JobActions, jobFeature } from '../app/shared/model/job-state';
import { sessionFeature } from '../app/shared/data/session';
import { deviceFeature } from '../app/shared/sync/device-state';
import { signInFeature } from '../app/shared/data/sign-in';
import { detailOf, JOB_ID, workOf } from './fixtures';

type Detail = ReturnType<typeof detailOf>;

/** A part of a job page on a log that grows with what it reports. */
export interface JobHarness<C> {
  readonly fixture: ComponentFixture<C>;
  readonly root: HTMLElement;
  /** Events reported so far. */
  readonly reported: () => readonly JobEvent[];
  /** Hands the job with what was reported back to the part, as the page does. */
  readonly refresh: () => Promise<void>;
  readonly button: (name: string | RegExp) => HTMLButtonElement;
  readonly tap: (name: string | RegExp) => Promise<void>;
  readonly type: (label: string, text: string) => Promise<void>;
}

/** The stores of a job page with this job loaded. What a component needs beside them comes as `providers`. */
export function openedStore(detail: Detail, providers: readonly Provider[] = []): Store {
  TestBed.configureTestingModule({
    providers: [
      provideZonelessChangeDetection(),
      provideHttpClient(),
      provideHttpClientTesting(),
      provideRouter([]),
      provideStore(),
      provideState(jobFeature),
      provideState(kitCopy),
      provideState(crewCopy),
      provideState(sessionFeature),
      provideState(deviceFeature),
      provideState(signInFeature),
      { provide: ARMS_AFTER_MS, useValue: 0 },
      { provide: LOOKS_AT_STEPS, useValue: false },
      ...providers,
    ],
  });
  const store = TestBed.inject(Store) as Store;
  store.dispatch(JobActions.opened({ jobId: JOB_ID }));
  store.dispatch(JobActions.loaded({ jobId: JOB_ID, detail, waiting: [] }));
  return store;
}

/** Shows a component that takes `work`, with the job's own store behind it. */
export async function jobHarness<C>(
  component: Type<C>,
  events: readonly JobEvent[],
  change: Partial<Detail> = {},
  inputs: Readonly<Record<string, unknown>> = {},
): Promise<JobHarness<C>> {
  const detail = { ...detailOf(events), ...change };
  const store = openedStore(detail);
  const reported = store.selectSignal(jobFeature.selectPending);
  const fixture = TestBed.createComponent(component);
  const root = fixture.nativeElement as HTMLElement;
  const refresh = async (): Promise<void> => {
    fixture.componentRef.setInput('work', workOf([...events, ...reported()], detail));
    await fixture.whenStable();
  };
  for (const [name, value] of Object.entries(inputs)) fixture.componentRef.setInput(name, value);
  await refresh();
  const button = (name: string | RegExp): HTMLButtonElement => {
    const isIt = (text: string): boolean => (typeof name === 'string' ? text === name : name.test(text));
    const found = [...root.querySelectorAll('button')].find((b) => isIt(b.textContent.trim()));
    if (!found) throw new Error(`no button ${String(name)} in ${root.textContent}`);
    return found;
  };
  return {
    fixture,
    root,
    reported,
    refresh,
    button,
    tap: async (name) => {
      button(name).click();
      await refresh();
    },
    type: async (label, text) => {
      const named = [...root.querySelectorAll('label')].find((l) => l.textContent.trim().startsWith(label))!;
      const field = named.control as HTMLInputElement;
      field.value = text;
      field.dispatchEvent(new Event('input'));
      await fixture.whenStable();
    },
  };
}

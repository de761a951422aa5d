import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import type { AtlasEntry, MachineSummary } from '@voltrek/contracts';
import { provideState, provideStore } from '@ngrx/store';
import { of, Subject } from 'rxjs';
import { CAR } from '../../testing/fixtures';
import { Api } from '../shared/data/api';
import { crewCopy } from '../shared/data/crew';
import { Finder } from '../shared/data/finder';
import { sessionFeature } from '../shared/data/session';
import { deviceFeature } from '../shared/sync/device-state';
import { SendPhoto } from '../shared/sync/send-photo';
import { AtlasPage } from './atlas-page';

const entry = (id: string, revision: number): AtlasEntry => ({
  machine: { ...CAR, id, model: `Model ${id}` },
  ...{ confidence: 'maker', revision, history: [], photos: [] },
});
const found = (...ids: readonly string[]): readonly MachineSummary[] =>
  ids.map((id) => ({
    ...{ id, maker: 'Test', model: `Model ${id}`, machineClass: 'car', systemVolts: 12, places: 'front' },
    confidence: 'maker',
  })) as never;

describe('the atlas', () => {
  async function show(api: object = {}) {
    const asked = new Map<string, Subject<AtlasEntry>>();
    const finder = {
      heldAt: () => null,
      machines: (typed: string) => of({ machines: typed === 'none' ? [] : found('a', 'b'), total: 2 }),
      entry: (id: string) => {
        const answer = new Subject<AtlasEntry>();
        asked.set(id, answer);
        return answer;
      },
    };
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        provideRouter([]),
        provideStore(),
        ...[provideState(crewCopy), provideState(sessionFeature), provideState(deviceFeature)],
        { provide: Api, useValue: api },
        { provide: Finder, useValue: finder },
        { provide: SendPhoto, useValue: { send: () => Promise.resolve(null) } },
      ],
    });
    const fixture = TestBed.createComponent(AtlasPage);
    const root = fixture.nativeElement as HTMLElement;
    const settle = async (ms = 0): Promise<void> => {
      TestBed.tick();
      await new Promise((done) => setTimeout(done, ms));
      TestBed.tick();
    };
    await settle(150);
    const answer = async (id: string, revision: number): Promise<void> => {
      asked.get(id)!.next(entry(id, revision));
      asked.get(id)!.complete();
      await settle();
    };
    const shown = (): string | undefined => root.querySelector('.detail')?.textContent;
    const row = (at: number): HTMLButtonElement => root.querySelectorAll<HTMLButtonElement>('.row')[at]!;
    return { root, asked, answer, settle, shown, row };
  }

  it('opens the nearest of what it found', async () => {
    const { row, answer, shown } = await show();
    expect(row(0).getAttribute('aria-pressed')).toBe('true');
    await answer('a', 1);
    expect(shown()).toContain('Model a');
  });

  it('shows no entry of a machine that was left', async () => {
    const { row, answer, settle, shown, asked } = await show();
    await answer('a', 1);
    row(1).click();
    await settle();
    expect(shown()).withContext('while the other comes').toBeUndefined();
    row(0).click();
    await settle();
    expect(asked.get('b')!.observed).toBeFalse();
    await answer('a', 1);
    expect(shown()).toContain('Model a');
  });

  it('keeps what is chosen when a search finds nothing, and says so', async () => {
    const { root, settle, answer, shown } = await show();
    await answer('a', 1);
    const field = root.querySelector('input')!;
    field.value = 'none';
    field.dispatchEvent(new Event('input'));
    await settle(150);
    expect(root.querySelector('li.none')).not.toBeNull();
    expect(shown()).toContain('Model a');
  });

  it('drops the answer to a confirmation of a machine that was left since', async () => {
    const confirmed = new Subject<AtlasEntry>();
    const { root, row, answer, settle, shown } = await show({ confirmEntry: () => confirmed });
    await answer('a', 1);
    [...root.querySelectorAll('button')].find((b) => /confirm/i.test(b.textContent))?.click();
    row(1).click();
    await settle();
    await answer('b', 4);
    confirmed.next(entry('a', 2));
    confirmed.complete();
    await settle();
    expect(shown()).toContain('Model b');
  });
});

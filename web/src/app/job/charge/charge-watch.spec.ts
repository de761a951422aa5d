import { provideZonelessChangeDetection } from '@angular/core';
import { DEFAULT_RULES } from '@voltrek/core/rules';
import { TestBed } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import { type EventEntry, type Job, situationOf } from '@voltrek/core/job';
import { provideState, provideStore, Store } from '@ngrx/store';
import { CAR, opened, workOf } from '../../../testing/fixtures';
import { Reporter } from '../../shared/job/reporter';
import type { Work } from '../../shared/job/job-selectors';
import { boardCopy } from '../../shared/data/board';
import { ChargeWatch } from './charge-watch';

const SINCE = '2027-01-15T02:00:00.000Z';
const JOB = {
  id: 'j',
  scene: null,
  call: { ambientC: 10 },
  parked: null,
  findings: {},
  figures: [],
  symptoms: [],
  attempts: [],
  joinedSince: SINCE,
  plan: { sourceKind: 'mains-charger', outlook: 'charges', waitMinutes: 400, optionId: 'c=full' },
  chargeReadings: [],
  readings: [
    {
      kind: 'rest',
      volts: 11.9,
      battery: 0,
      tempC: 10,
      at: SINCE,
      eventId: 'e',
      source: 'meter',
      strength: null,
      during: { clamps: {} },
    },
  ],
} as unknown as Job;

describe('a charge that is watched', () => {
  async function show(job: Partial<Job>, calls: object[] = []) {
    const reported: EventEntry[] = [];
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        provideRouter([]),
        provideStore(),
        provideState(boardCopy),
        { provide: Reporter, useValue: { report: (...entry: EventEntry) => reported.push(entry) } },
      ],
    });
    TestBed.inject(Store).dispatch(boardCopy.changed(calls as never));
    const fixture = TestBed.createComponent(ChargeWatch);
    const whole = { ...workOf([opened()]).job, ...JOB, ...job };
    const record = { machine: CAR, donor: null, kit: [], earlierFlatCalls: 0 };
    const work = {
      job: whole,
      machine: CAR,
      situation: situationOf(whole, record, DEFAULT_RULES),
    } as unknown as Work;
    fixture.componentRef.setInput('work', work);
    await fixture.whenStable();
    const root = fixture.nativeElement as HTMLElement;
    const type = async (at: number, text: string): Promise<void> => {
      const input = root.querySelectorAll('input')[at]!;
      input.value = text;
      input.dispatchEvent(new Event('input'));
      await fixture.whenStable();
    };
    const button = (name: string): HTMLButtonElement | undefined =>
      [...root.querySelectorAll('button')].find((b) => b.textContent.includes(name));
    return { root, type, button, reported };
  }
  const seen = (minutes: number, volts: number, amps: number, isWarm = false) => ({
    volts,
    amps,
    isWarm,
    at: new Date(Date.parse(SINCE) + minutes * 60_000).toISOString(),
  });

  it('is not there while nothing is on charge', async () => {
    expect((await show({ joinedSince: null })).root.querySelector('section')).toBeNull();
  });

  it('notes what was typed, whole and in range', async () => {
    const { root, type, button, reported } = await show({});
    expect(button('Note it')!.disabled).toBeTrue();
    await type(0, '1362');
    await type(1, '120');
    expect(root.querySelector('[role=alert]')!.textContent).toContain('Amps must be between 0 and 100');
    await type(1, '7,5');
    button('Case is warm')!.click();
    button('Note it')!.click();
    expect(reported).toEqual([['charge.read', { volts: 13.62, amps: 7.5, isWarm: true }]]);
  });

  it('tells what the last look means, and keeps the ones before it', async () => {
    const { root } = await show({ chargeReadings: [seen(30, 13.4, 8), seen(60, 13.6, 8, true)] });
    const lines = [...root.querySelectorAll('.line')].map((l) => l.textContent.replace(/\s+/g, ' '));
    expect(lines[0]).toContain('Too warm');
    expect(lines[0]).toContain('plug out, then the clamps');
    expect(lines[1]).toMatch(/13\.40 V, 8\.0 A\s*Charging/);
  });

  it('offers a battery that is full far too soon as a finding, once', async () => {
    const early = [seen(8, 14.4, 0.3)];
    const { button, reported } = await show({ chargeReadings: early });
    button('Note as found')!.click();
    expect(reported).toEqual([['finding.recorded', { check: 'acceptance', found: 'full-at-once' }]]);
    TestBed.resetTestingModule();
    const after = await show({ chargeReadings: early, findings: { acceptance: 'full-at-once' } });
    expect(after.button('Note as found')).toBeUndefined();
  });

  it('names the call that waits meanwhile', async () => {
    const call = {
      id: 'c',
      number: 12,
      title: 'Test van',
      placeName: 'Test road',
      state: 'waiting',
      job: null,
    };
    expect((await show({}, [call])).root.textContent).toContain('call 12 waits, Test van, Test road');
    TestBed.resetTestingModule();
    expect((await show({}, [{ ...call, state: 'taken' }])).root.textContent).toContain('Nothing else waits');
  });
});

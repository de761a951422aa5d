import { TestBed } from '@angular/core/testing';
import { By } from '@angular/platform-browser';
import type { InstrumentNow } from '@voltrek/contracts';
import { event, opened } from '../../../testing/fixtures';
import { jobHarness } from '../../../testing/job-harness';
import { Crank } from './crank';
import { CrankMeter } from './crank-meter';
import { LiveStore } from './measure/live-store';

const meter = (value: number): InstrumentNow => ({
  instrument: 'meter',
  state: 'ready',
  name: 'Test meter',
  value,
  overload: false,
  at: '2027-01-15T02:00:00.000Z',
});

describe('Crank', () => {
  async function trying(readings: readonly number[]) {
    const harness = await jobHarness(Crank, [opened()], {}, { rescue: null });
    const live = harness.fixture.debugElement.query(By.directive(CrankMeter)).injector.get(LiveStore);
    await harness.tap('Crank now, try 1 Enter');
    for (const value of readings) {
      live.hear(meter(value));
      await harness.fixture.whenStable();
    }
    return harness;
  }

  it('records the lowest that a linked meter on the posts showed', async () => {
    const { root, tap, reported } = await trying([12.4, 9.31, 9.8]);
    expect(root.querySelector('.live')!.textContent).toContain('lowest 9.31 V');
    await tap('Slow');
    expect(reported().at(-1)!.data).toEqual(jasmine.objectContaining({ outcome: 'slow', lowestVolts: 9.31 }));
  });

  it('records nothing of a meter that lies on the bench', async () => {
    const { root, tap, reported } = await trying([0.01, 0, 0.02]);
    expect(root.querySelector('.live')).toBeNull();
    await tap('Slow');
    expect(reported().at(-1)!.data).toEqual(jasmine.objectContaining({ lowestVolts: null }));
  });

  it('ends no try while a figure beside it cannot be', async () => {
    const { root, tap, type, reported } = await trying([]);
    await type('Lowest volts', 'low');
    expect(root.querySelector('[role=alert]')!.textContent).toContain('not a voltage');
    await tap('Slow');
    expect(reported().map(({ type }) => type)).toEqual(['attempt.started']);
  });

  it('marks a try that was answered after its limit, and no other', async () => {
    const tried = (seconds: number) => [
      event('attempt.started', {}),
      event('attempt.ended', { outcome: 'slow', seconds, lowestVolts: null }),
    ];
    const listed = async (seconds: number): Promise<string> => {
      TestBed.resetTestingModule();
      const { root } = await jobHarness(Crank, [opened(), ...tried(seconds)], {}, { rescue: null });
      return root.querySelector('vt-tries')!.textContent;
    };
    expect(await listed(14)).toContain('Answered after the limit of 10 s');
    expect(await listed(9)).not.toContain('Answered after');
  });

  it('puts what is typed before what the meter showed', async () => {
    const { tap, type, reported } = await trying([12.4, 9.3]);
    await type('Lowest volts', '880');
    await tap('Slow');
    expect(reported().at(-1)!.data).toEqual(jasmine.objectContaining({ lowestVolts: 8.8 }));
  });
});

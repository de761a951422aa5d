import { TestBed } from '@angular/core/testing';
import type { VerdictRecord } from '@voltrek/core/verdict';
import { event, opened } from '../../../../testing/fixtures';
import { fakeRunner } from '../../../../testing/fake-runner';
import { jobHarness } from '../../../../testing/job-harness';
import { RecheckPart } from './recheck';

const KEEP = {
  ...{ verdict: 'keep', suspect: null, certainty: 'sure', share: 0.95, ground: null },
  ...{ causes: [], ledger: [], followUps: [] },
} as unknown as VerdictRecord;

describe('RecheckPart', () => {
  async function show(answer = KEEP) {
    const { provider, asked } = fakeRunner({ conclude: answer });
    TestBed.overrideComponent(RecheckPart, { set: { providers: [provider] } });
    const first = { ...KEEP, verdict: 'charge-first', followUps: [{ kind: 'recheck', days: 2 }] };
    const events = [opened(), event('verdict.given', first as never), event('job.closed', { note: '' })];
    const harness = await jobHarness(RecheckPart, events);
    const type = async (at: number, text: string): Promise<void> => {
      const field = harness.root.querySelectorAll('input')[at]!;
      field.value = text;
      field.dispatchEvent(new Event('input'));
      await harness.fixture.whenStable();
    };
    const charged = (): void => harness.root.querySelector<HTMLButtonElement>('[aria-pressed]')!.click();
    return { ...harness, asked, type, charged };
  }

  it('asks for no figure before the battery was charged and stood', async () => {
    const { root, charged, fixture } = await show();
    expect(root.querySelector('input')).toBeNull();
    charged();
    await fixture.whenStable();
    expect(root.querySelectorAll('input').length).toBe(3);
  });

  it('gives the final verdict from rest volts alone', async () => {
    const { root, type, charged, fixture, reported, refresh } = await show();
    charged();
    await fixture.whenStable();
    await type(0, '12,62');
    await fixture.whenStable();
    expect(root.querySelector('.found')!.textContent).toContain('Keep');
    root.querySelector<HTMLButtonElement>('.key.strong')!.click();
    await refresh();
    expect(reported()[0]!.type).toBe('recheck.taken');
    expect((reported()[0]!.data as { restVolts: readonly number[] }).restVolts).toEqual([12.62]);
  });

  it('names the reading that decides where rest volts alone do not', async () => {
    const undecided = { ...KEEP, verdict: 'not-known', deciding: { check: 'conductance', chance: 1 } };
    const { root, type, charged, fixture } = await show(undecided as unknown as VerdictRecord);
    charged();
    await fixture.whenStable();
    await type(0, '12.5');
    await fixture.whenStable();
    expect(root.querySelector('.decides')!.textContent).toContain('This decides it');
  });

  it('refuses a figure that cannot be, by its name', async () => {
    const { root, type, charged, fixture, asked } = await show();
    charged();
    await fixture.whenStable();
    await type(0, 'abc');
    expect(root.querySelector('[role=alert]')!.textContent.trim()).not.toBe('');
    await type(0, '12.5');
    await type(2, '13');
    expect(root.querySelector('[role=alert]')).not.toBeNull();
    await type(1, '400');
    expect(root.querySelector('[role=alert]')).not.toBeNull();
    expect(asked.length).toBeLessThanOrEqual(1);
  });
});

import { TestBed } from '@angular/core/testing';
import type { VerdictRecord } from '@voltrek/core/verdict';
import { event, opened } from '../../../../testing/fixtures';
import { fakeRunner } from '../../../../testing/fake-runner';
import { jobHarness } from '../../../../testing/job-harness';
import { Verdict } from './verdict';

const record = (more: Partial<VerdictRecord>): VerdictRecord =>
  ({
    ...{ verdict: 'charge-first', suspect: null, certainty: 'sure', share: 0.9, ground: 'flat-unproved' },
    ...{ causes: [], ledger: [], followUps: [{ kind: 'recheck', days: 2 }] },
    ...more,
  }) as VerdictRecord;

describe('Verdict', () => {
  async function show(answer: VerdictRecord, events = [opened()]) {
    const { provider, asked } = fakeRunner({ conclude: answer });
    TestBed.overrideComponent(Verdict, { set: { providers: [provider] } });
    const harness = await jobHarness(Verdict, events);
    await harness.fixture.whenStable();
    const parts = (): string[] =>
      [...harness.root.querySelectorAll('.parts [role=radio]')].map((b) => b.textContent.trim());
    return { ...harness, asked, parts };
  }

  it('tells the verdict over what is recorded so far, and gives it at a tap', async () => {
    const { root, tap, reported } = await show(record({}));
    expect(root.querySelector('.card h2')!.textContent).toBe('Charge first');
    expect(root.querySelector('[role=status]')!.textContent).toContain('so far');
    await tap(/Give|give/);
    expect(reported()[0]!.type).toBe('verdict.given');
    expect((reported()[0]!.data as { verdict: string }).verdict).toBe('charge-first');
  });

  it('marks a battery that must go by more than its colour, and offers the change', async () => {
    const { root, parts } = await show(record({ verdict: 'replace-now', ground: 'proved-dead' as never }));
    expect(root.querySelector('.card.danger h2')!.textContent).toContain('Replace now');
    expect(parts()).toContain('Change battery');
  });

  it('offers the change where only the owner wants it, but not under a stop', async () => {
    expect((await show(record({}))).parts()).toContain('Change battery');
    TestBed.resetTestingModule();
    expect((await show(record({ verdict: 'unsafe' }))).parts()).not.toContain('Change battery');
  });

  it('asks nothing any more once it is given, and promises what it promised', async () => {
    const given = event('verdict.given', record({}) as never);
    const { root, asked, tap } = await show(record({ verdict: 'keep' }), [opened(), given]);
    expect(asked).toEqual([]);
    expect(root.querySelector('.card h2')!.textContent).toBe('Charge first');
    await tap('Next');
    expect(root.querySelector('.follow li')!.textContent).toMatch(/\d/);
  });

  it('closes the job only for a hold, and says that it is for good', async () => {
    const given = event('verdict.given', record({}) as never);
    const { root, reported } = await show(record({}), [opened(), given]);
    expect(root.textContent).toContain('only follow-ups are added');
    const bar = root.querySelector<HTMLButtonElement>('.next')!;
    expect(bar.textContent).toContain('Close the job');
    const press = (type: string): boolean => bar.dispatchEvent(new PointerEvent(type, { bubbles: true }));
    press('pointerdown');
    press('pointerup');
    expect(reported()).toEqual([]);
    press('pointerdown');
    await new Promise((done) => setTimeout(done, 700));
    expect(reported().map(({ type }) => type)).toEqual(['job.closed']);
  });

  it('says so when it could not be worked out', async () => {
    const { root } = await show((() => Promise.reject(new Error('gone'))) as never);
    await new Promise((done) => setTimeout(done));
    expect(root.querySelector('.card')).toBeNull();
  });
});

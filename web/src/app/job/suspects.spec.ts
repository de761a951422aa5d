import { TestBed } from '@angular/core/testing';
import { event, opened } from '../../testing/fixtures';
import { fakeRunner } from '../../testing/fake-runner';
import { jobHarness } from '../../testing/job-harness';
import { Suspects } from './suspects';

const proposal = (check: string, more: object = {}) => ({
  ...{ check, minutes: 2, gainBits: 0.4, settles: ['discharged', 'worn', 'drain'] },
  ...more,
});
const RESULT = {
  suspicions: [
    { cause: 'discharged', share: 0.62, pushes: [{ check: 'ask-use', factor: 3 }] },
    { cause: 'worn', share: 0.2, pushes: [] },
    { cause: 'joint-positive', share: 0.1, pushes: [] },
    { cause: 'starter', share: 0.05, pushes: [] },
    { cause: 'fuel', share: 0.03, pushes: [] },
  ],
  proposals: [proposal('look-joints'), proposal('drain'), proposal('rest')],
  misfit: null,
};

describe('Suspects', () => {
  async function show(result: unknown = RESULT, change: Parameters<typeof jobHarness>[2] = {}) {
    const { provider } = fakeRunner({ suspect: result });
    TestBed.overrideComponent(Suspects, { set: { providers: [provider] } });
    const events = [opened(), event('symptom.recorded', { symptom: 'slow-crank' })];
    const harness = await jobHarness(Suspects, events, change);
    await harness.fixture.whenStable();
    return harness;
  }
  const asked = (root: HTMLElement): string => root.querySelector('.ask')!.textContent.trim();

  it('lists the four likeliest with their shares, and what raised the first', async () => {
    const { root } = await show();
    expect([...root.querySelectorAll('ol strong')].map((s) => s.textContent)).toEqual([
      '62 %',
      '20 %',
      '10 %',
      '5 %',
    ]);
    expect(root.querySelector('.why')).not.toBeNull();
  });

  it('says that causes may occur together where their shares pass a whole', async () => {
    expect((await show()).root.textContent).not.toContain('together.');
    TestBed.resetTestingModule();
    const suspicions = [{ ...RESULT.suspicions[0], share: 0.9 }, ...RESULT.suspicions.slice(1)];
    expect((await show({ ...RESULT, suspicions })).root.textContent).toContain('may occur together.');
  });

  it('tells the part and the strength that the last job left, and no cause of that day', async () => {
    const causes = [
      { cause: 'left-on', share: 0.8 },
      { cause: 'drain', share: 0.61 },
    ] as const;
    const earlier = {
      ...{ closedAt: '2027-01-03T08:00:00.000Z', days: 12.4, causes },
      strengths: [{ share: 0.64, spread: 0.05 }],
    };
    const { root } = await show(RESULT, { earlier });
    expect(root.textContent).toContain('Last job, 12 days ago: ');
    expect(root.textContent).toContain('61 %');
    expect(root.textContent).toContain('Its battery should have about 64 % of its rating left.');
    expect(root.textContent).not.toContain('80 %');
  });

  it('names the finding to take again where they do not go together', async () => {
    const { root } = await show({ ...RESULT, misfit: { check: 'rest', found: 4.2 } });
    expect(root.querySelector('.problem')!.textContent).toContain('do not go together');
    expect(root.querySelector('.problem')!.textContent).toContain('rest volts');
  });

  it('takes a look by a tap on what was found', async () => {
    const { root, reported, refresh } = await show();
    const outcome = root.querySelectorAll<HTMLButtonElement>('[aria-label] .keys button')[0]!;
    outcome.click();
    await refresh();
    expect(reported().map(({ type }) => type)).toEqual(['finding.recorded']);
    expect((reported()[0]!.data as { check: string }).check).toBe('look-joints');
  });

  it('goes on to the next check when one is skipped, and takes a figure once it is one', async () => {
    const { root, fixture, tap, reported, button } = await show();
    const before = asked(root);
    await tap('Skip');
    expect(asked(root)).not.toBe(before);
    expect(button('Take').disabled).toBeTrue();
    const field = root.querySelector('input')!;
    field.value = '0,4';
    field.dispatchEvent(new Event('input'));
    await fixture.whenStable();
    await tap('Take');
    expect(reported().map(({ data }) => data)).toEqual([{ check: 'drain', found: 0.4 }]);
  });

  it('sends a reading to the stage that records it', async () => {
    const { fixture, tap, root } = await show({ ...RESULT, proposals: [proposal('rest')] });
    const opens: string[] = [];
    fixture.componentInstance.opened.subscribe((stage) => opens.push(stage));
    await tap(root.querySelector('.key.strong')!.textContent.trim());
    expect(opens).toEqual(['measure']);
  });

  it('says that nothing is left where no check tells enough', async () => {
    const { root } = await show({ ...RESULT, proposals: [proposal('rest', { gainBits: 0 })] });
    expect(root.querySelector('.ask')).toBeNull();
    expect(root.textContent).toContain('Nothing left');
  });
});

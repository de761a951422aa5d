import { event, opened, CAR } from '../../../../testing/fixtures';
import { jobHarness } from '../../../../testing/job-harness';
import { Taken } from './taken';

const rest = (volts: number, battery = 0, source: 'typed' | 'meter' = 'typed') =>
  event('reading.taken', { kind: 'rest', volts, battery, tempC: -4, source });
const rows = (root: HTMLElement): string[] =>
  [...root.querySelectorAll('li')].map((li) => li.textContent.replace(/\s+/g, ' ').trim());

describe('what is taken', () => {
  it('says what is worth most while there is nothing', async () => {
    const { root } = await jobHarness(Taken, [opened()]);
    expect(rows(root)).toEqual(['Nothing yet. Rest volts are worth most now.']);
  });

  it('lists the newest first, each with its source and what it says', async () => {
    const { root } = await jobHarness(Taken, [opened(), rest(11.8), rest(12.61, 0, 'meter')]);
    const [newest, older] = rows(root);
    expect(newest).toContain('12.61 V');
    expect(newest).toContain(', meter');
    expect(older).toContain('11.80 V');
    expect(older).toContain('Charge before judging');
  });

  it('names the battery of a string', async () => {
    const machine = { ...CAR, systemVolts: 24 as const, batteries: [CAR.batteries[0]!, CAR.batteries[0]!] };
    const { root } = await jobHarness(Taken, [opened(), rest(12.4, 0), rest(12.1, 1)], { machine });
    const names = rows(root).map((r) => /Rest volts, (battery \d)/.exec(r)![1]);
    expect(names).toEqual(['battery 2', 'battery 1']);
  });

  it('feels a figure as what it says: a spent battery is no good news', async () => {
    const tested = (found: number) =>
      event('finding.recorded', { check: 'conductance', found, source: 'typed', figures: [found * 540] });
    const { root } = await jobHarness(Taken, [opened(), tested(0.95), tested(0.5)]);
    const [spent, sound] = [...root.querySelectorAll('.meaning')];
    expect(spent!.textContent).toContain('Spent');
    expect(spent!.className).toContain('tone-bad');
    expect(sound!.className).toContain('tone-good');
  });

  it('questions charging volts while nothing runs, and withdraws them', async () => {
    const odd = event('reading.taken', {
      kind: 'charging-idle',
      volts: 14.3,
      battery: 0,
      tempC: -4,
      source: 'typed',
    });
    const { root, tap, reported } = await jobHarness(Taken, [opened(), odd]);
    expect(root.querySelector('.doubted')).not.toBeNull();
    await tap('Withdraw');
    expect(reported().at(-1)!.type).toBe('reading.withdrawn');
    expect(rows(root)).toEqual(['Nothing yet. Rest volts are worth most now.']);
  });
});

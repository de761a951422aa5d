import { event, opened, CAR } from '../../../../testing/fixtures';
import { jobHarness } from '../../../../testing/job-harness';
import { Taken } from './taken';

const rest = (volts: number, battery = 0, source: 'typed' | 'meter' = 'typed') =>
  event('reading.taken', { kind: 'rest', volts, battery, tempC: -4, source });
const rows = (root: HTMLElement): string[] =>
  [...root.querySelectorAll('li')].map((li) => li.textContent.replace(/\s+/g, ' ').trim());

const BANK = { chemistry: 'capacitor', capacityAh: 0.8, ccaAmps: 1200, ccaStandard: 'SAE' } as const;
const BANKED = { ...CAR, batteries: [{ ...CAR.batteries[0]!, rating: BANK }] };

describe('what is taken', () => {
  it('says so while there is nothing', async () => {
    const { root } = await jobHarness(Taken, [opened()]);
    expect(rows(root)).toEqual(['Nothing yet.']);
  });

  it('lists the newest first, each with its source and what it says', async () => {
    const { root } = await jobHarness(Taken, [opened(), rest(11.8), rest(12.61, 0, 'meter')]);
    const [newest, older] = rows(root);
    expect(newest).toContain('12.61 V');
    expect(newest).toContain(', meter');
    expect(older).toContain('11.80 V');
    expect(older).toContain('Charge before judging');
  });

  it('tells of a capacitor bank in the battery’s place how much it holds, and when it must be filled', async () => {
    const machine = BANKED;
    const { root } = await jobHarness(Taken, [opened(), rest(9.2)], { machine });
    const bank = root.querySelector('vt-bank-now')!.textContent;
    expect(bank).toContain('Capacitor bank, 200 F at 9.20 V');
    expect(bank).toContain('No crank left above 10.5 V: fill it first');
    expect(bank).not.toContain('Holds');
    // 200 F over 5.2 V are 1,040 As.
    expect(bank).toContain('104 s from a converter');
  });

  it('counts the cranks that are left in a bank', async () => {
    const { root } = await jobHarness(Taken, [opened(), rest(13.8)], { machine: BANKED });
    expect(root.querySelector('vt-bank-now')!.textContent).toMatch(/Cranks left: about [1-9]/);
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
    expect(rows(root)).toEqual(['Nothing yet.']);
  });
});

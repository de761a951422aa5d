import { TestBed } from '@angular/core/testing';
import { DEFAULT_RULES } from '@voltrek/core/rules';
import type { KitItem } from '@voltrek/core/sources';
import { event, KIT, opened } from '../../../testing/fixtures';
import { jobHarness } from '../../../testing/job-harness';
import { Lift } from './lift-part';

const charger = (id: string, amps: number): KitItem => ({
  ...{ kind: 'mains-charger', id, name: id, amps, volts: 14.4, startAmps: null },
  leads: { sectionMm2: 6, lengthM: 1.8, conductor: 'copper', contact: 'clean' },
});
/** A car whose battery rested at so many volts in the mild, or in so much cold. */
const at = (volts: number, ambientC = 15) => [
  opened(),
  event('scene.recorded', {
    ...{ place: 'yard', sloping: false, dark: false, enclosed: false, ambientC, mainsNear: true },
  }),
  event('reading.taken', { kind: 'rest', volts, battery: 0, tempC: 15, source: 'typed' }),
];
const text = (root: HTMLElement) => root.textContent.replace(/\s+/g, ' ');

describe('lifting a battery, step by step', () => {
  it('offers the lamp, the amps and the minutes of this battery', async () => {
    const { root } = await jobHarness(Lift, at(2.5), { kit: [...KIT] });
    // By hand: 12.6 less 2.5 V over 2.6 ohm.
    expect(text(root)).toMatch(/through a 55 W lamp: 3\.9 A, about \d+ min/);
    expect(text(root)).toContain(`under ${DEFAULT_RULES.chargerSenseVolts} V`);
  });

  it('goes step by step, keeps its clock and its looks', async () => {
    const kit = [...KIT, charger('large', 40), charger('small', 8)];
    const { root, tap, type, reported, refresh } = await jobHarness(Lift, at(2.5), { kit });
    await tap('Lift it, step by step');
    expect(text(root)).toContain('Prove its polarity twice');
    expect(reported().length).withContext('nothing is done yet').toBe(0);
    await tap('Done');
    await refresh();
    await tap('Done');
    await refresh();
    expect(text(root)).toContain('3.9 A, and 39 A for a moment while the lamp is cold');
    await tap('Joined, black last');
    await refresh();
    expect(root.querySelector('[role=timer]')).not.toBeNull();
    expect(text(root)).toMatch(/Then small, set to 6(\.0)? A/);
    await type('At its posts', '310');
    await tap('Note it');
    await refresh();
    expect(text(root)).toMatch(/3\.10 V\s*(It rises|Too soon)/);
    expect(text(root)).withContext('the action bar has it').not.toContain('Lamp is off');
    expect(reported().map(({ type: kind, data }) => [kind, data]) as unknown).toEqual([
      ['lift.confirmed', { battery: 0, step: 'prove-polarity' }],
      ['lift.confirmed', { battery: 0, step: 'look-at-case' }],
      ['lift.confirmed', { battery: 0, step: 'join-lamp' }],
      ['lift.read', { volts: 3.1, isWarm: false }],
    ]);
  });

  it('is not offered for what may be ice, reads backwards, needs no lift, or is replaced by the house', async () => {
    for (const [events, rules] of [
      [at(2.5, -15), DEFAULT_RULES],
      [at(-2), DEFAULT_RULES],
      [at(11.9), DEFAULT_RULES],
      [at(2.5), { ...DEFAULT_RULES, veryFlatBattery: 'replace' as const }],
    ] as const) {
      TestBed.resetTestingModule();
      const { root } = await jobHarness(Lift, events, { kit: [...KIT], rules });
      expect(text(root).trim()).toBe('');
    }
  });
});

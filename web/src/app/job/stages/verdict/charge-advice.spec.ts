import { TestBed } from '@angular/core/testing';
import { DEFAULT_RULES } from '@voltrek/core/rules';
import type { KitItem } from '@voltrek/core/sources';
import { CAR, event, KIT, opened } from '../../../../testing/fixtures';
import { jobHarness } from '../../../../testing/job-harness';
import { ChargeAdvice } from './charge-advice';

const CHARGER: KitItem = {
  kind: 'mains-charger',
  id: 'c15',
  name: 'Charger, 15 A',
  amps: 15,
  volts: 14.6,
  startAmps: null,
  leads: { sectionMm2: 6, lengthM: 1.8, conductor: 'copper', contact: 'clean' },
};
const kit = [...KIT, CHARGER];
/** A mild yard: nothing freezes. */
const mild = () =>
  event('scene.recorded', {
    ambientC: 8,
    place: 'yard',
    sloping: false,
    dark: false,
    enclosed: false,
    mainsNear: true,
  });
const rest = (volts: number) =>
  event('reading.taken', { kind: 'rest', volts, battery: 0, tempC: 5, source: 'typed' });

describe('ChargeAdvice', () => {
  it('tells current, volts, hours, where, and that a day’s rest comes before the judgement', async () => {
    const { root } = await jobHarness(ChargeAdvice, [opened(), mild(), rest(11.9)], { kit });
    for (const part of ['6.0 A', '14.1 to 14.8 V', 'Take it out to charge', 'Rest 24 h, then judge'])
      expect(root.textContent.replace(/\s+/g, ' ')).toContain(part);
    expect(root.textContent).toMatch(/Charger, 15 A\s*set 6.0 A: [\d.]+ h in this cold/);
    expect(root.textContent).not.toContain('lamp');
    // It stands: nobody is sent onto the road with it.
    expect(root.textContent).not.toContain('On the road');
  });

  it('lifts a very flat battery through a lamp, unless the house would rather replace it', async () => {
    const { root } = await jobHarness(ChargeAdvice, [opened(), mild(), rest(2.6)], { kit });
    expect(root.textContent).toMatch(/through a 55 W lamp:\s+3\.8 A, about\s+\d+ min/);
  });

  it('keeps to the house rule on very flat batteries', async () => {
    const rules = { ...DEFAULT_RULES, veryFlatBattery: 'replace' as const };
    const { root } = await jobHarness(ChargeAdvice, [opened(), mild(), rest(2.6)], { kit, rules });
    expect(root.textContent).toContain('House rule: replace a battery this flat.');
  });

  it('warns of a charger whose volts a gel battery does not stand', async () => {
    const battery = CAR.batteries[0]!;
    const machine = {
      ...CAR,
      batteries: [{ ...battery, rating: { ...battery.rating, chemistry: 'gel' as const } }],
    };
    const { root } = await jobHarness(ChargeAdvice, [opened(), mild(), rest(12.2)], { kit, machine });
    expect(root.textContent).toContain('not with this one: too many volts for this chemistry');
  });

  it('offers no charge and no revival for what may be frozen or reads backwards, only what to do instead', async () => {
    for (const [volts, says] of [
      [2.6, /no charge, no crank, nothing joined/],
      [-3, /charged the wrong way round/i],
    ] as const) {
      TestBed.resetTestingModule();
      const { root } = await jobHarness(ChargeAdvice, [opened(), rest(volts)], { kit });
      expect(root.querySelector('[role=alert]')!.textContent).toMatch(says);
      expect(root.querySelector('dl')).toBeNull();
      expect(root.querySelector('.revive')).toBeNull();
    }
  });
});

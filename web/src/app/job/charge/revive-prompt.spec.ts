import { chargePlan } from '@voltrek/core/verdict';
import { DEFAULT_RULES } from '@voltrek/core/rules';
import type { KitItem } from '@voltrek/core/sources';
import { CAR, KIT } from '../../../testing/fixtures';
import { reviveSteps } from './revive-prompt';

describe('lifting a battery, step by step', () => {
  const [battery] = CAR.batteries;
  const steps = (volts: number, coldestC = 15) =>
    reviveSteps(
      {
        plan: chargePlan(battery!, 0, volts, 15, KIT, DEFAULT_RULES, coldestC),
        senseVolts: DEFAULT_RULES.chargerSenseVolts,
      },
      new Date(2027, 0, 15, 2, 0),
    );

  it('has the lamp, the amps, the minutes and the moment of this battery', () => {
    const text = JSON.stringify(steps(2.5)!.steps);
    expect(text).toContain('through a 55 W lamp');
    // By hand: 12.6 less 2.5 V over 2.6 ohm.
    expect(text).toContain('3.9 A at the first contact');
    expect(text).toMatch(/Leave it for \d+ min, until about 02:\d\d/);
    expect(text).toContain(`over ${DEFAULT_RULES.chargerSenseVolts} V`);
    expect(steps(2.5)!.steps[0]!.act).toContain('polarity');
  });

  it('names a charger that is not too large for it, at the current to set', () => {
    const charger = (id: string, amps: number): KitItem => ({
      ...{ kind: 'mains-charger', id, name: id, amps, volts: 14.4, startAmps: null },
      leads: { sectionMm2: 6, lengthM: 1.8, conductor: 'copper', contact: 'clean' },
    });
    const kit = [charger('large', 40), charger('small', 8)];
    const plan = chargePlan(battery!, 0, 2.5, 15, kit, DEFAULT_RULES, 15);
    const text = JSON.stringify(reviveSteps({ plan, senseVolts: 8 }, new Date(2027, 0, 15))!.steps);
    expect(text).toMatch(/small[^"]*6(\.0)? A/);
    expect(text).not.toContain('large');
  });

  it('is not offered for what may be ice, reads backwards, or needs no lift', () => {
    expect(steps(2.5, -15)).toBeNull();
    expect(steps(-2)).toBeNull();
    expect(steps(11.9)).toBeNull();
  });
});

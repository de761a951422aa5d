import { equalise, equalisingOhms } from '@voltrek/core/capacitor';
import { leadSetOhms } from '@voltrek/core/leads';
import { BENCH_TOOLS, type BenchToolId } from '@words/bench-words';
import { answersOf, readFields } from './read-fields';
import { TOOLS } from './tools';

function answers(id: BenchToolId, typed: Record<string, string> = {}): Record<string, string> {
  const { results, problem } = answersOf(TOOLS[id], readFields(TOOLS[id], typed));
  expect(problem).withContext(id).toBeNull();
  return Object.fromEntries(results.map((r) => [r.key, r.text]));
}

describe('the bench', () => {
  it('answers with its usual values in every tool, never NaN', () => {
    for (const id of BENCH_TOOLS) {
      const all = answers(id);
      expect(Object.keys(all).length).withContext(id).toBeGreaterThan(1);
      for (const text of Object.values(all))
        expect(text)
          .withContext(id)
          .not.toMatch(/NaN|Infinity|undefined/);
    }
  });

  it('is the core: leads, by the field’s own figure of 0.965 V in the conductors', () => {
    const { lostVolts } = answers('leads', { tempC: '20' });
    const set = { sectionMm2: 25, lengthM: 3.5, conductor: 'copper', contact: 'clean' } as const;
    expect(lostVolts).toBe((200 * leadSetOhms(set, 20)).toFixed(2));
    expect(Number(lostVolts)).toBeCloseTo(0.965 + 200 * 4 * 0.0003, 2);
  });

  it('takes the bank’s fall, not one cell’s: 5.14 V and 0.36 V', () => {
    const bank = answers('capacitor');
    expect(bank.fallCharge).toBe('5.14');
    expect(bank.fallEsr).toBe('0.36');
  });

  it('weighs a bank against a battery: 350 F of six cells are 0.8 Wh, 420 Wh stand in half a battery of 70 Ah', () => {
    const energy = answers('energy');
    // 58.3 F / 2 x (14.4² - 10.5²) = 2.83 kJ.
    expect(Number(energy.bankEnergy)).toBeCloseTo(0.79, 2);
    expect(Number(energy.bankPerKg)).toBeCloseTo(0.787 / 0.378, 1);
    expect(energy.batteryEnergy).toBe('420');
    expect(Number(energy.batteryPerKg)).toBeCloseTo(420 / 18, 1);
    expect(Number(energy.bankHolds)).toBeCloseTo((0.787 * 60) / 30, 1);
    expect(energy.batteryHolds).toBe('14.0');
    // 30 W a fifth of the time are 6 W: at 14.4 V 0.42 A.
    expect(energy.keepAmps).toBe('0.42');
  });

  it('sizes the resistor for the most amps and tells when it is safe', () => {
    const { resistor, toSafe } = answers('equalise', { mostAmps: '6' });
    const ohms = equalisingOhms(6, 6);
    const by = equalise({ highVolts: 14.4, lowVolts: 8.4, highFarads: 58, lowFarads: 58, ohms }, 0.5);
    expect(resistor).toBe('1.00');
    expect(toSafe).toBe(by.secondsToSafe.toFixed(0));
  });

  it('tells a hydrometer from a meter', () => {
    expect(answers('soc', { method: 'hydrometer', gravity: '1,265', tempC: '27' }).charge).toBe('100');
    expect(answers('soc', { restVolts: '12.25', tempC: '25' }).charge).toBe('50');
  });

  it('lifts a 24 V starter by 6 V or more with 12 V across a dead battery 2', () => {
    const { alone, helped } = answers('string', { secondVolts: '11.8', firstVolts: '12.6', tempC: '0' });
    expect(Number(helped) - Number(alone)).toBeGreaterThan(6);
  });

  it('refuses at the field, with the range, and answers nothing until it is right', () => {
    const read = readFields(TOOLS.leads, { lengthM: '-1', sectionMm2: 'x', contact: 'rusty' });
    const fault = (key: string): string => read.find((f) => f.field.key === key)!.fault ?? '';
    expect(fault('lengthM')).toContain('between 0.1 and 30 m');
    expect(fault('sectionMm2')).toContain('must be a number');
    expect(fault('contact')).toContain('one of clean, worn, poor');
    expect(answersOf(TOOLS.leads, read).results).toEqual([]);
  });

  it('says that figures do not go together, in the language on screen', () => {
    const read = readFields(TOOLS.charge, { percent: '90', targetPercent: '20' });
    expect(answersOf(TOOLS.charge, read).problem).toMatch(/^These figures do not go together/);
  });

  it('knows zero from nothing: no farads are refused', () => {
    const read = readFields(TOOLS.capacitor, { cellFarads: '0' });
    expect(read.find((f) => f.field.key === 'cellFarads')!.fault).toContain('between 0.001');
  });

  it('gives the days of a parked draw: half of 70 Ah, less the tenth that is gone, at 50 mA', () => {
    // 70 Ah x (0.9 - 0.5) = 28 Ah; over 0.05 A and 24 h: 23.3 days.
    expect(answers('drain').days).toBe('23.3');
    expect(answers('drain', { drainMilliamps: '500' }).days).toBe('2.3');
    const judged = (milliamps: string): string => answers('drain', { drainMilliamps: milliamps }).drawJudged!;
    expect(judged('400')).not.toBe(judged('30'));
  });

  it('counts what a start takes, and never charges faster with less', () => {
    // 220 A for 3 s: 0.18 Ah.
    expect(answers('charge').startAh).toBe('0.18');
    const hours = [3, 7, 15, 30].map((amps) => Number(answers('charge', { chargeAmps: String(amps) }).hours));
    expect(hours).toEqual([...hours].sort((a, b) => b - a));
    const cold = Number(answers('charge', { tempC: '-20' }).accepts);
    expect(cold).toBeLessThan(Number(answers('charge', { tempC: '25' }).accepts));
  });

  it('converts cold-cranking amps there and back', () => {
    const sae = answers('cca', { ccaAmps: '640', standard: 'EN' }).asSAE!;
    expect(Number(answers('cca', { ccaAmps: sae, standard: 'SAE' }).asEN)).toBeCloseTo(640, -1);
    expect(answers('cca', { ccaAmps: '640', standard: 'EN' }).asEN).toBe('640');
  });

  it('freezes a flat battery long before a full one, and no lithium one at all', () => {
    const at = (percent: string): number => Number(answers('freeze', { percent }).freezeC);
    expect(at('100')).toBeLessThan(-50);
    expect([0, 25, 50, 75, 100].map((p) => at(String(p)))).toEqual([-11, -16, -24, -37, -59]);
    expect(answers('freeze', { chemistry: 'lfp' }).freezeC).not.toMatch(/^-?\d/);
  });

  it('shares an uneven string out to two batteries, and calls an even one even', () => {
    const uneven = answers('string', { firstVolts: '12.6', secondVolts: '11.7' });
    expect(uneven.sum).toBe('24.30');
    expect(uneven.difference).toBe('0.90');
    expect(uneven.advice).not.toBe(answers('string', { firstVolts: '12.6', secondVolts: '12.5' }).advice);
  });

  it('refuses to revive what stands backwards or is frozen', () => {
    const may = answers('revive').refused;
    expect(answers('revive', { restVolts: '-11' }).refused).not.toBe(may);
    expect(answers('revive', { restVolts: '4', tempC: '-25' }).refused).not.toBe(may);
    // Through 1 ohm from 12.6 V onto 4 V: at most 8.6 A.
    const amps = Number(answers('revive').contactAmps);
    expect(amps).toBeLessThanOrEqual(8.6);
    expect(amps).toBeGreaterThan(7);
  });

  it('loses more in longer, thinner, warmer or clad leads, never less', () => {
    const lost = (typed: Record<string, string>): number => Number(answers('leads', typed).lostVolts);
    const usual = lost({});
    expect(lost({ lengthM: '6' })).toBeGreaterThan(usual);
    expect(lost({ sectionMm2: '10' })).toBeGreaterThan(usual);
    expect(lost({ tempC: '35' })).toBeGreaterThan(lost({ tempC: '-20' }));
    expect(lost({ conductor: 'copper-clad-aluminium' })).toBeGreaterThan(usual);
    expect(lost({ contact: 'poor' })).toBeGreaterThan(usual);
  });
});

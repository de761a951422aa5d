import {
  batteryOhms,
  batteryOpenVolts,
  type BatteryRating,
  type BatteryState,
  POLARISATION,
} from '../src/battery/index.js';
import { CircuitError, type ClampId, type Terminal } from '../src/circuit/index.js';
import { type CrankCase, crankPoint, simulateCrank, STEP_SECONDS, toSpice } from '../src/crank/index.js';
import { type Engine, rpmFromRadS } from '../src/engine/index.js';
import { type LeadSet, leadSetOhms } from '../src/leads/index.js';
import { capacitorSource, type SourceModel } from '../src/sources/index.js';
import { BATTERY_60, BATTERY_95, FREE, JOINED, KIT } from './fixtures.js';
import { runNgspice, sampleAt } from './ngspice.js';

const PETROL: Engine = { fuel: 'petrol', displacementL: 1.6, cylinders: 4, systemVolts: 12 };
const THREE: Engine = { fuel: 'petrol', displacementL: 1, cylinders: 3, systemVolts: 12 };
const SINGLE: Engine = { fuel: 'petrol', displacementL: 0.45, cylinders: 1, systemVolts: 12 };
const DIESEL: Engine = { fuel: 'diesel', displacementL: 3, cylinders: 6, systemVolts: 12 };
const TRUCK_ENGINE: Engine = { fuel: 'diesel', displacementL: 8, cylinders: 6, systemVolts: 24 };
const SMALL: BatteryRating = { chemistry: 'agm', capacityAh: 8, ccaAmps: 120, ccaStandard: 'SAE' };
const HEAVY: LeadSet = { sectionMm2: 25, lengthM: 3.5, conductor: 'copper', contact: 'clean' };
const LIGHT: LeadSet = { sectionMm2: 10, lengthM: 3, conductor: 'copper-clad-aluminium', contact: 'worn' };

const donor = (tempC: number, running: boolean): SourceModel => {
  const state = { soc: 0.95, tempC, ageing: 1.2 };
  return {
    openVolts: batteryOpenVolts(BATTERY_95, state),
    ohms: batteryOhms(BATTERY_95, state),
    polarises: true,
    ...(running && { alternator: { volts: 14.2, maxAmps: 60 } }),
  };
};
const BANK = capacitorSource(KIT.find((item) => item.kind === 'capacitor-booster')!, 25);
const LITHIUM: SourceModel = { openVolts: 13.28, ohms: 0.0085, maxAmps: 800 };

function caseOf(
  engine: Engine,
  batteries: readonly [BatteryRating, BatteryState][],
  source: SourceModel | null = null,
  leads: LeadSet = HEAVY,
  clamps: Record<ClampId, Terminal | null> = JOINED,
): CrankCase {
  const { tempC } = batteries[0]![1];
  return {
    engine,
    batteries: batteries.map(([rating, state]) => ({ rating, state })),
    seconds: 3,
    rescue: {
      casualty: batteries.map(([rating, state]) => ({
        openVolts: batteryOpenVolts(rating, state),
        ohms: batteryOhms(rating, state),
      })),
      load: { kind: 'none' },
      source,
      sourceOn: true,
      leads: source ? leads : null,
      tempC,
      clamps: source ? clamps : FREE,
    },
  };
}
const at = (soc: number, tempC: number, ageing = 1): BatteryState => ({ soc, tempC, ageing });

describe('simulateCrank', () => {
  it('1.6 L petrol, full 60 Ah battery, 25 degC: dips to 8.5 to 10.5 V, settles in the plausible band and starts', () => {
    const trace = simulateCrank(caseOf(PETROL, [[BATTERY_60, at(1, 25)]]));
    expect(trace.dipVolts).toBeGreaterThan(8.5);
    expect(trace.dipVolts).toBeLessThan(10.5);
    const later = trace.postVolts.subarray(1 / STEP_SECONDS);
    const mean = later.reduce((sum, v) => sum + v, 0) / later.length;
    expect(mean).toBeGreaterThan(10.5);
    expect(mean).toBeLessThan(12.1);
    expect(trace.startsAtSeconds).toBeLessThan(1.2);
  });

  it('the same at -18 degC still starts; flat at 0 degC does not', () => {
    expect(simulateCrank(caseOf(PETROL, [[BATTERY_60, at(1, -18)]])).startsAtSeconds).not.toBeNull();
    const flat = simulateCrank(caseOf(PETROL, [[BATTERY_60, at(0.02, 0)]]));
    expect(flat.startsAtSeconds).toBeNull();
    // It twitches before the plates polarise, and stands.
    expect(Math.max(...flat.rpm)).toBeLessThan(5);
    expect(flat.rpm.at(-1)).toBe(0);
  });

  it('settles where the quasi-steady point says, once the plates have polarised', () => {
    for (const [tempC, soc] of [
      [25, 1],
      [0, 0.7],
      [-10, 0.8],
    ] as const) {
      const input = { ...caseOf(PETROL, [[BATTERY_60, at(soc, tempC)]]), seconds: 8 };
      const trace = simulateCrank(input);
      const steady = crankPoint(input.rescue, PETROL);
      const tail = trace.rpm.subarray(trace.rpm.length - 2000);
      const mean = tail.reduce((sum, v) => sum + v, 0) / tail.length;
      expect(Math.abs(mean / steady.rpm - 1))
        .withContext(`${tempC} degC`)
        .toBeLessThan(0.02);
    }
  });

  it('conserves charge: what the battery lost is what the starter drew', () => {
    const input = caseOf(PETROL, [[BATTERY_60, at(0.8, 0)]]);
    const trace = simulateCrank(input);
    const drawn = trace.starterAmps.reduce((sum, a) => sum + a * STEP_SECONDS, 0);
    const lost = (0.8 - trace.endSoc[0]!) * BATTERY_60.capacityAh * 3600;
    expect(Math.abs(drawn / lost - 1)).toBeLessThan(1e-6);
  });

  it('balances power at every step: battery, source and alternator against posts, leads and starter', () => {
    const input = caseOf(PETROL, [[BATTERY_60, at(0.2, -5)]], donor(-5, false));
    const trace = simulateCrank(input);
    const leadOhms = leadSetOhms(HEAVY, -5);
    for (let i = 0; i < trace.seconds.length; i += 37) {
      // Round the lead loop: source volts less the leads' drop is what reaches post and body.
      const reached = trace.sourceVolts[i]! - trace.sourceAmps[i]! * leadOhms;
      const strap = (trace.starterAmps[i]! - trace.sourceAmps[i]!) * 0.0004;
      expect(Math.abs(reached - (trace.postVolts[i]! - strap))).toBeLessThan(1e-6 * 12);
    }
  });

  it('a capacitor bank falls by the charge it gives and its ESR: 6 x 350 F, 200 A, 1.5 s', () => {
    const { capacitor } = BANK;
    expect((200 * 1.5) / capacitor!.farads).toBeCloseTo(5.14, 2);
    expect(200 * capacitor!.esrOhms).toBeCloseTo(0.36, 6);
    const input = caseOf(PETROL, [[BATTERY_60, at(0.3, 5)]], BANK);
    const trace = simulateCrank(input);
    const given = trace.sourceAmps.reduce((sum, a) => sum + a * STEP_SECONDS, 0);
    const last = trace.sourceVolts.length - 1;
    const expected =
      BANK.openVolts - given / capacitor!.farads - trace.sourceAmps[last]! * capacitor!.esrOhms;
    expect(trace.sourceVolts[last]).toBeCloseTo(expected, 2);
  });

  it('takes the polarised share only with time: the first step sees less than the whole resistance', () => {
    const input = caseOf(DIESEL, [[BATTERY_95, at(0.9, 0)]]);
    const { openVolts, ohms } = input.rescue.casualty[0]!;
    const trace = simulateCrank(input);
    expect(trace.postVolts[0]).toBeCloseTo(
      openVolts - trace.starterAmps[0]! * ohms * (1 - POLARISATION.share),
      6,
    );
  });

  it('takes nothing from an alternator that may give nothing, and never less volts from one that may give more', () => {
    const lending = (maxAmps: number) =>
      simulateCrank(
        caseOf(PETROL, [[BATTERY_60, at(0.1, -5)]], {
          ...donor(-5, false),
          alternator: { volts: 14.2, maxAmps },
        }),
      );
    const still = simulateCrank(caseOf(PETROL, [[BATTERY_60, at(0.1, -5)]], donor(-5, false)));
    const none = lending(0);
    for (let i = 0; i < still.rpm.length; i += 11) {
      expect(none.starterVolts[i]).toBeCloseTo(still.starterVolts[i]!, 9);
      expect(none.rpm[i]).toBeCloseTo(still.rpm[i]!, 6);
    }
    // Over the last second: a single moment depends on where the pistons stand.
    const meanVolts = [0, 20, 40, 80, 160].map((amps) => {
      const last = lending(amps).sourceVolts.subarray(2 / STEP_SECONDS);
      return last.reduce((sum, volts) => sum + volts, 0) / last.length;
    });
    for (let i = 1; i < meanVolts.length; i++) expect(meanVolts[i]!).toBeGreaterThan(meanVolts[i - 1]!);
    // However much it may give, it stops at the volts it regulates to.
    expect(lending(100_000).sourceVolts.every((volts) => volts <= 14.2 + 1e-9)).toBeTrue();
  });

  it('refuses more sources than a crank has', () => {
    const three = caseOf(
      TRUCK_ENGINE,
      [
        [BATTERY_95, at(0.9, 0)],
        [BATTERY_95, at(0.9, 0)],
        [BATTERY_95, at(0.9, 0)],
      ],
      LITHIUM,
    );
    expect(() => simulateCrank(three)).toThrowError(RangeError, /3 sources/);
  });

  it('follows the same crank the same way, however often it was asked before', () => {
    const input = caseOf(THREE, [[BATTERY_60, at(0.3, 5)]], donor(5, true), LIGHT);
    const first = simulateCrank(input);
    simulateCrank(caseOf(DIESEL, [[BATTERY_95, at(0.9, 0)]]));
    expect(simulateCrank(input)).toEqual(first);
  });

  it('turns unevenly where a cylinder leaks, at the same mean drag or less', () => {
    const sound = caseOf(PETROL, [[BATTERY_60, at(0.9, 10)]]);
    const leaky = { ...sound, compression: [1, 1, 0.2, 1] };
    const spread = (input: CrankCase): number => {
      const turning = simulateCrank(input).rpm.subarray(1.5 / STEP_SECONDS);
      // Peaks of one revolution against those of the next cylinder: widest against narrowest swing.
      const swings: number[] = [];
      for (let i = 1; i < turning.length - 1; i++)
        if (turning[i]! > turning[i - 1]! && turning[i]! >= turning[i + 1]!) swings.push(turning[i]!);
      return Math.max(...swings) - Math.min(...swings);
    };
    expect(spread(leaky)).toBeGreaterThan(3 * spread(sound));
  });

  it('warms thin leads more than thick ones', () => {
    const rise = (leads: LeadSet): number =>
      simulateCrank(caseOf(PETROL, [[BATTERY_60, at(0.05, 0)]], donor(0, true), leads)).leadRiseC;
    expect(rise(LIGHT)).toBeGreaterThan(2 * rise(HEAVY));
    expect(rise(HEAVY)).toBeGreaterThan(0);
  });

  it('names a case it cannot solve', () => {
    const input = caseOf(PETROL, [[BATTERY_60, at(0.5, 0)]], { openVolts: 12, ohms: 0 });
    expect(() => simulateCrank(input)).toThrowError(CircuitError);
  });
});

describe('simulateCrank against ngspice', () => {
  const upper: Record<ClampId, Terminal | null> = {
    ...JOINED,
    redCasualty: { kind: 'plus', battery: 1 },
    blackCasualty: { kind: 'minus', battery: 1 },
  };
  const whole: Record<ClampId, Terminal | null> = { ...JOINED, redCasualty: { kind: 'plus', battery: 1 } };
  const cases: [string, CrankCase][] = [];
  for (const tempC of [-18, -5, 10, 25]) {
    cases.push([`alone, ${tempC} degC`, caseOf(PETROL, [[BATTERY_60, at(0.9, tempC)]])]);
    cases.push([
      `donor still, heavy, ${tempC}`,
      caseOf(PETROL, [[BATTERY_60, at(0.1, tempC, 1.5)]], donor(tempC, false)),
    ]);
    cases.push([
      `donor runs, heavy, ${tempC}`,
      caseOf(PETROL, [[BATTERY_60, at(0.3, tempC, 1.3)]], donor(tempC, true)),
    ]);
    cases.push([
      `donor runs, light, ${tempC}`,
      caseOf(THREE, [[BATTERY_60, at(0.05, tempC)]], donor(tempC, true), LIGHT),
    ]);
    cases.push([`lithium, ${tempC}`, caseOf(SINGLE, [[SMALL, at(0.2, tempC)]], LITHIUM)]);
    cases.push([`capacitor, ${tempC}`, caseOf(PETROL, [[BATTERY_60, at(0.4, tempC)]], BANK)]);
    cases.push([
      `diesel from donor, ${tempC}`,
      caseOf(DIESEL, [[BATTERY_95, at(0.25, tempC)]], donor(tempC, true)),
    ]);
  }
  cases.push([
    '24 V, upper battery helped',
    caseOf(
      TRUCK_ENGINE,
      [
        [BATTERY_95, at(0.9, 0)],
        [BATTERY_95, at(0.05, 0)],
      ],
      LITHIUM,
      HEAVY,
      upper,
    ),
  ]);
  cases.push([
    '24 V, whole string helped',
    caseOf(
      TRUCK_ENGINE,
      [
        [BATTERY_95, at(0.4, 5)],
        [BATTERY_95, at(0.4, 5)],
      ],
      { openVolts: 25.4, ohms: 0.014, polarises: true },
      HEAVY,
      whole,
    ),
  ]);
  const deep: BatteryState = { soc: 0, tempC: 5, ageing: 1, overDischargedVolts: 9 };
  cases.push(['deeply discharged, donor', caseOf(PETROL, [[BATTERY_60, deep]], donor(5, true))]);
  cases.push(['will not turn', caseOf(DIESEL, [[BATTERY_95, at(0.02, -18)]], donor(-18, true), LIGHT)]);

  let worstVolts = 0;
  let worstAmps = 0;
  let worstRpm = 0;

  for (const [name, input] of cases) {
    it(name, () => {
      const trace = simulateCrank(input);
      const spice = runNgspice(toSpice(input));
      const times = spice.get('time')!;
      const starterVolts = spice.get('v(casualty_starter)')!;
      const starterAmps = spice.get('i(vstarter_amps)')!;
      const speed = spice.get('v(crank_rad_s)')!;
      const amps = Math.max(...trace.starterAmps);
      const rpm = Math.max(100, ...trace.rpm);
      for (let i = Math.round(0.02 / STEP_SECONDS); i < trace.seconds.length; i += 7) {
        const t = trace.seconds[i]!;
        worstVolts = Math.max(
          worstVolts,
          Math.abs(trace.starterVolts[i]! / sampleAt(times, starterVolts, t) - 1),
        );
        const ampsOff = Math.abs(trace.starterAmps[i]! - sampleAt(times, starterAmps, t)) / amps;
        const rpmOff = Math.abs(trace.rpm[i]! - rpmFromRadS(sampleAt(times, speed, t))) / rpm;
        worstAmps = Math.max(worstAmps, ampsOff);
        worstRpm = Math.max(worstRpm, rpmOff);
        if (ampsOff > 0.005 || rpmOff > 0.01)
          fail(`${name} at ${t} s: amps off ${ampsOff}, rpm off ${rpmOff}`);
      }
      expect(worstVolts).toBeLessThan(0.005);
    });
  }

  afterAll(() => {
    const percent = (share: number): string => `${(share * 100).toFixed(3)} %`;
    process.stdout.write(
      `\n${cases.length} rescues against ngspice, worst: volts ${percent(worstVolts)}, amps ${percent(worstAmps)}, rpm ${percent(worstRpm)}\n`,
    );
  });
});

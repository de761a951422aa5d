import { batteryOhms, batteryOpenVolts, type BatteryRating } from '@voltrek/core/battery';
import {
  bankFallVolts,
  balancedMaxVolts,
  crankCount,
  equalise,
  equalisingLampWatts,
  equalisingOhms,
  firstCharge,
  holdUpHours,
  rechargeSeconds,
  usableJoules,
} from '@voltrek/core/capacitor';
import type { Rescue } from '@voltrek/core/circuit';
import { crankPoint } from '@voltrek/core/crank';
import { ENGINE_RANGES, type Fuel } from '@voltrek/core/engine';
import { type ClampContact, type Conductor, LEAD_RANGES, leadSetOhms } from '@voltrek/core/leads';
import { leadRiseC } from '@voltrek/core/plan';
import { TYPED_RANGES } from '@voltrek/core/quantities';
import { RULES } from '@voltrek/core/rules';
import { BANK_RANGES, bankOf } from '@voltrek/core/sources';
import { type BenchTool, choice, figure, type Given, number, type Pair } from '../tool';
import { WIRING as T } from '@words/screens/bench-tools';

const { ambientC } = TYPED_RANGES;
/** A usual rescue to try leads on: a flat battery of a mid-size car, and a healthy donor that runs. */
const FLAT: BatteryRating = { chemistry: 'flooded', capacityAh: 70, ccaAmps: 640, ccaStandard: 'EN' };
const FLAT_SOC = 0.05;
const DONOR: BatteryRating = { chemistry: 'agm', capacityAh: 95, ccaAmps: 850, ccaStandard: 'EN' };
const DONOR_SOC = 0.95;
const DONOR_ALTERNATOR = { volts: 14.2, maxAmps: 60 };

export const leadsTool: BenchTool = {
  id: 'leads',
  fields: [
    number('sectionMm2', 25, LEAD_RANGES.sectionMm2.min, LEAD_RANGES.sectionMm2.max, 'mm²'),
    number('lengthM', 3.5, LEAD_RANGES.lengthM.min, LEAD_RANGES.lengthM.max, 'm'),
    choice('conductor', ['copper', 'copper-clad-aluminium']),
    choice('contact', ['clean', 'worn', 'poor']),
    number('amps', 200, 1, 3000, 'A'),
    number('seconds', 10, 0.1, 120, 's'),
    number('tempC', 0, ambientC.min, ambientC.max, '°C'),
    choice('fuel', ['petrol', 'diesel']),
    number('displacementL', 1.6, ENGINE_RANGES.displacementL.min, 8, 'L'),
  ],
  curve: { kind: 'sweep', over: 'sectionMm2', results: ['rpm', 'neededRpm'], from: 4, to: 70 },
  compute: (given) => {
    const leads = {
      sectionMm2: given.number('sectionMm2'),
      lengthM: given.number('lengthM'),
      conductor: given.choice('conductor') as Conductor,
      contact: given.choice('contact') as ClampContact,
    };
    const amps = given.number('amps');
    const tempC = given.number('tempC');
    const displacementL = given.number('displacementL');
    const engine = {
      fuel: given.choice('fuel') as Fuel,
      displacementL,
      cylinders: displacementL > 2.5 ? 6 : 4,
      systemVolts: 12,
    } as const;
    const flat = { soc: FLAT_SOC, tempC, ageing: 1.3 };
    const lending = { soc: DONOR_SOC, tempC, ageing: 1.2 };
    const plus = { kind: 'plus', battery: 0 } as const;
    const body = { kind: 'body' } as const;
    const rescue: Rescue = {
      casualty: [{ openVolts: batteryOpenVolts(FLAT, flat), ohms: batteryOhms(FLAT, flat) }],
      load: { kind: 'none' },
      source: {
        openVolts: batteryOpenVolts(DONOR, lending),
        ohms: batteryOhms(DONOR, lending),
        alternator: DONOR_ALTERNATOR,
      },
      sourceOn: true,
      leads,
      tempC,
      clamps: { redCasualty: plus, redSource: plus, blackSource: body, blackCasualty: body },
    };
    const crank = crankPoint(rescue, engine);
    const loop = leadSetOhms(leads, tempC);
    return [
      figure('lostVolts', amps * loop, 2, 'V', amps * loop > 2 ? 'bad' : amps * loop > 1 ? 'watch' : 'good'),
      figure('loopOhms', loop * 1000, 1, 'mohm'),
      figure('riseC', leadRiseC(leads, amps, given.number('seconds'), tempC), 1, 'K'),
      figure('rpm', crank.rpm, 0, 'rpm', crank.rpm >= crank.neededRpm ? 'good' : 'bad'),
      figure('neededRpm', crank.neededRpm, 0, 'rpm'),
      figure('starterVolts', crank.starterVolts, 1, 'V'),
    ];
  },
};

/** Cells of one batch may differ by so much either way. */
const CELL_TOLERANCE = 0.2;

/** A curve of more cranks tells nothing more. */
const CRANKS_DRAWN = 40;

const cellsOf = (given: Given) => ({
  cells: given.number('cells'),
  cellFarads: given.number('cellFarads'),
  cellVolts: given.number('cellVolts'),
  cellOhms: given.number('cellMilliohms') / 1000,
});

export const capacitorTool: BenchTool = {
  id: 'capacitor',
  fields: [
    number('cells', 6, BANK_RANGES.cells.min, BANK_RANGES.cells.max, ''),
    number('cellFarads', 350, BANK_RANGES.cellFarads.min, BANK_RANGES.cellFarads.max, 'F'),
    number('cellVolts', 2.7, BANK_RANGES.cellVolts.min, BANK_RANGES.cellVolts.max, 'V'),
    number('cellMilliohms', 0.3, 0, 1000, 'mohm'),
    number('volts', 14.4, 0.1, 60, 'V'),
    number('minVolts', RULES.capacitorMinVolts.value, 0.1, 60, 'V'),
    number('amps', 200, 0.1, 3000, 'A'),
    number('seconds', 1.5, 0.1, 60, 's'),
    number('chargeAmps', 10, 0.01, 500, 'A'),
    number('drainMilliamps', 30, 0.01, 10_000, 'mA'),
  ],
  curve: {
    kind: 'path',
    path: 'bankVolts',
    until: 'minVolts',
    of: (given) => {
      const bank = bankOf(cellsOf(given));
      const fall = bankFallVolts(bank, given.number('amps'), given.number('seconds')).charge;
      const whole = Math.min(CRANKS_DRAWN, Math.floor(given.number('volts') / fall));
      return Array.from({ length: whole + 1 }, (_, n): Pair => [n, given.number('volts') - n * fall]);
    },
  },
  compute: (given) => {
    const cells = cellsOf(given);
    const bank = bankOf(cells);
    const volts = given.number('volts');
    const minVolts = given.number('minVolts');
    const amps = given.number('amps');
    const seconds = given.number('seconds');
    const fall = bankFallVolts(bank, amps, seconds);
    const first = firstCharge(cells);
    const drainAmps = given.number('drainMilliamps') / 1000;
    return [
      figure('bankFarads', bank.farads, 1, 'F'),
      figure('maxVolts', bank.maxVolts, 1, 'V', volts > bank.maxVolts ? 'bad' : 'good'),
      figure('balancedVolts', balancedMaxVolts(cells, CELL_TOLERANCE), 1, 'V'),
      figure('fallCharge', fall.charge, 2, 'V'),
      figure('fallEsr', fall.esr, 2, 'V'),
      figure('cranks', crankCount(bank, volts, minVolts, amps, seconds), 0, ''),
      figure('energy', usableJoules(bank.farads, volts, minVolts) / 1000, 2, 'kJ'),
      figure('recharge', rechargeSeconds(bank.farads, minVolts, volts, given.number('chargeAmps')), 0, 's'),
      figure('holdUp', holdUpHours(bank.farads, volts, minVolts, drainAmps), 1, 'h'),
      figure('firstCharge', first.amps, 2, T.aMinEach(first.minutesEach.toFixed(0))),
    ];
  },
};

export const equaliseTool: BenchTool = {
  id: 'equalise',
  fields: [
    number('highVolts', 14.4, 0, 60, 'V'),
    number('lowVolts', 8.4, 0, 60, 'V'),
    number('highFarads', 58, 0.001, 1_000_000, 'F'),
    number('lowFarads', 58, 0.001, 1_000_000, 'F'),
    number('leadMilliohms', 6, 0.1, 1000, 'mohm'),
    number('mostAmps', 10, 0.01, 1000, 'A'),
    number('safeVolts', 0.5, 0.01, 10, 'V'),
  ],
  curve: {
    kind: 'path',
    path: 'apartVolts',
    until: 'safeVolts',
    of: (given) => {
      const stores = {
        highVolts: given.number('highVolts'),
        lowVolts: given.number('lowVolts'),
        highFarads: given.number('highFarads'),
        lowFarads: given.number('lowFarads'),
      };
      const apart = Math.abs(stores.highVolts - stores.lowVolts);
      const ohms = Math.max(equalisingOhms(apart, given.number('mostAmps')), 1e-6);
      return Array.from({ length: 81 }, (_, i): Pair => {
        const left = apart * (1 - i / 82);
        return [equalise({ ...stores, ohms }, Math.max(0.01, left)).secondsToSafe, left];
      });
    },
  },
  compute: (given) => {
    const highVolts = given.number('highVolts');
    const lowVolts = given.number('lowVolts');
    const mostAmps = given.number('mostAmps');
    const difference = Math.abs(highVolts - lowVolts);
    const ohms = Math.max(equalisingOhms(difference, mostAmps), 1e-6);
    const stores = {
      highVolts,
      lowVolts,
      highFarads: given.number('highFarads'),
      lowFarads: given.number('lowFarads'),
    };
    const through = equalise({ ...stores, ohms }, given.number('safeVolts'));
    const directAmps = difference / (given.number('leadMilliohms') / 1000);
    return [
      figure('directAmps', directAmps, 0, 'A', directAmps > mostAmps ? 'bad' : 'good'),
      figure('resistor', ohms, 2, 'ohm'),
      figure('peakWatts', through.peakWatts, 0, 'W'),
      figure('lamp', difference > 0 ? equalisingLampWatts(difference, mostAmps) : 0, 0, 'W'),
      figure('tau', through.tauSeconds, 0, 's'),
      figure('toSafe', through.secondsToSafe, 0, 's'),
      figure('burnt', through.joules, 0, 'J'),
    ];
  },
};

import {
  bankEnergy,
  bankFallVolts,
  balancedMaxVolts,
  batteryEnergy,
  crankCount,
  equalise,
  equalisingLampWatts,
  equalisingOhms,
  firstCharge,
  holdsLoadSeconds,
  holdUpHours,
  rechargeSeconds,
  usableJoules,
} from '@voltrek/core/capacitor';
import { fixed } from '@words/numbers';
import { RULES } from '@voltrek/core/rules';
import { BANK_RANGES, bankOf } from '@voltrek/core/sources';
import { BANKS as T } from '@words/screens/bench-tools';
import { type BenchTool, figure, type Given, number, type Pair } from '../tool';
import { capacity } from './batteries';

/** Cells of one batch may differ by so much either way. */
const CELL_TOLERANCE = 0.2;

/** The cells of a bank, and the volts it is used between. */
const cellFields = [
  number('cells', 6, BANK_RANGES.cells.min, BANK_RANGES.cells.max, ''),
  number('cellFarads', 350, BANK_RANGES.cellFarads.min, BANK_RANGES.cellFarads.max, 'F'),
];
const usedFields = [
  number('volts', 14.4, 0.1, 60, 'V'),
  number('minVolts', RULES.capacitorMinVolts.value, 0.1, 60, 'V'),
];

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
    ...cellFields,
    number('cellVolts', 2.7, BANK_RANGES.cellVolts.min, BANK_RANGES.cellVolts.max, 'V'),
    number('cellMilliohms', 0.3, 0, 1000, 'mohm'),
    ...usedFields,
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
      figure('firstCharge', first.amps, 2, T.aMinEach({ minutesEach: fixed(first.minutesEach) })),
    ];
  },
};

/** Loads that the curve is drawn over, W. */
const LOADS_DRAWN = { from: 5, to: 200 } as const;

export const energyTool: BenchTool = {
  id: 'energy',
  fields: [
    ...cellFields,
    number('cellGrams', 63, 0.1, 20_000, 'g'),
    number('cellMillilitres', 53, 0.1, 20_000, 'ml'),
    ...usedFields,
    capacity,
    number('batteryKg', 18, 0.05, 200, 'kg'),
    number('batteryLitres', 9, 0.02, 200, 'l'),
    number('loadWatts', 30, 0.1, 5000, 'W'),
    number('dutyPercent', 20, 0.1, 100, '%'),
  ],
  curve: { kind: 'sweep', over: 'loadWatts', results: ['bankHolds'], ...LOADS_DRAWN },
  compute: (given) => {
    const cells = given.number('cells');
    const watts = given.number('loadWatts');
    const bank = bankEnergy(
      given.number('cellFarads') / cells,
      given.number('volts'),
      given.number('minVolts'),
      {
        kg: (cells * given.number('cellGrams')) / 1000,
        litres: (cells * given.number('cellMillilitres')) / 1000,
      },
    );
    const battery = batteryEnergy(given.number('capacityAh'), {
      kg: given.number('batteryKg'),
      litres: given.number('batteryLitres'),
    });
    const keepAmps = (watts * given.number('dutyPercent')) / 100 / given.number('volts');
    return [
      figure('bankEnergy', bank.wattHours, 2, 'Wh'),
      figure('bankPerKg', bank.perKg, 2, 'Wh/kg'),
      figure('bankPerLitre', bank.perLitre, 2, 'Wh/l'),
      figure('batteryEnergy', battery.wattHours, 0, 'Wh'),
      figure('batteryPerKg', battery.perKg, 1, 'Wh/kg'),
      figure('batteryPerLitre', battery.perLitre, 1, 'Wh/l'),
      figure('lessByWeight', bank.perKg > 0 ? battery.perKg / bank.perKg : null, 0, T.times),
      figure('bankHolds', holdsLoadSeconds(bank, watts) / 60, 1, 'min'),
      figure('batteryHolds', holdsLoadSeconds(battery, watts) / 3600, 1, 'h'),
      figure('keepAmps', keepAmps, 2, 'A'),
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

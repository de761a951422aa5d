import {
  BATTERY_CHEMISTRIES,
  BATTERY_RANGES,
  batteryOhms,
  batteryOpenVolts,
  type BatteryRating,
  CCA_STANDARDS,
  type CcaStandard,
  type Chemistry,
  convertCca,
  freezePointC,
  mustTreatAsFrozen,
  socFromGravity,
  socFromRestVolts,
  type SocReading,
} from '@voltrek/core/battery';
import {
  acceptanceAmps,
  chargeHours,
  daysToFlat,
  driveMinutes,
  revive,
  startCostAh,
} from '@voltrek/core/charging';
import type { Rescue } from '@voltrek/core/circuit';
import { crankPoint } from '@voltrek/core/crank';
import type { Engine } from '@voltrek/core/engine';
import { TYPED_RANGES } from '@voltrek/core/quantities';
import { DEFAULT_RULES } from '@voltrek/core/rules';
import { BENCH_ANSWERS } from '@words/bench-words';
import { percentBand } from '@words/figures';
import { type BenchTool, choice, figure, type Given, number, type Pair, word } from '../tool';

const { ambientC } = TYPED_RANGES;
export const capacity = number(
  'capacityAh',
  70,
  BATTERY_RANGES.capacityAh.min,
  BATTERY_RANGES.capacityAh.max,
  'Ah',
);
const chemistry = choice('chemistry', BATTERY_CHEMISTRIES);
const percent = (usual: number) => number('percent', usual, 0, 100, '%');
const temperature = (usual: number) => number('tempC', usual, ambientC.min, ambientC.max, '°C');

/** A battery of the given chemistry and capacity; its cold-cranking amps play no part in charging. */
const ratingOf = (given: Given): BatteryRating => ({
  chemistry: given.choice('chemistry') as Chemistry,
  capacityAh: given.number('capacityAh'),
  ccaAmps: Math.min(
    BATTERY_RANGES.ccaAmps.max,
    Math.max(BATTERY_RANGES.ccaAmps.min, given.number('capacityAh') * 9),
  ),
  ccaStandard: 'EN',
});

export const chargeTool: BenchTool = {
  id: 'charge',
  fields: [
    chemistry,
    capacity,
    percent(20),
    number('targetPercent', 95, 0, 100, '%'),
    number('chargeAmps', 7, 0.1, 200, 'A'),
    temperature(10),
    number('spareAmps', 25, 0.1, 300, 'A'),
    number('amps', 220, 1, 3000, 'A'),
    number('seconds', 3, 0.1, 60, 's'),
  ],
  curve: {
    kind: 'path',
    path: 'chargePercent',
    until: 'targetPercent',
    of: (given) => {
      const rating = ratingOf(given);
      const from = given.number('percent');
      return Array.from({ length: 81 }, (_, i): Pair => {
        const percent = from + ((100 - from) * i) / 80;
        const hours = chargeHours(
          rating,
          from / 100,
          percent / 100,
          given.number('chargeAmps'),
          given.number('tempC'),
        );
        return [hours ?? Infinity, percent];
      });
    },
  },
  compute: (given) => {
    const rating = ratingOf(given);
    const soc = given.number('percent') / 100;
    const target = given.number('targetPercent') / 100;
    const tempC = given.number('tempC');
    const startAh = startCostAh(given.number('amps'), given.number('seconds'));
    const drive = driveMinutes(rating, soc, target, given.number('spareAmps'), startAh, tempC);
    return [
      figure('hours', chargeHours(rating, soc, target, given.number('chargeAmps'), tempC), 1, 'h'),
      figure('accepts', acceptanceAmps(rating, soc, tempC), 1, 'A'),
      figure('startAh', startAh, 2, 'Ah'),
      figure('startBack', drive.startMinutes, 1, 'min'),
      figure('drive', drive.targetMinutes, 0, 'min'),
      drive.needsCharger
        ? word('advice', BENCH_ANSWERS.needsCharger, 'watch')
        : word('advice', BENCH_ANSWERS.driveDoes, 'good'),
    ];
  },
};

export const drainTool: BenchTool = {
  id: 'drain',
  fields: [chemistry, capacity, percent(90), number('drainMilliamps', 50, 0.1, 50_000, 'mA')],
  curve: { kind: 'sweep', over: 'drainMilliamps', results: ['days'], from: 10, to: 500 },
  compute: (given) => {
    const amps = given.number('drainMilliamps') / 1000;
    const isHigh = amps > DEFAULT_RULES.parasiticMaxAmps;
    return [
      figure('days', daysToFlat(ratingOf(given), given.number('percent') / 100, amps), 1, 'days'),
      isHigh
        ? word('drawJudged', BENCH_ANSWERS.highDraw, 'bad')
        : word('drawJudged', BENCH_ANSWERS.normalDraw, 'good'),
    ];
  },
};

export const socTool: BenchTool = {
  id: 'soc',
  fields: [
    chemistry,
    choice('method', ['rest-volts', 'hydrometer']),
    number('restVolts', 12.2, -15, 15, 'V'),
    number('gravity', 1.19, 1, 1.4, ''),
    temperature(5),
  ],
  curve: (given) =>
    given.choice('method') === 'rest-volts'
      ? { kind: 'sweep', over: 'restVolts', results: ['charge'], from: 11, to: 13 }
      : { kind: 'sweep', over: 'gravity', results: ['charge'], from: 1.08, to: 1.3 },
  compute: (given) => {
    const kind = given.choice('chemistry') as Chemistry;
    const tempC = given.number('tempC');
    const byVolts = given.choice('method') === 'rest-volts';
    const read: SocReading = byVolts
      ? socFromRestVolts(kind, given.number('restVolts'), tempC)
      : socFromGravity(given.number('gravity'), tempC);
    const freezeC = freezePointC(kind, read.low, byVolts ? given.number('restVolts') : undefined);
    return [
      figure('charge', read.soc * 100, 0, '%', read.soc < 0.25 ? 'bad' : read.soc < 0.75 ? 'watch' : 'good'),
      word('band', percentBand(read.low, read.high)),
      freezeC === null ? word('freezeC', BENCH_ANSWERS.noAcid) : figure('freezeC', freezeC, 0, '°C'),
    ];
  },
};

export const ccaTool: BenchTool = {
  id: 'cca',
  fields: [
    number('ccaAmps', 640, BATTERY_RANGES.ccaAmps.min, BATTERY_RANGES.ccaAmps.max, 'A'),
    choice('standard', ['EN', ...CCA_STANDARDS.filter((s) => s !== 'EN')]),
  ],
  curve: {
    kind: 'sweep',
    over: 'ccaAmps',
    results: ['asSAE', 'asEN', 'asIEC', 'asDIN'],
    from: 100,
    to: 1200,
  },
  compute: (given) => {
    const from = given.choice('standard') as CcaStandard;
    const amps = given.number('ccaAmps');
    return CCA_STANDARDS.map((to) => figure(`as${to}`, convertCca(amps, from, to), 0, 'A'));
  },
};

export const freezeTool: BenchTool = {
  id: 'freeze',
  fields: [chemistry, percent(20), temperature(-12)],
  curve: { kind: 'sweep', over: 'percent', results: ['freezeC'] },
  compute: (given) => {
    const kind = given.choice('chemistry') as Chemistry;
    const soc = given.number('percent') / 100;
    const freezeC = freezePointC(kind, soc);
    if (freezeC === null) return [word('freezeC', BENCH_ANSWERS.noAcid, 'good')];
    const isFrozen = mustTreatAsFrozen(kind, soc, given.number('tempC'));
    return [
      figure('freezeC', freezeC, 0, '°C'),
      isFrozen
        ? word('frozen', BENCH_ANSWERS.mayFreeze, 'bad')
        : word('frozen', BENCH_ANSWERS.noFreeze, 'good'),
    ];
  },
};

/** Batteries and helper that a 24 V string is tried with. */
const STRING_BATTERY: BatteryRating = {
  chemistry: 'flooded',
  capacityAh: 140,
  ccaAmps: 850,
  ccaStandard: 'EN',
};
const HELPER_LEADS = { sectionMm2: 25, lengthM: 3.5, conductor: 'copper', contact: 'clean' } as const;

export const stringTool: BenchTool = {
  id: 'string',
  fields: [
    number('firstVolts', 12.6, 0, 15, 'V'),
    number('secondVolts', 11.7, 0, 15, 'V'),
    temperature(-5),
    number('displacementL', 7, 1, 20, 'L'),
  ],
  curve: { kind: 'sweep', over: 'secondVolts', results: ['alone', 'helped'], from: 9, to: 13 },
  compute: (given) => {
    const tempC = given.number('tempC');
    const volts = [given.number('firstVolts'), given.number('secondVolts')];
    const reads = volts.map((v) => socFromRestVolts(STRING_BATTERY.chemistry, v, tempC));
    const difference = Math.abs(volts[0]! - volts[1]!);
    const weaker = volts[0]! < volts[1]! ? 0 : 1;
    const engine: Engine = {
      fuel: 'diesel',
      displacementL: given.number('displacementL'),
      cylinders: 6,
      systemVolts: 24,
    };
    const free = { redCasualty: null, redSource: null, blackSource: null, blackCasualty: null };
    const alone: Rescue = {
      casualty: reads.map(({ soc, belowFlat }, i) => {
        const state = { soc, tempC, ageing: 1.3, ...(belowFlat && { overDischargedVolts: volts[i]! }) };
        return {
          openVolts: batteryOpenVolts(STRING_BATTERY, state),
          ohms: batteryOhms(STRING_BATTERY, state),
        };
      }),
      load: { kind: 'none' },
      source: null,
      sourceOn: true,
      leads: null,
      tempC,
      clamps: free,
    };
    const sound = { soc: 0.95, tempC, ageing: 1.2 };
    const plus = { kind: 'plus', battery: weaker } as const;
    const minus = { kind: 'minus', battery: weaker } as const;
    const helped: Rescue = {
      ...alone,
      source: {
        openVolts: batteryOpenVolts(STRING_BATTERY, sound),
        ohms: batteryOhms(STRING_BATTERY, sound),
      },
      leads: HELPER_LEADS,
      clamps: { redCasualty: plus, redSource: plus, blackSource: minus, blackCasualty: minus },
    };
    const isUneven = difference > DEFAULT_RULES.stringImbalanceVolts;
    return [
      figure('sum', volts[0]! + volts[1]!, 2, 'V'),
      figure('difference', difference, 2, 'V', isUneven ? 'bad' : 'good'),
      word('battery1Charge', percentBand(reads[0]!.low, reads[0]!.high)),
      word('battery2Charge', percentBand(reads[1]!.low, reads[1]!.high)),
      figure('alone', crankPoint(alone, engine).starterVolts, 1, 'V'),
      figure('helped', crankPoint(helped, engine).starterVolts, 1, 'V'),
      isUneven
        ? word('advice', BENCH_ANSWERS.judgeEach, 'watch')
        : word('advice', BENCH_ANSWERS.evenString, 'good'),
    ];
  },
};

export const reviveTool: BenchTool = {
  id: 'revive',
  fields: [
    chemistry,
    capacity,
    number('restVolts', 4, -15, 15, 'V'),
    number('healthyVolts', 12.6, 10, 15, 'V'),
    number('senseVolts', 8, 0.5, 12, 'V'),
    number('ohms', 1, 0.05, 100, 'ohm'),
    temperature(10),
  ],
  curve: {
    kind: 'path',
    path: 'flatVolts',
    until: 'senseVolts',
    of: (given) => {
      const from = given.number('restVolts');
      const healthy = given.number('healthyVolts');
      return Array.from({ length: 81 }, (_, i): Pair => {
        // It never quite comes to the healthy one.
        const volts = from + ((healthy - 0.3 - from) * i) / 80;
        const up = revive(ratingOf(given), from, healthy, volts, given.number('ohms'), given.number('tempC'));
        return [up.minutes ?? Infinity, volts];
      });
    },
  },
  compute: (given) => {
    const rating = ratingOf(given);
    const restVolts = given.number('restVolts');
    const up = revive(
      rating,
      restVolts,
      given.number('healthyVolts'),
      given.number('senseVolts'),
      given.number('ohms'),
      given.number('tempC'),
    );
    return [
      up.refused
        ? word('refused', BENCH_ANSWERS[up.refused], 'bad')
        : word('refused', BENCH_ANSWERS.mayRevive, 'good'),
      figure('contactAmps', up.contactAmps, 1, 'A'),
      figure('peakWatts', up.peakWatts, 0, 'W'),
      figure('minutes', up.minutes, 0, 'min'),
      figure('burnt', up.joules / 1000, 1, 'kJ'),
    ];
  },
};

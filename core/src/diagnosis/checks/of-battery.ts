import {
  convertCca,
  SPENT_BELOW_SHARE,
  strengthShare,
  WORN_BELOW_SHARE,
  socFromCells,
} from '../../battery/index.js';
import { crankLimitVolts } from '../reading.js';
import type { DiagnosisProfile } from '../causes.js';
import { type HiddenMachine, ohmsInside, restVoltsOf } from '../hidden.js';
import {
  type CheckRows,
  type MeasureContext,
  yes,
  hasDeadCell,
  wornOf,
  rounded,
  MEASURE_RANGES,
} from './check.js';

/** Charge from which a tester's figure is the battery's own. */
const TESTER_SOC = 0.75;
/** Share of its figure that an empty battery loses. */
const FLAT_FIGURE_LOSS = 0.55;
/** How far the emptiest battery is from where a tester's figure counts, 0 to 1. */
function unchargedShare({ batteries }: HiddenMachine): number {
  return Math.max(0, 1 - Math.min(...batteries.map((b) => b.soc)) / TESTER_SOC);
}
/** Spread of a tester's figure of a battery that is broken inside, where testers agree least. */
const BROKEN_FIGURE_SPREAD = 0.15;
/** Charge above which a charger has next to nothing to do. */
const FULL_AT_ONCE_SOC = 0.85;
/** Mean charge above which even cells read high. */
const EVEN_HIGH_SOC = 0.6;

/** Amps of a load test: half the rating. */
function loadTestAmps({ ccaAmps, ccaStandard }: DiagnosisProfile['rating']): number {
  return convertCca(ccaAmps, ccaStandard, 'SAE') / 2;
}

/** Instruments for the battery by itself. */
export const OF_BATTERY_ITSELF = {
  conductance: {
    when: 'still',
    isOfBattery: true,
    minutes: 1.2,
    needs: 'tester',
    outcomes: ['spent', 'worn', 'tired', 'sound'],
    edges: [SPENT_BELOW_SHARE, WORN_BELOW_SHARE, 0.92],
    predict: (hidden) => {
      const dead = hasDeadCell(hidden.batteries) ? 0.75 : 1;
      if (hidden.batteries.some((b) => b.reversed)) return 0.25;
      const broken = hidden.linkOhms > 0 ? 0.35 : 1;
      const flat = 1 - FLAT_FIGURE_LOSS * unchargedShare(hidden);
      const deep = hidden.batteries.some((b) => b.overDischargedVolts !== undefined) ? 0.6 : 1;
      return dead * broken * flat * deep * strengthShare(wornOf(hidden.batteries));
    },
    spread: (hidden) =>
      hidden.linkOhms > 0 || hasDeadCell(hidden.batteries)
        ? BROKEN_FIGURE_SPREAD
        : 0.06 + 0.2 * unchargedShare(hidden),
    shown: MEASURE_RANGES.ccaAmps,
    foundFrom: ([amps], { rating }: MeasureContext) => rounded(amps! / rating.ccaAmps),
    isOfItself: true,
    reason:
      'from three quarters charge on it is good to about a twentieth; a flat battery shows a poor figure however sound it is',
  },
  'load-test': {
    when: 'still',
    takesAmps: true,
    isOfBattery: true,
    minutes: 2,
    needs: 'load-tester',
    outcomes: ['fails', 'near', 'holds'],
    // Against the least volts that the table allows at this temperature, after 15 s at half the rated amps.
    edges: [0, 0.5],
    predict: (hidden, profile) => {
      const amps = loadTestAmps(profile.rating);
      const rest = restVoltsOf(hidden, profile);
      const volts = ohmsInside(hidden, profile).map((ohms, i) => rest[i]! - amps * ohms);
      return Math.max(0, Math.min(...volts)) - crankLimitVolts(profile.tempC, 12);
    },
    spread: 0.3,
    shown: { min: 0, max: 16, unit: 'V' },
    foundFrom: ([volts], { tempC }) => rounded(volts! - crankLimitVolts(tempC, 12)),
    isOfItself: true,
    reason: 'flat batteries fail it as spent ones do, so it condemns only above three quarters charge',
  },
  acceptance: {
    takesAmps: true,
    isOfBattery: true,
    minutes: 12,
    needs: 'charger',
    outcomes: ['full-at-once', 'takes-charge'],
    chances: ({ cause, linkOhms, batteries }) => {
      if (linkOhms > 0 || cause === 'guard-open') return yes(0.85);
      // A charged battery is full at once, and nothing is wrong with it.
      if (Math.min(...batteries.map((b) => b.soc)) > FULL_AT_ONCE_SOC) return yes(0.75);
      return yes(
        cause === 'sulphated' ? 0.75 : hasDeadCell(batteries) ? 0.1 : wornOf(batteries) > 3 ? 0.4 : 0.03,
      );
    },
    reason: 'from flat, a charger that shows full within minutes has met plates with no capacity left',
  },
  'specific-gravity': {
    isOfBattery: true,
    minutes: 6,
    needs: 'hydrometer',
    fits: ({ rating }) => rating.chemistry === 'flooded',
    outcomes: ['even-high', 'even-low', 'one-cell-low'],
    chances: ({ batteries }) => {
      if (hasDeadCell(batteries)) return [0.02, 0.05, 0.93];
      return Math.min(...batteries.map((b) => b.soc)) > 0.6 ? [0.95, 0.03, 0.02] : [0.03, 0.94, 0.03];
    },
    foundFrom: (cells, { tempC }) => {
      const { badCell, soc } = socFromCells(cells, tempC);
      return badCell !== null ? 'one-cell-low' : soc > EVEN_HIGH_SOC ? 'even-high' : 'even-low';
    },
    reason: 'a shorted cell stays low whatever the others do',
  },
} as const satisfies CheckRows;

import { batteryOhms, batteryOpenVolts, type BatteryRating } from '../battery/index.js';
import type { SourceModel } from './source-model.js';

/** Of a battery that is kept for help: a good one, not a new one. */
const AGEING = 1.2;

/** Equal batteries of a source in series, at one state of charge. */
export function seriesOf(battery: BatteryRating, soc: number, batteries: number, tempC: number): SourceModel {
  const state = { soc, tempC, ageing: AGEING };
  return {
    openVolts: batteries * batteryOpenVolts(battery, state),
    ohms: batteries * batteryOhms(battery, state),
    polarises: true,
  };
}

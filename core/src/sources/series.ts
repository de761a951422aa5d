import { batteryOhms, batteryOpenVolts, type BatteryRating } from '../battery/index.js';
import { keptCharge, LEAD_FADE_A_YEAR, leftOfRating } from './ageing.js';
import type { OwnCharge } from './kit-kind.js';
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

/** The charge of a piece that is made of lead-acid batteries. */
export const leadCharge = <
  K extends { readonly battery: BatteryRating; readonly soc: number },
>(): OwnCharge<K> => ({
  shareOf: ({ soc }) => soc,
  withShare: (item, soc) => ({ ...item, soc }),
  capacityAh: ({ battery }) => battery.capacityAh,
  leftAfter: ({ battery }, days) => keptCharge(battery.chemistry, days),
  aged: (item, years) => {
    const left = leftOfRating(LEAD_FADE_A_YEAR, years);
    const { battery } = item;
    return {
      ...item,
      battery: { ...battery, capacityAh: battery.capacityAh * left, ccaAmps: battery.ccaAmps * left },
    };
  },
});

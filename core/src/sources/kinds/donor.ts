import { parameter } from '../../quantities/index.js';
import type { BatteryRating } from '../../battery/index.js';
import type { SchoolOf } from '../../rules/index.js';
import type { KitKind } from '../kit-kind.js';
import { seriesOf } from '../series.js';
import type { SourceModel } from '../source-model.js';

/** The service van itself, lending its battery and alternator. */
export interface DonorKit {
  readonly kind: 'donor';
  readonly id: string;
  readonly name: string;
  /** Its entry in the atlas, which holds its points and drawing. */
  readonly modelId: string;
  readonly systemVolts: 12 | 24;
  readonly battery: BatteryRating;
  readonly soc: number;
  /** Current that the alternator can lend beyond the van's own needs at idle. */
  readonly alternatorSpareAmps: number;
}

/** An alternator at 1,500 to 2,000 rpm lends this many times what it lends at idle: its output rises steeply with speed. */
export const RAISED_REVS_FACTOR = parameter(1.6, {
  id: 'donor.raised',
  name: 'what raised revs lend against idle',
  low: 1.2,
  high: 2.2,
  unit: 'times',
  reason: 'An alternator gives about half of its rating at idle and most of it at 1,800 rpm.',
});
/** Regulated volts of a donor's alternator at idle. */
export const ALTERNATOR_VOLTS = parameter(14.2, {
  id: 'alternator.volts',
  name: 'regulated volts at idle',
  low: 13.6,
  high: 14.8,
  unit: 'V',
  reason: 'Per 12 V of system.',
});
/** A donor that has been driven here and runs has a battery this much warmer than the air, degC. */
export const DONOR_WARMER_C = parameter(10, {
  id: 'donor.warmer',
  name: 'donor battery above the air',
  low: 0,
  high: 25,
  unit: 'degC',
  reason: 'It was driven here and runs.',
});

/** A donor's battery, with its alternator beside it when its engine runs. */
export function donorSource(
  donor: DonorKit,
  engineRunning: boolean,
  tempC: number,
  revs: SchoolOf<'donorRevs'> = 'idle',
): SourceModel {
  const batteries = donor.systemVolts / 12;
  const batteryTempC = engineRunning ? tempC + DONOR_WARMER_C : tempC;
  return {
    ...seriesOf(donor.battery, donor.soc, batteries, batteryTempC),
    ...(engineRunning && {
      alternator: {
        volts: batteries * ALTERNATOR_VOLTS,
        maxAmps: donor.alternatorSpareAmps * (revs === 'raised' ? RAISED_REVS_FACTOR : 1),
      },
    }),
  };
}

export const donor = {
  // It fills itself as it drives.
  charge: null,
  lends: {
    fixedLeads: null,
    outputs: (item) => [item.systemVolts],
    source: (item, _output, tempC, { runs, revs }) => donorSource(item, runs, tempC, revs),
    hasEngine: true,
    chargeOnly: () => false,
    acrossOne: 'at-chassis',
    charged: null,
  },
} satisfies KitKind<DonorKit>;

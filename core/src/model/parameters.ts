import {
  casualtyBatteriesParameters,
  handMinutesParameters,
  oddsParameters,
  triesParameters,
  waysParameters,
} from '../plan/index.js';
import { leadSetParameters, measuredSetParameters } from '../leads/index.js';
import {
  batteryParameters,
  ccaParameters,
  chemistryParameters,
  gravityParameters,
  restVoltsParameters,
} from '../battery/index.js';
import {
  chargeTimeParameters,
  chargeWatchParameters,
  leftOnParameters,
  lendParameters,
  maintainerParameters,
  runDownParameters,
} from '../charging/index.js';
import { rescueParameters } from '../circuit/index.js';
import { kitAgeParameters, latchParameters, kindParameters } from '../sources/index.js';
import { crankStepsParameters, restParameters, transientParameters, wakeParameters } from '../crank/index.js';
import { engineParameters } from '../engine/index.js';
import { circumstancesParameters } from '../hookup/index.js';
import { routeParameters } from '../reach/index.js';
import { bankParameters } from '../capacitor/index.js';
import type { Parameter } from '../quantities/index.js';

/** Values that come from the atlas, the kit or the scene and have no default of their own. */
const GIVEN: readonly Parameter[] = [
  {
    id: 'tempC',
    name: 'temperature of battery and engine',
    value: null,
    low: -35,
    high: 45,
    unit: 'degC',
    reason: 'The air on the scene; metal and acid lag behind it.',
  },
  {
    id: 'capacityAh',
    name: 'capacity',
    value: null,
    low: 4,
    high: 230,
    unit: 'Ah',
    reason: 'As printed on the battery, 20 h rating.',
  },
  {
    id: 'ccaAmps',
    name: 'cold-cranking amps',
    value: null,
    low: 60,
    high: 1400,
    unit: 'A',
    reason: 'As printed; it anchors the resistance of the battery.',
  },
  {
    id: 'displacementL',
    name: 'displacement',
    value: null,
    low: 0.05,
    high: 16,
    unit: 'L',
    reason: 'Sets drag and the starter a maker would fit.',
  },
  {
    id: 'sectionMm2',
    name: 'lead section',
    value: null,
    low: 6,
    high: 95,
    unit: 'mm2',
    reason: 'Copper decides volts at the starter.',
  },
  {
    id: 'leadLengthM',
    name: 'lead length, one way',
    value: null,
    low: 0.3,
    high: 8,
    unit: 'm',
    reason: 'Every metre counts twice: there and back.',
  },
  {
    id: 'sourceVolts',
    name: 'source, open',
    value: null,
    low: 9,
    high: 28,
    unit: 'V',
    reason: 'By its own charge.',
  },
  {
    id: 'sourceOhms',
    name: 'source, inside',
    value: null,
    low: 0.001,
    high: 0.05,
    unit: 'ohm',
    reason: 'From its rating, charge and cold.',
  },
  {
    id: 'alternatorAmps',
    name: 'alternator or charger lends',
    value: null,
    low: 5,
    high: 150,
    unit: 'A',
    reason: 'What is left beyond its own lamps, fan and heater.',
  },
  {
    id: 'waitMinutes',
    name: 'wait before the crank',
    value: null,
    low: 0,
    high: 120,
    unit: 'min',
    reason: 'Computed from the curve of odds; house rule where it is not.',
  },
];

/**
 * Every default of the model with its plausible range and the reason for its value. The files that use them hold the rows. The figures a
 * plan is asked about carry the keys of its inputs as ids. So the interface opens the same row.
 */
export const PARAMETERS: readonly Parameter[] = [
  ...GIVEN,
  ...casualtyBatteriesParameters(),
  ...leadSetParameters(),
  ...measuredSetParameters(),
  ...batteryParameters(),
  ...ccaParameters(),
  ...chemistryParameters(),
  ...restVoltsParameters(),
  ...gravityParameters(),
  ...chargeTimeParameters(),
  ...lendParameters(),
  ...chargeWatchParameters(),
  ...leftOnParameters(),
  ...runDownParameters(),
  ...rescueParameters(),
  ...kindParameters(),
  ...wakeParameters(),
  ...engineParameters(),
  ...transientParameters(),
  ...circumstancesParameters(),
  ...crankStepsParameters(),
  ...oddsParameters(),
  ...triesParameters(),
  ...handMinutesParameters(),
  ...waysParameters(),
  ...restParameters(),
  ...routeParameters(),
  ...kitAgeParameters(),
  ...latchParameters(),
  ...maintainerParameters(),
  ...bankParameters(),
];

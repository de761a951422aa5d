import { casualtyBatteriesParameters } from '../plan/casualty-batteries.js';
import { leadSetParameters } from '../leads/lead-set.js';
import { measuredSetParameters } from '../leads/measured-set.js';
import { batteryParameters } from '../battery/battery.js';
import { ccaParameters } from '../battery/cca.js';
import { chemistryParameters } from '../battery/chemistry.js';
import { restVoltsParameters } from '../battery/rest-volts.js';
import { gravityParameters } from '../battery/gravity.js';
import { chargeTimeParameters } from '../charging/charge-time.js';
import { leftOnParameters } from '../charging/left-on.js';
import { runDownParameters } from '../charging/run-down.js';
import { chargeWatchParameters } from '../charging/charge-watch.js';
import { lendParameters } from '../charging/lend.js';
import { rescueParameters } from '../circuit/rescue.js';
import { modelsParameters } from '../sources/models.js';
import { wakeParameters } from '../crank/wake.js';
import { engineParameters } from '../engine/engine.js';
import { transientParameters } from '../crank/transient.js';
import { circumstancesParameters } from '../hookup/circumstances.js';
import { crankStepsParameters } from '../crank/crank-steps.js';
import { oddsParameters } from '../plan/draws.js';
import { handMinutesParameters } from '../plan/hand-minutes.js';
import { triesParameters } from '../plan/tries.js';
import { waysParameters } from '../plan/ways.js';
import { restParameters } from '../crank/rest.js';
import { routeParameters } from '../reach/route.js';
import { kitAgeParameters } from '../sources/kit-age.js';
import { maintainerParameters } from '../charging/maintainer.js';
import { bankParameters } from '../capacitor/bank.js';
import { latchParameters } from '../sources/latch.js';
import type { Parameter } from '../quantities/parameter.js';

/** What comes from the atlas, the kit or the scene and has no default of its own. */
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
 * Every default of the model, with the range that is still plausible and the reason for the value, collected from the files that use
 * them. The figures a plan is asked about carry the keys of its inputs as ids, so that the interface opens the same row.
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
  ...modelsParameters(),
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

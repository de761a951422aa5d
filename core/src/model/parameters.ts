import { CASUALTY_BATTERIES_PARAMETERS } from '../plan/casualty-batteries.js';
import { LEAD_SET_PARAMETERS } from '../leads/lead-set.js';
import { BATTERY_PARAMETERS } from '../battery/battery.js';
import { CCA_PARAMETERS } from '../battery/cca.js';
import { CHEMISTRY_PARAMETERS } from '../battery/chemistry.js';
import { REST_VOLTS_PARAMETERS } from '../battery/rest-volts.js';
import { GRAVITY_PARAMETERS } from '../battery/gravity.js';
import { CHARGE_TIME_PARAMETERS } from '../charging/charge-time.js';
import { LEND_PARAMETERS } from '../charging/lend.js';
import { RESCUE_PARAMETERS } from '../circuit/rescue.js';
import { MODELS_PARAMETERS } from '../sources/models.js';
import { WAKE_PARAMETERS } from '../crank/wake.js';
import { ENGINE_PARAMETERS } from '../engine/engine.js';
import { TRANSIENT_PARAMETERS } from '../crank/transient.js';
import { CRANK_STEPS_PARAMETERS } from '../crank/crank-steps.js';
import { ODDS_PARAMETERS } from '../plan/odds.js';
import { REST_PARAMETERS } from '../crank/rest.js';
import { ROUTE_PARAMETERS } from '../reach/route.js';
import { LATCH_PARAMETERS } from '../sources/latch.js';
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
  ...CASUALTY_BATTERIES_PARAMETERS,
  ...LEAD_SET_PARAMETERS,
  ...BATTERY_PARAMETERS,
  ...CCA_PARAMETERS,
  ...CHEMISTRY_PARAMETERS,
  ...REST_VOLTS_PARAMETERS,
  ...GRAVITY_PARAMETERS,
  ...CHARGE_TIME_PARAMETERS,
  ...LEND_PARAMETERS,
  ...RESCUE_PARAMETERS,
  ...MODELS_PARAMETERS,
  ...WAKE_PARAMETERS,
  ...ENGINE_PARAMETERS,
  ...TRANSIENT_PARAMETERS,
  ...CRANK_STEPS_PARAMETERS,
  ...ODDS_PARAMETERS,
  ...REST_PARAMETERS,
  ...ROUTE_PARAMETERS,
  ...LATCH_PARAMETERS,
];

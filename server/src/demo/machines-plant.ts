import type { BatteryRating } from '@voltrek/core/battery';
import { boatShape, deckShape, type Machine, trackedShape } from '@voltrek/core/machine';
import { batteryAt, point, rating, terminals, zone } from './points.js';

const flooded = (
  capacityAh: number,
  ccaAmps: number,
  ccaStandard: BatteryRating['ccaStandard'] = 'EN',
): BatteryRating => rating('flooded', capacityAh, ccaAmps, ccaStandard);

const pisteLow = batteryAt(flooded(140, 900), 'right side box, front', [2700, 3000, 1150], [350, 260]);
const pisteHigh = batteryAt(flooded(140, 900), 'right side box, rear', [2700, 3300, 1150], [350, 260]);
/** Piste machine: 24 V, two batteries in a side box. */
const piste: Machine = {
  id: 'hulvane-cornice-9',
  maker: 'Hulvane',
  model: 'Cornice 9 piste machine',
  machineClass: 'plant',
  gearbox: 'none',
  systemVolts: 24,
  ...trackedShape(4200, 6200),
  batteries: [pisteLow, pisteHigh],
  points: [
    ...terminals(pisteLow, 0, 'Battery 1', [
      'Right side box: turn both latches, swing the lid up and prop it.',
    ]),
    ...terminals(pisteHigh, 1, 'Battery 2', [
      'The rear one. Its - is the middle joint: 12 V to the chassis.',
    ]),
    point(
      'ground',
      'ground-point',
      'Frame stud by the tank',
      [2500, 4500, 1000],
      ['Right rear, plain stud on the frame below the tank.'],
    ),
    point('release', 'release', 'Side box latches', [3080, 3250, 1200], ['Quarter turn, both.']),
  ],
  zones: [
    zone('hot', 'exhaust', [1100, 4700], [300, 700]),
    zone('moving', 'tiller drive', [1300, 5600], [1500, 380]),
  ],
  engine: { fuel: 'diesel', displacementL: 8.7, cylinders: 6, systemVolts: 24 },
  smartAlternator: false,
  resets: ['Hour meter check', 'Tiller zero'],
  cautions: ['Secure the tracks and lower the blade first.', 'Middle joint is live at 12 V to the chassis.'],
  never: ['Reach in with the tiller engaged.'],
};

const fanBattery = batteryAt(flooded(100, 720), 'engine frame, left', [140, 1500, 820], [180, 340]);
const fan: Machine = {
  id: 'skarnby-orchard-fan',
  maker: 'Skarnby',
  model: 'Orchard frost fan',
  machineClass: 'genset',
  gearbox: 'none',
  systemVolts: 12,
  ...deckShape(1500, 2900, 1900, true),
  batteries: [fanBattery],
  points: [
    ...terminals(fanBattery, 0, 'Battery', ['Lift the engine hood.', 'Pin the fan before reaching in.']),
    point(
      'ground',
      'ground-point',
      'Engine block bolt',
      [980, 2300, 800],
      ['Bare bolt at the bell housing.'],
    ),
    point('release', 'release', 'Hood catch', [750, 2800, 1100], ['Rear of the hood.']),
  ],
  zones: [zone('moving', 'fan head', [450, 150], [600, 500])],
  engine: { fuel: 'diesel', displacementL: 3.4, cylinders: 4, systemVolts: 12 },
  smartAlternator: false,
  resets: ['Frost start set point'],
  cautions: ['It may start by itself on frost: set the controller to off and pin the fan.'],
  never: ['Work under the fan without its pin.'],
};

const dinghyBattery = batteryAt(flooded(55, 460, 'SAE'), 'stern locker, left', [260, 3000, 420], [200, 260], {
  closedIn: true,
});
const dinghy: Machine = {
  id: 'wendry-harbour-40',
  maker: 'Wendry',
  model: 'Harbour 40 dinghy engine',
  machineClass: 'boat',
  gearbox: 'none',
  systemVolts: 12,
  ...boatShape(1750, 4200),
  batteries: [dinghyBattery],
  points: [
    ...terminals(dinghyBattery, 0, 'Battery', ['Open the stern locker and let it air.']),
    point('ground', 'ground-point', 'Engine mount bolt', [900, 3900, 600], ['Bolt on the engine bracket.']),
    point('release', 'release', 'Locker lid', [420, 2950, 620], ['Turn button.']),
  ],
  zones: [zone('moving', 'flywheel', [740, 3350], [260, 200])],
  engine: { fuel: 'petrol', displacementL: 0.75, cylinders: 3, systemVolts: 12 },
  smartAlternator: false,
  resets: [],
  cautions: ['Petrol vapour lies in the bilge: ventilate before any clamp goes on.'],
  never: ['Clamp in a bilge that smells of petrol.'],
};

const gensetBattery = batteryAt(flooded(120, 920), 'door side, low', [120, 420, 480], [190, 350], {
  closedIn: true,
  layout: 'positive-right',
});
const genset: Machine = {
  id: 'skarnby-lumen-60',
  maker: 'Skarnby',
  model: 'Lumen 60 stage generator',
  machineClass: 'genset',
  gearbox: 'none',
  systemVolts: 12,
  ...deckShape(1400, 2900, 1700, false),
  batteries: [gensetBattery],
  points: [
    ...terminals(gensetBattery, 0, 'Battery', [
      'Left door open.',
      'Isolator by the door to off while clamps go on.',
    ]),
    point(
      'ground',
      'ground-point',
      'Engine frame stud',
      [900, 1900, 600],
      ['Stud on the engine frame, far side.'],
    ),
    point('release', 'release', 'Left door', [60, 600, 900], ['Key or coin lock.']),
  ],
  zones: [zone('hot', 'silencer', [900, 2450], [350, 300])],
  engine: { fuel: 'diesel', displacementL: 4.4, cylinders: 4, systemVolts: 12 },
  smartAlternator: false,
  resets: ['Clock and hour log'],
  cautions: ['Set the panel to off: it may start by itself.'],
  never: ['Back-feed the stage from another set.'],
};

const mowerBattery = batteryAt(flooded(22, 230, 'SAE'), 'under the seat', [420, 1180, 520], [130, 190]);
const mower: Machine = {
  id: 'tolsey-verge-16',
  maker: 'Tolsey',
  model: 'Verge 16 ride-on, snow sweeper',
  machineClass: 'ride-on',
  gearbox: 'none',
  systemVolts: 12,
  ...deckShape(1050, 1950, 1150, true),
  batteries: [mowerBattery],
  points: [
    ...terminals(mowerBattery, 0, 'Battery', ['Tip the seat forward.']),
    point(
      'ground',
      'ground-point',
      'Frame bolt by the axle',
      [880, 560, 380],
      ['Bare bolt on the right frame rail.'],
    ),
    point('release', 'release', 'Seat catch', [520, 1450, 600], ['Lever behind the seat.']),
  ],
  zones: [zone('moving', 'broom drive', [350, 80], [400, 200])],
  engine: { fuel: 'petrol', displacementL: 0.5, cylinders: 1, systemVolts: 12 },
  smartAlternator: false,
  resets: [],
  cautions: ['Broom out of gear before cranking.'],
  never: ['Bridge the seat switch.'],
};

/** Plant, boats and small machines of the demo atlas. */
export const PLANT_MACHINES: readonly Machine[] = [piste, fan, dinghy, genset, mower];

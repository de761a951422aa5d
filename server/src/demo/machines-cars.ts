import { carShape, type Machine } from '@voltrek/core/machine';
import { batteryAt, point, rating, terminals, zone } from './points.js';

const marrowbyBattery = batteryAt(
  rating('efb', 62, 600),
  'under rear seat, right',
  [1280, 2650, 560],
  [250, 180],
  { closedIn: true, ventHose: true },
);
/** Estate car with its battery under the rear seat. */
const marrowby: Machine = {
  id: 'kestow-marrowby-14',
  maker: 'Kestow',
  model: 'Marrowby 1.4 estate',
  machineClass: 'car',
  gearbox: 'manual',
  systemVolts: 12,
  ...carShape(1790, 4560),
  zones: [zone('moving', 'belt and fan', [640, 250], [460, 170])],
  batteries: [marrowbyBattery],
  points: [
    point(
      'post',
      'red-post',
      'Red stud, fuse box',
      [1420, 760, 890],
      ['Bonnet up.', 'Fuse box lid off: the stud under the red flap.'],
      { cover: 'fuse box lid' },
    ),
    point(
      'ground',
      'ground-point',
      'Bolt, bonnet hinge left',
      [240, 980, 900],
      ['Bare hinge bolt on the left.'],
    ),
    ...terminals(
      marrowbyBattery,
      0,
      'Battery',
      ['Rear bench: lift the front edge, right side.', 'Cut no cable ties: the hose runs beneath.'],
      { cover: 'rear bench' },
    ),
    point('release', 'release', 'Bonnet lever', [200, 1500, 520], ['Left footwell.']),
  ],
  engine: { fuel: 'petrol', displacementL: 1.4, cylinders: 4, systemVolts: 12 },
  smartAlternator: true,
  resets: ['Clock', 'Window pinch protection', 'Rear wiper park'],
  cautions: ['The bench hides the vent hose: do not pinch it.'],
  never: ['Charge with the bench in place.'],
};

const ternhowBattery = batteryAt(
  rating('agm', 80, 800),
  'behind the left wheel-arch liner',
  [110, 1120, 640],
  [180, 310],
);
/** Diesel saloon with its battery behind the wheel-arch liner. */
const ternhow: Machine = {
  id: 'orrendal-ternhow-20d',
  maker: 'Orrendal',
  model: 'Ternhow 2.0 D saloon',
  machineClass: 'car',
  gearbox: 'automatic',
  systemVolts: 12,
  ...carShape(1840, 4780),
  zones: [
    zone('moving', 'belt and fan', [660, 260], [500, 180]),
    zone('hot', 'turbocharger', [1150, 560], [260, 200]),
  ],
  batteries: [ternhowBattery],
  points: [
    point(
      'post',
      'red-post',
      'Red post, bay left',
      [330, 700, 880],
      ['Bonnet up.', 'Left, behind the lamp: red hood.'],
      { cover: 'red hood' },
    ),
    point(
      'ground',
      'ground-point',
      'Ground stud, strut tower left',
      [290, 860, 900],
      ['Marked stud, 150 mm behind the post.'],
    ),
    ...terminals(
      ternhowBattery,
      0,
      'Battery',
      ['Wheel full right.', 'Liner screws out, fold it forward.', 'Work from the front post if you can.'],
      { cover: 'wheel-arch liner', tools: ['20 mm star driver'] },
    ),
    point('release', 'release', 'Bonnet lever', [190, 1620, 520], ['Left footwell.']),
  ],
  engine: { fuel: 'diesel', displacementL: 2.0, cylinders: 4, systemVolts: 12 },
  smartAlternator: true,
  resets: ['Clock', 'Steering angle: lock to lock', 'Battery registration', 'Parking brake'],
  cautions: ['Do not work behind the wheel with the car on a jack.'],
  never: ['Clamp on the sensor at the negative post.'],
};

const quilletBattery = batteryAt(
  rating('flooded', 36, 330, 'JIS'),
  'front bay, under the windscreen cowl',
  [1180, 930, 880],
  [200, 160],
  { layout: 'positive-right' },
);
/** City car with its battery under a plastic cowl. */
const quillet: Machine = {
  id: 'tolsey-quillet-09',
  maker: 'Tolsey',
  model: 'Quillet 0.9 city car',
  machineClass: 'car',
  gearbox: 'manual',
  systemVolts: 12,
  ...carShape(1620, 3480),
  zones: [zone('moving', 'fan', [560, 240], [380, 140])],
  batteries: [quilletBattery],
  points: [
    ...terminals(
      quilletBattery,
      0,
      'Battery',
      ['Bonnet up.', 'Cowl cover right half off: three clips.', 'The wiper may move: key out.'],
      { cover: 'cowl cover', tools: ['clip lever'] },
    ),
    point(
      'ground',
      'ground-point',
      'Engine lifting eye',
      [760, 560, 820],
      ['Bare eye on the gearbox side of the engine.'],
    ),
    point('release', 'release', 'Bonnet lever', [180, 1250, 500], ['Inside the glove box.']),
  ],
  engine: { fuel: 'petrol', displacementL: 0.9, cylinders: 3, systemVolts: 12 },
  smartAlternator: false,
  resets: ['Clock', 'Radio code'],
  cautions: ['Water stands in the cowl: dry the posts first.'],
  never: ['Leave the cowl lid loose over a clamp.'],
};

const larkmoorBattery = batteryAt(
  rating('agm', 52, 520),
  'boot floor, middle',
  [720, 3420, 520],
  [250, 180],
  {
    closedIn: true,
    ventHose: true,
  },
);
/** Roadster whose boot opens only with power; a key blade opens the door. */
const larkmoor: Machine = {
  id: 'wendry-larkmoor-16',
  maker: 'Wendry',
  model: 'Larkmoor 1.6 roadster',
  machineClass: 'car',
  gearbox: 'manual',
  systemVolts: 12,
  ...carShape(1740, 4020),
  zones: [zone('hot', 'exhaust manifold', [480, 520], [200, 320])],
  batteries: [larkmoorBattery],
  points: [
    point(
      'post',
      'red-post',
      'Red post, bay left',
      [320, 640, 830],
      ['Bonnet up.', 'Left wing: red cap marked +.'],
      { cover: 'red cap' },
    ),
    point('ground', 'ground-point', 'Ground stud, bay right', [1430, 700, 830], ['Right wing, bare stud.']),
    ...terminals(larkmoorBattery, 0, 'Battery', ['Boot floor up.', 'Measure here; clamp at the front.'], {
      cover: 'boot floor',
    }),
    point(
      'release',
      'release',
      'Hidden door lock',
      [60, 1980, 780],
      ['Driver door: lever the cap off the handle.', 'Key blade in, turn towards the nose.'],
      { cover: 'handle cap', tools: ['key blade'] },
    ),
  ],
  engine: { fuel: 'petrol', displacementL: 1.6, cylinders: 4, systemVolts: 12 },
  smartAlternator: false,
  resets: ['Clock', 'Window drop', 'Roof learn'],
  cautions: ['The windows drop when a door opens: keep it ajar until power is back.'],
  never: ['Close the boot before power is back.'],
};

const holtbeckBattery = batteryAt(
  rating('flooded', 90, 760),
  'front bay, right',
  [1360, 520, 980],
  [240, 180],
);
/** Diesel off-roader. */
const holtbeck: Machine = {
  id: 'skarnby-holtbeck-28',
  maker: 'Skarnby',
  model: 'Holtbeck 2.8 D off-roader',
  machineClass: 'car',
  gearbox: 'automatic',
  systemVolts: 12,
  ...carShape(1880, 4620),
  zones: [
    zone('moving', 'belt and fan', [640, 220], [560, 200]),
    zone('hot', 'turbocharger', [400, 560], [220, 220]),
  ],
  batteries: [holtbeckBattery],
  points: [
    ...terminals(holtbeckBattery, 0, 'Battery', ['Bonnet up, rubber flap over + is red.'], {
      cover: 'red flap',
    }),
    point('ground', 'ground-point', 'Chassis stud, left', [300, 640, 760], ['Left rail, bare stud.']),
    point('release', 'release', 'Bonnet lever', [200, 1500, 600], ['Left footwell, then the slider.']),
  ],
  engine: { fuel: 'diesel', displacementL: 2.8, cylinders: 4, systemVolts: 12 },
  smartAlternator: false,
  resets: ['Clock', 'Compass'],
  cautions: ['The fan is driven by belt: keep leads to the right.'],
  never: ['Start with ether or spray: the intake heats.'],
};

/** More cars of the demo atlas, by where their battery hides. */
export const CARS: readonly Machine[] = [marrowby, ternhow, quillet, larkmoor, holtbeck];

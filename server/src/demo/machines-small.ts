import {
  boatShape,
  deckShape,
  type Machine,
  motorcycleShape,
  trackedShape,
  truckShape,
  vanShape,
} from '@voltrek/core/machine';
import { batteryAt, point, rating, terminals, zone } from './points.js';

const glidenBattery = batteryAt(
  rating('gel', 6, 90, 'SAE'),
  'under the footboard',
  [320, 900, 330],
  [90, 130],
);
/** Scooter: battery under the footboard. */
const gliden: Machine = {
  id: 'ostrel-gliden-125',
  maker: 'Ostrel',
  model: 'Gliden 125 scooter',
  machineClass: 'motorcycle',
  gearbox: 'automatic',
  systemVolts: 12,
  ...motorcycleShape(720, 1900),
  zones: [zone('hot', 'exhaust', [470, 1250], [70, 420])],
  batteries: [glidenBattery],
  points: [
    ...terminals(glidenBattery, 0, 'Battery', ['Rubber mat up, lid off: one screw.'], {
      cover: 'footboard lid',
      tools: ['cross-head driver'],
    }),
    point('ground', 'ground-point', 'Engine case bolt', [430, 1260, 320], ['Bare bolt on the engine case.']),
    point('release', 'release', 'Lid screw', [360, 840, 340], ['Under the mat.']),
  ],
  engine: { fuel: 'petrol', displacementL: 0.125, cylinders: 1, systemVolts: 12 },
  smartAlternator: false,
  resets: ['Clock'],
  cautions: ['Gel battery: no charger above 14.4 V.', 'Hold the brake: it may creep when it starts.'],
  never: ['Join a car whose engine runs.'],
};

const drovelinBattery = batteryAt(
  rating('agm', 18, 270, 'SAE'),
  'under the rear rack',
  [440, 1420, 720],
  [170, 110],
);
/** Quad: battery under the rear rack. */
const drovelin: Machine = {
  id: 'hulvane-drovelin-500',
  maker: 'Hulvane',
  model: 'Drovelin 500 quad',
  machineClass: 'ride-on',
  gearbox: 'automatic',
  systemVolts: 12,
  ...deckShape(1120, 2050, 1150, true),
  zones: [zone('hot', 'exhaust', [700, 1500], [140, 440])],
  batteries: [drovelinBattery],
  points: [
    ...terminals(drovelinBattery, 0, 'Battery', ['Seat off: lever at the rear.', 'Rack flap up.'], {
      cover: 'rack flap',
    }),
    point('ground', 'ground-point', 'Frame bolt, left', [260, 1100, 560], ['Bare bolt by the footwell.']),
    point('release', 'release', 'Seat lever', [560, 1760, 800], ['Under the tail.']),
  ],
  engine: { fuel: 'petrol', displacementL: 0.5, cylinders: 1, systemVolts: 12 },
  smartAlternator: false,
  resets: ['Clock'],
  cautions: ['In P with the brake on: it drives off when it starts in gear.'],
  never: ['Tow it to start it.'],
};

const meridellBattery = batteryAt(
  rating('agm', 14, 210, 'SAE'),
  'under the tank',
  [330, 800, 780],
  [110, 150],
);
/** Touring motorcycle: battery under the tank. */
const meridell: Machine = {
  id: 'ostrel-meridell-1100',
  maker: 'Ostrel',
  model: 'Meridell 1100 tourer',
  machineClass: 'motorcycle',
  gearbox: 'manual',
  systemVolts: 12,
  ...motorcycleShape(900, 2280),
  zones: [zone('hot', 'exhaust', [560, 1150], [90, 800])],
  batteries: [meridellBattery],
  points: [
    point(
      'post',
      'red-post',
      'Red stud, left panel',
      [310, 1180, 640],
      ['Left side panel off: pull at three corners.', 'Red boot over the starter relay stud.'],
      { cover: 'side panel, red boot' },
    ),
    ...terminals(
      meridellBattery,
      0,
      'Battery',
      ['Seat off, tank bolts out, prop the tank.', 'Use the stud if you can.'],
      { cover: 'tank', tools: ['10 mm socket'] },
    ),
    point('ground', 'ground-point', 'Footrest bracket bolt', [560, 1240, 380], ['Right bracket, bare bolt.']),
    point('release', 'release', 'Seat lock', [450, 1780, 820], ['Key lock under the tail.']),
  ],
  engine: { fuel: 'petrol', displacementL: 1.1, cylinders: 4, systemVolts: 12 },
  smartAlternator: false,
  resets: ['Clock', 'Trip'],
  cautions: ['A warm exhaust runs below the bracket: lead over it, not along it.'],
  never: ['Join a car whose engine runs.'],
};

const zeroBattery = batteryAt(
  rating('flooded', 30, 300, 'SAE'),
  'left rear box',
  [140, 1500, 560],
  [200, 130],
);
/** Wide ride-on with twin levers. */
const zero: Machine = {
  id: 'tolsey-verge-24z',
  maker: 'Tolsey',
  model: 'Verge 24 Z ride-on',
  machineClass: 'ride-on',
  gearbox: 'none',
  systemVolts: 12,
  ...deckShape(1340, 2100, 1180, true),
  zones: [zone('moving', 'blade deck', [200, 500], [940, 620])],
  batteries: [zeroBattery],
  points: [
    ...terminals(zeroBattery, 0, 'Battery', ['Box lid: two rubber straps.'], { cover: 'box lid' }),
    point(
      'ground',
      'ground-point',
      'Engine plate bolt',
      [760, 1840, 480],
      ['Bare bolt at the engine plate.'],
    ),
    point('release', 'release', 'Box straps', [240, 1460, 580], ['Pull and unhook.']),
  ],
  engine: { fuel: 'petrol', displacementL: 0.73, cylinders: 2, systemVolts: 12 },
  smartAlternator: false,
  resets: [],
  cautions: ['Levers out, brake on, blades off, or it will not crank.'],
  never: ['Bridge the seat switch.'],
};

const towerBattery = batteryAt(rating('flooded', 70, 600), 'right door, low', [920, 1500, 430], [180, 270], {
  closedIn: true,
});
/** Light tower on a trailer. */
const tower: Machine = {
  id: 'skarnby-lumen-20',
  maker: 'Skarnby',
  model: 'Lumen 20 light tower',
  machineClass: 'genset',
  gearbox: 'none',
  systemVolts: 12,
  ...deckShape(1240, 2300, 1500, true),
  zones: [zone('moving', 'fan', [430, 1900], [380, 160]), zone('hot', 'silencer', [160, 1500], [220, 300])],
  batteries: [towerBattery],
  points: [
    ...terminals(towerBattery, 0, 'Battery', ['Right door open, prop it.'], { cover: 'door' }),
    point('ground', 'ground-point', 'Engine foot bolt', [700, 1500, 460], ['Bare bolt, front foot.']),
    point('release', 'release', 'Door lock', [1180, 1450, 700], ['Coin lock.']),
  ],
  engine: { fuel: 'diesel', displacementL: 1.1, cylinders: 3, systemVolts: 12 },
  smartAlternator: false,
  resets: ['Timer clock'],
  cautions: ['Lower the mast and switch the lamps off first.'],
  never: ['Lift the mast under a power line.'],
};

const soundryBattery = batteryAt(
  rating('agm', 105, 800, 'SAE'),
  'under companion steps',
  [820, 5400, 700],
  [330, 180],
  {
    closedIn: true,
    ventHose: true,
  },
);
/** Inboard diesel cruiser. */
const soundry: Machine = {
  id: 'wendry-soundry-28',
  maker: 'Wendry',
  model: 'Soundry 28 inboard',
  machineClass: 'boat',
  gearbox: 'none',
  systemVolts: 12,
  ...boatShape(2900, 8600),
  zones: [zone('moving', 'shaft and belt', [1300, 5700], [340, 500])],
  batteries: [soundryBattery],
  points: [
    ...terminals(soundryBattery, 0, 'Engine battery', ['Steps off: two hooks.', 'Let the bilge air first.'], {
      cover: 'companion steps',
    }),
    point('ground', 'ground-point', 'Engine bed bolt', [1000, 6100, 620], ['Bare bolt on the engine bed.']),
    point('release', 'release', 'Battery switch', [560, 5200, 1000], ['Turn to 1 for the engine battery.']),
  ],
  engine: { fuel: 'diesel', displacementL: 1.5, cylinders: 3, systemVolts: 12 },
  smartAlternator: false,
  resets: ['Plotter', 'Bilge alarm'],
  cautions: ['Isolator on before cranking, never off while it runs.'],
  never: ['Switch the isolator off with the engine running.'],
};

const cairnetLow = batteryAt(
  rating('flooded', 180, 1000),
  'box behind the cab, front',
  [1960, 2000, 1000],
  [500, 220],
);
const cairnetHigh = batteryAt(
  rating('flooded', 180, 1000),
  'box behind the cab, rear',
  [1960, 2250, 1000],
  [500, 220],
);
/** Tipper truck on 24 V. */
const cairnet: Machine = {
  id: 'orrendal-cairnet-18',
  maker: 'Orrendal',
  model: 'Cairnet 18 tipper',
  machineClass: 'truck',
  gearbox: 'manual',
  systemVolts: 24,
  ...truckShape(2500, 7200),
  zones: [zone('hot', 'exhaust', [60, 1500], [300, 900])],
  batteries: [cairnetLow, cairnetHigh],
  points: [
    ...terminals(cairnetLow, 0, 'Battery 1', ['Box lid: four latches.'], { cover: 'box lid' }),
    ...terminals(cairnetHigh, 1, 'Battery 2', ['The rear one. Its - is the middle joint.'], {
      cover: 'box lid',
    }),
    point('ground', 'ground-point', 'Chassis stud', [1900, 2700, 900], ['Right rail behind the box.']),
    point('release', 'release', 'Box latches', [2440, 2200, 1020], ['Lift and swing.']),
  ],
  engine: { fuel: 'diesel', displacementL: 8, cylinders: 6, systemVolts: 24 },
  smartAlternator: false,
  resets: ['Tachograph clock'],
  cautions: ['Body down or propped before you reach in.', 'Middle joint is live at 12 V to the chassis.'],
  never: ['Put 24 V on one battery.'],
};

const burrockBattery = batteryAt(rating('flooded', 45, 400), 'under the seat', [420, 900, 760], [210, 180], {
  closedIn: true,
});
/** Mini excavator. */
const burrock: Machine = {
  id: 'skarnby-burrock-17',
  maker: 'Skarnby',
  model: 'Burrock 17 mini digger',
  machineClass: 'plant',
  gearbox: 'none',
  systemVolts: 12,
  ...trackedShape(1240, 2300),
  zones: [zone('hot', 'silencer', [760, 1750], [180, 260])],
  batteries: [burrockBattery],
  points: [
    ...terminals(burrockBattery, 0, 'Battery', ['Seat tipped, steel plate off: two bolts.'], {
      cover: 'steel plate',
      tools: ['13 mm socket'],
    }),
    point(
      'starter-stud',
      'red-post',
      'Starter main stud',
      [420, 1900, 640],
      ['Rear hood up.', 'Starter, low left: the big stud under the rubber boot.'],
      { cover: 'rubber boot' },
    ),
    point('ground', 'ground-point', 'Starter body bolt', [520, 1980, 620], ['Bare fixing bolt.']),
    point('release', 'release', 'Seat lever', [500, 760, 760], ['Front of the seat.']),
  ],
  engine: { fuel: 'diesel', displacementL: 0.9, cylinders: 3, systemVolts: 12 },
  smartAlternator: false,
  resets: ['Hour meter check'],
  cautions: ['Bucket down, levers locked, before you clamp at the starter.'],
  never: ['Stand in the tracks while it cranks.'],
};

const ledgardLow = batteryAt(
  rating('flooded', 110, 850),
  'rear counterweight, left',
  [300, 5400, 1200],
  [330, 180],
);
const ledgardHigh = batteryAt(
  rating('flooded', 110, 850),
  'rear counterweight, right',
  [1750, 5400, 1200],
  [330, 180],
);
/** Wheel loader on 24 V, batteries apart. */
const ledgard: Machine = {
  id: 'hulvane-ledgard-8',
  maker: 'Hulvane',
  model: 'Ledgard 8 wheel loader',
  machineClass: 'plant',
  gearbox: 'none',
  systemVolts: 24,
  ...deckShape(2400, 6000, 3000, true),
  zones: [zone('moving', 'fan', [850, 5500], [700, 250]), zone('hot', 'exhaust', [1400, 4200], [250, 250])],
  batteries: [ledgardLow, ledgardHigh],
  points: [
    ...terminals(ledgardLow, 0, 'Battery 1', ['Left hatch: square key.'], {
      cover: 'hatch',
      tools: ['square key'],
    }),
    ...terminals(ledgardHigh, 1, 'Battery 2', ['Right hatch. Its - is the middle joint.'], {
      cover: 'hatch',
      tools: ['square key'],
    }),
    point('ground', 'ground-point', 'Frame stud', [1200, 4900, 1000], ['Stud ahead of the radiator.']),
    point('release', 'release', 'Hatch locks', [260, 5500, 1150], ['Square key, quarter turn.']),
  ],
  engine: { fuel: 'diesel', displacementL: 6.7, cylinders: 6, systemVolts: 24 },
  smartAlternator: false,
  resets: ['Hour meter check', 'Reverse camera'],
  cautions: ['Articulation lock in, bucket down.'],
  never: ['Put 24 V on one battery.'],
};

const haymereBattery = batteryAt(
  rating('flooded', 88, 720),
  'under the right step',
  [1500, 1700, 800],
  [180, 320],
);
/** Compact tractor. */
const haymere: Machine = {
  id: 'tolsey-haymere-50',
  maker: 'Tolsey',
  model: 'Haymere 50 tractor',
  machineClass: 'plant',
  gearbox: 'manual',
  systemVolts: 12,
  ...deckShape(1800, 3500, 2400, true),
  zones: [
    zone('moving', 'belt and fan', [650, 180], [500, 220]),
    zone('hot', 'exhaust', [1150, 700], [160, 160]),
  ],
  batteries: [haymereBattery],
  points: [
    ...terminals(haymereBattery, 0, 'Battery', ['Step plate off: two hand nuts.'], { cover: 'step plate' }),
    point('ground', 'ground-point', 'Gearbox bolt', [900, 1900, 700], ['Bare bolt on the gearbox case.']),
    point('release', 'release', 'Hood lever', [900, 250, 1300], ['Front grille, lever up.']),
  ],
  engine: { fuel: 'diesel', displacementL: 2.4, cylinders: 3, systemVolts: 12 },
  smartAlternator: false,
  resets: ['Clock'],
  cautions: ['Drive shaft off, clutch down, out of gear.'],
  never: ['Bridge the starter from the ground: it runs over whoever does.'],
};

const stepBattery = batteryAt(
  rating('efb', 75, 720),
  'under the cab step, left',
  [60, 1350, 520],
  [180, 280],
);
/** Delivery van with its battery under the step. */
const stepVan: Machine = {
  id: 'kestow-bale-20d',
  maker: 'Kestow',
  model: 'Bale 2.0 D van',
  machineClass: 'van',
  gearbox: 'manual',
  systemVolts: 12,
  ...vanShape(1980, 5400),
  zones: [
    zone('moving', 'belt and fan', [740, 240], [480, 170]),
    zone('hot', 'turbocharger', [520, 620], [220, 200]),
  ],
  batteries: [stepBattery],
  points: [
    point(
      'post',
      'red-post',
      'Red post, bay left',
      [380, 540, 980],
      ['Bonnet up.', 'Left: red hood by the washer filler.'],
      { cover: 'red hood' },
    ),
    point('ground', 'ground-point', 'Ground stud, bay right', [1600, 600, 980], ['Strut tower, bare stud.']),
    ...terminals(stepBattery, 0, 'Battery', ['Driver door open, step lid up: two screws.'], {
      cover: 'step lid',
      tools: ['cross-head driver'],
    }),
    point('release', 'release', 'Bonnet lever', [220, 1150, 700], ['Driver footwell.']),
  ],
  engine: { fuel: 'diesel', displacementL: 2.0, cylinders: 4, systemVolts: 12 },
  smartAlternator: true,
  resets: ['Clock', 'Window pinch protection'],
  cautions: ['Salt and water sit in the step: clean the posts.'],
  never: ['Clamp at the step with the door able to swing shut.'],
};

/** Motorcycles, plant, boats and the rest of the demo atlas. */
export const SMALL_AND_HEAVY: readonly Machine[] = [
  gliden,
  drovelin,
  meridell,
  zero,
  tower,
  soundry,
  cairnet,
  burrock,
  ledgard,
  haymere,
  stepVan,
];

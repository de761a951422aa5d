import { carShape, type Machine, motorcycleShape, truckShape, vanShape } from '@voltrek/core/machine';
import { batteryAt, point, rating, terminals, zone } from './points.js';

const hatchBattery = batteryAt(rating('flooded', 44, 420), 'front bay, left', [150, 560, 820], [210, 180]);
/** Front-bay petrol hatchback. */
const pella: Machine = {
  id: 'brinmoor-pella',
  maker: 'Brinmoor',
  model: 'Pella 1.2',
  machineClass: 'car',
  gearbox: 'manual',
  systemVolts: 12,
  ...carShape(1720, 3960),
  batteries: [hatchBattery],
  points: [
    ...terminals(hatchBattery, 0, 'Battery', ['Open the bonnet.', 'Lift the red flap over the fatter post.']),
    point(
      'ground',
      'ground-point',
      'Strut tower bolt, right',
      [1400, 620, 900],
      ['Right strut tower, the bare bolt nearest the wing.', 'Scrape to bright metal if it is painted.'],
    ),
    point(
      'release',
      'release',
      'Bonnet lever',
      [180, 1450, 650],
      ['Left footwell, under the dash. Pull twice.'],
    ),
  ],
  zones: [zone('moving', 'belt and fan', [640, 240], [420, 160])],
  engine: { fuel: 'petrol', displacementL: 1.2, cylinders: 3, systemVolts: 12 },
  smartAlternator: false,
  resets: ['Clock', 'Radio code', 'Front window pinch protection'],
  cautions: ['Fan may start with the key off.'],
  never: ['Crank for more than 5 s with the fan cowl off.'],
};

const solaceBattery = batteryAt(rating('agm', 70, 760), 'boot, right side', [1330, 3620, 620], [210, 330], {
  closedIn: true,
  ventHose: true,
});
/** Start-stop car: AGM battery in the boot, posts in the bay. */
const solace: Machine = {
  id: 'ardwen-solace',
  maker: 'Ardwen',
  model: 'Solace 1.6 SG',
  machineClass: 'car',
  gearbox: 'automatic',
  systemVolts: 12,
  ...carShape(1800, 4380),
  batteries: [solaceBattery],
  points: [
    point(
      'post',
      'red-post',
      'Red post, bay right',
      [1480, 820, 880],
      ['Open the bonnet.', 'Right side by the fuse box: lift the red cap marked +.'],
      { cover: 'red cap' },
    ),
    point(
      'ground',
      'ground-point',
      'Ground stud, bay left',
      [300, 640, 900],
      ['Left strut tower, hexagon stud marked with the ground sign.'],
    ),
    ...terminals(solaceBattery, 0, 'Battery', [
      'Boot floor up, right side liner off.',
      'For measuring and for removal only: it vents through a hose.',
    ]),
    point(
      'release',
      'release',
      'Bonnet lever',
      [180, 1600, 650],
      ['Left footwell. Pull, then slide the catch left.'],
    ),
  ],
  zones: [
    zone('moving', 'belt and fan', [620, 260], [480, 180]),
    zone('hot', 'turbocharger', [820, 640], [220, 180]),
  ],
  engine: { fuel: 'petrol', displacementL: 1.6, cylinders: 4, systemVolts: 12 },
  smartAlternator: true,
  resets: [
    'Clock',
    'All window pinch protection',
    'Steering angle: lock to lock',
    'Parking brake',
    'Battery registration',
  ],
  cautions: [
    'Never charge the battery in a closed boot.',
    'Do not clamp on the charge sensor at the negative post.',
  ],
  never: ['Clamp on the charge sensor.', 'Charge in the closed boot.'],
};

const confluxBattery = batteryAt(
  rating('agm', 45, 325),
  'under rear seat, left',
  [180, 3080, 640],
  [240, 190],
  {
    closedIn: true,
    ventHose: true,
  },
);
/** Hybrid minibus: battery under the rear seat; it wakes and does not crank. */
const conflux: Machine = {
  id: 'tolsey-conflux',
  maker: 'Tolsey',
  model: 'Conflux hybrid minibus',
  machineClass: 'hybrid',
  gearbox: 'automatic',
  systemVolts: 12,
  ...vanShape(1900, 4980),
  batteries: [confluxBattery],
  points: [
    point(
      'post',
      'red-post',
      'Red post, fuse box',
      [1500, 640, 980],
      ['Open the bonnet.', 'Fuse box lid off: the + tab stands under a red hood.'],
      { cover: 'fuse box lid, red hood' },
    ),
    point(
      'ground',
      'ground-point',
      'Ground bolt, slam panel',
      [620, 260, 920],
      ['Bare bolt left of the bonnet catch.'],
    ),
    ...terminals(confluxBattery, 0, 'Battery', [
      'Rear seat, left cushion: pull the front edge up.',
      'Lift the vent grille off.',
    ]),
    point('release', 'release', 'Bonnet lever', [220, 1180, 700], ['Driver footwell, above the pedals.']),
  ],
  zones: [zone('hot', 'converter', [760, 560], [300, 260])],
  engine: null,
  smartAlternator: false,
  resets: ['Clock', 'Sliding door learn', 'Window pinch protection'],
  cautions: [
    'Orange cables are high voltage: hands off.',
    'Never lend power from this machine to a cranking engine.',
  ],
  never: ['Touch an orange cable or its connector.', 'Lend power to a cranking engine.'],
};

const parcelBattery = batteryAt(
  rating('agm', 50, 450),
  'front bay, under cover',
  [1060, 420, 860],
  [240, 180],
  {
    layout: 'positive-right',
  },
);
/** Delivery EV that will not open. */
const parcel: Machine = {
  id: 'kestow-parcel-e',
  maker: 'Kestow',
  model: 'Parcel E',
  machineClass: 'ev',
  gearbox: 'none',
  systemVolts: 12,
  ...vanShape(1860, 4560),
  batteries: [parcelBattery],
  points: [
    point(
      'latch-plus',
      'latch-wire-positive',
      'Red latch wire',
      [480, 70, 480],
      [
        'Front bumper, left: press the tow-eye cover in at its top edge.',
        'Pull the capped wire pair out.',
        'Red wire to + of the latch source, black to -: the bonnet unlocks.',
      ],
      { cover: 'tow-eye cover', tools: ['flat blade'] },
    ),
    point(
      'latch-minus',
      'latch-wire-negative',
      'Black latch wire',
      [560, 70, 480],
      ['The black one of the pair.'],
    ),
    ...terminals(parcelBattery, 0, '12 V battery', [
      'Bonnet up, plastic cover off: four quarter-turn clips.',
    ]),
    point(
      'ground',
      'ground-point',
      'Ground stud, right turret',
      [1640, 700, 950],
      ['Plain stud on the right turret.'],
    ),
    point(
      'release',
      'release',
      'Bonnet, electric',
      [930, 120, 900],
      ['Electric latch: dead without low voltage. Use the latch wires.'],
    ),
  ],
  zones: [],
  engine: null,
  smartAlternator: false,
  resets: ['Clock', 'Door lock learn', 'Charge timer'],
  cautions: [
    'The latch wires only release the bonnet. They do not charge or wake it.',
    'Donor engine stays off: its alternator can harm the control units.',
  ],
  never: ['Touch an orange cable or its connector.', "Run the donor's engine while joined."],
};

const fellBattery = batteryAt(rating('agm', 8, 120, 'SAE'), 'under the saddle', [370, 1280, 760], [90, 150]);
/** Trail motorcycle. */
const fell: Machine = {
  id: 'ostrel-fell-450',
  maker: 'Ostrel',
  model: 'Fell 450',
  machineClass: 'motorcycle',
  gearbox: 'manual',
  systemVolts: 12,
  ...motorcycleShape(820, 2180),
  batteries: [fellBattery],
  points: [
    ...terminals(fellBattery, 0, 'Battery', ['Saddle off: two bolts under the tail.', 'Strap aside.']),
    point(
      'ground',
      'ground-point',
      'Frame, engine mount bolt',
      [520, 900, 620],
      ['Right side, upper engine mount: bare bolt head.'],
    ),
    point('release', 'release', 'Saddle bolts', [410, 1880, 820], ['Two 8 mm bolts under the tail.'], {
      tools: ['8 mm socket'],
    }),
  ],
  zones: [zone('hot', 'exhaust', [540, 1000], [90, 700])],
  engine: { fuel: 'petrol', displacementL: 0.45, cylinders: 1, systemVolts: 12 },
  smartAlternator: false,
  resets: ['Clock'],
  cautions: ['Car engine off: its alternator is too much for this battery.', 'Stand it level and chock it.'],
  never: ['Join a car whose engine runs.'],
};

const bakeryBattery = batteryAt(
  rating('efb', 80, 780),
  'under driver seat box',
  [220, 1420, 700],
  [180, 300],
  {
    closedIn: true,
  },
);
/** The bakery's diesel van: battery under the seat, post in the bay. */
const bakery: Machine = {
  id: 'brinmoor-carrow-22d',
  maker: 'Brinmoor',
  model: 'Carrow 2.2 D',
  machineClass: 'van',
  gearbox: 'manual',
  systemVolts: 12,
  ...vanShape(2040, 5480),
  batteries: [bakeryBattery],
  points: [
    point(
      'post',
      'red-post',
      'Jump post, bay right',
      [1620, 560, 1020],
      ['Bonnet up.', 'Right of the filter housing, red hood.'],
      { cover: 'red hood' },
    ),
    point(
      'ground',
      'ground-point',
      'Ground stud, strut tower left',
      [360, 620, 1000],
      ['Bare stud on the left strut tower.', 'Clamp onto metal, not the paint round it.'],
    ),
    ...terminals(bakeryBattery, 0, 'Battery', ['Driver seat forward, floor mat up, three-bolt lid.']),
    point('release', 'release', 'Bonnet lever', [220, 1180, 750], ['Driver footwell, left.']),
  ],
  zones: [
    zone('moving', 'belt and fan', [760, 240], [520, 180]),
    zone('hot', 'turbocharger', [980, 620], [240, 200]),
  ],
  engine: { fuel: 'diesel', displacementL: 2.2, cylinders: 4, systemVolts: 12 },
  smartAlternator: true,
  resets: ['Clock', 'Window pinch protection', 'Radio code'],
  cautions: ['Seat box is closed: let it air before working there.'],
  never: ['Lay a lead over the filter housing: it blows off.'],
};

const reeferLow = batteryAt(
  rating('flooded', 170, 1000),
  'left side box, front',
  [80, 2500, 950],
  [270, 500],
);
const reeferHigh = batteryAt(
  rating('flooded', 170, 1000),
  'left side box, rear',
  [80, 3040, 950],
  [270, 500],
);
/** Refrigerated truck on 24 V. */
const reefer: Machine = {
  id: 'orrendal-boreal-12',
  maker: 'Orrendal',
  model: 'Boreal 12 reefer',
  machineClass: 'truck',
  gearbox: 'manual',
  systemVolts: 24,
  ...truckShape(2500, 8600),
  batteries: [reeferLow, reeferHigh],
  points: [
    point(
      'post',
      'red-post',
      '24 V post, behind the step',
      [120, 1850, 800],
      ['Left, behind the cab step: slide the red cap.'],
      { cover: 'sliding red cap' },
    ),
    point(
      'ground',
      'ground-point',
      'Chassis stud',
      [420, 1900, 780],
      ['Stud on the left chassis rail beside the post.'],
    ),
    ...terminals(reeferLow, 0, 'Battery 1', ['Side box lid off: two rubber latches.']),
    ...terminals(reeferHigh, 1, 'Battery 2', [
      'The rear one. Its - is the middle joint: 12 V to the chassis.',
    ]),
    point('release', 'release', 'Side box latches', [70, 2900, 900], ['Two rubber latches, lift and swing.']),
  ],
  zones: [zone('hot', 'exhaust', [2150, 1500], [250, 900])],
  engine: { fuel: 'diesel', displacementL: 6.7, cylinders: 6, systemVolts: 24 },
  smartAlternator: false,
  resets: ['Tachograph clock', 'Fridge set point'],
  cautions: ['Middle joint is live at 12 V to the chassis.'],
  never: ['Put 24 V on one battery.', 'Crank with the cab tilted.'],
};

const serviceBattery = batteryAt(rating('agm', 95, 850), 'front bay, left', [230, 480, 900], [180, 350], {
  layout: 'positive-right',
});
/** The crew's own van: the donor. */
const serviceVan: Machine = {
  id: 'service-van',
  maker: 'Tolsey',
  model: 'Carrier service van',
  machineClass: 'van',
  gearbox: 'manual',
  systemVolts: 12,
  ...vanShape(1980, 5100),
  batteries: [serviceBattery],
  points: [
    ...terminals(serviceBattery, 0, 'Battery', ['Bonnet up, flap over + is red.']),
    point(
      'ground',
      'ground-point',
      'Engine lifting eye',
      [1200, 700, 950],
      ['Bare eye at the front of the engine.'],
    ),
  ],
  zones: [zone('moving', 'belt and fan', [760, 250], [480, 180])],
  engine: { fuel: 'diesel', displacementL: 2.0, cylinders: 4, systemVolts: 12 },
  smartAlternator: false,
  resets: [],
  cautions: [],
  never: [],
};

/** Road machines of the demo atlas. */
export const ROAD_MACHINES: readonly Machine[] = [
  pella,
  solace,
  conflux,
  parcel,
  fell,
  bakery,
  reefer,
  serviceVan,
];

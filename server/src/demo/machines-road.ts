import type { BlockRating, Machine } from '@voltrek/core';
import { blockAt, point, terminals } from './points.js';
import { carShape, motorcycleShape, truckShape, vanShape } from './shapes.js';

const rating = (
  chemistry: BlockRating['chemistry'],
  capacityAh: number,
  ccaAmps: number,
  ccaStandard: BlockRating['ccaStandard'] = 'EN',
): BlockRating => ({ chemistry, capacityAh, ccaAmps, ccaStandard });

const hatchBlock = blockAt(rating('flooded', 44, 420), 'front bay, left', [150, 560], [210, 180]);
/** Front-bay petrol hatchback. */
const pella: Machine = {
  id: 'brinmoor-pella',
  maker: 'Brinmoor',
  model: 'Pella 1.2',
  machineClass: 'car',
  gearbox: 'manual',
  systemVolts: 12,
  ...carShape(1720, 3960),
  blocks: [hatchBlock],
  points: [
    ...terminals(hatchBlock, 0, 'Block', ['Open the bonnet.', 'Lift the red flap over the fatter post.']),
    point(
      'ground',
      'ground-point',
      'Strut tower bolt, right',
      [1400, 620],
      ['Right strut tower, the bare bolt nearest the wing.', 'Scrape to bright metal if it is painted.'],
    ),
    point('release', 'release', 'Bonnet lever', [180, 1450], ['Left footwell, under the dash. Pull twice.']),
  ],
  engine: { fuel: 'petrol', displacementL: 1.2, cylinders: 3, systemVolts: 12 },
  smartAlternator: false,
  resets: ['Clock', 'Radio code', 'Front window pinch protection'],
  cautions: ['Fan may start with the key off.'],
};

const solaceBlock = blockAt(rating('agm', 70, 760), 'boot, right side', [1330, 3620], [210, 330], true);
/** Start-stop car: AGM block in the boot, posts in the bay. */
const solace: Machine = {
  id: 'ardwen-solace',
  maker: 'Ardwen',
  model: 'Solace 1.6 SG',
  machineClass: 'car',
  gearbox: 'automatic',
  systemVolts: 12,
  ...carShape(1800, 4380),
  blocks: [solaceBlock],
  points: [
    point(
      'post',
      'red-post',
      'Red post, bay right',
      [1480, 820],
      ['Open the bonnet.', 'Right side by the fuse box: lift the red cap marked +.'],
    ),
    point(
      'ground',
      'ground-point',
      'Ground stud, bay left',
      [300, 640],
      ['Left strut tower, hexagon stud marked with the ground sign.'],
    ),
    ...terminals(solaceBlock, 0, 'Block', [
      'Boot floor up, right side liner off.',
      'For measuring and for removal only: it vents through a hose.',
    ]),
    point(
      'release',
      'release',
      'Bonnet lever',
      [180, 1600],
      ['Left footwell. Pull, then slide the catch left.'],
    ),
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
    'Never charge the block in a closed boot.',
    'Do not clamp on the charge sensor at the negative post.',
  ],
};

const confluxBlock = blockAt(rating('agm', 45, 325), 'under rear seat, left', [180, 3080], [240, 190], true);
/** Hybrid minibus: block under the rear seat; it wakes and does not crank. */
const conflux: Machine = {
  id: 'tolsey-conflux',
  maker: 'Tolsey',
  model: 'Conflux hybrid minibus',
  machineClass: 'hybrid',
  gearbox: 'automatic',
  systemVolts: 12,
  ...vanShape(1900, 4980),
  blocks: [confluxBlock],
  points: [
    point(
      'post',
      'red-post',
      'Red post, fuse box',
      [1500, 640],
      ['Open the bonnet.', 'Fuse box lid off: the + tab stands under a red hood.'],
    ),
    point(
      'ground',
      'ground-point',
      'Ground bolt, slam panel',
      [620, 260],
      ['Bare bolt left of the bonnet catch.'],
    ),
    ...terminals(confluxBlock, 0, 'Block', [
      'Rear seat, left cushion: pull the front edge up.',
      'Lift the vent grille off.',
    ]),
    point('release', 'release', 'Bonnet lever', [220, 1180], ['Driver footwell, above the pedals.']),
  ],
  engine: null,
  smartAlternator: false,
  resets: ['Clock', 'Sliding door learn', 'Window pinch protection'],
  cautions: [
    'Orange cables are high voltage: hands off.',
    'Never lend power from this machine to a cranking engine.',
  ],
};

const parcelBlock = blockAt(rating('agm', 50, 450), 'front bay, under cover', [1060, 420], [240, 180]);
/** Delivery EV that will not open. */
const parcel: Machine = {
  id: 'kestow-parcel-e',
  maker: 'Kestow',
  model: 'Parcel E',
  machineClass: 'ev',
  gearbox: 'none',
  systemVolts: 12,
  ...vanShape(1860, 4560),
  blocks: [parcelBlock],
  points: [
    point(
      'latch-plus',
      'latch-wire-positive',
      'Red latch wire',
      [480, 70],
      [
        'Front bumper, left: press the tow-eye cover in at its top edge.',
        'Pull the capped wire pair out.',
        'Red wire to + of the latch source, black to -: the bonnet unlocks.',
      ],
    ),
    point(
      'latch-minus',
      'latch-wire-negative',
      'Black latch wire',
      [560, 70],
      ['The black one of the pair.'],
    ),
    ...terminals(parcelBlock, 0, 'Low-voltage block', [
      'Bonnet up, plastic cover off: four quarter-turn clips.',
    ]),
    point(
      'ground',
      'ground-point',
      'Ground stud, right turret',
      [1640, 700],
      ['Plain stud on the right turret.'],
    ),
    point(
      'release',
      'release',
      'Bonnet, electric',
      [930, 120],
      ['Electric latch: dead without low voltage. Use the latch wires.'],
    ),
  ],
  engine: null,
  smartAlternator: false,
  resets: ['Clock', 'Door lock learn', 'Charge timer'],
  cautions: [
    'The latch wires only release the bonnet. They do not charge or wake it.',
    'Donor engine stays off: its alternator can harm the control units.',
  ],
};

const fellBlock = blockAt(rating('agm', 8, 120, 'SAE'), 'under the saddle', [370, 1280], [90, 150]);
/** Trail motorcycle. */
const fell: Machine = {
  id: 'ostrel-fell-450',
  maker: 'Ostrel',
  model: 'Fell 450',
  machineClass: 'motorcycle',
  gearbox: 'manual',
  systemVolts: 12,
  ...motorcycleShape(820, 2180),
  blocks: [fellBlock],
  points: [
    ...terminals(fellBlock, 0, 'Block', ['Saddle off: two bolts under the tail.', 'Strap aside.']),
    point(
      'ground',
      'ground-point',
      'Frame, engine mount bolt',
      [520, 900],
      ['Right side, upper engine mount: bare bolt head.'],
    ),
    point('release', 'release', 'Saddle bolts', [410, 1880], ['Two 8 mm bolts under the tail.']),
  ],
  engine: { fuel: 'petrol', displacementL: 0.45, cylinders: 1, systemVolts: 12 },
  smartAlternator: false,
  resets: ['Clock'],
  cautions: ['Car engine off: its alternator is too much for this block.', 'Stand it level and chock it.'],
};

const bakeryBlock = blockAt(rating('efb', 80, 780), 'under driver seat box', [220, 1420], [180, 300], true);
/** The bakery's diesel van: block under the seat, post in the bay. */
const bakery: Machine = {
  id: 'brinmoor-carrow-22d',
  maker: 'Brinmoor',
  model: 'Carrow 2.2 D',
  machineClass: 'van',
  gearbox: 'manual',
  systemVolts: 12,
  ...vanShape(2040, 5480),
  blocks: [bakeryBlock],
  points: [
    point(
      'post',
      'red-post',
      'Jump post, bay right',
      [1620, 560],
      ['Bonnet up.', 'Right of the filter housing, red hood.'],
    ),
    point(
      'ground',
      'ground-point',
      'Ground stud, strut tower left',
      [360, 620],
      ['Bare stud on the left strut tower.', 'Bite metal, not the paint round it.'],
    ),
    ...terminals(bakeryBlock, 0, 'Block', ['Driver seat forward, floor mat up, three-bolt lid.']),
    point('release', 'release', 'Bonnet lever', [220, 1180], ['Driver footwell, left.']),
  ],
  engine: { fuel: 'diesel', displacementL: 2.2, cylinders: 4, systemVolts: 12 },
  smartAlternator: true,
  resets: ['Clock', 'Window pinch protection', 'Radio code'],
  cautions: ['Seat box is closed: let it air before working there.'],
};

const reeferLow = blockAt(rating('flooded', 170, 1000), 'left side box, front', [80, 2500], [270, 500]);
const reeferHigh = blockAt(rating('flooded', 170, 1000), 'left side box, rear', [80, 3040], [270, 500]);
/** Refrigerated truck on 24 V. */
const reefer: Machine = {
  id: 'orrendal-boreal-12',
  maker: 'Orrendal',
  model: 'Boreal 12 reefer',
  machineClass: 'truck',
  gearbox: 'manual',
  systemVolts: 24,
  ...truckShape(2500, 8600),
  blocks: [reeferLow, reeferHigh],
  points: [
    point(
      'post',
      'red-post',
      '24 V post, behind the step',
      [120, 1850],
      ['Left, behind the cab step: slide the red cap.'],
    ),
    point(
      'ground',
      'ground-point',
      'Chassis stud',
      [420, 1900],
      ['Stud on the left chassis rail beside the post.'],
    ),
    ...terminals(reeferLow, 0, 'Lower block', ['Side box lid off: two rubber latches.']),
    ...terminals(reeferHigh, 1, 'Upper block', [
      'The rear one. Its - is the middle joint: 12 V to the chassis.',
    ]),
    point('release', 'release', 'Side box latches', [70, 2900], ['Two rubber latches, lift and swing.']),
  ],
  engine: { fuel: 'diesel', displacementL: 6.7, cylinders: 6, systemVolts: 24 },
  smartAlternator: false,
  resets: ['Tachograph clock', 'Fridge set point'],
  cautions: ['Middle joint is live at 12 V to the chassis.'],
};

const serviceBlock = blockAt(rating('agm', 95, 850), 'front bay, left', [230, 480], [180, 350]);
/** The crew's own van: the donor. */
const serviceVan: Machine = {
  id: 'service-van',
  maker: 'Tolsey',
  model: 'Carrier service van',
  machineClass: 'van',
  gearbox: 'manual',
  systemVolts: 12,
  ...vanShape(1980, 5100),
  blocks: [serviceBlock],
  points: [
    ...terminals(serviceBlock, 0, 'Block', ['Bonnet up, flap over + is red.']),
    point(
      'ground',
      'ground-point',
      'Engine lifting eye',
      [1200, 700],
      ['Bare eye at the front of the engine.'],
    ),
  ],
  engine: { fuel: 'diesel', displacementL: 2.0, cylinders: 4, systemVolts: 12 },
  smartAlternator: false,
  resets: [],
  cautions: [],
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

import { carShape, type Machine, vanShape } from '@voltrek/core/machine';
import { batteryAt, point, rating, terminals, zone } from './points.js';

const ORANGE = 'Touch an orange cable or its connector.';

const glimmetBattery = batteryAt(
  rating('agm', 40, 360),
  'front bay, under cover',
  [240, 520, 830],
  [200, 170],
);
/** City EV: latch wires in the grille. */
const glimmet: Machine = {
  id: 'hulvane-glimmet',
  maker: 'Hulvane',
  model: 'Glimmet city EV',
  machineClass: 'ev',
  gearbox: 'none',
  systemVolts: 12,
  ...carShape(1680, 3620),
  zones: [zone('hot', 'inverter', [760, 420], [420, 300])],
  batteries: [glimmetBattery],
  points: [
    point(
      'latch-plus',
      'latch-wire-positive',
      'Red latch stud',
      [1060, 20, 560],
      ['Grille, right of the badge plate: pull the rubber plug.', 'Red-ringed stud: + of the latch source.'],
      { cover: 'rubber plug' },
    ),
    point(
      'latch-minus',
      'latch-wire-negative',
      'Black latch stud',
      [1120, 20, 560],
      ['The plain stud beside it.'],
    ),
    ...terminals(glimmetBattery, 0, '12 V battery', ['Bonnet up, felt cover off.'], {
      cover: 'felt cover',
    }),
    point('ground', 'ground-point', 'Ground stud, turret left', [220, 760, 860], ['Marked stud.']),
    point('release', 'release', 'Bonnet, electric', [840, 90, 760], ['Dead without power: use the studs.']),
  ],
  engine: null,
  smartAlternator: false,
  resets: ['Clock', 'Window learn', 'Charge timer'],
  cautions: ['The latch studs only release the bonnet.'],
  never: [ORANGE, 'Lend power from this car to a cranking engine.'],
};

const mistrowBattery = batteryAt(
  rating('agm', 60, 520),
  'front boot, under liner',
  [1180, 700, 700],
  [240, 180],
  {
    ventHose: true,
  },
);
/** EV saloon: latch wires behind the wheel-arch liner, on a pull cord. */
const mistrow: Machine = {
  id: 'orrendal-mistrow',
  maker: 'Orrendal',
  model: 'Mistrow EV saloon',
  machineClass: 'ev',
  gearbox: 'none',
  systemVolts: 12,
  ...carShape(1870, 4720),
  zones: [],
  batteries: [mistrowBattery],
  points: [
    point(
      'latch-plus',
      'latch-wire-positive',
      'Red latch wire',
      [60, 1010, 520],
      [
        'Left front arch: find the pull cord at the top of the liner.',
        'Pull it: the wire pair drops out.',
        'Red to + of the latch source.',
      ],
      { cover: 'wheel-arch liner' },
    ),
    point('latch-minus', 'latch-wire-negative', 'Black latch wire', [60, 1060, 520], ['The black one.']),
    ...terminals(
      mistrowBattery,
      0,
      '12 V battery',
      ['Front lid up, load tray out.', 'Four clips, then the liner lifts.'],
      { cover: 'load tray and liner' },
    ),
    point('ground', 'ground-point', 'Ground bolt, crossbeam', [940, 620, 760], ['Bare bolt, crossbeam.']),
    point('release', 'release', 'Front lid, electric', [930, 60, 800], ['Use the latch wires.']),
  ],
  engine: null,
  smartAlternator: false,
  resets: ['Clock', 'Door handles', 'Steering angle: lock to lock'],
  cautions: ['The lid may spring up: stand beside it.'],
  never: [ORANGE, "Run the donor's engine while joined."],
};

const arrowenBattery = batteryAt(rating('lfp', 20, 300), 'under dash, left', [260, 1280, 640], [180, 120], {
  closedIn: true,
});
/** EV with a lithium 12 V battery and no points for help: recover it. */
const arrowen: Machine = {
  id: 'ostrel-arrowen-l',
  maker: 'Ostrel',
  model: 'Arrowen L EV',
  machineClass: 'ev',
  gearbox: 'none',
  systemVolts: 12,
  ...carShape(1900, 4640),
  zones: [],
  batteries: [arrowenBattery],
  points: [
    ...terminals(arrowenBattery, 0, 'Lithium 12 V battery', [
      'Left footwell panel off.',
      'For reading volts only: no lead-acid charger, no jump.',
    ]),
    point('ground', 'ground-point', 'Seat rail bolt', [520, 1700, 360], ['For the meter only.']),
    point(
      'release',
      'release',
      'Door, key blade',
      [40, 1900, 800],
      ['Cap off the handle end, key blade in.'],
      { cover: 'handle cap', tools: ['key blade'] },
    ),
  ],
  engine: null,
  smartAlternator: false,
  resets: ['Clock', 'Window learn'],
  cautions: ['Lithium 12 V battery: it wakes only through its own charge port or the maker.'],
  never: [ORANGE, 'Join any source to the 12 V battery.', 'Put a lead-acid charger on it.'],
};

const solaceHBattery = batteryAt(rating('agm', 45, 400), 'boot, left side', [240, 3640, 600], [190, 240], {
  closedIn: true,
  ventHose: true,
});
/** Hybrid saloon, battery in the boot. */
const solaceH: Machine = {
  id: 'ardwen-solace-h',
  maker: 'Ardwen',
  model: 'Solace Hybrid',
  machineClass: 'hybrid',
  gearbox: 'automatic',
  systemVolts: 12,
  ...carShape(1800, 4420),
  zones: [
    zone('hot', 'converter', [900, 560], [320, 260]),
    zone('moving', 'belt and fan', [520, 260], [300, 160]),
  ],
  batteries: [solaceHBattery],
  points: [
    point(
      'post',
      'red-post',
      'Red post, fuse box',
      [1500, 660, 900],
      ['Bonnet up.', 'Small red lid on the fuse box.'],
      { cover: 'small red lid' },
    ),
    point('ground', 'ground-point', 'Ground stud, bay left', [300, 700, 900], ['Marked stud, strut tower.']),
    ...terminals(solaceHBattery, 0, '12 V battery', ['Boot, left pocket: panel out.'], {
      cover: 'side panel',
    }),
    point('release', 'release', 'Bonnet lever', [190, 1580, 520], ['Left footwell.']),
  ],
  engine: null,
  smartAlternator: false,
  resets: ['Clock', 'Window pinch protection', 'Steering angle: lock to lock'],
  cautions: ['It may start its engine by itself once awake: select P, hands clear.'],
  never: [ORANGE, 'Lend power from this car to a cranking engine.'],
};

const pellaHBattery = batteryAt(
  rating('agm', 35, 300, 'JIS'),
  'under rear seat, right',
  [1260, 2400, 540],
  [190, 170],
  {
    closedIn: true,
    ventHose: true,
  },
);
/** Hybrid hatchback, battery under the rear seat. */
const pellaH: Machine = {
  id: 'brinmoor-pella-h',
  maker: 'Brinmoor',
  model: 'Pella Hybrid',
  machineClass: 'hybrid',
  gearbox: 'automatic',
  systemVolts: 12,
  ...carShape(1730, 4010),
  zones: [zone('hot', 'converter', [820, 520], [300, 240])],
  batteries: [pellaHBattery],
  points: [
    point(
      'post',
      'red-post',
      'Red tab, relay box',
      [340, 640, 880],
      ['Bonnet up.', 'Relay box left: red-lidded tab.'],
      { cover: 'red lid' },
    ),
    point('ground', 'ground-point', 'Bolt, slam panel', [860, 160, 780], ['Bare bolt, slam panel.']),
    ...terminals(pellaHBattery, 0, '12 V battery', ['Rear cushion up, grille off.'], {
      cover: 'rear cushion',
    }),
    point('release', 'release', 'Bonnet lever', [180, 1420, 520], ['Left footwell.']),
  ],
  engine: null,
  smartAlternator: false,
  resets: ['Clock', 'Radio presets'],
  cautions: ['Keep the cushion grille clear: the traction battery breathes there.'],
  never: [ORANGE, 'Lend power from this car to a cranking engine.'],
};

const carterBattery = batteryAt(
  rating('agm', 68, 600),
  'under passenger seat',
  [1420, 1520, 620],
  [190, 280],
  {
    closedIn: true,
  },
);
/** Electric chassis van with posts in the bay. */
const carter: Machine = {
  id: 'kestow-parcel-xl',
  maker: 'Kestow',
  model: 'Parcel XL electric van',
  machineClass: 'ev',
  gearbox: 'none',
  systemVolts: 12,
  ...vanShape(2060, 5900),
  zones: [],
  batteries: [carterBattery],
  points: [
    point(
      'post',
      'red-post',
      'Red post, bay right',
      [1640, 520, 1000],
      ['Bonnet up.', 'Right: red hood marked +.'],
      { cover: 'red hood' },
    ),
    point('ground', 'ground-point', 'Ground stud, bay left', [360, 560, 1000], ['Marked stud.']),
    ...terminals(carterBattery, 0, '12 V battery', ['Passenger seat base: lid, two turn locks.'], {
      cover: 'seat base lid',
    }),
    point('release', 'release', 'Bonnet cable', [230, 1100, 760], ['Driver footwell, pull hard.']),
  ],
  engine: null,
  smartAlternator: false,
  resets: ['Clock', 'Charge timer', 'Door lock learn'],
  cautions: ['A flat traction battery is another fault: wake it only to open the charge flap.'],
  never: [ORANGE, "Run the donor's engine while joined."],
};

/** Hybrids and EVs of the demo atlas. */
export const ELECTRICS: readonly Machine[] = [glimmet, mistrow, arrowen, solaceH, pellaH, carter];

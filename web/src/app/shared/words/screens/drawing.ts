import { type Shown, tell } from '../tell';

/** Words of the screens of drawing, one list a part. */

export const CIRCUIT_VIEW = {
  warms: (rise: Shown) => tell`+${rise} a try`,
  n12VEach: '12 V each',
  on: 'on',
  off: 'off',
  takeOff: 'take off',
  clampHere: 'clamp here',
  freeEnd: 'free end',
  andThePack: ' and the pack',
  drawingOfThe: (join: Shown, andThePack: Shown) => tell`Drawing of the ${join}${andThePack}`,
  clamp: (isRed: Shown, label: Shown) => tell`${isRed} clamp ${label}`,
} as const;

export const MACHINE_DRAWING = {
  side: 'Side',
  print: 'Print',
  never: (line: Shown) => tell`Never: ${line}`,
  keepLeadsOff: (join: Shown) => tell`Keep leads off: ${join}`,
} as const;

export const SIDE_VIEW = {
  aMetre: '1 m',
  noSideViewOfThisMachine: 'No side view of this machine yet.',
  mUp: (label: Shown, heightMm: Shown) => tell`${label} ${heightMm} m up`,
  sideView: 'Side view',
} as const;

export const VEHICLE = {
  battery: 'battery',
} as const;

export const LEADS = {
  free: 'free',
  on: 'on',
} as const;

export const CIRCUIT_LAYOUT = {
  donor: 'donor',
  hobby: 'hobby',
  charger: 'charger',
  battery: 'battery',
  booster: 'booster',
  pack: 'pack',
} as const;

import type { Cause } from '../diagnosis/index.js';
import type { MachineClass } from '../machine/index.js';

export const RUNG_IDS = [
  'order',
  'leads',
  'joints',
  'charging',
  'worn-or-flat',
  'not-the-battery',
  'string',
  'motorcycle',
  'waking',
  'stop',
] as const;
export type RungId = (typeof RUNG_IDS)[number];

/** One rung of the ladder: what its cases are drawn from, and with that what it trains. */
export interface Rung {
  readonly id: RungId;
  readonly classes: readonly MachineClass[];
  readonly causes: readonly Cause[];
  /** Coldest and mildest that its nights are, degC. */
  readonly cold: readonly [number, number];
}

/** The ladder, easiest first. */
export const RUNGS: readonly Rung[] = [
  { id: 'order', classes: ['car'], causes: ['left-on', 'discharged'], cold: [2, 12] },
  { id: 'leads', classes: ['van', 'car'], causes: ['left-on', 'discharged'], cold: [-14, -4] },
  {
    id: 'joints',
    classes: ['car', 'van'],
    causes: ['joint-positive', 'joint-negative', 'joint-loose', 'cable'],
    cold: [-4, 10],
  },
  { id: 'charging', classes: ['car', 'van'], causes: ['charging', 'drain', 'left-on'], cold: [-6, 10] },
  {
    id: 'worn-or-flat',
    classes: ['car', 'van'],
    causes: ['worn', 'dead-cell', 'sulphated', 'discharged'],
    cold: [-8, 8],
  },
  {
    id: 'not-the-battery',
    classes: ['car', 'van'],
    causes: ['starter', 'interlock', 'immobiliser', 'fuel', 'main-fuse'],
    cold: [-4, 12],
  },
  { id: 'string', classes: ['truck', 'plant'], causes: ['string-weak', 'left-on', 'worn'], cold: [-8, 8] },
  {
    id: 'motorcycle',
    classes: ['motorcycle', 'ride-on'],
    causes: ['discharged', 'left-on', 'worn', 'interlock'],
    cold: [0, 14],
  },
  {
    id: 'waking',
    classes: ['ev', 'hybrid'],
    causes: ['discharged', 'converter', 'traction-flat', 'worn'],
    cold: [-8, 10],
  },
  { id: 'stop', classes: ['car', 'van'], causes: ['frozen', 'reversed', 'left-on'], cold: [-22, -12] },
];

export const rungOf = (id: RungId): Rung => RUNGS[RUNG_IDS.indexOf(id)]!;

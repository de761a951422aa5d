import type { Cause } from '../diagnosis/index.js';
import type { MachineClass } from '../machine/index.js';

export const RUNG_IDS = [
  'mixed',
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

/**
 * The ladder, easiest first; the usual way to practise stands on top. Each rung holds more than its name says: no answer is right in more
 * than half of its cases. A name that gave the fault away would teach nothing.
 */
export const RUNGS: readonly Rung[] = [
  {
    id: 'mixed',
    classes: ['car', 'van', 'car', 'van', 'truck', 'motorcycle', 'ev'],
    causes: [
      'left-on',
      'discharged',
      'worn',
      'dead-cell',
      'charging',
      'joint-loose',
      'joint-negative',
      'cable',
      'main-fuse',
      'starter',
      'interlock',
      'none',
    ],
    cold: [-16, 14],
  },
  {
    id: 'order',
    classes: ['car'],
    causes: ['left-on', 'joint-loose', 'worn', 'none', 'starter', 'interlock', 'main-fuse'],
    cold: [2, 12],
  },
  {
    id: 'leads',
    classes: ['van', 'car'],
    causes: ['left-on', 'worn', 'joint-negative', 'starter', 'none', 'cable'],
    cold: [-14, -4],
  },
  {
    id: 'joints',
    classes: ['car', 'van'],
    causes: [
      'joint-positive',
      'joint-negative',
      'joint-loose',
      'left-on',
      'dead-cell',
      'starter',
      'main-fuse',
      'none',
    ],
    cold: [-4, 10],
  },
  {
    id: 'charging',
    classes: ['car', 'van'],
    causes: ['charging', 'charging', 'drain', 'worn', 'joint-loose', 'none', 'starter'],
    cold: [-6, 10],
  },
  {
    id: 'worn-or-flat',
    classes: ['car', 'van'],
    causes: ['worn', 'dead-cell', 'sulphated', 'left-on', 'joint-positive', 'none', 'charging', 'main-fuse'],
    cold: [-8, 8],
  },
  {
    id: 'not-the-battery',
    classes: ['car', 'van'],
    causes: ['starter', 'interlock', 'immobiliser', 'fuel', 'main-fuse', 'worn', 'left-on', 'none'],
    cold: [-4, 12],
  },
  {
    id: 'string',
    classes: ['truck', 'plant'],
    causes: ['string-weak', 'left-on', 'worn', 'main-fuse', 'starter', 'joint-negative', 'cable'],
    cold: [-8, 8],
  },
  {
    id: 'motorcycle',
    classes: ['motorcycle', 'ride-on'],
    causes: ['left-on', 'worn', 'interlock', 'joint-positive', 'none', 'fuel', 'main-fuse'],
    cold: [0, 14],
  },
  {
    id: 'waking',
    classes: ['ev', 'hybrid'],
    causes: ['left-on', 'converter', 'traction-flat', 'worn', 'main-fuse', 'drain', 'charge-point'],
    cold: [-8, 10],
  },
  {
    id: 'stop',
    classes: ['car', 'van'],
    causes: [
      'frozen',
      'reversed',
      'none',
      'joint-positive',
      'starter',
      'interlock',
      'fuel',
      'cable',
      'main-fuse',
    ],
    cold: [-22, -12],
  },
];

export const rungOf = (id: RungId): Rung => RUNGS[RUNG_IDS.indexOf(id)]!;

import type { Cause } from '../../src/diagnosis/index.js';
import type { MachineClass } from '../../src/machine/index.js';

/**
 * How often each fault meets the technician, by the kind of place and season: round figures of other people's experience than the tool's
 * own table, and not a copy of it. They need not sum to one.
 */
export type Shares = Partial<Record<Cause, number>>;

export interface Setting {
  readonly name: string;
  readonly tempC: readonly [number, number];
  readonly cranking: Shares;
  readonly waking: Shares;
}

export const SETTINGS: readonly Setting[] = [
  {
    name: 'town, winter',
    tempC: [-14, 5],
    cranking: {
      discharged: 21,
      'left-on': 9,
      worn: 27,
      charging: 5,
      drain: 4,
      sulphated: 3,
      'dead-cell': 3,
      reversed: 0.5,
      'joint-positive': 4,
      'joint-negative': 5,
      'joint-loose': 2,
      cable: 2,
      'main-fuse': 1.5,
      starter: 4,
      interlock: 3,
      immobiliser: 2.5,
      fuel: 5,
      'broken-link': 1,
      seized: 0.4,
      none: 2,
    },
    waking: {
      discharged: 24,
      'left-on': 8,
      worn: 26,
      drain: 7,
      'dead-cell': 2,
      sulphated: 3,
      'main-fuse': 2,
      'joint-positive': 2,
      'joint-negative': 3,
      'traction-flat': 10,
      converter: 6,
      'charge-point': 4,
      none: 2,
    },
  },
  {
    name: 'town, summer',
    tempC: [12, 33],
    cranking: {
      discharged: 10,
      'left-on': 22,
      worn: 14,
      charging: 10,
      drain: 9,
      sulphated: 2,
      'dead-cell': 5,
      reversed: 0.2,
      'joint-positive': 4,
      'joint-negative': 4,
      'joint-loose': 3,
      cable: 3,
      'main-fuse': 2,
      starter: 7,
      interlock: 5,
      immobiliser: 4,
      fuel: 8,
      'broken-link': 1.5,
      seized: 0.8,
      none: 3,
    },
    waking: {
      discharged: 15,
      'left-on': 16,
      worn: 14,
      drain: 9,
      'dead-cell': 4,
      sulphated: 2,
      'main-fuse': 4,
      'joint-positive': 3,
      'joint-negative': 3,
      'traction-flat': 12,
      converter: 7,
      'charge-point': 8,
      none: 3,
    },
  },
  {
    name: 'fleet yard',
    tempC: [-4, 22],
    cranking: {
      discharged: 7,
      'left-on': 21,
      worn: 15,
      charging: 13,
      drain: 6,
      sulphated: 2,
      'dead-cell': 4,
      reversed: 0.4,
      'joint-positive': 6,
      'joint-negative': 6,
      'joint-loose': 3,
      cable: 4,
      'main-fuse': 4,
      starter: 9,
      interlock: 6,
      immobiliser: 2,
      fuel: 4,
      'broken-link': 1,
      seized: 0.3,
      none: 1.5,
    },
    waking: {
      discharged: 10,
      'left-on': 14,
      worn: 17,
      drain: 8,
      'dead-cell': 3,
      sulphated: 2,
      'main-fuse': 3,
      'joint-positive': 3,
      'joint-negative': 3,
      'traction-flat': 16,
      converter: 6,
      'charge-point': 9,
      none: 2,
    },
  },
  {
    name: 'field and farm',
    tempC: [-20, 15],
    cranking: {
      discharged: 25,
      'left-on': 8,
      worn: 16,
      charging: 5,
      drain: 3,
      sulphated: 8,
      'dead-cell': 3,
      reversed: 1,
      'joint-positive': 7,
      'joint-negative': 6,
      'joint-loose': 4,
      cable: 5,
      'main-fuse': 7,
      starter: 6,
      interlock: 9,
      immobiliser: 0.5,
      fuel: 8,
      'broken-link': 1,
      seized: 1,
      none: 1,
    },
    waking: {
      discharged: 30,
      worn: 20,
      drain: 5,
      'traction-flat': 12,
      converter: 4,
      'charge-point': 6,
      none: 2,
    },
  },
];

/** Faults that a class has more or less of. */
export const OF_CLASS: Partial<Record<MachineClass, Shares>> = {
  'ride-on': { interlock: 3, immobiliser: 0, charging: 0.6, sulphated: 2 },
  motorcycle: { interlock: 2.5, sulphated: 2.5, immobiliser: 0.4, charging: 1.3 },
  plant: { interlock: 1.6, 'main-fuse': 2.2, immobiliser: 0.2 },
  truck: { 'main-fuse': 1.6, 'left-on': 1.5, immobiliser: 0.4, 'string-weak': 1 },
  genset: { interlock: 1.5, 'main-fuse': 1.5, immobiliser: 0, discharged: 1.4 },
  boat: { 'main-fuse': 2, 'joint-positive': 2, 'joint-negative': 2, immobiliser: 0 },
};
/** Share of calls to a string with one battery down and its fellow well, against one of everything else. */
export const ONE_OF_STRING = 0.12;

/** Faults that come along with another, by weight, in about one call of five. */
export const SECOND_SHARE = 0.2;
export const SECOND: Shares = {
  worn: 6,
  drain: 2,
  charging: 2,
  'joint-negative': 2,
  'joint-positive': 2,
  'left-on': 1,
};

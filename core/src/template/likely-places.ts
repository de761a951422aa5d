import type { MachineClass } from '../machine/index.js';

export const CLUES = [
  'battery-in-view',
  'bay-empty',
  'red-post-in-bay',
  'vent-hose',
  'side-box',
  'seat-lifts',
  'floor-hatch',
  'arch-screws',
] as const;
/** The signs that can be seen of an unknown machine before anything is taken apart. */
export type Clue = (typeof CLUES)[number];

/** The places where a battery may sit, by code. */
export const LIKELY_PLACE_IDS = [
  'front-bay',
  'under-cowl',
  'boot',
  'rear-seat',
  'wheel-arch',
  'front-seat',
  'cab-step',
  'side-box',
  'behind-cab',
  'saddle',
  'tank',
  'footboard',
  'under-seat',
  'rear-tray',
  'engine-frame',
  'behind-door',
  'stern-locker',
  'under-steps',
] as const;
export type LikelyPlaceId = (typeof LIKELY_PLACE_IDS)[number];

/** A place of a battery in a class, and how likely it is. */
export interface LikelyPlace {
  readonly id: LikelyPlaceId;
  /** Share of the class before anything is seen; a class sums to one. Shares are the trade's rough experience, not counted. */
  readonly prior: number;
  /** How much likelier each clue is when the battery is here than when it is not. */
  readonly clues: Readonly<Partial<Record<Clue, number>>>;
  /** Middle of the battery as a share of width and length. */
  readonly at: readonly [across: number, along: number];
  /** Top of the battery as a share of the machine's height. */
  readonly up: number;
  readonly closedIn: boolean;
  readonly ventHose: boolean;
  /** Steps that reach it. */
  readonly steps: 1 | 2;
}

const IN_VIEW = { 'battery-in-view': 30, 'bay-empty': 0.05 };
const HIDDEN = { 'battery-in-view': 0.02 };

const frontBay: LikelyPlace = {
  id: 'front-bay',
  prior: 0.55,
  clues: { ...IN_VIEW, 'red-post-in-bay': 0.2, 'vent-hose': 0.5 },
  at: [0.2, 0.15],
  up: 0.55,
  closedIn: false,
  ventHose: false,
  steps: 2,
};
const underCowl: LikelyPlace = {
  id: 'under-cowl',
  prior: 0.12,
  clues: { ...HIDDEN, 'bay-empty': 1.5 },
  at: [0.72, 0.24],
  up: 0.58,
  closedIn: false,
  ventHose: false,
  steps: 2,
};
const boot: LikelyPlace = {
  id: 'boot',
  prior: 0.18,
  clues: { ...HIDDEN, 'bay-empty': 4, 'red-post-in-bay': 6, 'vent-hose': 6, 'floor-hatch': 3 },
  at: [0.74, 0.85],
  up: 0.42,
  closedIn: true,
  ventHose: true,
  steps: 2,
};
const rearSeat: LikelyPlace = {
  id: 'rear-seat',
  prior: 0.09,
  clues: { ...HIDDEN, 'bay-empty': 4, 'red-post-in-bay': 5, 'vent-hose': 4, 'seat-lifts': 6 },
  at: [0.72, 0.6],
  up: 0.38,
  closedIn: true,
  ventHose: true,
  steps: 1,
};
const arch: LikelyPlace = {
  id: 'wheel-arch',
  prior: 0.06,
  clues: { ...HIDDEN, 'bay-empty': 3, 'red-post-in-bay': 5, 'arch-screws': 8 },
  at: [0.12, 0.27],
  up: 0.44,
  closedIn: false,
  ventHose: false,
  steps: 2,
};
const frontSeat: LikelyPlace = {
  id: 'front-seat',
  prior: 0.25,
  clues: { ...HIDDEN, 'bay-empty': 4, 'red-post-in-bay': 4, 'seat-lifts': 6, 'floor-hatch': 2 },
  at: [0.2, 0.28],
  up: 0.34,
  closedIn: true,
  ventHose: false,
  steps: 2,
};
const cabStep: LikelyPlace = {
  id: 'cab-step',
  prior: 0.2,
  clues: { ...HIDDEN, 'bay-empty': 3, 'side-box': 2, 'floor-hatch': 3 },
  at: [0.08, 0.26],
  up: 0.24,
  closedIn: false,
  ventHose: false,
  steps: 1,
};
const sideBox: LikelyPlace = {
  id: 'side-box',
  prior: 0.7,
  clues: { 'battery-in-view': 0.3, 'side-box': 12 },
  at: [0.1, 0.35],
  up: 0.3,
  closedIn: false,
  ventHose: false,
  steps: 2,
};
const behindCab: LikelyPlace = {
  ...sideBox,
  id: 'behind-cab',
  prior: 0.3,
  clues: { 'side-box': 0.5, 'seat-lifts': 2 },
  at: [0.7, 0.3],
  steps: 1,
};
const saddle: LikelyPlace = {
  id: 'saddle',
  prior: 0.7,
  clues: { ...HIDDEN, 'seat-lifts': 4 },
  at: [0.5, 0.62],
  up: 0.64,
  closedIn: false,
  ventHose: true,
  steps: 1,
};
const tank: LikelyPlace = {
  ...saddle,
  id: 'tank',
  prior: 0.15,
  clues: { ...HIDDEN, 'seat-lifts': 0.5 },
  at: [0.5, 0.4],
  steps: 1,
};
const footboard: LikelyPlace = {
  ...saddle,
  id: 'footboard',
  prior: 0.15,
  clues: { ...HIDDEN, 'floor-hatch': 10 },
  at: [0.5, 0.48],
  up: 0.3,
  steps: 1,
};
const underSeat: LikelyPlace = {
  id: 'under-seat',
  prior: 0.65,
  clues: { ...HIDDEN, 'seat-lifts': 5 },
  at: [0.5, 0.62],
  up: 0.5,
  closedIn: false,
  ventHose: false,
  steps: 1,
};
const rearTray: LikelyPlace = {
  ...underSeat,
  id: 'rear-tray',
  prior: 0.35,
  clues: { 'battery-in-view': 4, 'side-box': 4 },
  at: [0.25, 0.8],
  steps: 1,
};
const engineFrame: LikelyPlace = {
  id: 'engine-frame',
  prior: 0.6,
  clues: { 'battery-in-view': 8 },
  at: [0.2, 0.6],
  up: 0.4,
  closedIn: false,
  ventHose: false,
  steps: 2,
};
const doorLow: LikelyPlace = {
  ...engineFrame,
  id: 'behind-door',
  prior: 0.4,
  clues: { 'battery-in-view': 0.3, 'side-box': 3 },
  at: [0.2, 0.25],
  up: 0.25,
  closedIn: true,
  steps: 2,
};
const sternLocker: LikelyPlace = {
  id: 'stern-locker',
  prior: 0.6,
  clues: { 'floor-hatch': 0.6, 'side-box': 2 },
  at: [0.25, 0.75],
  up: 0.45,
  closedIn: true,
  ventHose: false,
  steps: 2,
};
const underSteps: LikelyPlace = {
  ...sternLocker,
  id: 'under-steps',
  prior: 0.4,
  clues: { 'floor-hatch': 4 },
  at: [0.45, 0.62],
  steps: 1,
};

/** Places of each class. */
const PLACES: Record<MachineClass, readonly LikelyPlace[]> = {
  car: [frontBay, boot, underCowl, rearSeat, arch],
  van: [{ ...frontBay, prior: 0.55 }, frontSeat, cabStep],
  truck: [sideBox, behindCab],
  plant: [
    { ...sideBox, prior: 0.6 },
    { ...underSeat, prior: 0.25 },
    { ...behindCab, prior: 0.15 },
  ],
  motorcycle: [saddle, tank, footboard],
  'ride-on': [underSeat, rearTray],
  genset: [engineFrame, doorLow],
  boat: [sternLocker, underSteps],
  hybrid: [
    { ...rearSeat, prior: 0.4 },
    { ...boot, prior: 0.4 },
    { ...frontBay, prior: 0.2 },
  ],
  ev: [
    { ...underCowl, prior: 0.6 },
    { ...frontBay, prior: 0.2 },
    { ...frontSeat, prior: 0.2 },
  ],
};

/** Every place a battery of this class may sit, in no order. */
export const placesOf = (machineClass: MachineClass): readonly LikelyPlace[] => PLACES[machineClass];

/**
 * Places of a class by likelihood, given what has been seen. Bayes' rule with each clue on its own.
 *
 * @returns likeliest first; shares sum to one
 * @example rankPlaces('car', ['battery-in-view'])[0].place.id // => 'front-bay'
 */
export function rankPlaces(
  machineClass: MachineClass,
  seen: readonly Clue[],
): { readonly place: LikelyPlace; readonly share: number }[] {
  const weighed = PLACES[machineClass].map((place) => ({
    place,
    share: seen.reduce((weight, clue) => weight * (place.clues[clue] ?? 1), place.prior),
  }));
  const sum = weighed.reduce((all, { share }) => all + share, 0);
  return weighed.map(({ place, share }) => ({ place, share: share / sum })).sort((a, b) => b.share - a.share);
}

/**
 * Clues that tell anything about this class.
 *
 * @example cluesFor('motorcycle').includes('red-post-in-bay') // => false
 */
export function cluesFor(machineClass: MachineClass): Clue[] {
  return CLUES.filter((clue) => PLACES[machineClass].some((p) => p.clues[clue] !== undefined));
}

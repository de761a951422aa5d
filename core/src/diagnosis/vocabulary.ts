/** Any one of these stops the hook-up. */
export const STOP_CONDITIONS = [
  'frozen',
  'case-damaged',
  'gas-smell',
  'lithium-damaged',
  'high-voltage-damaged',
  'fuel-smell',
  'voltage-unknown',
  'polarity-unknown',
  'nowhere-to-stand',
  'case-warm',
] as const;
export type StopCondition = (typeof STOP_CONDITIONS)[number];
/** Stops under which nothing is touched, not even to take it off: a clamp that comes off may spark, or the body may be live. */
export const STOPS_HANDS_OFF: readonly StopCondition[] = [
  'gas-smell',
  'lithium-damaged',
  'high-voltage-damaged',
  'fuel-smell',
];
/** Stops that another reading can clear: everything else is left alone while one stands. */
export const STOPS_READ_AGAIN: readonly StopCondition[] = ['frozen', 'voltage-unknown', 'polarity-unknown'];
/** Stops that are raised by what was read and never by a look around. */
export const STOPS_OF_READINGS: readonly StopCondition[] = ['case-warm'];

export const SYMPTOMS = [
  'silence',
  'silence-bright',
  'one-click',
  'rapid-click',
  'slow-crank',
  'brisk-no-fire',
  'dies-again',
  'warning-lamps',
  'no-doors',
] as const;
/** The driver's symptom. `silence` has the dash dead too, `silence-bright` its lamps bright. */
export type Symptom = (typeof SYMPTOMS)[number];

/** The part to blame when the battery is not. */
export const SUSPECTS = [
  'joint',
  'cable',
  'charging',
  'belt',
  'drain',
  'starter',
  'interlock',
  'fuel-or-engine',
  'traction-battery',
] as const;
export type Suspect = (typeof SUSPECTS)[number];

/** Signs that tell positive. Two must agree, then the meter proves it. */
export const POLARITY_SIGNS = ['mark', 'red-cover', 'fatter-post', 'black-to-body', 'meter'] as const;
export type PolaritySign = (typeof POLARITY_SIGNS)[number];
/** How many signs must agree before a clamp may go on. */
export const POLARITY_SIGNS_NEEDED = 2;

export const READING_KINDS = ['rest', 'crank-minimum', 'charging-idle', 'charging-loaded'] as const;
export type ReadingKind = (typeof READING_KINDS)[number];

export const REPAIR_KINDS = [
  'joint-cleaned',
  'clamp-resized',
  'post-sleeved',
  'strap-cleaned',
  'fuse-renewed',
  'isolator-on',
  'stop-released',
  'switch-set',
  'belt-tightened',
] as const;
/**
 * A repair on the spot. `clamp-resized` is a clamp at its stop, spread or closed until it bites; `post-sleeved` a worn post made thick
 * again; `stop-released` an emergency stop; `switch-set` any switch, selector or tap that only stood wrong.
 */
export type RepairKind = (typeof REPAIR_KINDS)[number];

import type { Gearbox, Machine, MachineClass } from '../machine/machine.js';

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
] as const;
export type StopCondition = (typeof STOP_CONDITIONS)[number];

export const SYMPTOMS = [
  'silence',
  'one-click',
  'rapid-click',
  'slow-crank',
  'brisk-no-fire',
  'dies-again',
  'warning-lamps',
  'no-doors',
] as const;
/** What the driver saw or heard. */
export type Symptom = (typeof SYMPTOMS)[number];

/** Things that stop a start and are not the battery, and looks before touching. */
export const CHECK_IDS = [
  'selector-park',
  'brake-switch',
  'clutch-switch',
  'immobiliser',
  'fuel',
  'kill-switch',
  'side-stand',
  'neutral',
  'fuel-tap',
  'main-fuse',
  'seat-switch',
  'blade-switch',
  'key-position',
  'isolator',
  'emergency-stop',
  'pto',
  'both-blocks',
  'high-voltage-ready',
  'charge-port-free',
  'joints',
  'case',
  'belt',
] as const;
export type CheckId = (typeof CHECK_IDS)[number];

const LOOKS: readonly CheckId[] = ['case', 'joints'];

const BY_GEARBOX: Record<Gearbox, readonly CheckId[]> = {
  automatic: ['selector-park', 'brake-switch'],
  manual: ['clutch-switch'],
  none: [],
};

const ROAD: readonly CheckId[] = ['immobiliser', 'fuel', 'belt'];
const HEAVY: readonly CheckId[] = ['isolator', 'emergency-stop', 'pto', 'neutral'];

const BY_CLASS: Record<MachineClass, readonly CheckId[]> = {
  car: ROAD,
  van: ROAD,
  truck: HEAVY,
  plant: HEAVY,
  motorcycle: ['kill-switch', 'side-stand', 'neutral', 'fuel-tap', 'main-fuse'],
  'ride-on': ['seat-switch', 'brake-switch', 'blade-switch', 'key-position', 'main-fuse'],
  genset: ['isolator', 'emergency-stop', 'fuel'],
  boat: ['isolator', 'neutral', 'emergency-stop', 'fuel'],
  hybrid: ['brake-switch', 'selector-park', 'high-voltage-ready'],
  ev: ['charge-port-free', 'high-voltage-ready'],
};

/** The checks that make sense on this machine, in the order a technician meets them: looks first, then interlocks. */
export function checksFor(machine: Machine): CheckId[] {
  const gearbox =
    machine.machineClass === 'car' || machine.machineClass === 'van' ? BY_GEARBOX[machine.gearbox] : [];
  const string: readonly CheckId[] = machine.blocks.length > 1 ? ['both-blocks'] : [];
  return [...LOOKS, ...string, ...gearbox, ...BY_CLASS[machine.machineClass]];
}

/** Checks that, when at fault, keep a sound battery from being asked at all. */
const INTERLOCKS: ReadonlySet<CheckId> = new Set<CheckId>([
  'selector-park',
  'brake-switch',
  'clutch-switch',
  'immobiliser',
  'kill-switch',
  'side-stand',
  'neutral',
  'main-fuse',
  'seat-switch',
  'blade-switch',
  'key-position',
  'isolator',
  'emergency-stop',
  'pto',
  'both-blocks',
]);

/** What a faulty check points to when the battery is not to blame. */
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

/** The suspect behind a check found at fault; null when it condemns the block itself or stops the job. */
export function suspectOf(check: CheckId): Suspect | null {
  if (INTERLOCKS.has(check)) return 'interlock';
  switch (check) {
    case 'joints':
      return 'joint';
    case 'belt':
      return 'belt';
    case 'fuel':
    case 'fuel-tap':
      return 'fuel-or-engine';
    case 'charge-port-free':
      return 'traction-battery';
    default:
      return null;
  }
}

/** The stop that a check found at fault raises by itself; null for none. */
export function stopOf(check: CheckId): StopCondition | null {
  if (check === 'case') return 'case-damaged';
  if (check === 'high-voltage-ready') return 'high-voltage-damaged';
  return null;
}

/** Signs that tell positive. Two must agree, then the meter proves it. */
export const POLARITY_SIGNS = ['mark', 'red-cover', 'fatter-post', 'black-to-body', 'meter'] as const;
export type PolaritySign = (typeof POLARITY_SIGNS)[number];
/** How many signs must agree before a clamp may go on. */
export const POLARITY_SIGNS_NEEDED = 2;

export const READING_KINDS = ['rest', 'crank-minimum', 'charging-idle', 'charging-loaded'] as const;
export type ReadingKind = (typeof READING_KINDS)[number];

export const ATTEMPT_OUTCOMES = ['started', 'brisk-no-fire', 'slow', 'clicks', 'nothing'] as const;
/** How a try ended; for a machine that wakes, `started` means awake and ready. */
export type AttemptOutcome = (typeof ATTEMPT_OUTCOMES)[number];

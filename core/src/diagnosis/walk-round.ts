import type { Gearbox, Machine, MachineClass } from '../machine/index.js';
import { type CheckId, checkOf, type Found } from './checks/index.js';
import { type Symptom, SYMPTOMS } from './vocabulary.js';

const LOOKS: readonly CheckId[] = ['case', 'look-joints'];

const BY_GEARBOX: Record<Gearbox, readonly CheckId[]> = {
  automatic: ['selector-park', 'brake-switch'],
  manual: ['clutch-switch'],
  none: [],
};

const ROAD: readonly CheckId[] = ['immobiliser-lamp', 'fuel-gauge', 'look-belt'];
const HEAVY: readonly CheckId[] = ['isolator', 'emergency-stop', 'pto', 'neutral'];

const BY_CLASS: Record<MachineClass, readonly CheckId[]> = {
  car: ROAD,
  van: ROAD,
  truck: HEAVY,
  plant: HEAVY,
  motorcycle: ['kill-switch', 'side-stand', 'neutral', 'fuel-tap', 'main-fuse'],
  'ride-on': ['seat-switch', 'brake-switch', 'blade-switch', 'key-position', 'main-fuse'],
  genset: ['isolator', 'emergency-stop', 'fuel-gauge'],
  boat: ['isolator', 'neutral', 'emergency-stop', 'fuel-gauge'],
  hybrid: ['brake-switch', 'selector-park', 'high-voltage-ready'],
  ev: ['traction-gauge', 'high-voltage-ready'],
};

/** The looks and interlocks that make sense on this machine, in the order a technician meets them: looks first. */
export function walkRound(machine: Machine): CheckId[] {
  const gearbox =
    machine.machineClass === 'car' || machine.machineClass === 'van' ? BY_GEARBOX[machine.gearbox] : [];
  const string: readonly CheckId[] = machine.batteries.length > 1 ? ['both-batteries'] : [];
  return [...LOOKS, ...string, ...gearbox, ...BY_CLASS[machine.machineClass]];
}

/** Symptoms of a machine that wakes: nothing of it cranks or clicks. */
const OF_WAKING: readonly Symptom[] = [
  'silence',
  'silence-bright',
  'dies-again',
  'warning-lamps',
  'no-doors',
];

/**
 * Returns the symptoms that this machine can have, in the order a driver tells them. A machine that cranks has doors to a key.
 *
 * @example symptomsOf({ engine: null }) // => ['silence', 'silence-bright', 'dies-again', 'warning-lamps', 'no-doors']
 */
export const symptomsOf = ({ engine }: Pick<Machine, 'engine'>): readonly Symptom[] =>
  engine === null ? OF_WAKING : SYMPTOMS.filter((symptom) => symptom !== 'no-doors');

/**
 * True when a look of the walk round found something wrong: the last of its outcomes is the sound one.
 *
 * @example isAtFault('look-belt', 'sound') // => false
 */
export function isAtFault(id: CheckId, found: Found): boolean {
  return found !== checkOf(id).outcomes.at(-1);
}

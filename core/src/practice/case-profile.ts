import { type Cause, type DiagnosisProfile, priorsFor } from '../diagnosis/index.js';
import type { MachineClass } from '../machine/index.js';
import { templateOf } from '../template/index.js';

/**
 * Returns the facts of a case's machine before anything is asked: the template of its class, in this cold.
 *
 * @example profileOf('truck', -5).systemVolts // => 24
 */
export function profileOf(machineClass: MachineClass, tempC: number): DiagnosisProfile {
  const { systemVolts, engine, batteries } = templateOf(machineClass);
  return { machineClass, systemVolts, engine, rating: batteries[0]!.rating, tempC };
}

/**
 * Returns the possible causes of a machine of this class, likeliest first.
 *
 * @example causesOf('ev').includes('starter') // => false
 */
export function causesOf(machineClass: MachineClass): readonly Cause[] {
  return [...priorsFor(profileOf(machineClass, 0))]
    .filter(([cause]) => cause !== 'none')
    .sort(([, a], [, b]) => b - a)
    .map(([cause]) => cause);
}

import {
  type Feed,
  type NodeName,
  type Rescue,
  rescueCircuit,
  type Solution,
  solveDc,
} from '../../circuit/index.js';
import type { Machine } from '../../machine/index.js';
import { parameter } from '../../quantities/index.js';
import { type HookupScene, type HookupState, rescueWired } from './state.js';

/** Metal on metal, ohms: a tool, bodywork, two clamps. */
export const TOUCH_OHMS = 0.002;

export const DIODES_VOLTS = parameter(1.8, {
  id: 'reversed.diodesVolts',
  name: 'two diodes of an alternator in a row, joined the wrong way round',
  low: 1.4,
  high: 2.4,
  unit: 'V',
  reason: 'Each drops 0.9 V at hundreds of amps.',
});
export const DIODES_OHMS = parameter(0.002, {
  id: 'reversed.diodesOhms',
  name: 'three pairs of diodes side by side, with their cable',
  low: 0.001,
  high: 0.005,
  unit: 'ohm',
  reason: 'A large alternator cable is half of it.',
});

/** The circuit of this state solved, with metal touching where `bridges` say. */
export function solved(scene: HookupScene, state: HookupState, bridges: Rescue['bridges'] = []): Solution {
  const wired = rescueWired(scene, state);
  const rescue = { ...wired, bridges: [...bridges, ...(wired.bridges ?? [])] };
  const solution = solveDc(rescueCircuit(rescue));
  const diodes = conductingDiodes(scene.machine, solution);
  return diodes ? solveDc(rescueCircuit({ ...rescue, feeds: [...(rescue.feeds ?? []), diodes] })) : solution;
}

/**
 * The diodes of an alternator that is joined the wrong way round: they conduct all that comes, and hold the posts near -2 V until a fuse
 * opens. Null while the posts are not backwards, and for a machine without an alternator.
 */
function conductingDiodes({ engine, batteries }: Machine, { volts }: Solution): Feed | null {
  const top = volts.get(`casualty.battery${batteries.length - 1}+`);
  const body = volts.get('casualty.body');
  if (!engine || top === undefined || body === undefined || top - body > -DIODES_VOLTS) return null;
  return { name: 'diodes', volts: -DIODES_VOLTS, ohms: DIODES_OHMS, maxAmps: null };
}

/** Amps through metal that touches these two nodes. */
export function touchAmps(scene: HookupScene, state: HookupState, a: NodeName, b: NodeName): number {
  const touched = solved(scene, state, [{ a, b, ohms: TOUCH_OHMS }]);
  return Math.abs(touched.amps.get('bridge.0') ?? 0);
}

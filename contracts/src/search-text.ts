import type { Machine, MachineClass } from '@voltrek/core/machine';
import type { Confidence, MachineSummary } from './atlas.js';

/** Other names of a class. */
const ALSO: Record<MachineClass, string> = {
  car: 'car',
  van: 'van',
  truck: 'truck lorry',
  plant: 'plant digger loader tractor machine',
  motorcycle: 'motorcycle motorbike scooter bike',
  'ride-on': 'ride-on mower quad',
  genset: 'genset generator',
  boat: 'boat dinghy',
  hybrid: 'hybrid car',
  ev: 'ev electric car',
};

/** Everything that a machine may be looked for by, in lower case, each word after a space. */
export function searchTextOf({ maker, model, machineClass, systemVolts, batteries }: Machine): string {
  const places = batteries.map((b) => b.place);
  return ['', maker, model, ALSO[machineClass], `${systemVolts} v`, ...new Set(places)]
    .join(' ')
    .toLowerCase();
}

/** A plate as plates are compared: signs and blanks left out, in capitals. */
export function plateKeyOf(plate: string): string {
  return plate.toUpperCase().replace(/[^\p{L}\p{N}]/gu, '');
}

/** Returns the words of a search as typed. */
export function wordsOf(typed: string, most: number): string[] {
  return typed.toLowerCase().split(/\s+/).filter(Boolean).slice(0, most);
}

/** A machine as a list of what was found shows it. */
export function machineSummary(machine: Machine, confidence: Confidence): MachineSummary {
  const { id, maker, model, machineClass, systemVolts, batteries } = machine;
  const places = [...new Set(batteries.map((b) => b.place))].join('; ');
  return { id, maker, model, machineClass, systemVolts, places, confidence };
}

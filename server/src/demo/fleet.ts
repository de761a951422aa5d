import { createHash } from 'node:crypto';
import type { PersonEntry } from '@voltrek/contracts';
import type { Machine } from '@voltrek/core/machine';
import { type Random, seededRandom } from '@voltrek/core/quantities';
import type { DemoHouse } from './data.js';

/** Somebody's machine, as the demo knows it. */
export interface DemoVehicle {
  readonly id: string;
  readonly modelId: string;
  readonly plate: string | null;
  readonly fleetNumber: string | null;
  readonly serialNumber: string | null;
  readonly owner: PersonEntry;
  readonly ownerId: string;
}

const SEED = 4127;
/** Classes that carry no plate: they go by fleet or serial number. */
const WITHOUT_PLATE: readonly Machine['machineClass'][] = ['ride-on', 'genset', 'boat', 'plant'];
/** Letters that no country begins a plate with. */
const FIRST_LETTERS = ['QK', 'QB', 'QV', 'QZ'];

/**
 * The machines that call: two of nearly every model, each somebody's own, so that two customers' vehicles of one model have different
 * histories. The same every time.
 */
export function demoFleet(
  machines: readonly Machine[],
  donorId: string,
  { owners, ownerOf }: Pick<DemoHouse, 'owners' | 'ownerOf'>,
): DemoVehicle[] {
  const random = seededRandom(SEED);
  const models = machines.filter((m) => m.id !== donorId);
  return models.flatMap((machine, i) =>
    (i % 5 === 4 ? ['a'] : ['a', 'b']).map((which, n) =>
      vehicleOf(
        machine,
        which,
        owners,
        ownerOf[`${machine.id}-${which}`] ?? owners[(i * 2 + n * 7) % owners.length]!,
        random,
      ),
    ),
  );
}

function vehicleOf(
  machine: Machine,
  which: string,
  owners: readonly string[],
  owner: string,
  random: Random,
): DemoVehicle {
  const digits = (count: number): string =>
    Array.from({ length: count }, () => Math.floor(random() * 10)).join('');
  const bare = WITHOUT_PLATE.includes(machine.machineClass);
  const plate = `${FIRST_LETTERS[Math.floor(random() * FIRST_LETTERS.length)]!} ${digits(4)}`;
  const serial = `${machine.maker.slice(0, 2).toUpperCase()}-${digits(5)}`;
  return {
    id: `${machine.id}-${which}`,
    modelId: machine.id,
    plate: bare ? null : plate,
    fleetNumber: bare && which === 'a' ? digits(2) : null,
    serialNumber: bare ? serial : null,
    owner: { name: owner, phone: `0555 01${String(10 + owners.indexOf(owner))}` },
    ownerId: uuidFrom(`owner ${owner}`),
  };
}

/** The same id for the same text, so that the demo is the same every time. */
export function uuidFrom(text: string): string {
  const hex = createHash('sha256').update(text).digest('hex');
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-4${hex.slice(13, 16)}-8${hex.slice(17, 20)}-${hex.slice(20, 32)}`;
}

import { createHash } from 'node:crypto';
import type { PersonEntry } from '@voltrek/contracts';
import type { Machine } from '@voltrek/core/machine';
import { type Random, seededRandom } from '@voltrek/core/quantities';

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
/** Made-up people and houses. The numbers are of no exchange. */
const OWNERS: readonly string[] = [
  'Pellow bakery',
  'Underwood orchard',
  'Skerrow Head lifts',
  'Ferry ramp parcels',
  'Chapel hall choir',
  'Lantern Fair office',
  'Fish quay cold store',
  'Inner harbour boats',
  'Weir Lane laundry',
  'Merrin Tolk',
  'Oswy Brandle',
  'Hesta Quill',
  'Ravi Stennick',
  'Dorrin Ashe',
  'Lune Pargeter',
  'Ama Fennick',
  'Corrow Vane',
  'Sefa Millbrook',
];
/** Who tonight's machines belong to, as their calls tell it. */
const OWNER_OF: Readonly<Record<string, string>> = {
  'brinmoor-carrow-22d-a': 'Pellow bakery',
  'hulvane-cornice-9-a': 'Skerrow Head lifts',
  'kestow-parcel-e-a': 'Ferry ramp parcels',
  'tolsey-conflux-a': 'Chapel hall choir',
  'tolsey-verge-16-a': 'Lantern Fair office',
  'skarnby-lumen-60-a': 'Lantern Fair office',
  'orrendal-boreal-12-a': 'Fish quay cold store',
  'skarnby-orchard-fan-a': 'Underwood orchard',
  'wendry-harbour-40-a': 'Inner harbour boats',
};
/** Classes that carry no plate: they go by fleet or serial number. */
const WITHOUT_PLATE: readonly Machine['machineClass'][] = ['ride-on', 'genset', 'boat', 'plant'];
/** Letters that no country begins a plate with. */
const FIRST_LETTERS = ['QK', 'QB', 'QV', 'QZ'];

/**
 * The machines that call: two of nearly every model, each somebody's own, so that two customers' vehicles of one model have different
 * histories. The same every time.
 */
export function demoFleet(machines: readonly Machine[], donorId: string): DemoVehicle[] {
  const random = seededRandom(SEED);
  const models = machines.filter((m) => m.id !== donorId);
  return models.flatMap((machine, i) =>
    (i % 5 === 4 ? ['a'] : ['a', 'b']).map((which, n) =>
      vehicleOf(
        machine,
        which,
        OWNER_OF[`${machine.id}-${which}`] ?? OWNERS[(i * 2 + n * 7) % OWNERS.length]!,
        random,
      ),
    ),
  );
}

function vehicleOf(machine: Machine, which: string, owner: string, random: Random): DemoVehicle {
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
    owner: { name: owner, phone: `0555 01${String(10 + OWNERS.indexOf(owner))}` },
    ownerId: uuidFrom(`owner ${owner}`),
  };
}

/** The same id for the same text, so that the demo is the same every time. */
export function uuidFrom(text: string): string {
  const hex = createHash('sha256').update(text).digest('hex');
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-4${hex.slice(13, 16)}-8${hex.slice(17, 20)}-${hex.slice(20, 32)}`;
}

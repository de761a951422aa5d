import { readFileSync } from 'node:fs';
import { type CrewMember, parseMachine } from '@voltrek/contracts';
import type { BatteryRating } from '@voltrek/core/battery';
import type { Cause } from '@voltrek/core/diagnosis';
import type { Machine } from '@voltrek/core/machine';
import type { KitItem } from '@voltrek/core/sources';

/** A call of the demo night, timed against the moment the data is loaded. */
export interface DemoCall {
  readonly minutesAgo: number;
  readonly title: string;
  readonly placeName: string;
  readonly said: string;
  readonly modelId: string;
  /** The one of the demo's vehicles of that model: `a` or `b`. */
  readonly which: 'a' | 'b';
  readonly ambientC: number;
  readonly urgent: boolean;
  /** The true fault: the stand-in instruments show it. */
  readonly truth: Cause;
  /** Draws how that fault stands; left out: the number of the call. */
  readonly truthSeed?: number;
}

/** A house of roadside technicians, whom it serves, and one night of its calls. */
export interface DemoHouse {
  readonly crew: readonly CrewMember[];
  readonly vans: readonly { readonly id: string; readonly name: string; readonly kit: readonly KitItem[] }[];
  /** The spares of each van, to fit where a battery is finished. */
  readonly spares: readonly BatteryRating[];
  readonly owners: readonly string[];
  /** The owner of a vehicle where its call tells it; by the vehicle's id. */
  readonly ownerOf: Readonly<Record<string, string>>;
  readonly calls: readonly DemoCall[];
}

const textOf = (name: string): string =>
  readFileSync(new URL(`../../../../demo/${name}`, import.meta.url), 'utf8');

/** The atlas that ships: a file as the atlas exports it. @throws when an entry of it is not one that an import would take */
export function shippedAtlas(): Machine[] {
  const { machines } = JSON.parse(textOf('atlas.json')) as { readonly machines: readonly unknown[] };
  return machines.map((machine) => parseMachine(machine));
}

/** The house of the demo night. */
export const demoHouse = (): DemoHouse => JSON.parse(textOf('house.json')) as DemoHouse;

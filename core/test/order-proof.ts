import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Machine } from '../src/machine/index.js';
import { MACHINE_CLASSES } from '../src/machine/index.js';
import { DEFAULT_RULES, type HouseRules } from '../src/rules/index.js';
import type { KitItem } from '../src/sources/index.js';
import { templateOf } from '../src/template/index.js';

/** Told where the tests run from a copy of the workspace. */
const DEMO = process.env.DEMO_FOLDER ?? join(import.meta.dirname, '../../../demo');
const fileOf = (name: string): unknown => JSON.parse(readFileSync(join(DEMO, name), 'utf8'));

/** Every machine of the atlas that ships, and every class that stands for an unknown one. */
export const EVERY_MACHINE: readonly Machine[] = [
  ...(fileOf('atlas.json') as { machines: Machine[] }).machines,
  ...MACHINE_CLASSES.map((of) => templateOf(of)),
];

/** The kit of both vans. */
export const EVERY_KIT: readonly KitItem[] = (
  fileOf('house.json') as { vans: { kit: KitItem[] }[] }
).vans.flatMap((van) => van.kit);

/** Every combination of the schools that an order depends on. */
export const EVERY_SCHOOL: readonly HouseRules[] = (['ground-point', 'negative-terminal'] as const).flatMap(
  (lastBlack) =>
    (['casualty', 'source'] as const).flatMap((firstRed) =>
      (['reds-first', 'source-first'] as const).flatMap((clampSequence) =>
        (['off-then-run', 'off-throughout', 'running'] as const).flatMap((donorEngine) =>
          (['jump-points', 'negative-off', 'take-out'] as const).flatMap((chargeOnVehicle) =>
            (['off', 'running'] as const).map((motorcycleDonor) => ({
              ...DEFAULT_RULES,
              hobbyLithium: 'allowed' as const,
              lastBlack,
              firstRed,
              clampSequence,
              donorEngine,
              chargeOnVehicle,
              motorcycleDonor,
            })),
          ),
        ),
      ),
    ),
);

/** Rest volts of each battery by what is wrong: none of them a guess of the code under proof. */
export const BATTERY_STATES: Readonly<Record<string, number>> = {
  full: 12.65,
  half: 12.2,
  flat: 11.7,
  'shorted cell': 10.4,
  'very flat': 8,
  starved: 2.5,
  reversed: -9,
};

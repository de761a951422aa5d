import { batteryOhms, batteryOpenVolts, type BatteryState } from '../src/battery/index.js';
import type { ClampId, Rescue, Terminal } from '../src/circuit/index.js';
import { type CrankTrace, simulateCrank } from '../src/crank/index.js';
import { defaultStarter, type Engine } from '../src/engine/index.js';
import type { LeadSet } from '../src/leads/index.js';
import type { Machine } from '../src/machine/index.js';
import { type BatteryBelief, casualtyBatteries, startOdds } from '../src/plan/index.js';
import type { Random } from '../src/quantities/index.js';
import type { SourceModel } from '../src/sources/index.js';
import { BATTERY_95, FREE, JOINED } from './fixtures.js';
import type { Claim } from './reliability.js';
import { between } from './truth/world.js';

/** Sum of three: between low and high, mostly in the middle, and nothing of the bell that the odds draw from. */
const mostlyMiddle = (random: Random, low: number, high: number): number =>
  low + ((high - low) * (random() + random() + random())) / 3;

/** A machine as it truly is, and what a technician believes of it. */
export interface DrawnCase {
  readonly tempC: number;
  readonly beliefs: readonly BatteryBelief[];
  /** What this machine truly does with such help: the whole crank followed in time. */
  readonly crank: (help: Rescue) => { readonly trace: CrankTrace; readonly fires: boolean };
}

/**
 * A truth drawn over the plausible ranges of docs/model.md by other means than the odds are: triangular sums in place of bells, and the whole
 * crank followed in time instead of one steady point.
 */
export function drawnCase(machine: Machine & { engine: Engine }, random: Random): DrawnCase {
  const { engine } = machine;
  const tempC = Math.round(between(random, -25, 25));
  const truthC = tempC + mostlyMiddle(random, -6, 6);
  const state = (): BatteryState => ({
    soc: between(random, 0.02, 0.98),
    tempC: truthC,
    ageing: Math.exp(mostlyMiddle(random, Math.log(0.7), Math.log(2.4))),
  });
  const sound = (s: BatteryState): BatteryState => ({ ...s, ageing: Math.max(1, s.ageing) });
  const own = sound(state());
  const states = machine.batteries.map(() => ({ ...own, soc: own.soc }));
  const ratings = machine.batteries.map((b) => b.rating);
  const read = states.map((s, i) =>
    Number((batteryOpenVolts(ratings[i]!, s) + mostlyMiddle(random, -0.09, 0.09)).toFixed(2)),
  );
  const { beliefs } = casualtyBatteries(machine, read, tempC);
  const starter = defaultStarter(engine);
  const efficiency = (starter.efficiency * mostlyMiddle(random, 0.8, 1.2)) / mostlyMiddle(random, 0.7, 1.3);
  const hardness = mostlyMiddle(random, 0.76, 1.24);
  const crank = (help: Rescue): ReturnType<DrawnCase['crank']> => {
    const trace = simulateCrank({
      rescue: {
        ...help,
        tempC: truthC,
        casualty: states.map((s, i) => ({
          openVolts: batteryOpenVolts(ratings[i]!, s),
          ohms: batteryOhms(ratings[i]!, s),
        })),
        source: help.source && {
          ...help.source,
          ohms: help.source.ohms * Math.exp(mostlyMiddle(random, -0.45, 0.45)),
        },
        clampWear: Math.exp(mostlyMiddle(random, -1.2, 1.2)),
      },
      batteries: states.map((s, i) => ({ rating: ratings[i]!, state: s })),
      engine,
      starter: { ...starter, efficiency },
      seconds: 4,
    });
    return { trace, fires: fires(trace, starter.controlMinVolts, hardness) };
  };
  return { tempC, beliefs, crank };
}

/** A rescue drawn so, with what the odds claim of it. */
export function trial(machine: Machine & { engine: Engine }, random: Random): Claim {
  const { engine } = machine;
  const { tempC, beliefs, crank } = drawnCase(machine, random);
  const rescue = helpFor(machine, tempC, random);
  const claim = startOdds({ rescue, batteries: beliefs, engine, samples: 250 }, random)!.start;
  return { claim, isMet: crank(rescue).fires };
}

/** Fires in the first whole second whose mean speed and mean volts are enough: worked out here from the lists alone. */
function fires(
  { rpm, starterVolts, neededRpm, stepSeconds }: ReturnType<typeof simulateCrank>,
  controlMinVolts: number,
  hardness: number,
): boolean {
  const second = Math.round(1 / stepSeconds);
  const stride = Math.round(second / 20);
  const mean = (list: Float64Array, from: number): number =>
    list.subarray(from, from + second).reduce((sum, v) => sum + v, 0) / second;
  for (let from = 0; from + second <= rpm.length; from += stride)
    if (
      mean(rpm, from) >= neededRpm * hardness &&
      mean(starterVolts, from) >= controlMinVolts * (1 + 0.75 * (hardness - 1))
    )
      return true;
  return false;
}

const LEADS: readonly LeadSet[] = [
  { sectionMm2: 25, lengthM: 3.5, conductor: 'copper', contact: 'clean' },
  { sectionMm2: 16, lengthM: 3, conductor: 'copper', contact: 'worn' },
  { sectionMm2: 10, lengthM: 3, conductor: 'copper-clad-aluminium', contact: 'worn' },
];

/** Nothing, a donor still or running, or a pack, through some leads. */
export function helpFor(machine: Machine, tempC: number, random: Random, alone = 0.4): Rescue {
  const base = { casualty: [], load: { kind: 'none' }, sourceOn: true, tempC } as const;
  if (random() < alone) return { ...base, source: null, leads: null, clamps: FREE };
  const batteries = machine.systemVolts / 12;
  const state = { soc: 0.95, tempC, ageing: 1.2 };
  const still: SourceModel = {
    openVolts: batteries * batteryOpenVolts(BATTERY_95, state),
    ohms: batteries * batteryOhms(BATTERY_95, state),
    polarises: true,
  };
  const running: SourceModel = {
    ...still,
    alternator: { volts: 14.2 * batteries, maxAmps: 40 },
  };
  const top = machine.batteries.length - 1;
  const clamps: Record<ClampId, Terminal | null> = {
    ...JOINED,
    redCasualty: { kind: 'plus', battery: top },
  };
  return {
    ...base,
    source: random() < 0.5 ? still : running,
    leads: LEADS[Math.floor(random() * LEADS.length)]!,
    clamps,
  };
}

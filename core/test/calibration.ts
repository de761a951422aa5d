import { batteryOhms, batteryOpenVolts, type BatteryState } from '../src/battery/index.js';
import type { ClampId, Rescue, Terminal } from '../src/circuit/index.js';
import { type CrankTrace, simulateCrank } from '../src/crank/index.js';
import { defaultStarter, type Engine } from '../src/engine/index.js';
import type { LeadSet } from '../src/leads/index.js';
import type { Machine } from '../src/machine/index.js';
import {
  type BatteryBelief,
  casualtyBatteries,
  modelOf,
  type PlanCase,
  startOdds,
  waysOf,
} from '../src/plan/index.js';
import type { Random } from '../src/quantities/index.js';
import type { SourceModel } from '../src/sources/index.js';
import { BATTERY_60, BATTERY_95, FREE, JOINED } from './fixtures.js';
import type { Claim } from './reliability.js';
import { between } from './truth/world.js';

/** Sum of three: between low and high, mostly in the middle, and nothing of the bell that the odds draw from. */
const mostlyMiddle = (random: Random, low: number, high: number): number =>
  low + ((high - low) * (random() + random() + random())) / 3;

/** A machine as it truly is, and what a technician believes of it. */
export interface DrawnCase {
  readonly tempC: number;
  readonly beliefs: readonly BatteryBelief[];
  /** Returns the behaviour of this machine with such help, so many minutes after it was joined: the whole crank followed in time. */
  readonly crank: (help: Rescue, minutes?: number) => { readonly trace: CrankTrace; readonly fires: boolean };
}

/**
 * A truth drawn over the plausible ranges of docs/model.md by other means than the odds are: triangular sums in place of bells, and the
 * whole crank followed in time instead of one steady point.
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
  const takes = mostlyMiddle(random, 0.6, 1.4);
  const crank: DrawnCase['crank'] = (help, minutes = 0) => {
    const charged = states.map((s, i) => afterCharge(s, ratings[i]!, help, states.length, minutes, takes));
    const trace = simulateCrank({
      rescue: {
        ...help,
        tempC: truthC,
        casualty: charged.map((s, i) => ({
          openVolts: batteryOpenVolts(ratings[i]!, s),
          ohms: batteryOhms(ratings[i]!, s),
        })),
        source: help.source && {
          ...help.source,
          ohms: help.source.ohms * Math.exp(mostlyMiddle(random, -0.45, 0.45)),
        },
        clampWear: Math.exp(mostlyMiddle(random, -1.2, 1.2)),
      },
      batteries: charged.map((s, i) => ({ rating: ratings[i]!, state: s })),
      engine,
      starter: { ...starter, efficiency },
      seconds: 4,
    });
    return { trace, fires: fires(trace, starter.controlMinVolts, hardness) };
  };
  return { tempC, beliefs, crank };
}

/**
 * A battery after so many minutes on an alternator, step by step: what the leads let through, and no more than it takes. Worked out here:
 * half its capacity an hour when empty and warm, nothing when full, a fifth of that at -20 degC.
 */
function afterCharge(
  state: BatteryState,
  rating: Machine['batteries'][number]['rating'],
  { source, leads }: Rescue,
  inSeries: number,
  minutes: number,
  takes: number,
): BatteryState {
  const { alternator } = source ?? {};
  if (!alternator || !leads || minutes === 0) return state;
  const cold = Math.min(1, Math.max(0.2, 0.2 + (0.8 * (state.tempC + 20)) / 45));
  let { soc } = state;
  for (let s = 0; s < minutes * 60; s += 20) {
    const now = { ...state, soc };
    const push = alternator.volts / inSeries - batteryOpenVolts(rating, now);
    const through = push / (batteryOhms(rating, now) + 0.01);
    const amps = Math.max(
      0,
      Math.min(alternator.maxAmps, through, 0.5 * rating.capacityAh * (1 - soc) * cold * takes),
    );
    soc = Math.min(1, soc + (amps * 20) / 3600 / rating.capacityAh);
  }
  return { ...state, soc };
}

/** A small donor, running, through leads that lose what a big engine asks: where minutes of charge decide. */
function thinHelp(machine: Machine, tempC: number, random: Random): Rescue {
  const batteries = machine.systemVolts / 12;
  const state = { soc: between(random, 0.3, 0.8), tempC, ageing: between(random, 1, 2.5) };
  const top = machine.batteries.length - 1;
  return {
    ...{ casualty: [], load: { kind: 'none' }, sourceOn: true, tempC },
    source: {
      openVolts: batteries * batteryOpenVolts(BATTERY_60, state),
      ohms: batteries * batteryOhms(BATTERY_60, state),
      polarises: true,
      alternator: { volts: 14.2 * batteries, maxAmps: between(random, 5, 35) },
    },
    leads: {
      sectionMm2: between(random, 2.5, 8),
      lengthM: between(random, 3, 5),
      ...{ conductor: 'copper-clad-aluminium', contact: 'worn' },
    },
    clamps: { ...JOINED, redCasualty: { kind: 'plus', battery: top } },
  };
}

/** A way with a wait on a running donor, drawn so, with what the search claims of it. */
export function trialOfWay(machine: Machine & { engine: Engine }, random: Random): Claim {
  const { engine } = machine;
  const { tempC, beliefs, crank } = drawnCase(machine, random);
  const help = thinHelp(machine, tempC, random);
  const casualty = beliefs.map((belief) => modelOf(belief, tempC));
  const plan: PlanCase = {
    rescue: { ...help, casualty },
    beliefs,
    engine,
    waitMinutes: 0,
    chargeOnly: false,
  };
  const own: PlanCase = { ...plan, rescue: { ...plan.rescue, source: null, leads: null, clamps: FREE } };
  const option = { id: 'd', sourceKind: 'donor', across: { kind: 'whole' }, plan, leastMinutes: 0 } as const;
  const found = waysOf(
    {
      ...{ options: [option], own, spares: [], mayRoll: false },
      ...{ restMinutes: 0, joinedOptionId: null, tries: [] },
    },
    Math.floor(random() * 1e6),
    120,
  );
  const { points } = found.ways.find(({ id }) => id === 'd')!;
  const point = points[Math.floor(random() * points.length)]!;
  return { claim: point.start, isMet: crank(help, point.waitMinutes).fires };
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

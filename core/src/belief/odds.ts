import { strengthShare } from '../battery/index.js';
import { ATTEMPT_OUTCOMES } from '../crank/index.js';
import { CAUSES, type Cause, type CrankLook, SUSPECT_OF, TRY_ROWS } from '../diagnosis/index.js';
import type { Engine } from '../engine/index.js';
import type { LeadSet } from '../leads/index.js';
import {
  type CrankMoment,
  cranksIn,
  type HiddenParts,
  lookIn,
  type Population,
  type PossibleMachine,
} from './population.js';
import { type Unknown, UNKNOWNS } from './unknowns.js';

export interface Odds {
  /** Weight of the machines that start. */
  readonly start: number;
  /** The interval of the true share, 95 in 100 (Wilson score). */
  readonly low: number;
  readonly high: number;
  readonly samples: number;
  /** Of the machines whose starter turns. */
  readonly meanRpm: number;
  readonly meanStarterVolts: number;
  /** How much of the doubt each unknown brings: squared correlation with the speed margin, 0 to 1. */
  readonly matters: Readonly<Record<Unknown, number>>;
  /** The machines behind it by what ails them, heaviest first; none where nothing is at fault but the charge. */
  readonly kinds: readonly MachineKind[];
}

/** Possible machines with one cause. */
export interface MachineKind {
  readonly cause: Cause;
  /** Their share of the population. */
  readonly share: number;
  /** Share of them that starts. */
  readonly start: number;
  /** Means over them of their weakest battery: charge, and strength against its rating. */
  readonly soc: number;
  readonly strength: number;
}

const STARTED = ATTEMPT_OUTCOMES.indexOf('started');
const startChance = (look: CrankLook): number => TRY_ROWS[look][STARTED]!;

/**
 * Returns the odds that a try in this moment starts the machine: the share of the machines that start by it, faults elsewhere included. Use
 * it for every odds that anybody reads.
 */
export function startShare(moment: CrankMoment, engine: Engine, { machines }: Population): number {
  const crankOf = cranksIn(moment, engine);
  let start = 0;
  for (const machine of machines) start += startChance(lookIn(moment, machine, crankOf(machine), engine));
  return start / machines.length;
}

/**
 * Returns the odds with their spread, and what brings the doubt.
 *
 * @param onProgress called with the share done about fifty times; return false to stop early
 * @returns null when stopped
 */
export function startOdds(
  moment: CrankMoment,
  engine: Engine,
  population: Population,
  onProgress: (share: number) => boolean = () => true,
): Odds | null {
  const { machines } = population;
  const samples = machines.length;
  if (samples < 1) throw new RangeError('a population has one machine at least');
  const crankOf = cranksIn(moment, engine);
  const every = Math.max(1, Math.floor(samples / 50));
  const tally = correlations();
  const kinds = kindsTally();
  let [started, turning, rpm, volts] = [0, 0, 0, 0];
  for (let i = 0; i < samples; i++) {
    const machine = machines[i]!;
    const { draw } = machine;
    const point = crankOf(machine);
    const chance = startChance(lookIn(moment, machine, point, engine));
    started += chance;
    kinds.add(machine, chance);
    if (point) {
      turning++;
      rpm += point.rpm;
      volts += point.starterVolts;
      const margin = point.turns ? point.rpm / (point.neededRpm * draw.firing) : point.starterAmps / 1e4;
      tally.add(machine, margin);
    }
    if (i % every === 0 && !onProgress(i / samples)) return null;
  }
  const start = started / samples;
  return {
    start,
    ...wilson(start, population.effectiveNumber),
    samples,
    meanRpm: turning > 0 ? rpm / turning : 0,
    meanStarterVolts: turning > 0 ? volts / turning : 0,
    matters: tally.squared(),
    kinds: kinds.heaviest(samples),
  };
}

/** Kinds that are listed: lighter ones together hardly count. */
const KINDS_MOST = 10;

/** Gathers the machines by cause, in one pass. */
function kindsTally() {
  const sums = new Map<Cause, { count: number; start: number; soc: number; strength: number }>();
  return {
    add: ({ hidden }: PossibleMachine, chance: number): void => {
      if (!hidden) return;
      const sum = sums.get(hidden.cause) ?? { count: 0, start: 0, soc: 0, strength: 0 };
      sum.count++;
      sum.start += chance;
      sum.soc += Math.min(...hidden.batteries.map((b) => b.soc));
      sum.strength += strengthShare(Math.max(...hidden.batteries.map((b) => b.ageing)));
      sums.set(hidden.cause, sum);
    },
    heaviest: (samples: number): MachineKind[] =>
      [...sums]
        .map(([cause, { count, start, soc, strength }]) => ({
          ...{ cause, share: count / samples },
          ...{ start: start / count, soc: soc / count, strength: strength / count },
        }))
        .sort((one, other) => other.share - one.share)
        .slice(0, KINDS_MOST),
  };
}

/** The machines that no source starts, and what ails them. */
export interface NoSource {
  readonly share: number;
  /** The likeliest reasons among them, likeliest first; they add up to one. */
  readonly causes: readonly { readonly cause: Cause; readonly share: number }[];
}

/** The fault of a machine that a strong source at its posts does not make up for; its cause where it holds none. */
const beyondSources = ({ holds, cause }: HiddenParts): Cause => holds.find(isBeyondSources) ?? cause;

/** Faults of the battery, of what fills it and of what drains it are made up for. */
function isBeyondSources(cause: Cause): boolean {
  const suspect = SUSPECT_OF[cause];
  return suspect !== null && suspect !== 'drain' && suspect !== 'charging';
}

/** A source as strong as any that a van carries, through stout leads, per 12 V. */
const STRONG = { openVolts: 12.8, ohms: 0.004 } as const;
const STOUT: LeadSet = { sectionMm2: 50, lengthM: 1, conductor: 'copper', contact: 'clean' };

/**
 * Returns how likely no source starts it, and why: the machines that stand even with a strong one at their posts.
 *
 * @param own the machine by itself
 */
export function noSourceStarts(
  { machines }: Population,
  { rescue, beliefs }: CrankMoment,
  engine: Engine,
): NoSource {
  const batteries = beliefs.length;
  const red = { kind: 'plus', battery: batteries - 1 } as const;
  const body = { kind: 'body' } as const;
  const helped: CrankMoment = {
    beliefs,
    rescue: {
      ...rescue,
      source: { openVolts: STRONG.openVolts * batteries, ohms: STRONG.ohms * batteries },
      sourceOn: true,
      leads: STOUT,
      clamps: { redCasualty: red, redSource: red, blackSource: body, blackCasualty: body },
    },
  };
  const crankOf = cranksIn(helped, engine);
  const byCause = new Float64Array(CAUSES.length);
  let count = 0;
  for (const machine of machines) {
    const { hidden } = machine;
    if (!hidden) continue;
    const wellClamped = { hidden, draw: { ...machine.draw, clamps: 1 } };
    if (lookIn(helped, wellClamped, crankOf(wellClamped), engine) === 'starts') continue;
    count++;
    byCause[CAUSES.indexOf(beyondSources(hidden))]!++;
  }
  const causes = CAUSES.map((cause, i) => ({ cause, share: count > 0 ? byCause[i]! / count : 0 }))
    .filter((one) => one.share > 0)
    .sort((one, other) => other.share - one.share);
  return { share: count / machines.length, causes };
}

/** Wilson score interval of a share, 95 in 100. */
function wilson(share: number, of: number): { low: number; high: number } {
  const z = 1.96;
  const centre = share + z ** 2 / (2 * of);
  const reach = z * Math.sqrt((share * (1 - share)) / of + z ** 2 / (4 * of ** 2));
  const scale = 1 + z ** 2 / of;
  return { low: Math.max(0, (centre - reach) / scale), high: Math.min(1, (centre + reach) / scale) };
}

/** Returns an unknown of this machine: its faults say charge, age and torque themselves. */
function valueOf(unknown: Unknown, { hidden, draw }: PossibleMachine): number {
  if (!hidden) return draw[unknown];
  const [battery] = hidden.batteries;
  if (unknown === 'charge') return battery!.soc;
  if (unknown === 'ageing') return Math.log(battery!.ageing);
  return unknown === 'starter' ? hidden.torqueShare : draw[unknown];
}

/** Squared correlation of each unknown with an outcome, gathered in one pass. */
function correlations() {
  let n = 0;
  let sumY = 0;
  let sumYY = 0;
  const sums = UNKNOWNS.map(() => ({ x: 0, xx: 0, xy: 0 }));
  return {
    add: (machine: PossibleMachine, y: number): void => {
      n++;
      sumY += y;
      sumYY += y * y;
      UNKNOWNS.forEach((unknown, i) => {
        const x = valueOf(unknown, machine);
        const sum = sums[i]!;
        sum.x += x;
        sum.xx += x * x;
        sum.xy += x * y;
      });
    },
    squared: (): Record<Unknown, number> => {
      const spreadY = sumYY / n - (sumY / n) ** 2;
      const entries = UNKNOWNS.map((unknown, i) => {
        const { x, xx, xy } = sums[i]!;
        const spreadX = xx / n - (x / n) ** 2;
        const together = xy / n - (x / n) * (sumY / n);
        const both = spreadX * spreadY;
        return [unknown, both > 1e-18 ? together ** 2 / both : 0] as const;
      });
      return Object.fromEntries(entries) as Record<Unknown, number>;
    },
  };
}

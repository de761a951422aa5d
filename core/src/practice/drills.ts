import {
  BATTERY_CHEMISTRIES,
  batteryBar,
  type BatteryBar,
  type Chemistry,
  freezePointC,
  isLeadAcid,
  socFromRestVolts,
} from '../battery/index.js';
import { crankPoint, firesAt } from '../crank/index.js';
import {
  type CheckId,
  type DiagnosisEvidence,
  drawCrowd,
  drawHidden,
  proposals,
  STOP_CONDITIONS,
  type StopCondition,
} from '../diagnosis/index.js';
import {
  act,
  type Hazard,
  hazardsOf,
  type HookupScene,
  type HookupState,
  type HookupStep,
  NOTHING_CONNECTED,
  safestOrder,
  severityRank,
} from '../hookup/index.js';
import type { LeadSet } from '../leads/index.js';
import type { Machine, MachineClass } from '../machine/index.js';
import { casualtyBatteries } from '../belief/index.js';
import { connectedRescue, type SourceOption, sourceOptions } from '../plan/index.js';
import { pick, type Random, seededRandom } from '../quantities/index.js';
import { DEFAULT_RULES } from '../rules/index.js';
import { templateOf } from '../template/index.js';
import { profileOf } from './case-profile.js';
import { answerOf } from './hidden-case.js';
import { PRACTICE_KIT, PRACTICE_TOOLS } from './kit.js';
import { drawTrace, type TraceDrill } from './trace-drill.js';

export const DRILL_KINDS = ['order', 'reading', 'frozen', 'leads', 'stop', 'trace'] as const;
/** The question of a drill of a minute. */
export type DrillKind = (typeof DRILL_KINDS)[number];

export const HARMLESS_SIGNS = [
  'deposits',
  'wet-case',
  'old-date-mark',
  'dim-lamps',
  'clicking',
  'stood-weeks',
] as const;
/** Something seen at a vehicle that stops nobody. */
export type HarmlessSign = (typeof HARMLESS_SIGNS)[number];

/** The clamp that goes on next, with those that are on. */
export interface OrderDrill {
  readonly kind: 'order';
  readonly machine: Machine;
  readonly scene: HookupScene;
  readonly state: HookupState;
  /** Each with the worst that the circuit says of it. */
  readonly choices: readonly { readonly step: HookupStep; readonly worst: Hazard | null }[];
  readonly right: number;
}
/** The check that is worth its minutes most. */
export interface ReadingDrill {
  readonly kind: 'reading';
  readonly machineClass: MachineClass;
  readonly tempC: number;
  readonly evidence: readonly DiagnosisEvidence[];
  readonly choices: readonly {
    readonly check: CheckId;
    readonly gainBits: number;
    readonly minutes: number;
  }[];
  readonly right: number;
}
/** Whether a current may be put through this battery. */
export interface FrozenDrill {
  readonly kind: 'frozen';
  readonly chemistry: Chemistry;
  readonly restVolts: number;
  readonly coldestC: number;
  readonly bar: BatteryBar | null;
  readonly freezesAtC: number | null;
  /** 0: join it; 1: leave it. */
  readonly right: number;
}
/** The lightest set that turns it fast enough. */
export interface LeadsDrill {
  readonly kind: 'leads';
  readonly machineClass: MachineClass;
  readonly tempC: number;
  readonly neededRpm: number;
  /** The lightest first. */
  readonly choices: readonly { readonly leads: LeadSet; readonly rpm: number; readonly turns: boolean }[];
  readonly right: number;
}
/** Go on, or stop. */
export interface StopDrill {
  readonly kind: 'stop';
  readonly machineClass: MachineClass;
  readonly signs: readonly (StopCondition | HarmlessSign)[];
  readonly stops: readonly StopCondition[];
  /** 0: go on; 1: stop. */
  readonly right: number;
}
export type Drill = OrderDrill | ReadingDrill | FrozenDrill | LeadsDrill | StopDrill | TraceDrill;

/** A drawn question is drawn anew where it is too near to call, so often at the most. */
const DRAWN_MOST = 200;
/** Nearer to ice than this it is no question for a minute, K. */
const CLEAR_K = 3;
const DRILL_CLASSES: readonly MachineClass[] = ['car', 'van', 'truck', 'plant', 'motorcycle'];
const DRIVEN: readonly MachineClass[] = ['car', 'van', 'boat', 'ride-on'];

/**
 * A question of a minute: the same number asks the same of everybody.
 *
 * @throws RangeError where none can be drawn, which a test holds not to be
 * @example drillOf('frozen', 7).right // => 1
 */
export function drillOf(kind: DrillKind, number: number): Drill {
  const random = seededRandom(number * 2 + DRILL_KINDS.indexOf(kind) * 1_000_003 + 1);
  for (let i = 0; i < DRAWN_MOST; i++) {
    const drill = DRAW[kind](random);
    if (drill) return drill;
  }
  throw new RangeError(`no drill of ${kind} for ${number}`);
}

const DRAW: Readonly<Record<DrillKind, (random: Random) => Drill | null>> = {
  order: drawOrder,
  reading: drawReading,
  frozen: drawFrozen,
  leads: drawLeads,
  stop: drawStop,
  trace: drawTrace,
};

function shuffled<T>(random: Random, list: readonly T[]): T[] {
  return list
    .map((item) => ({ item, key: random() }))
    .sort((a, b) => a.key - b.key)
    .map(({ item }) => item);
}

function donorOption(machine: Machine, restVolts: readonly number[], tempC: number): SourceOption | null {
  const batteries = casualtyBatteries(machine, restVolts, tempC);
  return (
    sourceOptions(machine, PRACTICE_KIT, batteries, tempC, DEFAULT_RULES).find(
      ({ sourceKind }) => sourceKind === 'donor',
    ) ?? null
  );
}

function drawOrder(random: Random): OrderDrill | null {
  const machine = templateOf(pick(random, DRIVEN));
  const tempC = Math.round(-12 + 20 * random());
  const restVolts = [11.4 + random() * 0.6];
  const option = donorOption(machine, restVolts, tempC);
  const { chemistry } = machine.batteries[0]!.rating;
  // A battery that may be ice is joined in no order.
  if (!option || batteryBar(chemistry, restVolts[0]!, tempC)) return null;
  const scene: HookupScene = {
    ...{ machine, donor: templateOf('van'), option, tempC },
    batteries: casualtyBatteries(machine, restVolts, tempC),
    ...{ enclosed: false, casualtyRuns: false },
  };
  const order = safestOrder(scene, 3, DEFAULT_RULES);
  const clamps = order.filter(({ action }) => action.kind === 'attach');
  const at = Math.floor(random() * (clamps.length - 1));
  const before = order.slice(0, order.indexOf(clamps[at]!));
  const state = before.reduce((s, { action }) => act(s, action), NOTHING_CONNECTED);
  const choices = shuffled(random, clamps.slice(at)).map((step) => ({
    step,
    worst: worstOf(step.action.kind === 'attach' ? hazardsOf(scene, state, step.action, DEFAULT_RULES) : []),
  }));
  return {
    kind: 'order',
    machine,
    scene,
    state,
    choices,
    right: choices.findIndex(({ step }) => step === clamps[at]),
  };
}

const worstOf = (hazards: readonly Hazard[]): Hazard | null =>
  hazards.reduce<Hazard | null>(
    (worst, h) => (worst && severityRank(worst) >= severityRank(h) ? worst : h),
    null,
  );

/** So much more than the next one a reading must be worth. */
const CLEARLY = 1.3;
/**
 * Machines drawn for each cause: one or two findings leave thousands that fit. So a fifth of a job's machines ranks the same, and sooner.
 */
const DRILL_PER_CAUSE = 60;

function drawReading(random: Random): ReadingDrill | null {
  const machineClass = pick(random, DRILL_CLASSES);
  const tempC = Math.round(-10 + 25 * random());
  const profile = profileOf(machineClass, tempC);
  const cause = pick(random, ['discharged', 'worn', 'joint-positive', 'starter', 'charging'] as const);
  const hidden = drawHidden(cause, profile, random);
  const mind = drawCrowd(profile, seededRandom(7), DRILL_PER_CAUSE);
  const evidence: DiagnosisEvidence[] = [
    { check: 'symptom', found: answerOf('symptom', hidden, profile, random) },
  ];
  if (random() < 0.6) evidence.push({ check: 'rest', found: answerOf('rest', hidden, profile, random) });
  const ranked = proposals(mind, evidence, PRACTICE_TOOLS);
  const [best, second] = ranked;
  if (!best || !second || best.worth < CLEARLY * second.worth) return null;
  const others = ranked.slice(Math.ceil(ranked.length / 3));
  if (others.length < 3) return null;
  const choices = shuffled(random, [best, ...shuffled(random, others).slice(0, 3)]);
  return {
    ...{ kind: 'reading', machineClass, tempC, evidence },
    choices: choices.map(({ check, gainBits, minutes }) => ({ check, gainBits, minutes })),
    right: choices.indexOf(best),
  };
}

function drawFrozen(random: Random): FrozenDrill | null {
  const chemistry = pick(random, BATTERY_CHEMISTRIES);
  const restVolts = Number((random() < 0.15 ? -(0.4 + random() * 8) : 6 + random() * 6.8).toFixed(2));
  const coldestC = Math.round(-32 + 40 * random());
  const bar = batteryBar(chemistry, restVolts, coldestC);
  const { low } = socFromRestVolts(chemistry, restVolts, coldestC);
  const freezesAtC = isLeadAcid(chemistry) ? freezePointC(chemistry, low, restVolts) : null;
  const isNear = freezesAtC !== null && Math.abs(coldestC - freezesAtC) < CLEAR_K;
  if (isNear && bar !== 'reversed') return null;
  return { kind: 'frozen', chemistry, restVolts, coldestC, bar, freezesAtC, right: bar ? 1 : 0 };
}

const DRILL_LEADS: readonly LeadSet[] = [
  { sectionMm2: 6, lengthM: 4, conductor: 'copper-clad-aluminium', contact: 'worn' },
  { sectionMm2: 10, lengthM: 3, conductor: 'copper-clad-aluminium', contact: 'clean' },
  { sectionMm2: 16, lengthM: 3, conductor: 'copper', contact: 'clean' },
  { sectionMm2: 25, lengthM: 3.5, conductor: 'copper', contact: 'clean' },
  { sectionMm2: 35, lengthM: 4.5, conductor: 'copper', contact: 'clean' },
];
/** Speed this far from what is needed is no question for a minute, share. */
const CLEAR_SHARE = 0.06;

function drawLeads(random: Random): LeadsDrill | null {
  const machineClass = pick(random, DRIVEN);
  const machine = templateOf(machineClass);
  const { engine } = machine;
  const tempC = Math.round(-25 + 25 * random());
  const restVolts = [11.9 + random() * 0.5];
  const option = donorOption(machine, restVolts, tempC);
  const { chemistry } = machine.batteries[0]!.rating;
  if (!engine || !option || batteryBar(chemistry, restVolts[0]!, tempC)) return null;
  // A bigger engine than the class mostly has: in the cold its leads decide.
  const big = { ...engine, displacementL: engine.displacementL * (1 + 1.5 * random()) };
  const batteries = casualtyBatteries(machine, restVolts, tempC);
  const points = DRILL_LEADS.map((leads) => {
    const rescue = connectedRescue(machine, { ...option, leads }, batteries, tempC, DEFAULT_RULES);
    return { leads, ...crankPoint(rescue, big) };
  });
  const isNear = points.some(({ rpm, neededRpm }) => Math.abs(rpm / neededRpm - 1) < CLEAR_SHARE);
  const choices = points.map((point) => ({ leads: point.leads, rpm: point.rpm, turns: firesAt(point) }));
  const right = choices.findIndex(({ turns }) => turns);
  return isNear || right < 1
    ? null
    : { kind: 'leads', machineClass, tempC, neededRpm: points[0]!.neededRpm, choices, right };
}

function drawStop(random: Random): StopDrill {
  const machineClass = pick(random, DRILL_CLASSES);
  // None of these machines has high voltage.
  const may = STOP_CONDITIONS.filter((stop) => stop !== 'high-voltage-damaged');
  const stops = random() < 0.5 ? [pick(random, may)] : [];
  const harmless = shuffled(random, HARMLESS_SIGNS).slice(0, 3 - stops.length);
  return {
    ...{ kind: 'stop', machineClass, stops },
    signs: shuffled(random, [...stops, ...harmless]),
    right: stops.length > 0 ? 1 : 0,
  };
}

import { type CasualtyBlocks, casualtyBlocks } from '../crank/casualty-blocks.js';
import {
  oddsInput,
  type RankedOption,
  rankOptions,
  type SourceOption,
  sourceOptions,
} from '../crank/options.js';
import type { OddsInput } from '../crank/odds.js';
import { clearingOrder, hookupOrder, type HookupStep } from '../hookup/order.js';
import type { HookupScene } from '../hookup/state.js';
import type { Machine } from '../machine/machine.js';
import { startsByWaking } from '../machine/machine.js';
import type { HouseRules } from '../rules/house-rules.js';
import type { KitItem } from '../sources/kit.js';
import type { Case } from '../verdict/judge.js';
import type { PlanRecord } from './events.js';
import { hasStarted, type Job, latestReading, restVoltsByBlock, workingTempC } from './job.js';

/** The part of a job that the blocks and the ranking depend on. */
export type JobReadings = Pick<Job, 'readings' | 'scene' | 'call'>;

/** The casualty's blocks as the job's readings show them. */
export function blocksOfJob(job: JobReadings, machine: Machine): CasualtyBlocks {
  return casualtyBlocks(machine, restVoltsByBlock(job, machine.blocks.length), workingTempC(job));
}

/** The options of the van for this job, solved and ranked. */
export function rankForJob(
  job: JobReadings,
  machine: Machine,
  kit: readonly KitItem[],
  rules: HouseRules,
): RankedOption[] {
  return rankOptions(machine, kit, blocksOfJob(job, machine), workingTempC(job), rules);
}

/** Samples drawn for the odds on screen: enough for a band of about a point either way. */
const ODDS_SAMPLES = 4000;

/** What the odds of each fitting option are drawn from, by option id; empty for a machine that wakes. */
export function oddsForJob(
  job: JobReadings,
  machine: Machine,
  ranked: readonly RankedOption[],
  rules: HouseRules,
): ReadonlyMap<string, OddsInput> {
  const blocks = blocksOfJob(job, machine);
  const inputs = new Map<string, OddsInput>();
  for (const { option, unfit } of ranked) {
    const input = unfit ? null : oddsInput(machine, option, blocks, workingTempC(job), rules, ODDS_SAMPLES);
    if (input) inputs.set(option.id, input);
  }
  return inputs;
}

/** A solved option as the log keeps it when it is chosen; null for one that does not fit. */
export function planRecord(
  { option, crank, wake, outlook }: RankedOption,
  odds: number | null,
): PlanRecord | null {
  if (!outlook) return null;
  return {
    optionId: option.id,
    sourceId: option.sourceId,
    leadSetId: option.leadSetId,
    sourceKind: option.sourceKind,
    outlook,
    odds,
    starterVolts: crank?.starterVolts ?? null,
    starterAmps: crank?.starterAmps ?? null,
    rpm: crank?.rpm ?? null,
    neededRpm: crank?.neededRpm ?? null,
    wakeVolts: wake?.postVolts ?? null,
  };
}

/** The option that the job's plan names; null without a plan or when the kit no longer has it. */
export function plannedOption(job: Job, machine: Machine, kit: readonly KitItem[]): SourceOption | null {
  if (!job.plan) return null;
  const { optionId } = job.plan;
  const options = sourceOptions(machine, kit, blocksOfJob(job, machine), workingTempC(job));
  return options.find((o) => o.id === optionId) ?? null;
}

/** The circuit of the job's hook-up as it stands. */
export function hookupScene(job: Job, machine: Machine, option: SourceOption): HookupScene {
  return {
    machine,
    option,
    blocks: blocksOfJob(job, machine),
    tempC: workingTempC(job),
    enclosed: job.scene?.enclosed ?? false,
    casualtyRuns: hasStarted(job),
  };
}

/** The hook-up order of the job's plan and the clearing order that undoes it. */
export function ordersOfJob(
  job: Job,
  machine: Machine,
  donor: Machine | null,
  option: SourceOption,
  rules: HouseRules,
): { readonly hookup: readonly HookupStep[]; readonly clearing: readonly HookupStep[] } {
  const lowest = Math.min(...blocksOfJob(job, machine).socs);
  const hookup = hookupOrder(machine, donor, option, lowest, rules);
  return { hookup, clearing: clearingOrder(hookup, machine) };
}

/** What the judge needs of a job. */
export function caseOfJob(job: Job, machine: Machine, earlierFlatCalls: number): Case {
  const crankReading = latestReading(job, 'crank-minimum');
  const tried = job.attempts.find((a) => a.lowestVolts !== null);
  const crankMinimum = crankReading
    ? { volts: crankReading.volts, helped: false }
    : tried
      ? { volts: tried.lowestVolts!, helped: tried.helped }
      : null;
  return {
    chemistry: machine.blocks[0]!.rating.chemistry,
    systemVolts: machine.systemVolts,
    wakes: startsByWaking(machine),
    tempC: workingTempC(job),
    stops: job.stops,
    faults: Object.entries(job.checks).flatMap(([check, result]) =>
      result === 'fault' ? [check as keyof Job['checks']] : [],
    ),
    symptoms: job.symptoms,
    restVolts: restVoltsByBlock(job, machine.blocks.length),
    crankMinimum,
    chargingIdleVolts: latestReading(job, 'charging-idle')?.volts ?? null,
    chargingLoadedVolts: latestReading(job, 'charging-loaded')?.volts ?? null,
    attempts: job.attempts.flatMap((a) => (a.outcome ? [{ outcome: a.outcome, helped: a.helped }] : [])),
    earlierFlatCalls,
  };
}

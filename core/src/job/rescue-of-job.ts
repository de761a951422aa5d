import type { BatteryBar } from '../battery/bar.js';
import { type CasualtyBatteries, casualtyBatteries } from '../plan/casualty-batteries.js';
import { chargeOptions } from '../plan/charge-options.js';
import { type SourceOption, sourceOptions } from '../plan/options.js';
import type { PlanCase } from '../plan/plan-case.js';
import type { PlanInput } from '../plan/plan-inputs.js';
import { planCase, type RankedOption, rankOptions, ruledWaitMinutes, wakeCase } from '../plan/rank.js';
import type { WakeCase } from '../crank/wake.js';
import { clearingOrder, safestOrder } from '../hookup/earth.js';
import type { HookupStep } from '../hookup/order.js';
import type { HookupScene } from '../hookup/state.js';
import type { Machine } from '../machine/machine.js';
import { startsByWaking } from '../machine/machine.js';
import type { HouseRules } from '../rules/house-rules.js';
import type { KitItem } from '../sources/kit.js';
import type { Case } from '../verdict/case.js';
import type { PlanRecord } from './events.js';
import { standingJob } from './doubts.js';
import { jointFindings, jointsOfJob } from './joints-of-job.js';
import type { Job } from './job.js';
import { silentBar, type SilentTurns, turnsOf } from './silent-bar.js';
import { coldestTempC, hasStarted, restVoltsByBattery, workingTempC } from './queries.js';

/** The part of a job that the batteries and the ranking depend on. */
export type JobReadings = SilentTurns & Pick<Job, 'findings'>;

/** That part alone: it stays as it is while a tap changes none of it. */
export function readingsOf(job: Job): JobReadings {
  const { readings, scene, call, parked } = job;
  const { findings, figures } = jointFindings(job);
  const turns = turnsOf(job);
  return { readings, scene, call, parked, findings, ...turns, figures: [...figures, ...turns.figures] };
}

/** The casualty's batteries as the job's readings show them. */
export function batteriesOfJob(job: JobReadings, machine: Machine): CasualtyBatteries {
  const restVolts = restVoltsByBattery(job, machine.batteries.length);
  const read = casualtyBatteries(machine, restVolts, workingTempC(job), coldestTempC(job));
  const bar = silentBar(job, machine);
  const batteries = bar ? barred(read, bar) : read;
  const joints = jointsOfJob(job, machine, batteries, workingTempC(job));
  return joints ? { ...batteries, joints } : batteries;
}

/** The same batteries, none of which may take a current. */
const barred = (batteries: CasualtyBatteries, bar: BatteryBar): CasualtyBatteries => ({
  ...batteries,
  beliefs: batteries.beliefs.map((belief) => ({ ...belief, bar: belief.bar ?? bar })),
});

/** The options of the van for this job, solved and ranked. */
export function rankForJob(
  job: JobReadings,
  machine: Machine,
  kit: readonly KitItem[],
  rules: HouseRules,
): RankedOption[] {
  return rankOptions(machine, kit, batteriesOfJob(job, machine), workingTempC(job), rules, {
    mainsNear: job.scene?.mainsNear ?? false,
    donorMetres: job.parked?.metresNeeded ?? null,
  });
}

/** What the figures of each fitting option rest on, by option id; empty for a machine that wakes. */
export function planCases(
  job: JobReadings,
  machine: Machine,
  ranked: readonly RankedOption[],
  rules: HouseRules,
): ReadonlyMap<string, PlanCase> {
  const batteries = batteriesOfJob(job, machine);
  const cases = new Map<string, PlanCase>();
  for (const { option, unfit } of ranked) {
    const plan = unfit ? null : planCase(machine, option, batteries, workingTempC(job), rules);
    if (plan) cases.set(option.id, plan);
  }
  return cases;
}

/** The wake-up of each fitting option in time, by option id: with the traction battery charged, and flat. */
export function wakeCases(
  job: JobReadings,
  machine: Machine,
  ranked: readonly RankedOption[],
  rules: HouseRules,
): ReadonlyMap<string, { readonly charged: WakeCase; readonly flat: WakeCase }> {
  const batteries = batteriesOfJob(job, machine);
  const tempC = workingTempC(job);
  const caseOf = (option: SourceOption, charged: boolean): WakeCase =>
    wakeCase(machine, option, batteries, tempC, rules, charged);
  return new Map(
    ranked
      .filter(({ unfit, wake }) => !unfit && wake)
      .map(({ option }) => [option.id, { charged: caseOf(option, true), flat: caseOf(option, false) }]),
  );
}

/** What the core computed of an option beyond its ranking, when it is chosen. */
export interface PlanFigures {
  readonly odds: number | null;
  readonly waitMinutes: number;
  readonly inputs: readonly PlanInput[];
  /** What is joined for the crank once this one is off; null or left out for a source that stays. */
  readonly thenOptionId?: string | null;
}

/** A solved option as the log keeps it when it is chosen; null for one that does not fit. */
export function planRecord(ranked: RankedOption, figures?: PlanFigures): PlanRecord | null {
  const { option, crank, wake, outlook } = ranked;
  if (!outlook) return null;
  return {
    optionId: option.id,
    sourceId: option.sourceId,
    leadSetId: option.leadSetId,
    sourceKind: option.sourceKind,
    outlook,
    odds: figures?.odds ?? null,
    starterVolts: crank?.starterVolts ?? null,
    starterAmps: crank?.starterAmps ?? null,
    rpm: crank?.rpm ?? null,
    neededRpm: crank?.neededRpm ?? null,
    wakeVolts: wake?.postVolts ?? null,
    postVolts: crank?.postVolts ?? null,
    waitMinutes: figures?.waitMinutes ?? ranked.chargeMinutes,
    // What another source follows comes off before the crank, like a charger.
    chargeOnly: option.chargeOnly || Boolean(figures?.thenOptionId),
    inputs: figures?.inputs ?? [],
    ...(figures?.thenOptionId && { thenOptionId: figures.thenOptionId }),
  };
}

/** The option that the job's plan names; null without a plan or when the kit no longer has it. */
export function plannedOption(
  job: JobReadings & Pick<Job, 'plan'>,
  machine: Machine,
  kit: readonly KitItem[],
  rules: HouseRules,
): SourceOption | null {
  if (!job.plan) return null;
  const { optionId } = job.plan;
  const options = sourceOptions(machine, kit, batteriesOfJob(job, machine), workingTempC(job), rules);
  return [...options, ...chargeOptions(machine, kit)].find((o) => o.id === optionId) ?? null;
}

/** The circuit of the job's hook-up as it stands. */
export function hookupScene(
  job: JobReadings,
  machine: Machine,
  donor: Machine | null,
  option: SourceOption,
): HookupScene {
  return {
    machine,
    donor: option.sourceKind === 'donor' ? donor : null,
    option,
    batteries: batteriesOfJob(job, machine),
    tempC: workingTempC(job),
    enclosed: job.scene?.enclosed ?? false,
    casualtyRuns: hasStarted(job),
  };
}

/** The hook-up order of the job's plan and the clearing order that undoes it. */
export function ordersOfJob(
  job: JobReadings & Pick<Job, 'plan'>,
  machine: Machine,
  donor: Machine | null,
  option: SourceOption,
  rules: HouseRules,
): { readonly hookup: readonly HookupStep[]; readonly clearing: readonly HookupStep[] } {
  const lowest = Math.min(...batteriesOfJob(job, machine).socs);
  const waitMinutes = job.plan?.waitMinutes ?? ruledWaitMinutes(machine, option, lowest, rules);
  const resting = { ...hookupScene(job, machine, donor, option), casualtyRuns: false };
  const hookup = safestOrder(resting, waitMinutes, rules);
  return { hookup, clearing: clearingOrder(hookup, machine, rules) };
}

/** What the verdict must know of a job beside its evidence. */
export function caseOfJob(job: Job, machine: Machine, earlierFlatCalls: number): Case {
  const standing = standingJob(job, machine);
  return {
    chemistry: machine.batteries[0]!.rating.chemistry,
    wakes: startsByWaking(machine),
    tempC: workingTempC(job),
    coldestC: coldestTempC(job),
    stops: job.stops,
    restVolts: restVoltsByBattery(standing, machine.batteries.length),
    earlierFlatCalls,
    diedInService: job.symptoms.includes('no-doors'),
  };
}

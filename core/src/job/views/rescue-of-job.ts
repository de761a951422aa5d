import {
  chargeOptions,
  planCase,
  type PlanCase,
  type PlanInput,
  type RankedOption,
  rankOptions,
  ruledWaitMinutes,
  type SourceOption,
  sourceOptions,
  wakeCase,
} from '../../plan/index.js';
import type { WakeCase } from '../../crank/index.js';
import {
  clearingOrder,
  type HookupScene,
  type HookupStep,
  type Overruled,
  overruledBy,
  safestOrder,
} from '../../hookup/index.js';
import { isPositiveEarth } from '../../machine/index.js';
import type { KitItem } from '../../sources/index.js';
import { alternatorVoltsOf } from './charging-read.js';
import type { PlanRecord } from '../events/event.js';
import type { Situation } from '../situation.js';

/**
 * The options of the kit for this job, solved and ranked.
 *
 * @param kit left out: what is at hand
 */
export function rankForJob(
  { job, machine, batteries, tempC, rules, record }: Situation,
  kit: readonly KitItem[] = record.kit,
): RankedOption[] {
  return rankOptions(machine, kit, batteries, tempC, rules, {
    mainsNear: job.scene?.mainsNear ?? false,
    donorMetres: job.parked?.metresNeeded ?? null,
  });
}

/** Returns the plan case of each fitting option, by option id; empty for a machine that wakes. */
export function planCases(
  { machine, batteries, tempC, rules }: Situation,
  ranked: readonly RankedOption[],
): ReadonlyMap<string, PlanCase> {
  const cases = new Map<string, PlanCase>();
  for (const { option, unfit } of ranked) {
    const plan = unfit ? null : planCase(machine, option, batteries, tempC, rules);
    if (plan) cases.set(option.id, plan);
  }
  return cases;
}

/** The wake-up of each fitting option in time, by option id: with the traction battery charged, and flat. */
export function wakeCases(
  { machine, batteries, tempC, rules }: Situation,
  ranked: readonly RankedOption[],
): ReadonlyMap<string, { readonly charged: WakeCase; readonly flat: WakeCase }> {
  const caseOf = (option: SourceOption, charged: boolean): WakeCase =>
    wakeCase(machine, option, batteries, tempC, rules, charged);
  return new Map(
    ranked
      .filter(({ unfit, wake }) => !unfit && wake)
      .map(({ option }) => [option.id, { charged: caseOf(option, true), flat: caseOf(option, false) }]),
  );
}

/** The figures of an option beyond its ranking, when it is chosen. */
export interface PlanFigures {
  readonly odds: number | null;
  readonly waitMinutes: number;
  readonly inputs: readonly PlanInput[];
  /** The option that is joined for the crank once this one is off; null or left out for a source that stays. */
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
    // An option that another source follows comes off before the crank, like a charger.
    chargeOnly: option.chargeOnly || Boolean(figures?.thenOptionId),
    inputs: figures?.inputs ?? [],
    ...(figures?.thenOptionId && { thenOptionId: figures.thenOptionId }),
  };
}

/** The option that a plan names; null without a plan or when the kit no longer has it. */
export function plannedOption(
  { machine, batteries, tempC, rules, record }: Situation,
  plan: Pick<PlanRecord, 'optionId'> | null,
): SourceOption | null {
  if (!plan) return null;
  const options = sourceOptions(machine, record.kit, batteries, tempC, rules);
  return [...options, ...chargeOptions(machine, record.kit)].find((o) => o.id === plan.optionId) ?? null;
}

/** The circuit of the job's hook-up as it stands. */
export function hookupScene(
  { job, machine, batteries, tempC, casualtyRuns, record }: Situation,
  option: SourceOption,
): HookupScene {
  return {
    machine,
    donor: option.sourceKind === 'donor' ? record.donor : null,
    option,
    batteries,
    tempC,
    enclosed: job.scene?.enclosed ?? false,
    casualtyRuns,
    alternatorVolts: alternatorVoltsOf(job),
  };
}

/** The hook-up order of an option and the clearing order that undoes it. */
export function ordersOfJob(
  situation: Situation,
  option: SourceOption,
  plan: Pick<PlanRecord, 'waitMinutes'> | null,
): {
  readonly hookup: readonly HookupStep[];
  readonly clearing: readonly HookupStep[];
  /** House rules that the hook-up does not keep, each with what overrules it. */
  readonly overruled: readonly Overruled[];
} {
  const { machine, batteries, rules } = situation;
  const waitMinutes =
    plan?.waitMinutes ?? ruledWaitMinutes(machine, option, Math.min(...batteries.socs), rules);
  const resting = { ...hookupScene(situation, option), casualtyRuns: false };
  const hookup = safestOrder(resting, waitMinutes, rules);
  return {
    hookup,
    clearing: clearingOrder(hookup, machine, rules),
    // A machine with its plus on the body is the mirror image, and so is each school.
    overruled: isPositiveEarth(machine) ? [] : overruledBy(resting, hookup, waitMinutes, rules),
  };
}

/**
 * Returns the sources that fit here in no way, each with what keeps its best way from fitting: a source is never both offered and told to be
 * unfit.
 *
 * @param ranked every option, those that fit first
 */
export function notHere(ranked: readonly RankedOption[]): readonly RankedOption[] {
  const seen = new Set(ranked.flatMap(({ option, unfit }) => (unfit ? [] : option.sourceId)));
  return ranked.filter(({ option }) => {
    if (seen.has(option.sourceId)) return false;
    seen.add(option.sourceId);
    return true;
  });
}

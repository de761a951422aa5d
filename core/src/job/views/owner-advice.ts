import { maintaining, type RunDown } from '../../charging/index.js';
import { isLeadAcid } from '../../battery/index.js';
import { checkOf, type Suspect } from '../../diagnosis/index.js';
import { startsByWaking } from '../../machine/index.js';
import {
  type FollowUp,
  type ReplacementNeed,
  replacementNeed,
  type VerdictRecord,
} from '../../verdict/index.js';
import { chargePlanOfJob } from './charge-of-job.js';
import type { DriveAdvice } from './drive-of-job.js';
import type { Job } from '../job.js';
import { drainAmps, currentVerdict } from './queries.js';
import { roadOfJob } from './road-of-job.js';
import type { Situation } from '../situation.js';

/** One piece of advice for the owner of a vehicle, with its figures. */
export type Advice =
  | { readonly id: 'leave-it' }
  | { readonly id: 'drive-now'; readonly drive: DriveAdvice }
  | { readonly id: 'charging-unread' }
  | { readonly id: 'do-not-drive'; readonly asItIs: RunDown; readonly charged: RunDown }
  | { readonly id: 'keep-awake' }
  | { readonly id: 'charge-full'; readonly amps: number; readonly hours: number | null }
  | { readonly id: 'bring-back'; readonly days: number }
  | { readonly id: 'replace'; readonly days: number; readonly need: ReplacementNeed }
  | { readonly id: 'workshop'; readonly suspect: Suspect }
  | { readonly id: 'charge-monthly' }
  | { readonly id: 'maintainer'; readonly amps: number }
  | { readonly id: 'minus-off' }
  | { readonly id: 'switch-off-first' }
  | { readonly id: 'unplug-gadgets' }
  | { readonly id: 'deep-hurts' }
  | { readonly id: 'flat-again'; readonly days: number }
  | { readonly id: 'inspect'; readonly days: number };

/** A battery that rested under this has been drawn deeper than it is made for, V per 12 V: six cells at 1.8 V. */
const DEEP_BELOW_VOLTS = 10.8;
/** Drain from which gadgets are suspected, A: where its check calls it high. */
const [DRAIN_HIGH_AMPS = 0] = checkOf('drain').edges ?? [];
/** A battery over this charge needs no charger, share. */
const CHARGED_SOC = 0.85;

/**
 * Returns the advice to the owner after a call, by the findings: the act of now first, then the ways to keep it from happening again. Empty before a verdict
 * is given.
 */
export function ownerAdvice(job: Job, situation: Situation): readonly Advice[] {
  const verdict = currentVerdict(job);
  if (!verdict) return [];
  if (verdict.verdict === 'unsafe') return [{ id: 'leave-it' }];
  return [...doNow(job, situation, verdict), ...fromNowOn(job, situation, verdict)];
}

const promised = ({ followUps }: VerdictRecord, kind: FollowUp['kind']): number | null =>
  followUps.find((f) => f.kind === kind)?.days ?? null;

function onTheRoad(job: Job, situation: Situation): Advice[] {
  const road = roadOfJob(job, situation);
  switch (road?.kind) {
    case 'drive':
      return [{ id: 'drive-now', drive: road.drive }];
    case 'read-charging':
      return [{ id: 'charging-unread' }];
    case 'do-not-drive':
      return [{ id: 'do-not-drive', asItIs: road.asItIs, charged: road.charged }];
    case undefined:
      return [];
  }
}

function doNow(job: Job, situation: Situation, verdict: VerdictRecord): Advice[] {
  const { machine, batteries, casualtyRuns } = situation;
  const { weakest, socs } = batteries;
  const restVolts = situation.restVolts[weakest] ?? null;
  const plan = chargePlanOfJob(situation);
  const isLow = job.recheck === null && restVolts !== null && socs[weakest]! < CHARGED_SOC;
  const wantsCharge = promised(verdict, 'charge') !== null || (verdict.verdict === 'keep' && isLow);
  const replaceDays = promised(verdict, 'replace');
  const backDays = promised(verdict, 'recheck');
  return [
    ...onTheRoad(job, situation),
    ...(casualtyRuns && startsByWaking(machine) ? [{ id: 'keep-awake' } as const] : []),
    ...(wantsCharge && plan.bar === null
      ? [{ id: 'charge-full', amps: plan.amps, hours: plan.hours } as const]
      : []),
    ...(replaceDays !== null
      ? [{ id: 'replace', days: replaceDays, need: replacementNeed(machine, weakest) } as const]
      : []),
    ...(backDays !== null ? [{ id: 'bring-back', days: backDays } as const] : []),
    ...(verdict.suspect && promised(verdict, 'workshop') !== null
      ? [{ id: 'workshop', suspect: verdict.suspect } as const]
      : []),
  ];
}

function fromNowOn(
  { findings, readings }: Job,
  { machine, rules, record }: Situation,
  { suspect }: VerdictRecord,
): Advice[] {
  const isLead = isLeadAcid(machine.batteries[0]!.rating.chemistry);
  const use = findings['ask-use'];
  const drain = drainAmps({ findings });
  const wasLeftOn = findings['ask-left-on'] === 'yes' || findings['look-switches'] === 'one-is-on';
  const kept = maintaining(machine.batteries[0]!.rating, drain);
  const isDrained = suspect === 'drain' || (drain !== null && drain > DRAIN_HIGH_AMPS);
  const wasDeep = readings.some((r) => r.kind === 'rest' && r.volts < DEEP_BELOW_VOLTS);
  const wasFlat = record.earlierFlatCalls > 0 || findings['ask-flats'] === 'yes';
  return [
    ...(use === 'short-trips' ? [{ id: 'charge-monthly' } as const] : []),
    ...(use === 'stood-weeks' ? [{ id: 'maintainer', amps: kept.amps } as const] : []),
    // A machine that must be set again after a power loss is better left on a maintainer.
    ...(use === 'stood-weeks' && machine.resets.length === 0 && !startsByWaking(machine)
      ? [{ id: 'minus-off' } as const]
      : []),
    ...(wasLeftOn ? [{ id: 'switch-off-first' } as const] : []),
    ...(isDrained ? [{ id: 'unplug-gadgets' } as const] : []),
    ...(wasDeep && isLead ? [{ id: 'deep-hurts' } as const] : []),
    ...(wasFlat ? [{ id: 'flat-again', days: rules.repeatFlatDays } as const] : []),
    { id: 'inspect', days: rules.inspectDays },
  ];
}

import { socFromRestVolts } from '@voltrek/core/battery';
import { fixed, withinSentence } from '@words/numbers';
import { CLAMP_IDS } from '@voltrek/core/circuit';
import { isAtFault, walkRound } from '@voltrek/core/diagnosis';
import { isDone } from '@voltrek/core/hookup';
import {
  currentRestVolts,
  currentVerdict,
  isPolarityProved,
  latestReading,
  startsAlone,
  type Stage,
} from '@voltrek/core/job';
import type { Machine } from '@voltrek/core/machine';
import { percentBand, volts } from '@words/figures';
import { degrees } from '@words/units';
import { OUTLOOK_WORDS, SYMPTOM_WORDS } from '@words/words';
import { VERDICT_WORDS } from '@words/verdict-words';
import type { PlannedRescue } from '@voltrek/core/job';
import type { Work } from '../../shared/job/job-selectors';
import { STAGE_RESULTS as T } from '@words/screens/job-rail';

export interface StageResult {
  readonly done: boolean;
  readonly stopped: boolean;
  /** The result in one line, or nothing yet. */
  readonly line: string;
}

/** The result of each stage, for the rail. */
export function stageResults(
  { job, machine, kit, situation }: Work,
  rescue: PlannedRescue | null,
): Record<Stage, StageResult> {
  const result = (done: boolean, line: string, stopped = false): StageResult => ({
    done,
    line: done ? line : '',
    stopped,
  });
  const stopped = situation.stops.length > 0;
  const faults = walkRound(machine).filter(
    (id) => job.findings[id] !== undefined && isAtFault(id, job.findings[id]),
  ).length;
  const on = CLAMP_IDS.filter((c) => job.hookup.clamps[c] !== null).length;
  const hookedUp =
    rescue !== null && on > 0 && rescue.orders.hookup.every((s) => isDone(job.hookup, s.action));
  const source = kit.find((item) => item.id === job.plan?.sourceId);
  const charging = latestReading(job, 'charging-idle');
  const last = job.attempts.at(-1);
  const verdict = currentVerdict(job);
  return {
    scene: {
      done: job.scene !== null,
      stopped,
      line: stopped
        ? T.stopStands
        : job.scene
          ? `${degrees(job.scene.ambientC)}, ${job.scene.sloping ? T.sloping : T.level}`
          : '',
    },
    checks: result(
      Object.keys(job.findings).length > 0 || job.symptoms.length > 0,
      faults > 0 ? T.atFault({ faults }) : checksLine(job),
    ),
    locate: result(isPolarityProved(job), machine.batteries[0]?.place ?? ''),
    measure: result(job.readings.length > 0, measureLine(job, machine, situation.tempC)),
    plan: result(
      job.plan !== null,
      source ? source.name.split(',')[0]! : OUTLOOK_WORDS[job.plan?.outlook ?? 'cranks'],
    ),
    hookup: {
      done: hookedUp || (job.everConnected && on === 0),
      stopped: false,
      line: on > 0 ? T.on({ on }) : job.everConnected ? T.allOff : '',
    },
    crank: result(
      situation.casualtyRuns,
      machine.engine
        ? T.runsTry({ attempts: job.attempts.length })
        : T.awakeTry({ attempts: job.attempts.length }),
      false,
    ),
    cleardown: result(
      job.everConnected && on === 0 && last !== undefined,
      charging ? T.charging({ volts: volts(charging.volts, 1) }) : T.allOff,
    ),
    verdict: result(verdict !== null, verdict ? withinSentence(VERDICT_WORDS[verdict.verdict].name) : ''),
  };
}

function checksLine(job: Work['job']): string {
  const [symptom] = job.symptoms;
  return symptom ? SYMPTOM_WORDS[symptom] : startsAlone(job) ? T.starts : T.clear;
}

/** The readings that stand: a reading in doubt is no result. */
function measureLine(job: Work['job'], machine: Machine, tempC: number): string {
  const rest = currentRestVolts(job, machine);
  const first = rest.findIndex((v) => v !== null);
  if (first < 0) return T.readings({ readings: job.readings.length });
  if (machine.batteries.length > 1)
    return rest.map((v) => (v === null ? '-' : fixed(v, 2))).join(' + ') + ' V';
  const { low, high } = socFromRestVolts(machine.batteries[0]!.rating.chemistry, rest[first]!, tempC);
  return `${volts(rest[first]!)}, ${percentBand(low, high)}`;
}

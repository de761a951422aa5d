import type { StopCondition } from '../../diagnosis/index.js';
import { anyClampOn } from '../../hookup/index.js';
import type { Machine } from '../../machine/index.js';
import { outOfRange, TYPED_RANGES } from '../../quantities/index.js';
import { DEFAULT_RULES, ruleFault, rulesWith } from '../../rules/index.js';
import type { Job } from '../job.js';
import { stopsInForce } from '../situation.js';
import { timeOf } from './event.js';
import { always, type EventKinds, hasBattery } from './event-kind.js';
import { toggled, withStop } from './lists.js';

const reasonGiven = (reason: string): 'reason-missing' | null => (reason.trim() ? null : 'reason-missing');

/** The scene, the stops, and the rules and words by which the job goes on. */
export const OF_THE_SCENE: EventKinds<
  | 'scene.recorded'
  | 'stop.raised'
  | 'stop.withdrawn'
  | 'override.given'
  | 'reset.ticked'
  | 'job.supervised'
  | 'note.added'
  | 'photo.added'
  | 'rules.adopted'
  | 'model.identified'
  | 'battery.found'
> = {
  'scene.recorded': {
    refuse: (_job, { data }) =>
      outOfRange('', data.ambientC, TYPED_RANGES.ambientC) ? 'value-out-of-range' : null,
    apply: (job, { data }) => ({ ...job, scene: data }),
  },
  'stop.raised': {
    refuse: always,
    apply: (job, { data }) => ({ ...job, stops: withStop(job.stops, data.stop) }),
  },
  'stop.withdrawn': {
    // Beside what was raised only ice that a reading shows ends by word: once it has thawed.
    refuse: (job, { data }, { machine }) =>
      !job.stops.includes(data.stop) && !isIceInForce(job, machine, data.stop)
        ? 'stop-not-raised'
        : reasonGiven(data.reason),
    apply: (job, event) => {
      const stops = job.stops.filter((s) => s !== event.data.stop);
      return event.data.stop === 'frozen' ? { ...thawed(job, timeOf(event)), stops } : { ...job, stops };
    },
  },
  'override.given': {
    refuse: (_job, { data }) => reasonGiven(data.reason),
    apply: (job, event) => ({
      ...job,
      overrides: [...job.overrides, { ...event.data, at: timeOf(event) }],
      ...(event.data.hazard && { accepted: [...(job.accepted ?? []), event.data.hazard] }),
    }),
  },
  'reset.ticked': {
    refuse: always,
    apply: (job, { data }) => ({ ...job, resets: toggled(job.resets, data.reset) }),
  },
  'note.added': {
    refuse: (_job, { data }) => reasonGiven(data.text),
    apply: (job, event) => ({
      ...job,
      notes: [...(job.notes ?? []), { text: event.data.text, by: event.by, at: timeOf(event) }],
    }),
  },
  'photo.added': {
    refuse: always,
    apply: (job, event) => ({
      ...job,
      photos: [...(job.photos ?? []), { ...event.data, by: event.by, at: timeOf(event) }],
    }),
  },
  'job.supervised': {
    refuse: always,
    apply: (job, { by, data }) => ({ ...job, supervisedBy: data.on ? by : null }),
  },
  'rules.adopted': {
    refuse: (_job, { data }) =>
      Object.entries(data.rules).some(([key, value]) => ruleFault(key, value) !== null)
        ? 'value-out-of-range'
        : null,
    apply: (job, { data }) => ({ ...job, rules: rulesWith(data.rules, DEFAULT_RULES) }),
  },
  'model.identified': {
    refuse: ({ hookup }) => (anyClampOn(hookup) ? 'machine-in-use' : null),
    // Points, polarity, parking and plan were another machine's.
    apply: (job, { data }) => ({
      ...job,
      ...{ modelId: data.modelId, parked: null, polaritySigns: [], plan: null },
    }),
  },
  'battery.found': {
    refuse: ({ replaced }, { data }, { machine }) => {
      if (!hasBattery(machine, data.battery)) return 'no-such-battery';
      return replaced.some(({ battery }) => battery === data.battery) ? 'already-fitted' : null;
    },
    // A plan that nobody has begun was made for the other battery.
    apply: (job, { data }) => ({
      ...job,
      found: [...(job.found ?? []).filter(({ battery }) => battery !== data.battery), data],
      plan: anyClampOn(job.hookup) ? job.plan : null,
    }),
  },
};

const isIceInForce = (job: Job, machine: Machine, stop: StopCondition): boolean =>
  stop === 'frozen' && stopsInForce(job, machine).includes(stop);

/** The job once its ice has thawed: how cold it was before tells no more of it. */
function thawed(job: Job, thawedAt: string): Job {
  if (!job.scene) return { ...job, thawedAt };
  const { coldestC: _coldestC, ...scene } = job.scene;
  return { ...job, scene, thawedAt };
}

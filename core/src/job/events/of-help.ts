import { CLAMP_IDS } from '../../circuit/index.js';
import { anyClampOn, clampsOn } from '../../hookup/index.js';
import { outOfRange, TYPED_RANGES, voltsRange } from '../../quantities/index.js';
import { LEAST_GAP_MM, nothingOpens } from '../../reach/index.js';
import type { KitItem } from '../../sources/index.js';
import type { VanAsked } from '../job.js';
import { timeOf } from './event.js';
import type { EventKinds } from './event-kind.js';

/** The help that is chosen, brought near, and measured while it is joined. */
export const OF_HELP: EventKinds<
  'plan.chosen' | 'donor.parked' | 'leads.measured' | 'latch.tried' | 'van.called' | 'van.arrived'
> = {
  'plan.chosen': {
    refuse: ({ hookup }, { data: { sourceId, sourceKind, leadSetId } }, { kit }) => {
      if (anyClampOn(hookup)) return 'plan-in-use';
      const has = (id: string, kind: KitItem['kind']): boolean =>
        kit.some((k) => k.id === id && k.kind === kind);
      return has(sourceId, sourceKind) && (leadSetId === null || has(leadSetId, 'lead-set'))
        ? null
        : 'not-in-kit';
    },
    apply: ({ accepted: _accepted, ...others }, { data }) => ({ ...others, plan: data }),
  },
  'donor.parked': {
    refuse: ({ hookup }, { data }) => {
      if (anyClampOn(hookup)) return 'plan-in-use';
      return data.gapMm < LEAST_GAP_MM ? 'vehicles-touch' : null;
    },
    apply: (job, { data }) => ({ ...job, parked: data }),
  },
  'leads.measured': {
    refuse: (job, { data: { sourceVolts, casualtyVolts, amps } }, { machine }) => {
      if (!job.plan?.leadSetId || clampsOn(job.hookup).length < CLAMP_IDS.length) return 'leads-not-joined';
      const range = voltsRange(machine.systemVolts / 12, true);
      const isOut =
        outOfRange('', sourceVolts, range) ??
        outOfRange('', casualtyVolts, range) ??
        outOfRange('', amps, TYPED_RANGES.leadAmps);
      return isOut !== null || sourceVolts <= casualtyVolts ? 'value-out-of-range' : null;
    },
    apply: (job, event) => {
      const { leadSetId } = job.plan!;
      const reading = { ...event.data, at: timeOf(event), leadSetId: leadSetId! };
      return { ...job, leadReadings: [...job.leadReadings, reading] };
    },
  },
  'latch.tried': {
    refuse: (job, { data }, { machine, kit }) => {
      const ways = nothingOpens(machine, kit, job.latches ?? []);
      return ways === null || ways.opened || !ways.places.includes(data.place) ? 'latch-not-to-try' : null;
    },
    apply: (job, event) => ({
      ...job,
      latches: [...(job.latches ?? []), { ...event.data, at: timeOf(event) }],
    }),
  },
  'van.called': {
    refuse: (job, { data }) => {
      if (outOfRange('', data.minutes, TYPED_RANGES.fetchMinutes)) return 'value-out-of-range';
      return job.vans?.some((v) => v.vanId === data.vanId) ? 'van-already-called' : null;
    },
    apply: (job, event) => {
      const { vanId, minutes } = event.data;
      const asked: VanAsked = { vanId, minutes, calledAt: timeOf(event), arrivedAt: null };
      return { ...job, vans: [...(job.vans ?? []), asked] };
    },
  },
  'van.arrived': {
    refuse: (job, { data }) =>
      job.vans?.some((v) => v.vanId === data.vanId && v.arrivedAt !== null) ? 'van-already-here' : null,
    apply: (job, event) => {
      const { vanId } = event.data;
      const asked = job.vans?.find((v) => v.vanId === vanId) ?? { vanId, minutes: null, calledAt: null };
      const others = (job.vans ?? []).filter((v) => v.vanId !== vanId);
      return { ...job, vans: [...others, { ...asked, arrivedAt: timeOf(event) }] };
    },
  },
};

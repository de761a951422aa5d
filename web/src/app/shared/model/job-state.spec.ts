import { detailOf, event, JOB_ID, opened } from '../../../testing/fixtures';
import {
  selectEvents,
  selectJob,
  selectHookupRun,
  selectOptions,
  selectUndoable,
} from '../job/job-selectors';
import { hasGap, JobActions, jobFeature, type JobState } from './job-state';

const { reducer } = jobFeature;
type Action = Parameters<typeof reducer>[1];

function after(...actions: Action[]): JobState {
  const start = reducer(undefined, { type: 'start' } as unknown as Action);
  return [JobActions.opened({ jobId: JOB_ID }), ...actions].reduce(reducer, start);
}
const open = opened();
const loaded = (waiting: Parameters<typeof JobActions.loaded>[0]['waiting'] = []) =>
  JobActions.loaded({ jobId: JOB_ID, detail: detailOf([open]), waiting });
const ids = (state: JobState): string[] =>
  selectEvents.projector(state.logged, state.pending).map((e) => e.id);

describe('the job slice', () => {
  it('holds a reported event until the server has it', () => {
    const tap = event('symptom.recorded', { symptom: 'silence' });
    const pending = after(loaded(), JobActions.reported({ event: tap }));
    expect(pending.pending).toEqual([tap]);
    const saved = reducer(
      pending,
      JobActions.acknowledged({ event: tap, revision: 2, at: '2027-01-15T02:41:00Z' }),
    );
    expect(saved.pending).toEqual([]);
    expect(ids(saved)).toEqual([open.id, tap.id]);
  });

  it('counts an event once however often it is heard', () => {
    const tap = event('symptom.recorded', { symptom: 'silence' });
    const heard = JobActions.received({ event: tap, revision: 2 });
    const acknowledged = JobActions.acknowledged({ event: tap, revision: 2, at: '' });
    expect(ids(after(loaded(), JobActions.reported({ event: tap }), heard, acknowledged, heard))).toEqual([
      open.id,
      tap.id,
    ]);
  });

  it('knows the last event of another device from the echo of its own', () => {
    const own = event('symptom.recorded', { symptom: 'silence' });
    const theirs = event('polarity.proved', { signs: ['mark', 'meter'] });
    const reported = JobActions.reported({ event: own });
    const echo = JobActions.received({ event: own, revision: 2 });
    const taken = JobActions.acknowledged({ event: own, revision: 2, at: '' });
    expect(after(loaded(), reported, echo, taken).elsewhere).toBeNull();
    expect(after(loaded(), reported, taken, echo).elsewhere).toBeNull();
    const heard = JobActions.received({ event: theirs, revision: 3 });
    expect(after(loaded(), reported, taken, heard, echo).elsewhere).toEqual(theirs);
    const ofAnother = JobActions.received({ event: { ...theirs, jobId: 'another' }, revision: 3 });
    expect(after(loaded(), ofAnother).elsewhere).toBeNull();
    expect(after(loaded(), heard, JobActions.left()).elsewhere).toBeNull();
  });

  it('moves what it knows of the server’s clock only as far as an answer proves', () => {
    const told = (...spans: [number, number][]): number =>
      after(loaded(), ...spans.map(([leastMs, mostMs]) => JobActions.clockTold({ leastMs, mostMs })))
        .clockAheadMs;
    // Both clocks agree, and a busy server took nine seconds over two taps in flight.
    expect(told([-9_000, 20], [-9_000, 4_000])).toBe(0);
    // The device is an hour back; a slow answer after a quick one takes nothing away.
    expect(told([3_599_900, 3_600_020], [3_590_000, 3_600_500])).toBe(3_599_900);
    // Set right meanwhile.
    expect(told([3_599_900, 3_600_020], [-80, 5])).toBe(5);
    expect(
      after(loaded(), JobActions.clockTold({ leastMs: 50, mostMs: 90 }), JobActions.left()).clockAheadMs,
    ).toBe(50);
  });

  it('keeps the server’s order when events arrive out of it', () => {
    const [first, second] = [
      event('symptom.recorded', { symptom: 'silence' }),
      event('symptom.recorded', { symptom: 'one-click' }),
    ];
    const state = after(
      loaded(),
      JobActions.received({ event: second, revision: 3 }),
      JobActions.acknowledged({ event: first, revision: 2, at: '' }),
    );
    expect(ids(state)).toEqual([open.id, first.id, second.id]);
  });

  it('names no battery of the vehicle from its change, or the undoing of one, until the server has told it anew', () => {
    const rating = { chemistry: 'agm', capacityAh: 70, ccaAmps: 700, ccaStandard: 'EN' } as const;
    const fitted = event('battery.replaced', { battery: 0, rating });
    const detail = { ...detailOf([open]), batteries: [{ id: 'old' }] as never };
    const there = JobActions.loaded({ jobId: JOB_ID, detail, waiting: [] });
    const named = (...actions: Action[]): number => after(there, ...actions).detail!.batteries.length;
    expect(named(JobActions.reported({ event: event('symptom.recorded', { symptom: 'silence' }) }))).toBe(1);
    expect(named(JobActions.reported({ event: fitted }))).toBe(0);
    const again = { ...detail, events: [open, fitted] };
    const changed = [
      JobActions.received({ event: fitted, revision: 2 }),
      JobActions.loaded({ jobId: JOB_ID, detail: again, waiting: [] }),
    ];
    expect(named(...changed)).toBe(1);
    const undone = event('event.undone', { eventId: fitted.id });
    expect(named(...changed, JobActions.received({ event: undone, revision: 3 }))).toBe(0);
  });

  it('ignores an event of another job', () => {
    const other = { ...event('symptom.recorded', { symptom: 'silence' }), jobId: 'other' };
    expect(ids(after(loaded(), JobActions.received({ event: other, revision: 2 })))).toEqual([open.id]);
  });

  it('lets go of a tap that was refused, dropped or is kept no more', () => {
    const tap = event('symptom.recorded', { symptom: 'silence' });
    const reported = after(loaded(), JobActions.reported({ event: tap }));
    for (const gone of [
      JobActions.refused({ event: tap, why: 'No.' }),
      JobActions.leftUnsent({ event: tap }),
    ])
      expect(reducer(reported, gone).pending).toEqual([]);
  });

  it('loses nothing to an answer that is older than what was heard since', () => {
    const tap = event('symptom.recorded', { symptom: 'silence' });
    const kept = event('symptom.recorded', { symptom: 'one-click' });
    const state = after(
      JobActions.reported({ event: kept }),
      JobActions.received({ event: tap, revision: 2 }),
      loaded(),
    );
    expect(ids(state)).toEqual([open.id, tap.id, kept.id]);
  });

  it('shows what the device holds until the server has answered, and then the server’s', () => {
    const tap = event('symptom.recorded', { symptom: 'silence' });
    const { events: _events, ...detail } = detailOf([open]);
    const restored = JobActions.restored({
      jobId: JOB_ID,
      detail: { ...detail, earlierFlatCalls: 7 },
      logged: [{ event: open, revision: 1 }],
      waiting: [tap],
    });
    const held = after(restored);
    expect(held.detail!.earlierFlatCalls).toBe(7);
    expect(ids(held)).toEqual([open.id, tap.id]);
    expect(after(loaded(), restored).detail!.earlierFlatCalls).toBe(0);
    expect(ids(reducer(held, loaded()))).toEqual([open.id, tap.id]);
  });

  it('sees a gap between the events that it knows', () => {
    const entry = (revision: number) => ({ event: open, revision });
    expect(hasGap([entry(1), entry(2)])).toBeFalse();
    expect(hasGap([entry(1), entry(3)])).toBeTrue();
    expect(hasGap([entry(2)])).toBeTrue();
    expect(hasGap([])).toBeFalse();
  });

  it('takes up what was kept on the device, but not what the server already has', () => {
    const kept = event('symptom.recorded', { symptom: 'silence' });
    expect(after(loaded([kept, open])).pending).toEqual([kept]);
  });
});

describe('the job selectors', () => {
  const rootOf = (state: JobState) => ({ job: state, kit: { vans: [], problem: null } });

  it('fold pending events with the rest, so that a tap shows at once', () => {
    const tap = event('symptom.recorded', { symptom: 'rapid-click' });
    const state = after(loaded(), JobActions.reported({ event: tap }));
    expect(selectJob(rootOf(state))?.symptoms).toEqual(['rapid-click']);
    expect(selectUndoable(rootOf(state))?.id).toBe(tap.id);
  });

  it('do not solve the options again for a tap that changes nothing of them', () => {
    const before = after(loaded());
    const options = selectOptions(rootOf(before));
    const tapped = reducer(
      before,
      JobActions.reported({ event: event('symptom.recorded', { symptom: 'silence' }) }),
    );
    expect(selectOptions(rootOf(tapped))).toBe(options);
    const read = event('reading.taken', {
      kind: 'rest',
      volts: 11.9,
      battery: 0,
      tempC: -4,
      source: 'typed',
    });
    expect(selectOptions(rootOf(reducer(tapped, JobActions.reported({ event: read }))))).not.toBe(options);
  });

  it('offer the first step of the chosen source, then the next', () => {
    const { option, crank, outlook } = selectOptions(rootOf(after(loaded())))[0]!;
    const plan = event('plan.chosen', {
      optionId: option.id,
      sourceId: option.sourceId,
      leadSetId: option.leadSetId,
      sourceKind: option.sourceKind,
      outlook: outlook!,
      odds: null,
      starterVolts: crank!.starterVolts,
      starterAmps: crank!.starterAmps,
      rpm: crank!.rpm,
      neededRpm: crank!.neededRpm,
      wakeVolts: null,
      postVolts: 10.6,
      waitMinutes: 3,
      chargeOnly: false,
      inputs: [],
    });
    const planned = after(loaded(), JobActions.reported({ event: plan }));
    expect(selectHookupRun(rootOf(planned)).next?.action).toEqual({ kind: 'confirm', what: 'all-off' });
    const confirmed = reducer(
      planned,
      JobActions.reported({ event: event('step.confirmed', { step: 'all-off' }) }),
    );
    expect(selectHookupRun(rootOf(confirmed)).next?.action).toEqual(
      jasmine.objectContaining({ kind: 'attach', clamp: 'redCasualty' }),
    );
  });
});

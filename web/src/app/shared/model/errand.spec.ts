import type { BoardCall, NewCall } from '@voltrek/contracts';
import { event, opened } from '../../../testing/fixtures';
import type { JobEvent } from '@voltrek/core/job';
import { callErrand, NOT_NUMBERED, withUnsent } from './errand';
import { jobsOpenedHere } from '../sync/jobs-opened-here';

const NEW_CALL: NewCall = {
  id: 'call-9',
  title: 'Small car',
  placeName: 'Ferry slip',
  said: 'clicks',
  ambientC: -6,
  urgent: true,
  plate: 'OF 1',
  modelId: 'car',
};
const NONE = new Map<string, never>();
const AT = '2027-01-15T02:40:00.000Z';

describe('a call that waits on this device', () => {
  it('names its vehicle by an id of this device, unless it is known already', () => {
    const fresh = callErrand(NEW_CALL, null, AT);
    expect(fresh.call.newVehicleId).toBe(fresh.vehicleId);
    expect([fresh.vehicle.plate, fresh.modelId]).toEqual(['OF 1', 'car']);
    const known = {
      vehicleId: 'v1',
      vehicle: { plate: 'QX 1', fleetNumber: null, serialNumber: null },
      modelId: 'van',
    };
    const repeat = callErrand(NEW_CALL, known, AT);
    expect(repeat.call.newVehicleId).toBeUndefined();
    expect([repeat.vehicleId, repeat.vehicle.plate, repeat.modelId]).toEqual(['v1', 'QX 1', 'van']);
  });

  it('stands first on the board without a number, until the server has it', () => {
    const errand = callErrand(NEW_CALL, null, AT);
    const board = withUnsent([], [errand], NONE);
    expect(board.map((c) => [c.number, c.state, c.job, c.receivedAt])).toEqual([
      [NOT_NUMBERED, 'waiting', null, AT],
    ]);
    const taken = { ...board[0]!, number: 12 };
    expect(withUnsent([taken], [errand], NONE)).toEqual([taken]);
  });

  it('shows the job that was opened on it here, as far as it has come, and leaves every other call as it is', () => {
    const errand = callErrand({ ...NEW_CALL, id: 'call-1' }, null, AT);
    const open = opened();
    const symptom = event('symptom.recorded', { symptom: 'silence' });
    const other = { ...withUnsent([], [callErrand(NEW_CALL, null, AT)], NONE)[0]!, number: 3 } as BoardCall;
    const of = (waiting: readonly JobEvent[]) => withUnsent([other], [errand], jobsOpenedHere(waiting));
    expect(open.type === 'job.opened' && open.data.callId).toBe('call-1');
    expect(of([open])[0]!.job).toEqual(jasmine.objectContaining({ id: open.jobId, stage: 'scene' }));
    expect(of([open, symptom])[0]!.job!.stage).toBe('checks');
    const closed = of([open, event('job.closed', { note: '' })])[0]!;
    expect([closed.state, closed.job!.state]).toEqual(['done', 'closed']);
    expect(of([open])[1]).toBe(other);
  });
});

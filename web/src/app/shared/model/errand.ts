import type { BoardCall, Call, JobSummary, NewCall, NewExam, VehicleNumbers } from '@voltrek/contracts';
import type { Machine } from '@voltrek/core/machine';

/** A request that this device sends beside the events of jobs, and keeps while no server answers. */
export type Errand = {
  readonly id: string;
  /** When it was kept, ISO 8601. */
  readonly at: string;
  /** The server's refusal; null while it only waits. */
  readonly why: string | null;
} & (
  | {
      readonly kind: 'call';
      readonly call: NewCall;
      /** The vehicle that it is about, as far as it is known here. */
      readonly vehicleId: string;
      readonly vehicle: VehicleNumbers;
      readonly modelId: string;
    }
  | { readonly kind: 'entry'; readonly machine: Machine; readonly by: string; readonly note: string }
  /** An exam that was taken: what was done in it. */
  | { readonly kind: 'exam'; readonly exam: NewExam }
  /** A picture of a machine, or of a job. The picture itself stays in the device's store. */
  | { readonly kind: 'photo'; readonly modelId: string; readonly by: string }
  | { readonly kind: 'job-photo'; readonly jobId: string; readonly by: string }
);
/** An errand that carries a picture: no tap waits for it. */
export type PhotoErrand = Extract<Errand, { readonly kind: 'photo' | 'job-photo' }>;
export const isPhoto = (errand: Errand): errand is PhotoErrand =>
  errand.kind === 'photo' || errand.kind === 'job-photo';
export type CallErrand = Extract<Errand, { readonly kind: 'call' }>;

/** A call that no server knows yet has no number. */
export const NOT_NUMBERED = 0;

/** A call that waits on this device, as the board shows calls. */
function boardCallOf({ call, at, vehicleId, vehicle, modelId }: CallErrand): BoardCall {
  const { id, title, placeName, said, ambientC, urgent } = call;
  return {
    ...{ id, title, placeName, said, ambientC, urgent, modelId, vehicleId },
    number: NOT_NUMBERED,
    receivedAt: at,
    callerId: null,
    state: 'waiting',
    vanId: call.vanId ?? null,
    technicianId: call.technicianId ?? null,
    promisedAt: call.promisedAt ?? null,
    vehicle,
    caller: call.caller
      ? { id: '', name: call.caller.name, phone: call.caller.phone, noLetters: false, erasedAt: null }
      : null,
    job: null,
  };
}

/**
 * The board as this device knows it: the copy of the server, and what was opened here and waits.
 *
 * @param here jobs that were opened here, by the id of their call
 */
export function withUnsent(
  calls: readonly BoardCall[],
  errands: readonly Errand[],
  here: ReadonlyMap<string, JobSummary>,
): readonly BoardCall[] {
  const unsent = errands.flatMap((errand) =>
    errand.kind === 'call' && !calls.some(({ id }) => id === errand.call.id) ? [boardCallOf(errand)] : [],
  );
  return [...unsent, ...calls].map((call) => {
    const job = call.job ?? here.get(call.id) ?? null;
    return job === call.job ? call : { ...call, job, state: job?.state === 'closed' ? 'done' : 'taken' };
  });
}

/** The errand that carries a call typed in here. Its vehicle is known, or gets an id of this device. */
export function callErrand(
  call: NewCall,
  known: Pick<CallErrand, 'vehicleId' | 'vehicle' | 'modelId'> | null,
  at: string,
): CallErrand {
  const vehicleId = known?.vehicleId ?? crypto.randomUUID();
  return {
    id: call.id,
    at,
    why: null,
    kind: 'call',
    call: known ? call : { ...call, newVehicleId: vehicleId },
    vehicleId,
    vehicle: known?.vehicle ?? { plate: call.plate ?? null, fleetNumber: null, serialNumber: null },
    modelId: known?.modelId ?? call.modelId ?? '',
  };
}

/** A call of the board without what the board adds to it. */
export function callOf({ vehicle: _vehicle, caller: _caller, job: _job, ...call }: BoardCall): Call {
  return call;
}

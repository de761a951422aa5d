import { PROBLEM } from '@words/screens/state';
import { inject, Injectable } from '@angular/core';
import type { BoardCall, Call, JobDetail } from '@voltrek/contracts';
import type { EventData, JobEvent } from '@voltrek/core/job';
import { type HouseRules, settingsOf } from '@voltrek/core/rules';
import { Store } from '@ngrx/store';
import { firstValueFrom, from, timeout } from 'rxjs';
import { Api } from '../data/api';
import { Finder } from '../data/finder';
import { House, NOTHING_KNOWN_MS } from '../data/house';
import { isAway } from '../data/answer-to';
import { DeviceStore } from '../sync/device-store';
import { callOf, NOT_NUMBERED } from '../model/errand';
import { JobActions } from '../model/job-state';
import { newEvent } from './new-event';

/** The server is given this long before a job is opened on this device alone, ms. */
const ANSWER_MS = 6_000;

/** Opens the job of a call: on the server, or, where none answers, on this device until one does. */
@Injectable({ providedIn: 'root' })
export class OpenJob {
  private readonly api = inject(Api);
  private readonly finder = inject(Finder);
  private readonly house = inject(House);
  private readonly device = inject(DeviceStore);
  private readonly store = inject(Store);

  /**
   * @param ownVanId van that it is worked from where the call names none; empty for the first there is
   * @returns the job's id
   * @throws the refusal of the server, or the failure to reach it from a device without the machine
   */
  async open(call: BoardCall, ownVanId: string, by: string): Promise<string> {
    const vanId = call.vanId ?? ownVanId;
    const jobId = crypto.randomUUID();
    const { rules } = await this.house.rules();
    const opened = newEvent(jobId, by, 'job.opened', openedFrom(call, vanId, rules));
    if (call.number === NOT_NUMBERED) return this.openHere(call, opened, vanId, rules);
    const taken = firstValueFrom(this.api.append(opened).pipe(timeout(NOTHING_KNOWN_MS))).then(() => jobId);
    try {
      return await firstValueFrom(from(taken).pipe(timeout(ANSWER_MS)));
    } catch (error) {
      if (!isAway(error)) throw error;
      // A new device may hold no copy of the machine yet: then a slow server still opens the job.
      return Promise.any([taken, this.openHere(call, opened, vanId, rules)]).catch(() => taken);
    }
  }

  private async openHere(
    call: BoardCall,
    opened: JobEvent,
    vanId: string,
    rules: HouseRules,
  ): Promise<string> {
    const { jobId } = opened;
    await this.device.hold({ jobId, detail: await this.detailOf(call, vanId, rules), logged: [] });
    this.store.dispatch(JobActions.reported({ event: opened }));
    // It is on the screen from what this device keeps.
    await this.device.keep(opened);
    return jobId;
  }

  /** Returns the server's answer to the opened job, from the copy of the house. */
  private async detailOf(
    call: BoardCall,
    vanId: string,
    rules: HouseRules,
  ): Promise<Omit<JobDetail, 'events'>> {
    const pack = await this.finder.pack();
    const vans = await this.house.vans();
    const model = pack.models.find(({ machine }) => machine.id === call.modelId);
    const van = vans.find(({ id }) => id === vanId) ?? vans.find(({ retired }) => !retired);
    if (!model || !van) throw new RangeError(PROBLEM.notHeld);
    const donor = van.kit.find((item) => item.kind === 'donor');
    const known = pack.vehicles.find(({ vehicle }) => vehicle.id === call.vehicleId);
    const { id, modelId } = { id: call.vehicleId, modelId: call.modelId };
    return {
      call: callOf(call),
      machine: model.machine,
      confidence: model.confidence,
      kit: van.kit,
      donorMachine: pack.models.find(({ machine }) => machine.id === donor?.modelId)?.machine ?? null,
      rules,
      vehicle: known?.vehicle ?? {
        ...{ id, modelId, ...call.vehicle, ownerId: null, notes: '', revision: 1 },
      },
      batteries: known?.batteries ?? [],
      earlierFlatCalls: known?.flatCalls.length ?? 0,
      // The copy of the house holds no verdicts: they come with the network.
      earlier: null,
    };
  }
}

/** The opening of a job from its call, under these house rules. @param vanId empty where no van is named */
export function openedFrom(call: Call, vanId: string, rules: HouseRules): EventData['job.opened'] {
  const { id: callId, number: callNumber, title, placeName, modelId, vehicleId, ambientC } = call;
  return {
    ...{ callId, callNumber, title, placeName, modelId, vehicleId, ambientC },
    ...(vanId && { vanId }),
    rules: settingsOf(rules),
  };
}

import { inject, Injectable } from '@angular/core';
import type { AtlasEntry, Call, Exam } from '@voltrek/contracts';
import type { JobEvent } from '@voltrek/core/job';
import { Store } from '@ngrx/store';
import { firstValueFrom, type Observable, timeout } from 'rxjs';
import { Api } from '../data/api';
import { NotKept } from '../data/problem';
import { JobActions } from '../model/job-state';
import { DeviceActions } from './device-state';
import { DeviceStore } from './device-store';
import { type Errand, isPhoto, type PhotoErrand } from '../model/errand';
import { answerTo, isAway } from '../data/answer-to';

/** A request that takes longer is given up, ms. A photo may take as long as it moves. */
const ERRAND_MS = 30_000;

/** Wait for the server before an errand is kept here, ms. */
const ANSWER_MS = 6_000;

/** The server's answer to each kind of errand. */
interface Answers {
  readonly call: Call;
  readonly entry: AtlasEntry;
  readonly exam: Exam;
}
/** A photo takes longer: SendPhoto keeps it first. */
type Typed = Exclude<Errand, PhotoErrand>;

/** Keeps what is sent beside the events of jobs until the server has it: calls, atlas entries, photos. */
@Injectable({ providedIn: 'root' })
export class Errands {
  private readonly store = inject(Store);
  private readonly api = inject(Api);
  private readonly device = inject(DeviceStore);
  private readonly lines = { plain: line(), photos: line() };

  /** @throws NotKept where this device has no place for it */
  async keep(errand: Errand, photo: Blob | null = null): Promise<void> {
    if (!(await this.device.keepErrand(errand, photo))) throw new NotKept();
    this.store.dispatch(DeviceActions.errandKept({ errand }));
  }

  /**
   * Sends what was typed in just now, and keeps it where no server answers.
   *
   * @param answerMs how long the server is given, ms
   * @returns what the server answered; null where it waits on this device
   * @throws what the server said against it, or NotKept where neither the server nor this device has it
   */
  async offer<E extends Typed>(errand: E, answerMs = ANSWER_MS): Promise<Answers[E['kind']] | null> {
    try {
      const asked = this.request(errand, null).pipe(timeout(answerMs));
      return (await firstValueFrom(asked)) as Answers[E['kind']];
    } catch (error) {
      if (!isAway(error)) throw error;
      await this.keep(errand);
      return null;
    }
  }

  /**
   * Sends what waits, oldest first; what was refused waits to be looked at.
   *
   * @param withPhotos left out before a tap: no tap waits for a picture
   * @returns false while the server does not answer
   */
  async send(withPhotos: boolean): Promise<boolean> {
    const isThere = await this.lines.plain(() => this.sendAll((errand) => !isPhoto(errand)));
    return isThere && withPhotos ? this.lines.photos(() => this.sendAll(isPhoto)) : isThere;
  }

  /**
   * Why an event must wait: it stands on a call or an entry that the server would not take. Sent now it would be refused too, and all that follows
   * it; so its job waits until the errand is sent again or dropped by hand. Null where nothing stands in its way.
   */
  async standsBefore(event: JobEvent): Promise<string | null> {
    const { errand } =
      (await this.device.errands()).find(({ errand: kept }) => kept.why !== null && carries(kept, event)) ??
      {};
    return errand?.why ?? null;
  }

  /** Sends one that was refused once more. */
  async again({ id }: Errand): Promise<void> {
    await this.settle(id, null);
    await this.send(true);
  }

  async drop({ id }: Errand): Promise<void> {
    await this.device.dropErrand(id);
    this.store.dispatch(DeviceActions.errandGone({ id }));
  }

  private async sendAll(isMeant: (errand: Errand) => boolean): Promise<boolean> {
    for (const { errand, photo } of await this.device.errands()) {
      if (errand.why !== null || !isMeant(errand) || (await this.isEarly(errand))) continue;
      try {
        await firstValueFrom(this.request(errand, photo));
        await this.drop(errand);
        this.store.dispatch(JobActions.connectionChanged({ connected: true }));
      } catch (error) {
        const answer = answerTo(error);
        if (answer.kind === 'away' || answer.kind === 'unsigned') return false;
        await this.settle(errand.id, answer.kind === 'refused' || answer.kind === 'choked' ? answer.why : '');
      }
    }
    return true;
  }

  private request(errand: Errand, photo: Blob | null): Observable<unknown> {
    switch (errand.kind) {
      case 'call':
        return this.api.openCall(errand.call).pipe(timeout(ERRAND_MS));
      case 'entry':
        return this.api.addEntry(errand.machine, errand.by, errand.note).pipe(timeout(ERRAND_MS));
      case 'exam':
        return this.api.addExam(errand.exam).pipe(timeout(ERRAND_MS));
      case 'photo':
        return this.api.addPhoto(errand.modelId, errand.by, photo ?? new Blob(), errand.id);
      case 'job-photo':
        return this.api.addJobPhoto(errand.jobId, errand.by, photo ?? new Blob(), errand.id);
    }
  }

  /** The server does not know the job of a photo yet: its first tap waits here too. */
  private async isEarly(errand: Errand): Promise<boolean> {
    if (errand.kind !== 'job-photo') return false;
    return (await this.device.waitingFor(errand.jobId)).some(({ type }) => type === 'job.opened');
  }

  private async settle(id: string, why: string | null): Promise<void> {
    await this.device.tellErrand(id, why);
    this.store.dispatch(DeviceActions.errandTold({ id, why }));
  }
}

/** An errand carries what this event is about. */
function carries(errand: Errand, event: JobEvent): boolean {
  if (errand.kind === 'call') return event.type === 'job.opened' && event.data.callId === errand.call.id;
  return (
    errand.kind === 'entry' &&
    (event.type === 'model.identified' || event.type === 'job.opened') &&
    event.data.modelId === errand.machine.id
  );
}

/** Does one thing after the other: two jobs may ask at once. */
function line(): <T>(what: () => Promise<T>) => Promise<T> {
  let last: Promise<unknown> = Promise.resolve();
  return (what) => {
    const next = last.then(what);
    last = next.catch(() => undefined);
    return next;
  };
}

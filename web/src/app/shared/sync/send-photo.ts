import { inject, Injectable } from '@angular/core';
import type { AtlasEntry } from '@voltrek/contracts';
import { firstValueFrom, timeout } from 'rxjs';
import { Api } from '../data/api';
import { isAway } from '../data/answer-to';
import type { Errand } from '../model/errand';
import { Errands } from './errands';

/** Wait for the server, ms; from then on the photo goes in its own time. */
const ANSWER_MS = 12_000;

/** Sends a photo of a machine or of a job. This device keeps it from before it is sent until a server has it. */
@Injectable({ providedIn: 'root' })
export class SendPhoto {
  private readonly api = inject(Api);
  private readonly errands = inject(Errands);

  /**
   * @returns the entry with the photo; null where it waits on this device
   * @throws what the server said against it, or NotKept where neither the server nor this device has it
   */
  async send(modelId: string, by: string, photo: File): Promise<AtlasEntry | null> {
    const id = crypto.randomUUID();
    const errand: Errand = { id, at: new Date().toISOString(), why: null, kind: 'photo', modelId, by };
    const keeping = this.errands.keep(errand, photo);
    // A photo that cannot be kept may still be sent.
    await keeping.catch(() => undefined);
    try {
      const entry = await firstValueFrom(this.api.addPhoto(modelId, by, photo, id).pipe(timeout(ANSWER_MS)));
      await this.errands.drop(errand);
      return entry;
    } catch (error) {
      if (isAway(error)) return keeping.then(() => null);
      await this.errands.drop(errand);
      throw error;
    }
  }

  /**
   * Keeps a photo of a job here, and sends it after the taps of that job.
   *
   * @param id the photo's own, as the log of the job has it
   * @throws what the server said against it, where this device has no place for it
   */
  async sendOfJob(jobId: string, id: string, by: string, photo: File): Promise<void> {
    const errand: Errand = { id, at: new Date().toISOString(), why: null, kind: 'job-photo', jobId, by };
    try {
      await this.errands.keep(errand, photo);
    } catch {
      await firstValueFrom(this.api.addJobPhoto(jobId, by, photo, id));
      return;
    }
    void this.errands.send(true);
  }
}

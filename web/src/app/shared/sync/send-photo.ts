import { inject, Injectable } from '@angular/core';
import type { AtlasEntry } from '@voltrek/contracts';
import { firstValueFrom } from 'rxjs';
import { Api } from '../state/api';
import { isAway } from './answer-to';
import { Errands } from './errands';

/** Sends a photo of a machine, or keeps it on this device until a server answers. */
@Injectable({ providedIn: 'root' })
export class SendPhoto {
  private readonly api = inject(Api);
  private readonly errands = inject(Errands);

  /**
   * @returns the entry with the photo; null where it is kept here meanwhile
   * @throws what the server said against it
   */
  async send(modelId: string, by: string, photo: File): Promise<AtlasEntry | null> {
    const id = crypto.randomUUID();
    try {
      return await firstValueFrom(this.api.addPhoto(modelId, by, photo, id));
    } catch (error) {
      if (!isAway(error)) throw error;
      await this.errands.keep(
        { id, at: new Date().toISOString(), why: null, kind: 'photo', modelId, by },
        photo,
      );
      return null;
    }
  }
}

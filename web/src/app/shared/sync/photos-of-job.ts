import { inject, Injectable } from '@angular/core';
import { catchError, firstValueFrom, of } from 'rxjs';
import { Api } from '../data/api';
import { DeviceStore } from './device-store';

/** Finds the pictures of jobs. */
@Injectable({ providedIn: 'root' })
export class PhotosOfJob {
  private readonly api = inject(Api);
  private readonly device = inject(DeviceStore);

  /** Returns a picture from this device while it waits here, else from the server; null where neither has it. */
  async find(jobId: string, photoId: string): Promise<Blob | null> {
    const waiting = (await this.device.errands()).find(({ errand }) => errand.id === photoId)?.photo;
    return waiting ?? firstValueFrom(this.api.jobPhoto(jobId, photoId).pipe(catchError(() => of(null))));
  }
}

import { ChangeDetectionStrategy, Component, effect, inject, input, signal } from '@angular/core';
import { jpegUrl } from '../shared/ui/jpeg-url';
import { PhotosOfJob } from '../shared/sync/photos-of-job';
import { messagesOf } from '@words/messages-of';

const T = messagesOf('jobPhoto');

/** A picture of a job: from this device while it waits here, else from the server. It says so where neither has it. */
@Component({
  selector: 'vt-job-photo',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (source() === null) {
      <span class="dim">{{ t.missing }}</span>
    } @else if (source(); as src) {
      <img [src]="src" [alt]="caption() || t.untitled" />
    }
  `,
  styles: `
    img {
      display: block;
      max-width: 100%;
      max-height: 240px;
      border-radius: 4px;
    }
  `,
})
export class JobPhotoView {
  protected readonly t = T;

  readonly jobId = input.required<string>();
  readonly photoId = input.required<string>();
  readonly caption = input('');

  private readonly photos = inject(PhotosOfJob);
  /** Undefined until it was looked for; null where nobody has it. */
  protected readonly source = signal<string | null | undefined>(undefined);

  constructor() {
    effect((onCleanup) => {
      let isOver = false;
      onCleanup(() => (isOver = true));
      void this.load(this.jobId(), this.photoId()).then((source) => {
        if (!isOver) this.source.set(source);
      });
    });
  }

  private async load(jobId: string, photoId: string): Promise<string | null> {
    const picture = await this.photos.find(jobId, photoId);
    return picture && jpegUrl(picture);
  }
}

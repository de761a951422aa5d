import { ChangeDetectionStrategy, Component, inject, input, linkedSignal, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import { messagesOf } from '@words/messages-of';
import { problemText } from '../shared/data/problem';
import { sessionFeature } from '../shared/data/session';
import { Reporter } from '../shared/job/reporter';
import { SendPhoto } from '../shared/sync/send-photo';

const T = messagesOf('addPhoto');

/** Takes a picture for the log of a job, with a few words. */
@Component({
  selector: 'vt-add-photo',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <label class="key opens-file">
      {{ t.take }}
      <input
        type="file"
        class="visually-hidden"
        accept="image/jpeg,image/png,image/webp"
        [attr.capture]="'environment'"
        #picker
        (change)="photo.set(picker.files?.[0] ?? null); picker.value = ''"
      />
    </label>
    @if (photo(); as taken) {
      <form (submit)="$event.preventDefault(); save(taken)">
        <label>
          <span>{{ t.caption({ name: taken.name }) }}</span>
          <input
            class="field"
            autocomplete="off"
            maxlength="200"
            [value]="caption()"
            #words
            (input)="caption.set(words.value)"
          />
        </label>
        <button
          type="button"
          class="key"
          [attr.aria-pressed]="showsPerson()"
          (click)="showsPerson.set(!showsPerson())"
        >
          {{ t.showsPerson }}
        </button>
        <button type="submit" class="key strong">{{ t.save }}</button>
        <button type="button" class="key" (click)="photo.set(null)">{{ t.cancel }}</button>
      </form>
    }
    @if (problem(); as text) {
      <p class="problem" role="alert">{{ text }}</p>
    }
  `,
  styles: `
    :host {
      display: contents;
    }
    form {
      flex: 1 1 100%;
      display: flex;
      flex-wrap: wrap;
      align-items: end;
      gap: 8px;
    }
    form label {
      flex: 1 1 240px;
    }
    .field {
      width: 100%;
    }
  `,
})
export class AddPhoto {
  protected readonly t = T;

  readonly jobId = input.required<string>();

  private readonly reporter = inject(Reporter);
  private readonly photos = inject(SendPhoto);
  private readonly crewId = inject(Store).selectSignal(sessionFeature.selectCrewId);

  protected readonly photo = signal<File | null>(null);
  /** Each picture gets its own words and its own mark. */
  protected readonly caption = linkedSignal<File | null, string>({
    source: this.photo,
    computation: () => '',
  });
  protected readonly showsPerson = linkedSignal<File | null, boolean>({
    source: this.photo,
    computation: () => false,
  });
  protected readonly problem = signal<string | null>(null);

  /** The picture is kept before its words: no log names a picture that was lost. */
  protected async save(photo: File): Promise<void> {
    const photoId = crypto.randomUUID();
    const data = { photoId, caption: this.caption().trim(), showsPerson: this.showsPerson() };
    this.photo.set(null);
    this.problem.set(null);
    try {
      await this.photos.sendOfJob(this.jobId(), photoId, this.crewId(), photo);
      this.reporter.report('photo.added', data);
    } catch (error) {
      this.problem.set(problemText(error));
    }
  }
}

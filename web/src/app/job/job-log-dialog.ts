import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { type JobEvent, undoneIds } from '@voltrek/core/job';
import { NgbActiveModal } from '@ng-bootstrap/ng-bootstrap/modal';
import { Store } from '@ngrx/store';
import { eventDetail, LOG_KINDS, type LogKind, logKindOf } from '@words/event-detail';
import { EVENT_WORDS } from '@words/event-words';
import { nameOf } from '@words/figures';
import { messagesOf } from '@words/messages-of';
import { crewCopy } from '../shared/data/crew';
import { selectEvents, selectWork } from '../shared/job/job-selectors';
import { Reporter } from '../shared/job/reporter';
import { dateText } from '../shared/model/dates';
import { AddPhoto } from './add-photo';
import { JobPhotoView } from './job-photo';
import { Choices } from '../shared/ui/choices';

const T = messagesOf('jobLogDialog');

/** Everything that was done on a job, newest first, and a line to add in one's own words. It opens at every stage, and of a closed job. */
@Component({
  selector: 'vt-job-log-dialog',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [AddPhoto, Choices, JobPhotoView],
  template: `
    <div class="sheet">
      <h1 id="job-log-title">{{ t.title }}</h1>
      @if (!isClosed()) {
        <div class="adds">
          <form class="note" (submit)="$event.preventDefault(); add(line)">
            <input
              class="field"
              autocomplete="off"
              maxlength="400"
              [attr.aria-label]="t.note"
              [placeholder]="t.hint"
              #line
              (input)="typed.set(line.value)"
            />
            <button type="submit" class="key strong" [disabled]="typed().trim() === ''">{{ t.add }}</button>
          </form>
          @if (work(); as w) {
            <vt-add-photo [jobId]="w.job.id" />
          }
        </div>
      }
      <div class="keys" role="radiogroup" [attr.aria-label]="t.which">
        @for (kind of kinds; track kind) {
          <button
            type="button"
            class="key"
            role="radio"
            [attr.aria-checked]="kind === shown()"
            (click)="shown.set(kind)"
          >
            {{ t[kind] }}
          </button>
        }
      </div>
      <ol class="ruled" tabindex="0" [attr.aria-label]="t.title">
        @for (entry of entries(); track entry.id) {
          <li [class.back]="entry.isBack">
            <span class="dim">{{ entry.when }}</span>
            <span class="what">
              <strong>{{ entry.name }}</strong> <span>{{ entry.detail }}</span>
              @if (entry.isBack) {
                <em>{{ t.takenBack }}</em>
              }
            </span>
            @if (entry.photo && !entry.isBack) {
              <vt-job-photo
                [jobId]="entry.photo.jobId"
                [photoId]="entry.photo.photoId"
                [caption]="entry.detail"
              />
            }
          </li>
        } @empty {
          <li class="dim">{{ t.none }}</li>
        }
      </ol>
      <div class="keys">
        <button type="button" class="key" (click)="modal.dismiss()">{{ t.close }}</button>
      </div>
    </div>
  `,
  styles: `
    @use 'media';

    .sheet {
      gap: 12px;
    }
    .adds {
      display: flex;
      flex-wrap: wrap;
      gap: 8px;
    }
    .note {
      flex: 1 1 320px;
      display: flex;
      gap: 8px;
    }
    .field {
      flex: 1;
      min-width: 0;
    }
    ol {
      max-height: 46vh;
      overflow: auto;
    }
    li {
      display: grid;
      grid-template-columns: 150px 1fr;
      gap: 10px;
      padding: 6px 0;
      font-size: var(--text-s);
      line-height: 1.3;
    }
    .what {
      display: flex;
      flex-wrap: wrap;
      gap: 0 8px;
      overflow-wrap: anywhere;
    }
    vt-job-photo {
      grid-column: 2;
    }
    .back strong,
    .back .what > span {
      text-decoration: line-through;
    }
    @include media.phone {
      li {
        grid-template-columns: 1fr;
        gap: 0;
      }
      vt-job-photo {
        grid-column: 1;
      }
    }
  `,
})
export class JobLogDialog {
  protected readonly t = T;
  protected readonly kinds = LOG_KINDS;

  protected readonly modal = inject(NgbActiveModal);
  private readonly store = inject(Store);
  private readonly reporter = inject(Reporter);
  private readonly events = this.store.selectSignal(selectEvents);
  protected readonly work = this.store.selectSignal(selectWork);
  private readonly crew = this.store.selectSignal(crewCopy.selectCopy);

  protected readonly typed = signal('');
  protected readonly shown = signal<LogKind>('all');
  protected readonly isClosed = computed(() => (this.work()?.job.closedAt ?? null) !== null);
  protected readonly entries = computed(() => {
    const events = this.events();
    const back = undoneIds(events);
    return events
      .filter(({ type }) => type !== 'event.undone' && this.isShown(type))
      .map((event) => this.entryOf(event, back.has(event.id)))
      .reverse();
  });

  private isShown(type: JobEvent['type']): boolean {
    return this.shown() === 'all' || logKindOf(type) === this.shown();
  }

  private entryOf(event: JobEvent, isBack: boolean) {
    const machine = this.work()?.machine;
    return {
      ...{ id: event.id, isBack, name: EVENT_WORDS[event.type] },
      when: T.by({ time: dateText(event.at, 'seconds'), name: nameOf(this.crew(), event.by) }),
      detail: machine ? eventDetail(event, machine) : '',
      photo: event.type === 'photo.added' ? { jobId: event.jobId, photoId: event.data.photoId } : null,
    };
  }

  protected add(line: HTMLInputElement): void {
    const text = this.typed().trim();
    if (text === '') return;
    this.reporter.report('note.added', { text });
    line.value = '';
    this.typed.set('');
  }
}

import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import type { DueFollowUp } from '@voltrek/contracts';
import { FOLLOW_UP_WORDS } from '@words/follow-up-words';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { Actions, ofType } from '@ngrx/effects';
import { Store } from '@ngrx/store';
import { language } from '../shared/model/language';
import { filter, firstValueFrom } from 'rxjs';
import { JobActions } from '../shared/model/job-state';
import { Reporter } from '../shared/job/reporter';
import { deviceFeature } from '../shared/sync/device-state';
import { OpenJob } from '../shared/job/open-job';
import { Api } from '../shared/data/api';
import { sessionFeature } from '../shared/data/session';
import { loaded } from '../shared/data/loaded';
import { problemText } from '../shared/data/problem';
import { localDay } from '../shared/model/dates';
import { RecordActs, RecordList, RecordRow } from '../shared/ui/record-list';
import { When } from '../shared/ui/when';
import { FOLLOW_UPS_PAGE as T } from '@words/screens/followups';

/** Air of a job that nobody has looked at yet, °C: Scene asks. */
const USUAL_AIR_C = 10;

/** The promises of verdicts, by the day each is due. */
@Component({
  selector: 'vt-follow-ups-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RecordActs, RecordList, RecordRow, RouterLink, When],
  host: { class: 'page', tabindex: '0' },
  template: `
    <header>
      <h1>{{ t.followUps }}</h1>
      @if (isReady()) {
        <span class="dim" role="status">{{ t.toDoLate({ due: due().length, late: late() }) }}</span>
      }
      <a
        class="key"
        [href]="'/api/follow-ups/calendar.ics?language=' + language()"
        download="follow-ups.ics"
        >{{ t.calendarFile }}</a
      >
    </header>
    @if (problem(); as text) {
      <p class="problem" role="alert">{{ text }}</p>
    }
    <vt-record-list [link]="linkOf" [keyOf]="keyOf" [none]="isReady() ? t.nothingIsDue : null">
      <ng-template [vtRow]="due()" let-f>
        <strong>{{ f.dueOn | when: 'weekdayDate' }}</strong>
        <span class="late">{{ f.dueOn < today ? t.late : '' }}</span>
        <span>{{ words[f.kind] }}</span>
        <span
          >{{ f.title }} <span class="dim">{{ f.placeName }}</span></span
        >
      </ng-template>
      <ng-template [vtRowActs]="due()" let-f>
        @if (f.kind === 'recheck') {
          <a class="key" [routerLink]="linkOf(f)">{{ t.recheck }}</a>
        } @else {
          @if (f.kind === 'charge') {
            <button type="button" class="key" [disabled]="isOpening()" (click)="charge(f)">
              {{ t.openJob }}
            </button>
          }
          <button type="button" class="key" (click)="finish(f)">{{ t.done }}</button>
        }
      </ng-template>
    </vt-record-list>
  `,
  styles: `
    @use 'media';

    vt-record-list {
      --columns: 170px 50px 320px 1fr;
    }
    .late {
      font-weight: 700;
      color: var(--bad);
    }
    @include media.phone {
      vt-record-list {
        --columns: 1fr auto;
      }
      vt-record-list span:not(.late, .dim) {
        grid-column: 1 / -1;
      }
    }
  `,
})
export class FollowUpsPage {
  protected readonly t = T;
  protected readonly language = language;

  protected readonly words = FOLLOW_UP_WORDS;
  protected readonly today = localDay(new Date());
  private readonly api = inject(Api);
  private readonly listed = loaded(
    () => 'due',
    () => this.api.followUps(),
    [],
  );
  private readonly waiting = inject(Store).selectSignal(deviceFeature.selectWaiting);
  /** Without those that were done here and are on their way. */
  protected readonly due = computed(() =>
    this.listed
      .value()
      .filter(
        (f) =>
          !this.waiting().some(
            (e) => e.jobId === f.jobId && e.type === 'follow-up.done' && e.data.kind === f.kind,
          ),
      ),
  );
  protected readonly isReady = this.listed.isReady;
  protected readonly problem = this.listed.problem;
  protected readonly late = computed(() => this.due().filter((f) => f.dueOn < this.today).length);

  private readonly crewId = inject(Store).selectSignal(sessionFeature.selectCrewId);

  protected readonly isOpening = signal(false);
  private readonly opener = inject(OpenJob);
  private readonly reporter = inject(Reporter);
  private readonly router = inject(Router);
  private readonly vanId = inject(Store).selectSignal(sessionFeature.selectVanId);

  protected readonly linkOf = ({ jobId }: DueFollowUp): readonly string[] => ['/job', jobId, 'verdict'];
  protected readonly keyOf = ({ jobId, kind }: DueFollowUp): string => jobId + kind;

  constructor() {
    inject(Actions)
      .pipe(
        ofType(JobActions.acknowledged, JobActions.refused),
        filter(({ event }) => event.type === 'follow-up.done'),
        takeUntilDestroyed(),
      )
      .subscribe(() => this.listed.reload());
  }

  /** A charge that was promised is a job of its own on the same vehicle: its battery is read first, then put on. */
  protected async charge({ vehicleId, title, placeName }: DueFollowUp): Promise<void> {
    this.isOpening.set(true);
    try {
      const id = crypto.randomUUID();
      const entry = { id, title: T.charge({ title }).slice(0, 120), placeName, said: '', vehicleId };
      await firstValueFrom(this.api.openCall({ ...entry, ambientC: USUAL_AIR_C, urgent: false }));
      const call = (await firstValueFrom(this.api.board())).find((known) => known.id === id)!;
      const jobId = await this.opener.open(call, this.vanId(), this.crewId());
      void this.router.navigate(['/job', jobId]);
    } catch (error) {
      this.listed.tell(problemText(error));
      this.isOpening.set(false);
    }
  }

  /** Kept on the device and sent like every tap; the list shows what is still to do. */
  protected finish({ jobId, kind }: DueFollowUp): void {
    void this.reporter.reportFor(jobId, 'follow-up.done', { kind });
  }
}

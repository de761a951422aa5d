import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import type { DueFollowUp } from '@voltrek/contracts';
import { FOLLOW_UP_WORDS } from '@voltrek/contracts/words';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { Actions, ofType } from '@ngrx/effects';
import { Store } from '@ngrx/store';
import { filter, firstValueFrom } from 'rxjs';
import { JobActions } from '../shared/model/job-state';
import { Reporter } from '../shared/job/reporter';
import { deviceFeature } from '../shared/sync/device-state';
import { OpenJob } from '../shared/job/open-job';
import { Api } from '../shared/data/api';
import { sessionFeature } from '../shared/data/session';
import { problemText } from '../shared/data/problem';
import { localDay } from '../shared/model/dates';
import { When } from '../shared/ui/when';
import { FOLLOW_UPS_PAGE as T } from '@words/screens/followups';

/** Air of a job that nobody has looked at yet, °C: Scene asks. */
const USUAL_AIR_C = 10;

/** The promises of verdicts, by the day each is due. */
@Component({
  selector: 'vt-follow-ups-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink, When],
  host: { class: 'page', tabindex: '0' },
  template: `
    <header>
      <h1>{{ t.followUps }}</h1>
      @if (isReady()) {
        <span class="dim" role="status">{{ t.toDoLate(due().length, late()) }}</span>
      }
      <a class="key" href="/api/follow-ups/calendar.ics" download="follow-ups.ics">{{ t.calendarFile }}</a>
    </header>
    @if (problem(); as text) {
      <p class="problem" role="alert">{{ text }}</p>
    }
    <ul class="ruled">
      @for (f of due(); track f.jobId + f.kind) {
        <li>
          <a class="row" [routerLink]="['/job', f.jobId, 'verdict']">
            <strong>{{ f.dueOn | when: 'weekdayDate' }}</strong>
            <span class="late">{{ f.dueOn < today ? t.late : '' }}</span>
            <span>{{ words[f.kind] }}</span>
            <span
              >{{ f.title }} <span class="dim">{{ f.placeName }}</span></span
            >
          </a>
          @if (f.kind === 'recheck') {
            <a class="key" [routerLink]="['/job', f.jobId, 'verdict']">{{ t.recheck }}</a>
          } @else {
            @if (f.kind === 'charge') {
              <button type="button" class="key" [disabled]="isOpening()" (click)="charge(f)">
                {{ t.chargeItOpenAJob }}
              </button>
            }
            <button type="button" class="key" (click)="finish(f)">{{ t.done }}</button>
          }
        </li>
      } @empty {
        @if (isReady()) {
          <li class="dim">{{ t.nothingIsDue }}</li>
        }
      }
    </ul>
  `,
  styles: `
    @use 'media';

    li {
      display: grid;
      grid-template-columns: minmax(0, 1fr) auto auto;
      align-items: center;
      gap: 10px;
      padding: 2px 0;
    }
    .row {
      display: grid;
      grid-template-columns: 170px 50px 320px 1fr;
      gap: 16px;
      align-items: center;
      min-height: 48px;
      padding: 4px 0;
      color: inherit;
      text-decoration: none;
    }
    .row:hover {
      background: var(--sheet);
    }
    .late {
      font-weight: 700;
      color: var(--bad);
    }
    @include media.phone {
      li {
        grid-template-columns: minmax(0, 1fr) auto;
      }
      .row {
        grid-column: 1 / -1;
        grid-template-columns: 1fr auto;
        gap: 2px 12px;
      }
    }
  `,
})
export class FollowUpsPage {
  protected readonly t = T;

  protected readonly words = FOLLOW_UP_WORDS;
  protected readonly today = localDay(new Date());
  private readonly listed = signal<readonly DueFollowUp[]>([]);
  private readonly waiting = inject(Store).selectSignal(deviceFeature.selectWaiting);
  /** Without those that were done here and are on their way. */
  protected readonly due = computed(() =>
    this.listed().filter(
      (f) =>
        !this.waiting().some(
          (e) => e.jobId === f.jobId && e.type === 'follow-up.done' && e.data.kind === f.kind,
        ),
    ),
  );
  protected readonly isReady = signal(false);
  protected readonly problem = signal<string | null>(null);
  protected readonly late = computed(() => this.due().filter((f) => f.dueOn < this.today).length);

  private readonly api = inject(Api);
  private readonly crewId = inject(Store).selectSignal(sessionFeature.selectCrewId);

  protected readonly isOpening = signal(false);
  private readonly opener = inject(OpenJob);
  private readonly reporter = inject(Reporter);
  private readonly router = inject(Router);
  private readonly vanId = inject(Store).selectSignal(sessionFeature.selectVanId);

  constructor() {
    this.load();
    inject(Actions)
      .pipe(
        ofType(JobActions.acknowledged, JobActions.refused),
        filter(({ event }) => event.type === 'follow-up.done'),
        takeUntilDestroyed(),
      )
      .subscribe(() => this.load());
  }

  /** A charge that was promised is a job of its own on the same vehicle: its battery is read first, then put on. */
  protected async charge({ vehicleId, title, placeName }: DueFollowUp): Promise<void> {
    this.isOpening.set(true);
    try {
      const id = crypto.randomUUID();
      const entry = { id, title: T.charge(title).slice(0, 120), placeName, said: '', vehicleId };
      await firstValueFrom(this.api.openCall({ ...entry, ambientC: USUAL_AIR_C, urgent: false }));
      const call = (await firstValueFrom(this.api.board())).find((known) => known.id === id)!;
      const jobId = await this.opener.open(call, this.vanId(), this.crewId());
      void this.router.navigate(['/job', jobId]);
    } catch (error) {
      this.problem.set(problemText(error));
      this.isOpening.set(false);
    }
  }

  private load(): void {
    this.api.followUps().subscribe({
      next: (due) => {
        this.listed.set(due);
        this.isReady.set(true);
        this.problem.set(null);
      },
      error: (error: unknown) => this.problem.set(problemText(error)),
    });
  }

  /** Kept on the device and sent like every tap; the list shows what is still to do. */
  protected finish({ jobId, kind }: DueFollowUp): void {
    void this.reporter.reportFor(jobId, 'follow-up.done', { kind });
  }
}

import { DatePipe } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { type DueFollowUp, FOLLOW_UP_WORDS } from '@voltrek/contracts';
import type { JobEvent } from '@voltrek/core/job';
import { Store } from '@ngrx/store';
import { Api } from '../shared/state/api';
import { sessionFeature } from '../shared/state/session';
import { problemText } from '../shared/state/problem';

/** What verdicts have promised, by the day it is due. */
@Component({
  selector: 'vt-follow-ups-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [DatePipe, RouterLink],
  host: { class: 'page', tabindex: '0' },
  template: `
    <header>
      <h1>Follow-ups</h1>
      @if (isReady()) {
        <span class="dim" role="status">{{ due().length }} to do, {{ late() }} late</span>
      }
      <a class="key" href="/api/follow-ups/calendar.ics" download="follow-ups.ics">Calendar file</a>
    </header>
    @if (problem(); as text) {
      <p class="problem" role="alert">{{ text }}</p>
    }
    <ul class="ruled">
      @for (f of due(); track f.jobId + f.kind) {
        <li>
          <a class="row" [routerLink]="['/job', f.jobId, 'verdict']">
            <strong>{{ f.dueOn | date: 'EEE d MMM y' }}</strong>
            <span class="late">{{ f.dueOn < today ? 'late' : '' }}</span>
            <span>{{ words[f.kind] }}</span>
            <span
              >{{ f.title }} <span class="dim">{{ f.placeName }}</span></span
            >
          </a>
          @if (f.kind === 'recheck') {
            <a class="key" [routerLink]="['/job', f.jobId, 'verdict']">Recheck</a>
          } @else {
            <button type="button" class="key" (click)="finish(f)">Done</button>
          }
        </li>
      } @empty {
        @if (isReady()) {
          <li class="dim">Nothing is due.</li>
        }
      }
    </ul>
  `,
  styles: `
    li {
      display: grid;
      grid-template-columns: minmax(0, 1fr) auto;
      align-items: center;
      gap: 16px;
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
    @media (max-width: 720px) {
      .row {
        grid-template-columns: 1fr auto;
        gap: 2px 12px;
      }
    }
  `,
})
export class FollowUpsPage {
  protected readonly words = FOLLOW_UP_WORDS;
  protected readonly today = new Date().toISOString().slice(0, 10);
  protected readonly due = signal<readonly DueFollowUp[]>([]);
  protected readonly isReady = signal(false);
  protected readonly problem = signal<string | null>(null);
  protected readonly late = computed(() => this.due().filter((f) => f.dueOn < this.today).length);

  private readonly api = inject(Api);
  private readonly crewId = inject(Store).selectSignal(sessionFeature.selectCrewId);

  constructor() {
    this.load();
  }

  private load(): void {
    this.api.followUps().subscribe({
      next: (due) => {
        this.due.set(due);
        this.isReady.set(true);
        this.problem.set(null);
      },
      error: (error: unknown) => this.problem.set(problemText(error)),
    });
  }

  /** The list is asked for again: it shows what the server has taken, nothing else. */
  protected finish({ jobId, kind }: DueFollowUp): void {
    const event: JobEvent = {
      id: crypto.randomUUID(),
      jobId,
      at: new Date().toISOString(),
      by: this.crewId(),
      type: 'follow-up.done',
      data: { kind },
    };
    this.api.append(event).subscribe({
      next: () => this.load(),
      error: (error: unknown) => this.problem.set(problemText(error)),
    });
  }
}

import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { Router } from '@angular/router';
import type { BoardCall } from '@voltrek/contracts';
import { NgbModal } from '@ng-bootstrap/ng-bootstrap/modal';
import { Store } from '@ngrx/store';
import { Api } from '../shared/state/api';
import { BoardActions, boardFeature } from '../shared/state/board';
import { problemText } from '../shared/state/problem';
import { sessionFeature } from '../shared/state/session';
import { degrees } from '../shared/words/figures';
import { STAGE_WORDS, VERDICT_WORDS } from '../shared/words/words';
import { newEvent } from '../job/state/reporter';
import { ticker } from '../job/ticker';
import { NewCall } from './new-call';

const MINUTE_MS = 60_000;

/** Tonight's calls. One tap opens the job. */
@Component({
  selector: 'vt-board-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { class: 'page' },
  template: `
    <header>
      <h1>Board</h1>
      <span class="dim">{{ waiting().length }} waiting, {{ open().length }} under way</span>
      <button type="button" class="key strong new" (click)="newCall()">
        <i class="bi bi-plus-lg" aria-hidden="true"></i> New call
      </button>
    </header>
    @if (problem() ?? openProblem(); as text) {
      <p class="problem" role="alert">
        {{ text }} <button type="button" class="key" (click)="load()">Try again</button>
      </p>
    }
    <ul class="calls">
      @for (call of calls(); track call.id) {
        <li>
          <button
            type="button"
            class="call"
            [class.urgent]="call.urgent && !isClosed(call)"
            [class.closed]="isClosed(call)"
            (click)="openJob(call)"
          >
            <span class="number">{{ call.number }}</span>
            <span class="what">
              <strong>{{ call.title }}</strong>
              <span>{{ call.placeName }}</span>
            </span>
            <span class="said">{{ call.said }}</span>
            <span class="temp">{{ degrees(call.ambientC) }}</span>
            <span class="state">
              @if (call.job?.state === 'closed') {
                {{ call.job?.verdict ? verdictWords[call.job!.verdict!].name : 'closed' }}
              } @else if (call.job; as job) {
                at {{ stageWords[job.stage] }}
              } @else {
                {{ call.urgent ? 'urgent, ' : '' }}{{ age(call) }}
              }
            </span>
          </button>
        </li>
      } @empty {
        @if (status() === 'ready') {
          <li class="dim none">No calls. A new call starts with the button above.</li>
        } @else if (status() === 'loading') {
          <li class="dim none" role="status">Fetching the calls.</li>
        }
      }
    </ul>
  `,
  styles: `
    .new {
      margin-left: auto;
    }
    .calls {
      border-bottom: 1px solid var(--line);
    }
    .call {
      display: grid;
      grid-template-columns: 56px minmax(210px, 300px) 1fr 64px 150px;
      align-items: center;
      gap: 16px;
      width: 100%;
      min-height: 55px;
      padding: 5px 12px 5px 0;
      border: 0;
      border-top: 1px solid var(--line);
      border-left: 10px solid transparent;
      background: none;
      text-align: left;
      line-height: 1.2;
    }
    .call:hover {
      background: var(--sheet);
    }
    .urgent {
      border-left-color: var(--lamp);
      background: var(--sheet);
    }
    .closed {
      opacity: 0.75;
    }
    .number {
      font-size: 22px;
      font-weight: 700;
      text-align: right;
    }
    .what strong,
    .what span {
      display: block;
    }
    .what span,
    .said {
      color: var(--dim);
      font-size: 16px;
    }
    .what strong {
      font-size: 18px;
    }
    .temp,
    .state {
      text-align: right;
      font-weight: 600;
    }
    .none {
      padding: 24px 12px;
    }
    @media (max-width: 720px) {
      .call {
        grid-template-columns: 44px 1fr auto;
        gap: 2px 10px;
        padding-battery: 8px;
      }
      .number {
        grid-row: span 2;
      }
      .said {
        grid-column: 2 / -1;
      }
      .temp {
        display: none;
      }
      .state {
        grid-row: 1;
        grid-column: 3;
      }
    }
  `,
})
export class BoardPage {
  private readonly store = inject(Store);
  private readonly api = inject(Api);
  private readonly router = inject(Router);
  private readonly modals = inject(NgbModal);
  private readonly crewId = this.store.selectSignal(sessionFeature.selectCrewId);
  private readonly now = ticker(20_000);

  protected readonly calls = this.store.selectSignal(boardFeature.selectCalls);
  protected readonly status = this.store.selectSignal(boardFeature.selectStatus);
  protected readonly problem = this.store.selectSignal(boardFeature.selectProblem);
  protected readonly openProblem = signal<string | null>(null);
  protected readonly waiting = computed(() => this.calls().filter((c) => c.job === null));
  protected readonly open = computed(() => this.calls().filter((c) => c.job?.state === 'open'));
  protected readonly stageWords = STAGE_WORDS;
  protected readonly verdictWords = VERDICT_WORDS;
  protected readonly degrees = degrees;

  constructor() {
    this.load();
  }

  protected load(): void {
    this.openProblem.set(null);
    this.store.dispatch(BoardActions.opened());
  }

  protected isClosed(call: BoardCall): boolean {
    return call.job?.state === 'closed';
  }

  protected age(call: BoardCall): string {
    const minutes = Math.max(0, Math.round((this.now() - Date.parse(call.receivedAt)) / MINUTE_MS));
    return minutes < 120 ? `${minutes} min` : `${Math.round(minutes / 60)} h`;
  }

  /** Opens the call's job, or begins one. */
  protected openJob(call: BoardCall): void {
    if (call.job) {
      void this.router.navigate(['/job', call.job.id]);
      return;
    }
    const jobId = crypto.randomUUID();
    const { id: callId, number: callNumber, title, placeName, modelId, ambientC } = call;
    const data = { callId, callNumber, title, placeName, modelId, ambientC };
    this.api.append(newEvent(jobId, this.crewId(), 'job.opened', data)).subscribe({
      next: () => void this.router.navigate(['/job', jobId]),
      error: (error: unknown) => {
        // Somebody may have opened it a moment ago: fetch the board so that the next tap finds their job.
        this.load();
        this.openProblem.set(problemText(error));
      },
    });
  }

  protected newCall(): void {
    const dialog = this.modals.open(NewCall, { ariaLabelledBy: 'new-call-title', centered: true });
    dialog.result.then(
      () => this.load(),
      () => undefined,
    );
  }
}

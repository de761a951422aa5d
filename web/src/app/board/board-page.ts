import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  inject,
  signal,
} from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import type { BoardCall, JobSummary } from '@voltrek/contracts';
import { hasEnded } from '@voltrek/contracts/wire';
import { NgbModal } from '@ng-bootstrap/ng-bootstrap/modal';
import { Store } from '@ngrx/store';
import { BoardActions, boardCopy } from '../shared/data/board';
import { kitCopy } from '../shared/data/kit';
import { problemText } from '../shared/data/problem';
import { crewCopy } from '../shared/data/crew';
import { HouseNames } from '../shared/data/house-names';
import { sessionFeature } from '../shared/data/session';
import { vehicleAndPlace } from '@words/call-words';
import { degrees } from '@words/units';
import { STAGE_WORDS } from '@words/stage-words';
import { VERDICT_WORDS } from '@words/verdict-words';
import { OpenJob } from '../shared/job/open-job';
import { deviceFeature } from '../shared/sync/device-state';
import { NOT_NUMBERED, withUnsent } from '../shared/model/errand';
import { ticker } from '../shared/job/ticker';
import { MINUTE_MS } from '@voltrek/core/quantities';
import { isWaiting, minutesLate } from '../shared/model/promised';
import { Choices } from '../shared/ui/choices';
import { When } from '../shared/ui/when';
import { messagesOf } from '@words/messages-of';
import { BOARD_PAGE as T } from '@words/screens/board';
import { Frames } from '../shared/model/frames';

const callDialog = () => import('./call-dialog');
const newCall = () => import('./new-call');

const SHOWS = ['all', 'mine', 'waiting', 'under-way', 'on-charge', 'done'] as const;
type Show = (typeof SHOWS)[number];
const SHOW_WORDS: Record<Show, string> = messagesOf('boardShow');

/** This van was asked to come to the job of this call. */
const isAsked = (call: BoardCall, vanId: string): boolean =>
  call.job?.vansComing.some((van) => van.vanId === vanId) ?? false;

function isShown(call: BoardCall, show: Show, crewId = '', vanId = ''): boolean {
  switch (show) {
    case 'all':
      return true;
    case 'mine':
      return call.technicianId === crewId || isAsked(call, vanId);
    case 'waiting':
      return isWaiting(call);
    case 'under-way':
      return call.job?.state === 'open';
    case 'on-charge':
      return Boolean(call.job?.chargeUntil);
    case 'done':
      return hasEnded(call);
  }
}

/** Tonight's calls. One tap opens the job. */
@Component({
  selector: 'vt-board-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Choices, RouterLink, When],
  host: { class: 'page' },
  template: `
    <header>
      <h1>{{ t.board }}</h1>
      <span class="dim">{{
        t.counts({
          waiting: waiting().length,
          open: open().length,
          charging: onCharge() > 0 ? ', ' + onCharge() + t.onChargeCount : '',
        })
      }}</span>
      <div class="keys shown" role="radiogroup" [attr.aria-label]="t.callsShown">
        @for (which of shows; track which) {
          <button
            type="button"
            class="key"
            role="radio"
            [attr.aria-checked]="which === show()"
            (click)="show.set(which)"
          >
            {{ showWords[which] }}
          </button>
        }
      </div>
      @if (sends()) {
        <a class="key" routerLink="/desk">{{ t.desk }}</a>
      }
      <button type="button" class="key strong new" (click)="newCall()">
        <i class="bi bi-plus-lg" aria-hidden="true"></i> {{ t.newCall }}
      </button>
    </header>
    @if (problem(); as text) {
      <p class="problem" role="alert">
        {{ text }} <button type="button" class="key" (click)="load()">{{ t.tryAgain }}</button>
      </p>
    }
    <ul class="calls">
      @for (call of shown(); track call.id) {
        <li>
          <button
            type="button"
            class="call"
            [class.urgent]="call.urgent && !hasEnded(call)"
            [class.closed]="hasEnded(call)"
            (click)="openJob(call)"
          >
            <span class="number">{{ call.number === notNumbered ? t.newWord : call.number }}</span>
            <span class="what">
              <strong>{{ call.title }}</strong>
              <span>{{ vehicleAndPlace(call) }}</span>
            </span>
            <span class="said">{{ call.said }}</span>
            <span class="temp">{{ degrees(call.ambientC) }}</span>
            <span class="state">
              @if (opening() === call.id) {
                <span role="status">{{ t.opening }}</span>
              } @else if (refused()?.callId === call.id) {
                <span role="alert" class="tone-stop">{{ refused()?.problem }}</span>
              } @else if (call.state === 'called-off') {
                {{ t.calledOff }}
              } @else if (call.job?.state === 'closed') {
                {{ call.job?.verdict ? verdictWords[call.job!.verdict!].name : t.closed }}
              } @else if (call.job?.chargeUntil; as due) {
                @if (isDue(due)) {
                  <span class="tone-watch">{{ t.chargeDue }}</span>
                } @else {
                  {{ t.onChargeUntil({ due: due | when: 'time' }) }}
                }
              } @else if (call.job; as job) {
                {{ t.at({ stage: stageWords[job.stage] }) }}
              } @else {
                {{ call.urgent ? t.urgent : '' }}{{ age(call) }}
                @if (call.promisedAt; as at) {
                  @let late = minutesLate(call);
                  <span class="promised" [class.tone-stop]="late > 0">{{
                    late > 0 ? t.overdue({ minutes: late }) : t.promisedFor({ due: (at | when: 'time') })
                  }}</span>
                }
              }
              @for (van of call.job?.vansComing ?? []; track van.vanId) {
                <span class="coming" [class.tone-watch]="van.vanId === vanId()">{{
                  van.vanId === vanId()
                    ? t.youAreAsked({ due: van.dueAt | when: 'time' })
                    : t.vanAsked({ van: names.van(van.vanId), due: van.dueAt | when: 'time' })
                }}</span>
              }
              @if (call.technicianId && !hasEnded(call)) {
                <span class="dim">{{ names.person(call.technicianId) }}</span>
              }
            </span>
          </button>
          <button
            type="button"
            class="key about"
            [disabled]="call.number === notNumbered"
            [attr.aria-label]="t.aboutCall + call.number"
            (click)="about(call)"
          >
            <i class="bi bi-info-lg" aria-hidden="true"></i>
          </button>
        </li>
      } @empty {
        @if (status() === 'ready') {
          <li class="dim none">{{ t.emptyState }}</li>
        } @else if (status() === 'loading') {
          <li class="dim none" role="status">{{ t.loading }}</li>
        }
      }
    </ul>
  `,
  styles: `
    @use 'media';

    .new {
      margin-left: auto;
    }
    .shown {
      margin-left: 12px;
      gap: 6px;
    }
    li {
      display: grid;
      grid-template-columns: minmax(0, 1fr) auto;
      align-items: center;
      gap: 8px;
    }
    .about {
      padding: 6px 10px;
    }
    .state .dim,
    .promised,
    .coming {
      display: block;
      font-weight: 500;
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
      font-size: var(--text-l);
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
      font-size: var(--text-s);
    }
    .what strong {
      font-size: var(--text-m);
    }
    .temp,
    .state {
      text-align: right;
      font-weight: 600;
    }
    .none {
      padding: 24px 12px;
    }
    @include media.phone {
      header {
        gap: 8px;
      }
      .new {
        padding-inline: 8px;
      }
      /* One row that scrolls: the calls begin two rows higher. */
      .shown {
        order: 1;
        flex: 1 1 100%;
        flex-wrap: nowrap;
        min-width: 0;
        margin-left: 0;
        overflow-x: auto;
      }
      .shown .key {
        flex: none;
      }
      .call {
        grid-template-columns: 44px 1fr;
        gap: 2px 10px;
        padding-block: 8px;
      }
      .number {
        grid-row: span 3;
        align-self: start;
      }
      .temp {
        display: none;
      }
      .state {
        text-align: left;
      }
      .state .dim {
        display: inline;
        margin-left: 8px;
      }
    }
  `,
})
export class BoardPage {
  protected readonly t = T;
  protected readonly vehicleAndPlace = vehicleAndPlace;
  protected readonly hasEnded = hasEnded;
  protected readonly names = inject(HouseNames);

  private readonly store = inject(Store);
  private readonly router = inject(Router);
  private readonly modals = inject(NgbModal);
  private readonly crewId = this.store.selectSignal(sessionFeature.selectCrewId);
  private readonly now = ticker(20_000);

  private readonly opener = inject(OpenJob);
  private readonly copy = this.store.selectSignal(boardCopy.selectCopy);
  private readonly device = this.store.selectSignal(deviceFeature.selectDeviceState);
  /** Jobs that were opened here and that the server does not know yet, by the id of their call. */
  private readonly openedHere = signal<ReadonlyMap<string, JobSummary>>(new Map());
  protected readonly calls = computed(() =>
    withUnsent(this.copy(), this.device().errands, this.openedHere()),
  );
  protected readonly status = this.store.selectSignal(boardCopy.selectStatus);
  protected readonly problem = this.store.selectSignal(boardCopy.selectProblem);
  /** The call whose job is being opened. */
  protected readonly opening = signal<string | null>(null);
  /** The call whose job could not be opened, and why: shown in its row, where the tap was. */
  protected readonly refused = signal<{ readonly callId: string; readonly problem: string } | null>(null);
  private readonly crew = this.store.selectSignal(crewCopy.selectCopy);
  private readonly role = computed(() => this.crew().find(({ id }) => id === this.crewId())?.role);
  private readonly crewKnown = this.store.selectSignal(crewCopy.selectIsKnown);
  protected readonly vanId = this.store.selectSignal(sessionFeature.selectVanId);
  protected readonly notNumbered = NOT_NUMBERED;
  protected readonly shows = SHOWS;
  protected readonly showWords = SHOW_WORDS;
  protected readonly show = signal<Show>('all');
  protected readonly waiting = computed(() => this.calls().filter((c) => isShown(c, 'waiting')));
  protected readonly open = computed(() => this.calls().filter((c) => isShown(c, 'under-way')));
  protected readonly onCharge = computed(() => this.calls().filter((c) => isShown(c, 'on-charge')).length);
  /** Calls that are overdue come first, the latest of them on top. */
  protected readonly shown = computed(() =>
    this.calls()
      .filter((c) => isShown(c, this.show(), this.crewId(), this.vanId()))
      .sort((a, b) => this.minutesLate(b) - this.minutesLate(a)),
  );
  protected readonly stageWords = STAGE_WORDS;
  protected readonly verdictWords = VERDICT_WORDS;
  protected readonly degrees = degrees;

  constructor() {
    this.load();
    this.store.dispatch(kitCopy.requested());
    // The reducer of a log comes with the jobs: the Board stands without it, but for a job that no server knows yet.
    effect(() => {
      const { waiting } = this.device();
      if (!waiting.some(({ type }) => type === 'job.opened')) this.openedHere.set(new Map());
      else
        void import('../shared/sync/jobs-opened-here').then(({ jobsOpenedHere }) =>
          this.openedHere.set(jobsOpenedHere(waiting)),
        );
    });
    // A house that nobody works in yet is set up first.
    effect(() => {
      if (this.crewKnown() && this.crew().length === 0) void this.router.navigate(['/set-up']);
    });
    inject(DestroyRef).onDestroy(() => this.store.dispatch(BoardActions.left()));
    // The Board stands without its dialogs; once it does they are fetched, since later there may be no network.
    const frames = inject(Frames);
    const loadedOnce = effect(() => {
      if (this.status() === 'loading') return;
      loadedOnce.destroy();
      void frames.after('idle').then(() => Promise.allSettled([callDialog(), newCall()]));
    });
  }

  protected load(): void {
    this.store.dispatch(BoardActions.opened());
  }

  protected isDue(at: string): boolean {
    return Date.parse(at) <= this.now();
  }

  protected minutesLate(call: BoardCall): number {
    return minutesLate(call, this.now());
  }

  protected age(call: BoardCall): string {
    const minutes = Math.max(0, Math.round((this.now() - Date.parse(call.receivedAt)) / MINUTE_MS));
    return minutes < 120 ? T.min({ minutes }) : `${Math.round(minutes / 60)} h`;
  }

  /** The desk takes no call by a tap: it gives them away. */
  private readonly isDesk = computed(() => this.role() === 'desk');
  protected readonly sends = computed(() => this.role() === 'desk' || this.role() === 'crew-lead');

  /** Opens the call's job, or begins one under the house rules of now. */
  protected openJob(call: BoardCall): void {
    if (call.state === 'called-off') {
      void this.about(call);
      return;
    }
    if (call.job === null && this.isDesk()) {
      void this.router.navigate(['/desk'], { queryParams: { call: call.id } });
      return;
    }
    if (call.job) {
      void this.router.navigate(['/job', call.job.id]);
      return;
    }
    // A second tap while the first is under way would open a second job, which the server refuses.
    if (this.opening() !== null) return;
    this.opening.set(call.id);
    this.refused.set(null);
    this.opener
      .open(call, this.vanId(), this.crewId())
      .then((jobId) => this.router.navigate(['/job', jobId]))
      .catch((error: unknown) => {
        // Somebody may have opened it a moment ago: fetch the board so that the next tap finds their job.
        this.load();
        this.refused.set({ callId: call.id, problem: problemText(error) });
      })
      // The board stays where the page of a job could not be loaded, and its rows may be tapped again.
      .finally(() => this.opening.set(null));
  }

  protected async about(call: BoardCall): Promise<void> {
    const { CallDialog } = await callDialog();
    const dialog = this.modals.open(CallDialog, { ariaLabelledBy: 'call-title', centered: true });
    (dialog.componentInstance as InstanceType<typeof CallDialog>).open(call, this.vanId());
    dialog.result.catch(() => undefined);
  }

  protected async newCall(): Promise<void> {
    const { NewCall } = await newCall();
    const dialog = this.modals.open(NewCall, { ariaLabelledBy: 'new-call-title', centered: true });
    dialog.result.then(
      () => this.load(),
      () => undefined,
    );
  }
}

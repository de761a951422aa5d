import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  type ElementRef,
  inject,
  Injector,
  input,
  linkedSignal,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { RouterLink } from '@angular/router';
import {
  type BoardCall,
  type CrewMember,
  hasEnded,
  mayDo,
  type NewCallChange,
  type Van,
} from '@voltrek/contracts';
import { MINUTE_MS } from '@voltrek/core/quantities';
import { Store } from '@ngrx/store';
import { vehicleAndPlace } from '@words/call-words';
import { fixed } from '@words/numbers';
import { DESK_PAGE as T } from '@words/screens/board';
import { Api } from '../shared/data/api';
import { BoardActions, boardCopy } from '../shared/data/board';
import { atWork, crewCopy } from '../shared/data/crew';
import { HouseNames } from '../shared/data/house-names';
import { kitCopy } from '../shared/data/kit';
import { problemText } from '../shared/data/problem';
import { sessionFeature } from '../shared/data/session';
import { ticker } from '../shared/job/ticker';
import { timeOfDay } from '../shared/model/dates';
import { minutesLate } from '../shared/model/promised';
import { Choices } from '../shared/ui/choices';
import { When } from '../shared/ui/when';
import { PlanRunner } from '../workers/plan-runner';
import { VanFits } from './van-fits';

/** A van as the desk sees it now. */
interface VanNow {
  readonly van: Van;
  /** The call that it is on; null while it is free. */
  readonly busy: BoardCall | null;
  /** The last call of this shift that it went to. */
  readonly last: BoardCall | null;
}

/** When somebody last did something in a call, as far as the Board knows. */
const lastAt = ({ job, receivedAt }: BoardCall): string => job?.closedAt ?? job?.openedAt ?? receivedAt;

/** The desk: calls, the vans and which of them fits, and who is sent. No job is opened by it. */
@Component({
  selector: 'vt-desk-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Choices, RouterLink, When],
  providers: [PlanRunner, VanFits],
  host: { class: 'page' },
  templateUrl: './desk-page.html',
  styleUrl: './desk-page.scss',
})
export class DeskPage {
  protected readonly t = T;
  protected readonly vehicleAndPlace = vehicleAndPlace;
  /** The call of the address; the first one where it names none. */
  readonly call = input<string>();

  private readonly pane = viewChild<ElementRef<HTMLElement>>('pane');
  private readonly injector = inject(Injector);
  private readonly api = inject(Api);
  private readonly store = inject(Store);
  private readonly fits = inject(VanFits);
  private readonly names = inject(HouseNames);
  private readonly now = ticker(20_000);
  private readonly crewId = this.store.selectSignal(sessionFeature.selectCrewId);
  private readonly everybody = this.store.selectSignal(crewCopy.selectCopy);
  private readonly allVans = this.store.selectSignal(kitCopy.selectCopy);
  private readonly board = this.store.selectSignal(boardCopy.selectCopy);

  /** Calls that are open, the latest first, then those that wait. */
  protected readonly calls = computed(() =>
    this.board()
      .filter((call) => !hasEnded(call))
      .sort(
        (a, b) => this.late(b) - this.late(a) || Number(a.state === 'taken') - Number(b.state === 'taken'),
      ),
  );
  private readonly chosenId = linkedSignal(() => this.call());
  protected readonly chosen = computed(
    () => this.calls().find(({ id }) => id === this.chosenId()) ?? this.calls()[0] ?? null,
  );
  /** The same while the Board changes around it. */
  private readonly key = computed(() => this.chosen()?.id);
  /** The crew who work alone: an apprentice goes with somebody who answers for them. */
  protected readonly workers = computed((): readonly CrewMember[] =>
    atWork(this.everybody()).filter(({ role }) => mayDo(role, 'work')),
  );
  protected readonly vans = computed((): readonly VanNow[] =>
    this.allVans()
      .filter(({ retired }) => !retired)
      .map((van) => {
        const own = this.board().filter(({ vanId }) => vanId === van.id);
        const visited = own.filter(({ job }) => job !== null);
        return {
          van,
          busy: own.find(({ state }) => state === 'taken') ?? null,
          last: visited.sort((a, b) => lastAt(b).localeCompare(lastAt(a)))[0] ?? null,
        };
      }),
  );
  /** Choices by van, as typed; they begin anew with another call. */
  protected readonly people = linkedSignal<string | undefined, ReadonlyMap<string, string>>({
    source: this.key,
    computation: () =>
      new Map(untracked(this.vans).map(({ van, last }) => [van.id, last?.technicianId ?? ''])),
  });
  protected readonly minutes = linkedSignal<string | undefined, ReadonlyMap<string, number>>({
    source: this.key,
    computation: () => new Map(),
  });
  protected readonly promises = signal(true);
  protected readonly reason = linkedSignal<string | undefined, string>({
    source: this.key,
    computation: () => '',
  });
  protected readonly problem = signal<string | null>(null);
  protected readonly done = signal<string | null>(null);

  constructor() {
    this.store.dispatch(BoardActions.opened());
    this.store.dispatch(kitCopy.requested());
    const hasVans = computed(() => this.vans().length > 0);
    effect(() => {
      this.key();
      const call = untracked(this.chosen);
      // Nothing is asked of the server before there is a van that may fit.
      if (!call || !hasVans()) return;
      const vans = untracked(this.vans).map(({ van }) => van);
      void this.fits.look(call, vans);
    });
  }

  protected choose({ id }: BoardCall): void {
    this.chosenId.set(id);
    this.problem.set(null);
    this.done.set(null);
    // On a phone the vans stand under the calls.
    afterNextRender(() => this.pane()?.nativeElement.scrollIntoView({ block: 'nearest' }), {
      injector: this.injector,
    });
  }

  protected late(call: BoardCall): number {
    return minutesLate(call, this.now());
  }

  protected waited({ receivedAt }: BoardCall): number {
    return Math.max(0, Math.round((this.now() - Date.parse(receivedAt)) / MINUTE_MS));
  }

  protected withWhom({ vanId, technicianId }: BoardCall): string {
    return T.withVan({
      van: vanId ? this.names.van(vanId) : '',
      person: technicianId ? this.names.person(technicianId) : '',
    });
  }

  protected stateOf({ busy, last }: VanNow): string {
    if (busy) return T.onCall({ number: busy.number, place: busy.placeName });
    return last?.job?.closedAt ? T.freeSince({ at: timeOfDay(last.job.closedAt) }) : T.free;
  }

  protected fitOf(vanId: string): string {
    const fit = this.fits.found().get(vanId);
    if (!fit) return this.fits.hasFailed() ? T.noFit : T.looking;
    if (fit.source === null) return T.nothingFits;
    return fit.odds === null
      ? T.wakes({ source: fit.source })
      : T.fit({ odds: fixed(100 * fit.odds), source: fit.source });
  }

  protected setPerson(vanId: string, crewId: string): void {
    this.people.update((all) => new Map(all).set(vanId, crewId));
  }

  protected setMinutes(vanId: string, typed: number): void {
    this.minutes.update((all) => new Map(all).set(vanId, typed));
  }

  /** The time of arrival, ISO 8601; null where nobody typed how long it takes. */
  private arrival(vanId: string): string | null {
    const minutes = this.minutes().get(vanId);
    return minutes === undefined || !(minutes >= 0)
      ? null
      : new Date(this.now() + minutes * MINUTE_MS).toISOString();
  }
  protected thereBy(vanId: string): string {
    const at = this.arrival(vanId);
    return at === null ? '' : T.thereBy({ at: timeOfDay(at) });
  }

  protected maySend(call: BoardCall, vanId: string): boolean {
    const person = this.people().get(vanId);
    if (!person) return false;
    const isSame = call.vanId === vanId && call.technicianId === person;
    return call.state === 'waiting' || (!isSame && this.reason().trim().length >= REASON_LEAST);
  }

  protected send(call: BoardCall, { van }: VanNow): void {
    const at = this.promises() ? this.arrival(van.id) : null;
    const change: NewCallChange = {
      kind: call.state === 'waiting' ? 'taken' : 'passed-on',
      by: this.crewId(),
      vanId: van.id,
      technicianId: this.people().get(van.id)!,
      reason: this.reason().trim(),
      ...(at !== null && { promisedAt: at }),
    };
    this.api.changeCall(call.id, change).subscribe({
      next: (calls) => {
        this.store.dispatch(boardCopy.changed(calls));
        this.problem.set(null);
        this.reason.set('');
        this.done.set(T.given({ number: call.number, van: van.name }));
      },
      error: (error: unknown) => this.problem.set(problemText(error)),
    });
  }
}
/** A shorter word gives no reason. */
const REASON_LEAST = 3;

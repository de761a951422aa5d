import { withinSentence } from '@words/numbers';
import {
  afterRenderEffect,
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  ElementRef,
  inject,
  input,
  type OnDestroy,
  signal,
  untracked,
} from '@angular/core';
import { Router } from '@angular/router';
import { probingOf } from '@voltrek/core/diagnosis';
import { isToBeCleared, NOTHING_CONNECTED } from '@voltrek/core/hookup';
import { reachedStage, runningAttempt, type Stage, STAGES } from '@voltrek/core/job';
import { settingsOf } from '@voltrek/core/rules';
import { NgbModal } from '@ng-bootstrap/ng-bootstrap/modal';
import { Store } from '@ngrx/store';
import { Frames } from '../shared/model/frames';
import { later } from '../shared/ui/drawn-later';
import { shapeFigures } from '../shared/ui/shape-figures';
import { CircuitView } from '../shared/drawing/circuit-view';
import { layoutCircuit } from '../shared/drawing/circuit-layout';
import { MachineDrawing } from '../shared/drawing/machine-drawing';
import { messagesOf } from '@words/messages-of';
import { JobLogDialog } from './job-log-dialog';
import { MakeSafeDialog } from './make-safe-dialog';
import { Rail } from './rail/rail';
import { stayAwake } from './stay-awake';
import { stageResults } from './rail/stage-results';
import { ChartPictures } from '../workers/chart-pictures';
import { Checks } from './stages/checks';
import { Cleardown } from './stages/cleardown';
import { Crank } from './stages/crank';
import { Hookup } from './stages/hookup';
import { Locate } from './stages/locate';
import { Measure, type Probed } from './stages/measure/measure';
import { Plan } from './stages/plan/plan';
import { Scene } from './stages/scene';
import { StopScreen } from './stages/stop-screen';
import { Verdict } from './stages/verdict/verdict';
import { JobActions, jobFeature } from '../shared/model/job-state';
import { probingWords } from '@words/measure-words';
import { ruleName } from '@words/rule-words';
import {
  selectChangedRules,
  selectClearingRun,
  selectHookupRun,
  selectOptions,
  selectPlanCases,
  selectRescue,
  selectUndoable,
  selectWork,
} from '../shared/job/job-selectors';
import { Readiness } from '../shared/sync/readiness';
import { Reporter } from '../shared/job/reporter';
import { settingsFeature } from '../shared/data/settings';
import { signInFeature } from '../shared/data/sign-in';
import { deviceFeature } from '../shared/sync/device-state';
import { JOB_PAGE as T } from '@words/screens/job';

/** Stages at which the drawing says where to put the hand. */
const SHOWS_WHERE: readonly Stage[] = ['locate', 'hookup', 'cleardown'];

/** Between two taps that follow each other nothing is ranked; before the next action is armed it is. */
const RANKS_AFTER_MS = 300;

/** One rescue: the run rail, the stage, the Circuit and the action bar. */
@Component({
  selector: 'vt-job-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    CircuitView,
    MachineDrawing,
    Rail,
    Checks,
    Cleardown,
    Crank,
    Hookup,
    Locate,
    Measure,
    Plan,
    Scene,
    StopScreen,
    Verdict,
  ],
  host: { '(document:keydown)': 'onKey($event)' },
  templateUrl: './job-page.html',
  styleUrl: './job-page.scss',
})
export class JobPage implements OnDestroy {
  protected readonly t = T;

  readonly jobId = input.required<string>();
  readonly stage = input<string>();

  private readonly store = inject(Store);
  private readonly router = inject(Router);
  private readonly modals = inject(NgbModal);
  private readonly reporter = inject(Reporter);
  private readonly pictures = inject(ChartPictures);
  private readonly frames = inject(Frames);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;

  private readonly letterKeys = this.store.selectSignal(settingsFeature.selectLetterKeys);
  protected readonly work = this.store.selectSignal(selectWork);
  protected readonly problem = this.store.selectSignal(jobFeature.selectProblem);
  /** A sign-in is asked for, which the bar above shows. */
  protected readonly signInRequest = this.store.selectSignal(signInFeature.selectRequest);
  protected readonly connected = this.store.selectSignal(deviceFeature.selectConnected);
  protected readonly rescue = this.store.selectSignal(selectRescue);
  private readonly options = this.store.selectSignal(selectOptions);
  private readonly cases = this.store.selectSignal(selectPlanCases);
  protected readonly undoable = this.store.selectSignal(selectUndoable);
  protected readonly hookupRun = this.store.selectSignal(selectHookupRun);
  protected readonly clearingRun = this.store.selectSignal(selectClearingRun);

  private readonly rulesNow = this.store.selectSignal(selectChangedRules);
  /** The rules that were last refused. */
  protected readonly rulesKept = signal('');
  protected readonly changedRules = computed(() => {
    const changed = this.rulesNow();
    if (!changed || this.isClosed()) return null;
    const words = changed.changed.map((rule) => withinSentence(ruleName(rule))).join(', ');
    return words === this.rulesKept() ? null : { words };
  });
  protected readonly chosenPin = signal<string | null>(null);
  protected readonly isCircuitOpen = signal(false);
  protected readonly probed = signal<Probed | null>(null);
  /** The stage that was left, and the last tap before that: to take it back leads there again. */
  private leftBy: { readonly eventId: string; readonly stage: Stage } | null = null;

  /** The stage in the address, or the one that the log has come to. */
  protected readonly current = computed<Stage>(() => {
    const named = STAGES.find((s) => s === this.stage());
    const job = this.work()?.job;
    return named ?? (job ? reachedStage(job) : 'scene');
  });
  /** The stage that is drawn: in a task after the tap that asks for it, which has the rail and the Circuit to draw already. */
  protected readonly shown = later(this.current, 0);
  /** The drawing says where to put the hand; elsewhere it is a strip on a phone, until it is opened. */
  protected readonly showsWhere = computed(() => {
    const waits = this.current() === 'hookup' && this.hookupRun().next?.minutes !== undefined;
    return SHOWS_WHERE.includes(this.current()) && !waits;
  });
  /** How many readings stood when somebody went to read again under a stop: Measure is shown until the next is taken. */
  private readonly readAgainAfter = signal<number | null>(null);
  protected readonly isStopped = computed(() => {
    const work = this.work();
    const stage = this.shown();
    if (!work || work.situation.stops.length === 0 || stage === 'scene' || stage === 'verdict') return false;
    return stage !== 'measure' || this.readAgainAfter() !== work.job.readings.length;
  });
  private readonly isOpen = computed(() => this.work() != null);
  protected readonly isClosed = computed(() => this.work()?.job.closedAt != null);
  protected readonly thereIsToClear = computed(
    () => this.rescue() !== null && isToBeCleared(this.work()?.job.hookup ?? NOTHING_CONNECTED),
  );

  private readonly probing = computed(() => {
    const work = this.work();
    const probed = this.current() === 'measure' ? this.probed() : null;
    return work && probed ? probingOf(work.machine, probed.check, probed.battery) : null;
  });
  protected readonly probingSaid = computed(() => {
    const probing = this.probing();
    return probing && probingWords(this.work()!.machine, probing);
  });

  /** The input of the Circuit, and the results on the rail. */
  private readonly toDraw = computed(() => {
    const work = this.work();
    if (!work) return null;
    const stage = this.current();
    const step =
      stage === 'hookup' ? this.hookupRun().next : stage === 'cleardown' ? this.clearingRun().next : null;
    return { work, stage, step, rescue: this.rescue(), probing: this.probing() };
  });
  /** The same a moment later: a tap waits neither for the laying out of a drawing nor for the drawing. */
  private readonly drawnOf = later(this.toDraw);
  protected readonly results = computed(() => {
    const of = this.drawnOf();
    return of && stageResults(of.work, of.rescue);
  });
  protected readonly drawn = computed(() => {
    const of = this.drawnOf();
    if (!of) return null;
    const { work, stage, step, rescue, probing } = of;
    return layoutCircuit({
      machine: work.machine,
      donor: work.donorMachine,
      scene: stage === 'measure' ? null : (rescue?.scene ?? null),
      hookup: work.job.hookup,
      isCranking: runningAttempt(work.job) !== null,
      step: work.job.closedAt === null ? step : null,
      machineName: T.casualty,
      probing,
      showPins: stage === 'measure' || rescue === null,
    });
  });

  constructor() {
    void inject(Readiness).askToPersist();
    stayAwake();
    effect(() => this.store.dispatch(JobActions.opened({ jobId: this.jobId() })));
    // A user of keyboard or ear goes on from the beginning of the new stage: once it is on the screen, for a focus before lays out the page.
    afterRenderEffect((onCleanup) => {
      if (this.shown() === null || !this.isOpen() || this.modals.hasOpenModals()) return;
      const heading = this.host.querySelector('h1');
      if (!heading) return;
      let isHere = true;
      onCleanup(() => (isHere = false));
      void this.frames.after('frame').then(() => {
        if (!isHere || this.modals.hasOpenModals()) return;
        heading.tabIndex = -1;
        heading.focus({ preventScroll: true });
      });
    });
    // The first ranking and charting of Plan is made ready while nothing else is to do: both take a while when they are first asked for.
    void this.frames.after('idle').then(() => this.pictures.prepare());
    void this.frames.after('idle').then(() => shapeFigures(this.host));
    effect((onCleanup) => {
      this.work();
      const soon = setTimeout(() => void this.rank(), RANKS_AFTER_MS);
      onCleanup(() => clearTimeout(soon));
    });
  }

  ngOnDestroy(): void {
    this.store.dispatch(JobActions.left());
  }

  protected open(stage: Stage): void {
    const last = this.undoable();
    this.leftBy = last && { eventId: last.id, stage: this.current() };
    void this.router.navigate(['/job', this.jobId(), stage]);
  }

  protected readAgain(): void {
    this.readAgainAfter.set(this.work()!.job.readings.length);
    this.open('measure');
  }

  protected openNext(): void {
    this.open(STAGES[STAGES.indexOf(this.current()) + 1] ?? 'verdict');
  }

  /** Takes the rules of the house now on for this job, from here on. */
  protected adoptRules(): void {
    const changed = this.rulesNow();
    if (changed) this.reporter.report('rules.adopted', { rules: settingsOf(changed.now) });
  }

  protected undo(): void {
    const last = this.undoable();
    if (!last) return;
    this.reporter.report('event.undone', { eventId: last.id });
    if (this.leftBy?.eventId === last.id) this.open(this.leftBy.stage);
  }

  protected readonly logWord = messagesOf('jobLogDialog');
  protected openLog(): void {
    this.modals.open(JobLogDialog, { ariaLabelledBy: 'job-log-title', centered: true, size: 'lg' });
  }

  protected makeSafe(): void {
    if (this.isClosed() || this.modals.hasOpenModals()) return;
    this.modals.open(MakeSafeDialog, { ariaLabelledBy: 'make-safe-title', centered: true });
  }

  /** In two idle moments: what fits, and what the search for ways starts from. */
  private async rank(): Promise<void> {
    for (const ready of [this.options, this.cases]) {
      await this.frames.after('idle');
      untracked<unknown>(ready);
    }
  }

  protected onKey(event: KeyboardEvent): void {
    const target = event.target;
    const isTyping =
      target instanceof HTMLElement && target.matches('input, select, textarea, [contenteditable]');
    // A held key acts once: Undo held down would take back tap after tap.
    if (isTyping || event.repeat || event.ctrlKey || event.metaKey || event.altKey) return;
    if (this.modals.hasOpenModals() || !this.letterKeys()) return;
    const key = event.key.toLowerCase();
    const nth = STAGES[Number(event.key) - 1];
    // On Measure the digits belong to the number pad.
    if (nth && this.current() !== 'measure') this.open(nth);
    else if (key === 'u') this.undo();
    else if (key === 'm') this.makeSafe();
    else if (key === 'r') this.open('measure');
  }
}

import type { ElementRef } from '@angular/core';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { RouterLink } from '@angular/router';
import { lampsLook, SUSPECTS, type Suspect } from '@voltrek/core/diagnosis';
import {
  act,
  codeOf,
  type Happened,
  type HintLevel,
  type PracticeAction,
  readCaseCode,
  replay,
  trueScene,
  type World,
} from '@voltrek/core/practice';
import { VERDICTS, type VerdictKind } from '@voltrek/core/verdict';
import { hazardWhy } from '@words/hazard-words';
import {
  BROKE_WORDS,
  cameWords,
  MADE_WORDS,
  optionWords,
  practiceActionWords,
  readWords,
  RUNG_WORDS,
  spoken,
} from '@words/practice-words';
import { degrees } from '@words/units';
import { SUSPECT_WORDS, VERDICT_WORDS } from '@words/verdict-words';
import { verdictTitle } from '@words/verdict-title';
import { CLASS_WORDS, SYMPTOM_WORDS } from '@words/words';
import { CASE_PAGE as T, LADDER_PAGE } from '@words/screens/practice';
import { FINDING_NAMES, foundWords } from '@words/diagnosis-words';
import { CircuitView } from '../shared/drawing/circuit-view';
import { layoutCircuit } from '../shared/drawing/circuit-layout';
import { PHONE } from '../shared/ui/phone';
import { Choices } from '../shared/ui/choices';
import { type PlanRun, PlanRunner } from '../workers/plan-runner';
import type { PracticeEnd } from '../workers/plan.worker';
import { CaseTools } from './case-tools';
import { DebriefView } from './debrief-view';
import { KeySound, soundOf } from './key-sound';
import { PracticeRecord } from './practice-record';
import { TrainingBench } from './training-bench';

/** A filament's light falls with about this power of its volts: the trade's rule for lamps. */
const LIGHT_POWER = 3.4;
const FULL_LIGHT_VOLTS = 12.6;
const glowAt = (lampVolts: number): number =>
  Math.min(1, Math.max(0, lampVolts / FULL_LIGHT_VOLTS) ** LIGHT_POWER);

/** Acts that the tool does by its checks, and never proposes. */
const isByHand = (
  action: PracticeAction,
): action is Extract<PracticeAction, { kind: 'probe' | 'amps' | 'gravity' | 'hint' | 'back' }> =>
  ['probe', 'amps', 'gravity', 'hint', 'back'].includes(action.kind);

/** The value of an instrument in hand. */
type ByInstrument = Extract<PracticeAction, { kind: 'probe' | 'amps' }>;

/** A case to practise on: the yard, what is in hand, what it did, and what was done so far. */
@Component({
  selector: 'vt-case-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [CaseTools, Choices, CircuitView, DebriefView, RouterLink],
  providers: [PlanRunner, TrainingBench],
  templateUrl: './case-page.html',
  styleUrl: './case-page.scss',
})
export class CasePage {
  protected readonly t = T;
  protected readonly ladder = LADDER_PAGE;

  /** In the address. */
  readonly code = input.required<string>();
  /** The number of the case in an exam, from 1, and the key of its run; left out for a case by itself. An exam gives no hints and tells nothing. */
  readonly inExam = input<{ readonly place: number; readonly key: string }>();

  private readonly record = inject(PracticeRecord);
  private readonly runner = inject(PlanRunner);
  private readonly sound = inject(KeySound);
  protected readonly bench = inject(TrainingBench);
  private readonly tools = viewChild(CaseTools);
  private run: PlanRun | null = null;

  protected readonly read = computed(() => readCaseCode(this.code()));
  /** Its code, in which nobody reads its fault, whatever the address says. */
  protected readonly shownCode = computed(() => {
    const read = this.read();
    return read ? codeOf(read, read.number) : '';
  });
  private readonly actions = signal<readonly PracticeAction[]>([]);
  protected readonly world = signal<World | null>(null);
  protected readonly chosenPin = signal<string | null>(null);
  /** On a phone the part around the points, as large as its words must be. */
  protected readonly isNear = signal(matchMedia(PHONE).matches);
  protected readonly hint = signal<string | null>(null);
  protected readonly isThinking = signal(false);
  /** A severe risk that has not been looked at yet: time stands still over it. */
  protected readonly unseen = signal<Happened | null>(null);
  protected readonly isGiving = signal(false);
  protected readonly chosenVerdict = signal<VerdictKind | null>(null);
  protected readonly chosenPart = signal<Suspect | null>(null);
  /** How it ended, once the tool has worked the same case. */
  protected readonly end = signal<PracticeEnd | null>(null);

  protected readonly verdicts = VERDICTS.filter((kind) => kind !== 'repaired');
  protected readonly suspects = SUSPECTS;
  protected readonly verdictWords = VERDICT_WORDS;
  protected readonly suspectWords = SUSPECT_WORDS;
  protected readonly rungWords = computed(() => {
    const rung = this.world()?.practice.rung;
    return rung ? RUNG_WORDS[rung] : MADE_WORDS;
  });
  protected readonly cameWords = cameWords;

  protected readonly said = computed(() => {
    const practice = this.world()?.practice;
    if (!practice) return '';
    return SYMPTOM_WORDS[practice.said as keyof typeof SYMPTOM_WORDS];
  });
  protected readonly about = computed(() => {
    const practice = this.world()?.practice;
    if (!practice) return '';
    return [
      CLASS_WORDS[practice.machine.machineClass],
      `${practice.machine.systemVolts} V`,
      degrees(practice.tempC),
    ].join(', ');
  });
  protected readonly minutes = computed(() => Math.round(this.world()?.minutes ?? 0));
  protected readonly risks = computed(() => {
    const world = this.world();
    return [...(world?.log ?? []), ...(world?.takenBack ?? [])].filter(({ hazards }) =>
      hazards.some((h) => h.severity === 'severe'),
    ).length;
  });
  /** The meter's value of the last reading. */
  protected readonly shown = computed(
    () =>
      this.world()
        ?.log.filter((happened) => readWords(happened) !== '')
        .at(-1) ?? null,
  );
  protected readonly readWords = readWords;
  protected readonly brokeWords = BROKE_WORDS;
  /** How the lamps looked when the key was last turned, and how much of their light was left. */
  protected readonly lamps = computed(() => {
    const key = this.world()
      ?.log.flatMap((happened) => happened.key ?? [])
      .at(-1);
    return key
      ? { word: foundWords('ask-dims', lampsLook(key.lampVolts)), glow: glowAt(key.lampVolts) }
      : null;
  });
  protected readonly drawing = computed(() => {
    const world = this.world();
    if (!world) return null;
    const { machine, donor } = world.practice;
    // Points of the side that what is in hand goes to.
    const ends = this.tools()?.sourcePoints() ?? null;
    // A value that nobody has read stands nowhere: amps are seen by their effect, volts by a meter.
    const drawn = layoutCircuit({
      machine,
      donor,
      scene: trueScene(world),
      hookup: world.hookup,
      step: null,
      isCranking: false,
      showPins: ends === null,
      pinsFor: ends && { isDonor: true, pointIds: ends },
      machineName: CLASS_WORDS[machine.machineClass],
    });
    return { ...drawn, volts: [] };
  });
  protected readonly lines = computed(() =>
    (this.world()?.log ?? []).map((happened) => ({
      at: Math.round(happened.atMinutes),
      // The first of its steps tells the cover that came off first.
      text: [...(happened.opened ?? []).slice(0, 1), this.resultText(happened.action)].join(' '),
      came: cameWords(happened),
      severity: happened.hazards[0]?.severity ?? null,
    })),
  );
  protected readonly consequence = computed(() =>
    (this.unseen()?.hazards ?? []).filter(({ severity }) => severity === 'severe').map(hazardWhy),
  );
  private readonly takeBack = viewChild<ElementRef<HTMLElement>>('takeBack');

  constructor() {
    // An exam is read by its own instruments: it has no bench.
    effect(() => {
      if (!this.inExam()) untracked(() => void this.bench.look());
    });
    // A mishap is looked at before anything else.
    effect(() => this.takeBack()?.nativeElement.focus());
    effect(() => {
      const code = this.code();
      if (!this.read()) return;
      untracked(() => this.begin(code, this.record.actions(this.key())));
    });
    effect(() => {
      const [end, read] = [this.end(), this.read()];
      if (!end || !read?.rung) return;
      const { passed, hints } = end.debrief;
      this.record.ended({ rung: read.rung, number: read.number }, { passed, hints, skills: end.skills });
    });
  }

  private key(): string {
    return this.inExam()?.key ?? this.code();
  }

  private begin(code: string, actions: readonly PracticeAction[]): void {
    this.end.set(null);
    this.hint.set(null);
    this.unseen.set(null);
    this.isGiving.set(false);
    let kept = actions;
    let world: World;
    try {
      world = replay(code, actions);
    } catch {
      // A run that an older version kept may be of no case today.
      kept = [];
      world = replay(code, []);
    }
    this.actions.set(kept);
    this.world.set(spoken(world));
    this.record.keep(this.key(), kept);
    if (world.verdict && !this.inExam()) void this.askTool();
  }

  protected resultText(action: PracticeAction): string {
    return practiceActionWords(action, this.world()!.practice);
  }

  protected do(action: PracticeAction): void {
    const world = this.world();
    if (!world || world.verdict || this.unseen() || this.bench.isReading()) return;
    if (this.isForBench(action)) {
      void this.readOnBench(world, action);
      return;
    }
    this.doNow(world, action);
  }

  /** A reading that somebody wants from what is linked. */
  private isForBench(action: PracticeAction): action is ByInstrument {
    if (!this.bench.isChosen()) return false;
    return (
      (action.kind === 'probe' && this.bench.has('meter')) ||
      (action.kind === 'amps' && this.bench.has('clamp'))
    );
  }

  private async readOnBench(world: World, action: ByInstrument): Promise<void> {
    const probes = action.kind === 'probe' ? { red: action.red, black: action.black } : null;
    const shown = await this.bench.read({
      code: this.code(),
      actions: this.actions(),
      probes,
      around: action.kind === 'amps' ? action.around : null,
    });
    if (shown !== null && this.world() === world) this.doNow(world, { ...action, shown });
  }

  private doNow(world: World, action: PracticeAction): void {
    this.take(act(world, action), action);
    const last = this.world()!.log.at(-1);
    if (last?.action === action && last.key)
      this.sound.play(soundOf(last.key, world.practice.profile.engine));
    if (action.kind !== 'hint') this.hint.set(null);
    if (last?.action === action && last.hazards.some((h) => h.severity === 'severe')) this.unseen.set(last);
  }

  private take(world: World, action: PracticeAction): void {
    this.world.set(world);
    this.actions.update((list) => [...list, action]);
    this.record.keep(this.key(), this.actions());
  }

  protected back(): void {
    const world = this.world();
    if (!world || world.verdict) return;
    this.unseen.set(null);
    this.hint.set(null);
    this.take(act(world, { kind: 'back' }), { kind: 'back' });
  }

  /** A point of the drawing was touched: what is in hand goes there. */
  protected pin(pointId: string): void {
    this.chosenPin.set(pointId);
    this.tools()?.touch(pointId);
  }

  protected async ask(level: HintLevel): Promise<void> {
    const world = this.world();
    if (!world || this.isThinking()) return;
    this.isThinking.set(true);
    try {
      this.run ??= this.runner.begin();
      const { next } = await this.run.ask((worker) => worker.practiceNext(this.code(), this.actions()));
      this.do({ kind: 'hint', level });
      this.hint.set(next ? this.hintWords(next, level) : null);
    } finally {
      this.isThinking.set(false);
    }
  }

  private hintWords(next: PracticeAction, level: HintLevel): string {
    // The tool reads by its checks.
    if (isByHand(next)) return '';
    if (level === 'nudge') return T.nudgeOf[next.kind];
    if (level === 'step') return this.resultText(next);
    switch (next.kind) {
      case 'check':
        return T.whyOf.check({ name: FINDING_NAMES[next.check] });
      case 'fetch':
        return T.whyOf.fetch({ name: optionWords(next.optionId, this.world()!.practice) });
      case 'hands':
        return T.whyOf.hands({ name: this.resultText(next) });
      case 'verdict':
        return T.whyOf.verdict({ name: verdictTitle(next.verdict, next.suspect) });
      default:
        return T.whyOf[next.kind];
    }
  }

  protected give(): void {
    const verdict = this.chosenVerdict();
    if (!verdict) return;
    const suspect =
      verdict === 'keep' || verdict === 'unsafe' || verdict === 'not-known' ? null : this.chosenPart();
    this.do({ kind: 'verdict', verdict, suspect });
    this.isGiving.set(false);
    if (this.world()?.verdict && !this.inExam()) void this.askTool();
  }

  private async askTool(): Promise<void> {
    this.run ??= this.runner.begin();
    const code = this.code();
    const end = await this.run.ask((worker) => worker.practiceDebrief(code, this.actions()));
    if (code === this.code()) this.end.set(end);
  }

  /** The same case, from a moment of the run that has ended. */
  protected playFrom(count: number): void {
    const kept = this.world()!
      .log.slice(0, count)
      .map(({ action }) => action);
    this.begin(this.code(), kept);
  }
}

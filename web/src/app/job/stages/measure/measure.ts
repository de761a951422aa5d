import { CHEMISTRY_WORDS } from '@words/plan-words';
import { fixed } from '@words/numbers';
import { degrees } from '@words/units';
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
  untracked,
  output,
  signal,
  viewChild,
} from '@angular/core';
import { Store } from '@ngrx/store';
import type { Instrument } from '@voltrek/contracts';
import { GRAVITY_RANGE } from '@voltrek/core/battery';
import {
  checkOf,
  findingOf,
  DRAWS_PER_CAUSE,
  LEAST_GAIN_BITS,
  MEASURE_GROUPS,
  type MeasureGroup,
  type MeasureKind,
  measuresFor,
  ownVolts,
  type CheckId,
} from '@voltrek/core/diagnosis';
import { isLiftJoined, liftState, type ReadingSource, type Stage } from '@voltrek/core/job';
import { startsByWaking } from '@voltrek/core/machine';
import { outOfRange } from '@words/range-words';
import { NumberPad } from '../../../shared/ui/number-pad';
import { CAUSE_WORDS, outcomesNamed } from '@words/diagnosis-words';
import { volts } from '@words/figures';
import { FIGURE_WORDS, GROUP_WORDS, measureName } from '@words/measure-words';
import { readingText } from '@words/words';
import { PlanRunner } from '../../../workers/plan-runner';
import { workerAnswer } from '../../../workers/worker-answer';
import { AnotherBattery } from '../../another-battery';
import { Arms } from '../../arms';
import { NextAction, type StageAction } from '../../next-action';
import { selectDiagnosis, type Work } from '../../../shared/job/job-selectors';
import { nextActionAt } from '../../../shared/job/next-action-at';
import { Reporter } from '../../../shared/job/reporter';
import { goWords } from '@words/next-words';
import { Lift } from '../../charge/lift-part';
import { offFirst } from '../../take-off';
import { figureFault, figureOf, gravityOf } from './entry';
import { LiveLine } from './live-line';
import { LiveStore } from './live-store';
import { figureMeaning, limitReason, type Meaning, readingMeaning } from './meaning';
import { Taken } from './taken';
import { TracePart } from './trace-part';
import { ANOTHER_BATTERY } from '@words/screens/job';
import { MEASURE as T } from '@words/screens/job-stages-measure';

/** The figure that is read now, and its battery. */
export interface Probed {
  readonly check: CheckId;
  readonly battery: number;
}

interface Choice {
  readonly kind: MeasureKind;
  readonly battery: number;
  readonly name: string;
}
type Group = MeasureGroup | 'trace';

const CELLS = 6;
/** Figures that are taken by keys or fields of their own. */
const WITHOUT_PAD: readonly MeasureKind['entry'][] = ['cells', 'outcome'];

/** The pad, the linked instruments, the readings taken, and what each one says. */
@Component({
  selector: 'vt-measure',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Arms, Lift, LiveLine, NextAction, NumberPad, Taken, TracePart],
  providers: [LiveStore, PlanRunner],
  templateUrl: './measure.html',
  styleUrl: './measure.scss',
})
export class Measure {
  protected readonly t = T;

  readonly work = input.required<Work>();
  readonly goOn = output<Stage>();
  /** Called whenever the probes belong elsewhere. */
  readonly probed = output<Probed>();

  private readonly reporter = inject(Reporter);
  private readonly live = inject(LiveStore);
  private readonly injector = inject(Injector);
  protected readonly other = inject(AnotherBattery);
  protected readonly otherWords = ANOTHER_BATTERY;
  private readonly opensPad = viewChild<ElementRef<HTMLElement>>('opens');
  private readonly closesPad = viewChild<ElementRef<HTMLElement>>('closes');

  protected readonly groups: readonly Group[] = [...MEASURE_GROUPS, 'trace'];
  protected readonly groupWords: Record<Group, string> = { ...GROUP_WORDS, trace: T.trace };
  protected readonly cells = Array.from({ length: CELLS }, (_, i) => i);

  /** Nothing else is read while a lamp is joined: the posts show the helper. */
  protected readonly isLifting = computed(() => isLiftJoined(this.work().job));
  /** Its volts still rise: the lamp may come off, and is better left. */
  protected readonly isRising = computed(() => {
    const { job, situation } = this.work();
    if (!isLiftJoined(job) || situation.stops.length > 0) return false;
    const state = liftState(job.lifting!, situation);
    return state === null || state === 'early' || state === 'rises';
  });
  protected readonly text = signal('');
  protected readonly cellTexts = signal<readonly string[]>(Array.from({ length: CELLS }, () => ''));
  protected readonly tempC = computed(() => this.work().situation.tempC);
  private readonly next = nextActionAt('measure');
  private readonly rating = computed(() => this.work().machine.batteries[0]!.rating);
  /** The figure, and the cold. */
  protected readonly what = computed(() => {
    const { chemistry } = this.rating();
    const cold = degrees(this.tempC());
    return chemistry === 'capacitor'
      ? this.t.bank({ bank: CHEMISTRY_WORDS[chemistry], tempC: cold })
      : this.t.battery({ chemistry: CHEMISTRY_WORDS[chemistry], tempC: cold });
  });
  private readonly isString = computed(() => this.work().machine.batteries.length > 1);

  /** Every measurement of this machine: rest volts once a battery, charging first when it runs. */
  private readonly all = computed<Choice[]>(() => {
    const { machine, situation } = this.work();
    const choices = measuresFor(this.rating(), !startsByWaking(machine)).flatMap((kind): Choice[] =>
      machine.batteries
        .filter((_, battery) => battery === 0 || checkOf(kind.check).isOfBattery)
        .map((_, battery) => ({ kind, battery, name: measureName(kind, battery, machine) })),
    );
    const isCharging = ({ kind }: Choice): boolean => kind.check === 'charging';
    return situation.casualtyRuns
      ? [...choices.filter(isCharging), ...choices.filter((c) => !isCharging(c))]
      : choices;
  });

  /** Index of the first reading not yet taken, or whose battery was lifted or charged since. A number, so that events which leave it alone do not move the choice. */
  private readonly firstOpen = computed(() => {
    const { readings, lifts, charged } = this.work().job;
    const chargedAt = charged?.chargeOnly ? charged.at : '';
    const isAsItIs = (of: number, at: string): boolean =>
      at > chargedAt && !lifts.some((l) => l.battery === of && l.at > at);
    const open = this.all().findIndex(
      ({ kind, battery }) =>
        kind.reading &&
        !readings.some((r) => r.kind === kind.reading && r.battery === battery && isAsItIs(battery, r.at)),
    );
    return Math.max(0, open);
  });
  private readonly takenCount = computed(
    () => this.work().job.readings.length + this.work().job.figures.length,
  );
  /**
   * Stands on the first reading not yet taken, until another is chosen; each one taken moves it on. Never while something is being typed:
   * what was begun as one reading must not become another.
   */
  private readonly chosenIndex = linkedSignal<readonly [count: number, first: number], number>({
    source: () => [this.takenCount(), this.firstOpen()],
    computation: ([, first], before) => (before && untracked(() => this.isTyping()) ? before.value : first),
  });
  private readonly isTyping = computed(() => this.text() !== '' || this.cellTexts().some((t) => t !== ''));
  protected readonly chosen = computed(() => this.all()[this.chosenIndex()] ?? this.all()[0]!);
  private readonly probesAt = computed(() => `${this.chosen().kind.check} ${this.chosen().battery}`);
  protected readonly chosenAt = computed(() => this.all().indexOf(this.chosen()));
  private readonly onTrace = signal(false);
  protected readonly group = computed<Group>(() => (this.onTrace() ? 'trace' : this.chosen().kind.group));
  protected readonly choices = computed(() => this.all().filter((c) => c.kind.group === this.group()));
  protected readonly how = computed(() => {
    const { kind } = this.chosen();
    return kind.reading
      ? readingText(kind.reading, this.work().machine).how
      : (FIGURE_WORDS[kind.check]?.how ?? '');
  });
  /** Why the limit is where it is, of the rule that decided what is typed. */
  protected readonly reason = computed(() => limitReason(this.preview() ?? this.cellMeaning() ?? {}));
  protected readonly unit = computed((): 'V' | 'A' | 'mA' => {
    const { entry } = this.chosen().kind;
    return entry === 'milliamps' ? 'mA' : entry === 'ccaAmps' ? 'A' : 'V';
  });
  protected readonly outcomes = computed(() => outcomesNamed(this.chosen().kind.check));

  protected readonly value = computed(() =>
    figureOf(this.chosen().kind, this.work().machine.systemVolts, this.text()),
  );
  protected readonly display = computed(() => {
    const value = this.value();
    if (value === null || this.text().endsWith('.')) return this.text() || '-';
    return this.unit() === 'V' ? fixed(value, 2) : String(value);
  });
  protected readonly fault = computed(() => {
    if (!this.text() || this.text() === '-') return null;
    const value = this.value();
    return value === null ? T.notAFigure : this.faultOf(value);
  });
  protected readonly preview = computed(() => {
    const value = this.value();
    return value === null || this.fault() ? null : this.meaningOf([value]);
  });

  /** A typed figure says something already, be it that it is wrong. */
  protected readonly isSaid = computed(
    () => (this.fault() ?? this.cellFault() ?? this.preview() ?? this.cellMeaning()) !== null,
  );

  private readonly gravities = computed(() => this.cellTexts().map(gravityOf));
  protected readonly cellFault = computed(() => {
    const typed = this.cellTexts().flatMap((text, i) =>
      text.trim() ? [[i, this.gravities()[i]!] as const] : [],
    );
    const wrong = typed.find(([, value]) => outOfRange('', value, GRAVITY_RANGE) !== null);
    return wrong ? outOfRange(T.cell({ number: wrong[0] + 1 }), wrong[1], GRAVITY_RANGE) : null;
  });
  protected readonly allCells = computed(() => this.cellTexts().every((t) => t.trim()) && !this.cellFault());
  protected readonly cellMeaning = computed(() =>
    this.allCells() ? this.meaningOf(this.gravities()) : null,
  );

  /** The offer of the action bar: the typed figure, the cells that are, else to go on. */
  protected readonly action = computed((): StageAction => {
    if (this.group() !== 'trace' && this.text())
      return {
        label: `${T.take}${this.display()} ${this.unit()}`,
        waits: this.value() === null || this.fault() !== null,
        go: () => this.take(),
      };
    if (this.group() !== 'trace' && this.allCells())
      return { label: T.takeCells, waits: false, go: () => this.takeCells() };
    const next = this.next();
    const off = offFirst(next, this.work(), this.reporter);
    if (off) return off;
    if (next.act !== 'go') return { label: T.nothingToDo, waits: true, go: () => undefined };
    const isBlind = next.to === 'plan' && this.work().job.readings.length === 0;
    const label = isBlind ? T.skipReading : goWords(next.to, next.why);
    return { label, waits: false, go: () => this.goOn.emit(next.to) };
  });

  /** The instrument that reads what is chosen. */
  protected readonly instrument = computed<Instrument | null>(() => {
    switch (this.chosen().kind.needs) {
      case 'meter':
        return 'meter';
      case 'clamp-meter':
        return 'clamp';
      case 'tester':
        return 'tester';
      default:
        return null;
    }
  });
  /** A figure has another way than the pad, or something taken is there to be read: on a phone the pad then opens when it is asked for. */
  protected readonly isOnDemand = computed(
    () =>
      !WITHOUT_PAD.includes(this.chosen().kind.entry) &&
      (this.live.nowOf(this.instrument()) !== null || this.takenCount() > 0),
  );
  private readonly isPadAsked = signal(false);
  protected readonly isPadOpen = computed(
    () => !this.isOnDemand() || this.isPadAsked() || this.text() !== '',
  );
  private readonly question = inject(Store).selectSignal(selectDiagnosis);
  private readonly suspected = workerAnswer(this.question, (worker, { findings, tools, moment }) =>
    worker.suspect(findings, tools, moment, DRAWS_PER_CAUSE),
  );
  /** The measurement worth most next, of those that can be taken here. */
  protected readonly proposal = computed(() => {
    const found = this.suspected.result();
    if (!found || this.suspected.isStale()) return null;
    for (const { check, gainBits, settles, battery = 0 } of found.proposals) {
      const at = this.all().findIndex((c) => c.kind.check === check && c.battery === battery);
      if (at >= 0 && gainBits >= LEAST_GAIN_BITS) {
        const [one, other] = settles.map((cause) => CAUSE_WORDS[cause]);
        return { at, name: this.all()[at]!.name, why: T.tellsBetween({ one, other }) };
      }
    }
    return null;
  });

  protected chooseGroup(group: Group): void {
    if (group === 'trace') this.forget();
    this.onTrace.set(group === 'trace');
    if (group !== 'trace') {
      const at = this.all().findIndex((c) => c.kind.group === group);
      if (this.chosen().kind.group !== group) this.choose(at);
    }
  }

  protected choose(at: number): void {
    this.onTrace.set(false);
    this.forget();
    this.chosenIndex.set(at);
    this.live.release();
  }

  protected chooseIt(choice: Choice): void {
    this.choose(this.all().indexOf(choice));
  }

  private place(check: CheckId, battery: number): void {
    this.live.place({ jobId: this.work().job.id, check, battery });
  }

  constructor() {
    // The probes of a stand-in follow the reading shown, whoever moved it on.
    effect(() => {
      this.probesAt();
      untracked(() => {
        const { kind, battery } = this.chosen();
        this.place(kind.check, battery);
        this.probed.emit({ check: kind.check, battery });
      });
    });
  }

  protected openPad(): void {
    this.isPadAsked.set(true);
    this.focusNext(this.closesPad);
  }

  protected closePad(): void {
    this.forget();
    this.focusNext(this.opensPad);
  }

  /** The key that was tapped goes: whoever goes by keyboard stands on its counterpart. */
  private focusNext(key: () => ElementRef<HTMLElement> | undefined): void {
    afterNextRender(() => key()?.nativeElement.focus(), { injector: this.injector });
  }

  protected setCell(at: number, text: string): void {
    this.cellTexts.update((list) => list.map((t, i) => (i === at ? text : t)));
  }

  private take(): void {
    const value = this.value();
    if (value !== null && !this.fault() && this.chosen().kind.entry !== 'cells')
      this.record([value], 'typed');
  }

  protected takeLive(value: number): void {
    this.record([value], 'meter');
  }

  private takeCells(): void {
    if (this.allCells() && this.chosen().kind.entry === 'cells') this.record(this.gravities(), 'typed');
  }

  protected takeOutcome(found: string): void {
    const { kind, battery } = this.chosen();
    this.reporter.report('finding.recorded', {
      check: kind.check,
      found,
      source: 'typed',
      ...this.of(kind, battery),
    });
  }

  private record(figures: readonly number[], source: ReadingSource): void {
    const { kind, battery } = this.chosen();
    const value = this.ownOf(figures[0]!);
    if (kind.reading) {
      const taken = { kind: kind.reading, volts: value!, battery, tempC: this.tempC(), source };
      this.reporter.report('reading.taken', taken);
    } else {
      const found = findingOf(kind, figures, this.context());
      if (found !== null)
        this.reporter.report('finding.recorded', {
          check: kind.check,
          found,
          source,
          figures,
          ...this.of(kind, battery),
        });
    }
    this.forget();
    this.live.release();
  }

  /** The battery of a string that a figure is of; nothing where it is the machine's. */
  private of({ check }: MeasureKind, battery: number): { battery?: number } {
    return this.isString() && checkOf(check).isOfBattery ? { battery } : {};
  }

  /** A figure that was begun and not taken is dropped with the tab it belongs to. */
  private forget(): void {
    this.text.set('');
    this.isPadAsked.set(false);
    this.cellTexts.set(this.cellTexts().map(() => ''));
  }

  private readonly context = computed(() => {
    const { machine, situation } = this.work();
    const rest = situation.restVolts;
    return {
      rating: (machine.batteries[this.chosen().battery] ?? machine.batteries[0]!).rating,
      systemVolts: machine.systemVolts,
      tempC: this.tempC(),
      restVolts: rest.every((v) => v !== null) ? rest.reduce<number>((a, b) => a + b, 0) : null,
    };
  });

  private meaningOf(figures: readonly number[]): Meaning | null {
    const { kind, battery } = this.chosen();
    if (kind.reading) {
      const meaning = readingMeaning(
        this.work(),
        kind.reading,
        this.ownOf(figures[0]!) ?? figures[0]!,
        battery,
      );
      return { ...meaning, text: this.lessWords() + meaning.text };
    }
    const found = findingOf(kind, figures, this.context());
    return found === null ? null : figureMeaning(this.work(), kind, found, figures);
  }

  /** Found running, no try of this job started it: then it is noted. */
  protected readonly mayRun = computed(() => {
    const { job, machine } = this.work();
    return machine.engine !== null && job.closedAt === null && job.attempts.at(-1)?.outcome !== 'started';
  });
  protected readonly runs = computed(() => this.work().situation.casualtyRuns);
  protected noteRunning(): void {
    this.reporter.report('circumstance.noted', { what: 'casualty-engine-runs', on: !this.runs() });
  }

  /** Of the rest volts of a string's battery: its own, where the meter was at the chassis; null while its fellows are not read. */
  private ownOf(value: number): number | null {
    const { kind, battery } = this.chosen();
    if (kind.reading !== 'rest') return value;
    return ownVolts(value, this.work().situation.restVolts.slice(0, battery));
  }

  /** The volts that were taken away from the figure shown, in words; nothing where it stands as it is. */
  private readonly lessWords = computed(() => {
    const value = this.value();
    const own = value === null ? null : this.ownOf(value);
    return value === null || own === null || own === value
      ? ''
      : T.ownVolts({ below: volts(value - own), own: volts(own) });
  });

  protected readonly faultOf = (shown: number): string | null => {
    const { kind } = this.chosen();
    const value = this.ownOf(shown);
    if (value === null) return T.readLowerFirst;
    if (kind.id === 'key-on' && this.context().restVolts === null) return T.readRestFirst;
    return figureFault(kind, this.work().machine.systemVolts, value);
  };
}

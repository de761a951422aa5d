import { degrees, shownUnit } from '@words/units';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  type ElementRef,
  inject,
  input,
  output,
  signal,
  viewChildren,
} from '@angular/core';
import { mayDo, type Weather } from '@voltrek/contracts';
import { Store } from '@ngrx/store';
import { STOP_CONDITIONS, STOPS_OF_READINGS, type StopCondition } from '@voltrek/core/diagnosis';
import { PLACE_KINDS, type SceneRecord, type Stage } from '@voltrek/core/job';
import { TYPED_RANGES } from '@voltrek/core/quantities';
import { Api } from '../../shared/data/api';
import { problemText } from '../../shared/data/problem';
import { deviceFeature } from '../../shared/sync/device-state';
import { atWork, crewCopy } from '../../shared/data/crew';
import { signInFeature } from '../../shared/data/sign-in';
import { CLASS_WORDS, PLACE_WORDS, SKY_WORDS, CAUTION_WORDS, STOP_WORDS } from '@words/words';
import { Stepper } from '../../shared/ui/stepper';
import { NextAction, type StageAction } from '../next-action';
import { ReasonPrompt } from '../../shared/ui/reason-prompt';
import type { Work } from '../../shared/job/job-selectors';
import { nextActionAt } from '../../shared/job/next-action-at';
import { Reporter } from '../../shared/job/reporter';
import { goWords } from '@words/next-words';
import { offFirst } from '../take-off';
import { withdrawStop } from '../withdraw-stop';
import { SCENE as T } from '@words/screens/job-stages';

/** Air above this now, °C: no night before it froze a battery. */
const NIGHT_FREEZES_BELOW_C = 12;

/** The place, the cold, and the stops before the job starts. */
@Component({
  selector: 'vt-scene',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [NextAction, Stepper],
  template: `
    <section class="stage" aria-labelledby="stage-title">
      <header>
        <h1 id="stage-title">{{ t.scene }}</h1>
        <span class="dim">{{ classWord() }}, {{ work().machine.maker }} {{ work().machine.model }}</span>
        @if (mayAnswerForIt()) {
          <button
            type="button"
            class="key supervised"
            [attr.aria-pressed]="isSupervised()"
            [disabled]="closed()"
            (click)="supervise()"
          >
            {{ t.supervise }}
          </button>
        }
      </header>
      @if (work().call.said; as said) {
        <p class="said">“{{ said }}”</p>
      }
      <div class="top">
        <fieldset>
          <legend>{{ t.air({ unit: unit().unit }) }}</legend>
          <vt-stepper
            [value]="tempC()"
            [shown]="shownTemp(tempC())"
            [lessName]="t.colder"
            [moreName]="t.warmer"
            [least]="range.min"
            [most]="range.max"
            [isBig]="true"
            (changed)="set({ ambientC: $event })"
          />
          @if (weather(); as w) {
            <button
              type="button"
              class="key weather"
              [attr.aria-pressed]="tempC() === weatherC()"
              (click)="takeService(w)"
            >
              {{ t.serviceLow({ temp: degrees(weatherC()!), low: shownTemp(w.lowC), sky: skyWords[w.sky] }) }}
            </button>
          } @else {
            <p class="dim weather" role="status">{{ weatherProblem() }}</p>
          }
        </fieldset>
        <fieldset class="grow">
          <legend>{{ t.place }}</legend>
          <div class="keys tight">
            @for (place of places; track place) {
              <button
                type="button"
                class="key"
                [attr.aria-pressed]="work().job.scene?.place === place"
                (click)="set({ place })"
              >
                {{ placeWords[place] }}
              </button>
            }
          </div>
          @if (mayFreeze()) {
            <div class="coldest">
              <span id="coldest">{{ t.coldestLabel({ unit: unit().unit }) }}</span>
              <vt-stepper
                [value]="coldestC()"
                [shown]="shownTemp(coldestC())"
                [lessName]="t.itWasColder"
                [moreName]="t.warmerNight"
                [most]="tempC()"
                labelledBy="coldest"
                (changed)="setColdest($event)"
              />
            </div>
          }
        </fieldset>
      </div>
      <div class="keys four">
        @for (flag of flags; track flag.key) {
          <button
            type="button"
            class="key"
            [attr.aria-pressed]="record()[flag.key]"
            (click)="toggle(flag.key)"
          >
            {{ flag.name }}
          </button>
        }
      </div>
      <fieldset class="stops">
        <legend>{{ t.stopsTitle }}</legend>
        <div class="stop-grid">
          @for (stop of stops(); track stop) {
            <button
              type="button"
              #stopKey
              class="key fault"
              [attr.aria-pressed]="isRaised(stop)"
              (click)="toggleStop(stop)"
            >
              <span class="sign" aria-hidden="true">!</span><span>{{ stopWords[stop].sign }}</span>
            </button>
          }
        </div>
      </fieldset>
      @if (raised(); as stop) {
        <p class="problem" role="alert">{{ stopWords[stop].wrong }} {{ stopWords[stop].instead }}</p>
      } @else {
        <p class="dim note">{{ caution }}</p>
      }
    </section>
    @let does = action();
    <vt-next-action
      [label]="does.label"
      [action]="does.key"
      [disabled]="does.waits ?? false"
      (go)="does.go()"
    />
  `,
  styles: `
    @use 'media';

    :host {
      display: contents;
    }
    .supervised {
      margin-left: auto;
    }
    .top {
      display: flex;
      gap: 20px;
    }
    .weather {
      margin-top: 6px;
      max-width: 200px;
      font-size: var(--text-xs);
    }
    .coldest {
      display: grid;
      grid-template-columns: 1fr auto;
      align-items: center;
      gap: 6px;
      margin-top: 6px;
    }
    .grow {
      flex: 1;
    }
    .tight {
      display: grid;
      grid-template-columns: repeat(4, 1fr);
      gap: 6px;
    }
    .tight .key {
      padding: 4px 6px;
    }
    .four {
      display: grid;
      grid-template-columns: repeat(4, 1fr);
    }
    legend {
      margin-bottom: 6px;
    }
    .stop-grid {
      display: grid;
      grid-template-columns: repeat(3, minmax(0, 1fr));
      gap: 8px;
    }
    .stop-grid .key span:last-child {
      min-width: 0;
    }
    .stop-grid .key {
      display: flex;
      align-items: center;
      gap: 10px;
      min-height: 58px;
      padding-block: 2px;
      line-height: 1.1;
      text-align: left;
      font-size: var(--text-xs);
    }
    .said {
      font-size: var(--text-m);
      font-weight: 600;
    }
    .sign {
      position: relative;
      flex: none;
      width: 30px;
      font-weight: 800;
      text-align: center;
    }
    .sign::before {
      content: '';
      position: absolute;
      inset: -1px 4px;
      border: 2px solid currentcolor;
      border-radius: 3px;
      transform: rotate(45deg);
    }
    .note {
      font-size: var(--text-xs);
    }
    @include media.narrow {
      .top {
        flex-direction: column;
        gap: 12px;
      }
      .stop-grid,
      .four {
        grid-template-columns: repeat(2, minmax(0, 1fr));
      }
    }
  `,
})
export class Scene {
  protected readonly t = T;

  readonly work = input.required<Work>();
  readonly goOn = output<Stage>();

  private readonly reporter = inject(Reporter);
  private readonly reasons = inject(ReasonPrompt);
  private readonly api = inject(Api);
  private readonly store = inject(Store);

  protected readonly places = PLACE_KINDS;
  protected readonly placeWords = PLACE_WORDS;
  /** Stops that a look around can raise; a stop of a reading is shown once it stands. */
  protected readonly stops = computed(() =>
    STOP_CONDITIONS.filter((stop) => !STOPS_OF_READINGS.includes(stop) || this.isRaised(stop)),
  );
  protected readonly stopWords = STOP_WORDS;
  protected readonly caution = CAUTION_WORDS.standing;
  protected readonly range = TYPED_RANGES.ambientC;
  protected readonly flags = [
    { key: 'sloping', name: T.sloping },
    { key: 'dark', name: T.dark },
    { key: 'enclosed', name: T.closedIn },
    { key: 'mainsNear', name: T.mainsNear },
  ] as const;

  protected readonly record = computed<SceneRecord>(
    () =>
      this.work().job.scene ?? {
        ambientC: this.work().job.call.ambientC,
        place: 'verge',
        sloping: false,
        dark: false,
        enclosed: false,
        mainsNear: false,
      },
  );
  protected readonly tempC = computed(() => this.work().situation.tempC);
  protected readonly coldestC = computed(() => this.work().situation.coldestC);
  /** Above this no night was cold enough to freeze a battery. */
  protected readonly mayFreeze = computed(() => this.tempC() <= NIGHT_FREEZES_BELOW_C);
  protected readonly skyWords = SKY_WORDS;
  protected readonly weather = signal<Weather | null>(null);
  protected readonly weatherProblem = signal('');
  /** The weather service's answer, to the degree that the scene is kept in. */
  protected readonly degrees = degrees;
  protected readonly unit = computed(() => shownUnit('°C'));
  protected readonly shownTemp = (celsius: number): number => Math.round(this.unit().show(celsius));
  protected readonly weatherC = computed(() => {
    const weather = this.weather();
    return weather && Math.round(weather.tempC);
  });
  private readonly placeName = computed(() => this.work().job.call.placeName);
  private readonly stopKeys = viewChildren<ElementRef<HTMLElement>>('stopKey');
  private readonly seen = signal<ReadonlySet<Element>>(new Set());
  /** It is known which of them are on screen. */
  protected readonly looked = signal(false);
  /** Stop conditions that have not been on screen yet: it is not safe by what nobody has looked at. */
  protected readonly unseen = computed(() =>
    this.work().job.scene !== null && this.work().job.symptoms.length > 0
      ? 0
      : this.stopKeys().filter((key) => !this.seen().has(key.nativeElement)).length,
  );
  protected readonly unseenText = computed(() => T.unseenStops({ count: this.unseen() }));
  protected readonly classWord = computed(() => CLASS_WORDS[this.work().machine.machineClass]);
  protected readonly raised = computed(() => this.work().situation.stops[0] ?? null);
  private readonly next = nextActionAt('scene');
  protected readonly closed = computed(() => this.work().job.closedAt !== null);
  private readonly connected = this.store.selectSignal(deviceFeature.selectConnected);
  private readonly signInRequest = this.store.selectSignal(signInFeature.selectRequest);
  private readonly signIn = this.store.selectSignal(signInFeature.selectState);
  private readonly crew = this.store.selectSignal(crewCopy.selectCopy);
  protected readonly isSupervised = computed(() => (this.work().job.supervisedBy ?? null) !== null);
  /** An apprentice may work in this job where somebody who works alone answers for it. */
  protected readonly mayAnswerForIt = computed(() => {
    const role = this.signIn()?.role ?? null;
    return role !== null && mayDo(role, 'work') && atWork(this.crew()).some((c) => c.role === 'apprentice');
  });

  protected readonly action = computed((): StageAction => {
    const next = this.next();
    const off = offFirst(next, this.work(), this.reporter);
    if (off) return off;
    if (next.act === 'go' && next.why !== 'done')
      return { label: goWords(next.to, next.why), go: () => this.goOn.emit(next.to) };
    if (!this.looked()) return { label: T.safe, key: 'looking', waits: true, go: () => undefined };
    const waits = this.closed();
    if (this.unseen() > 0) return { label: this.unseenText(), waits, go: () => this.showUnseen() };
    return { label: T.safe, waits, go: () => this.confirm() };
  });

  constructor() {
    effect((onCleanup) => {
      const watch = new IntersectionObserver(
        (entries) => {
          this.looked.set(true);
          const now = entries.filter((e) => e.isIntersecting).map((e) => e.target);
          if (now.length > 0) this.seen.update((seen) => new Set([...seen, ...now]));
        },
        { threshold: 0.9 },
      );
      for (const key of this.stopKeys()) watch.observe(key.nativeElement);
      onCleanup(() => watch.disconnect());
    });
    let wasAsked = false;
    effect((onCleanup) => {
      // Asked again when the network comes back or somebody has signed in: what was said of their absence is true no more.
      const mayAnswer = this.connected() && !this.signInRequest();
      if (wasAsked && !mayAnswer) return;
      wasAsked = true;
      // A service knows the weather of a place. Where nobody told one, the air is typed.
      if (!this.placeName()) return;
      const asked = this.api.weather(this.placeName()).subscribe({
        next: (weather) => this.weather.set(weather),
        error: (error: unknown) => this.weatherProblem.set(problemText(error)),
      });
      onCleanup(() => asked.unsubscribe());
    });
  }

  private showUnseen(): void {
    const last = this.stopKeys()
      .filter((key) => !this.seen().has(key.nativeElement))
      .at(-1);
    last?.nativeElement.scrollIntoView({ block: 'end' });
  }

  protected set(change: Partial<SceneRecord>): void {
    this.reporter.report('scene.recorded', { ...this.record(), ...change });
  }

  /** No colder than now is what is taken for granted: then nothing is kept. */
  protected setColdest(coldestC: number): void {
    const { coldestC: _before, ...scene } = this.record();
    const isColder = coldestC < this.tempC();
    this.reporter.report('scene.recorded', isColder ? { ...scene, coldestC } : scene);
  }

  protected supervise(): void {
    this.reporter.report('job.supervised', { on: !this.isSupervised() });
  }

  protected toggle(key: 'sloping' | 'dark' | 'enclosed' | 'mainsNear'): void {
    this.set({ [key]: !this.record()[key] });
  }

  protected isRaised(stop: StopCondition): boolean {
    return this.work().job.stops.includes(stop);
  }

  protected async toggleStop(stop: StopCondition): Promise<void> {
    if (!this.isRaised(stop)) {
      this.reporter.report('stop.raised', { stop });
      return;
    }
    await withdrawStop(this.reasons, this.reporter, stop);
  }

  protected takeService(weather: Weather): void {
    this.set({ ambientC: this.weatherC()!, coldestC: Math.min(this.weatherC()!, Math.round(weather.lowC)) });
  }

  private confirm(): void {
    if (this.work().job.scene === null) this.set({});
    this.goOn.emit('checks');
  }
}

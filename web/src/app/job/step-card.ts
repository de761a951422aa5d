import { metres as metresWords } from '@words/units';
import { fixed } from '@words/numbers';
import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  input,
  linkedSignal,
  output,
  inject,
  untracked,
} from '@angular/core';
import { hazardLine, hazardWayOut, hazardWhy, SEVERITY_WORDS } from '@words/hazard-words';
import { isRedClamp } from '@voltrek/core/circuit';
import { act, type Hazard, type HazardCode, type HookupStep, severityRank } from '@voltrek/core/hookup';
import { Voice } from '../shared/ui/voice';
import { PolarityMark } from '../shared/ui/polarity-mark';
import { confirmWords, reasonWords } from '@words/earth-words';
import { CIRCUMSTANCE_WORDS, GAS_WORDS } from '@words/words';
import { CHEMISTRY_WORDS } from '@words/plan-words';
import { Frames } from '../shared/model/frames';
import { later } from '../shared/ui/drawn-later';
import { Countdown } from './countdown';
import { judgedStep } from '../shared/job/judged-step';
import type { PlannedRescue } from '@voltrek/core/job';
import type { Work } from '../shared/job/job-selectors';
import { type StepSeen, stepSeen } from './step-seen';
import { actionTitle, pointFor } from './step-words';
import { STEP_CARD as T } from '@words/screens/job';
import { ampsFigure } from '@words/figures';

interface ToldSource {
  readonly step: string;
  readonly hazards: readonly Hazard[];
}
interface ToldHazards extends ToldSource {
  readonly told: ReadonlyMap<HazardCode, Hazard>;
}
/** A figure that has grown by less than this is the same to a hand. */
const GROWN = 1.1;
/** A hazard in a few words: its first clause. */
const shortOf = (why: string): string => /^[^:.]+/.exec(why)![0];

/** The step to do now: large, with where, why, and what the circuit says of the contact. */
@Component({
  selector: 'vt-step-card',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Countdown, PolarityMark],
  template: `
    <div class="head">
      <span class="badge" aria-hidden="true">
        @if (clamp(); as c) {
          <vt-polarity-mark [isRed]="isRed(c)" />
        } @else {
          <i class="bi" [class]="icon()"></i>
        }
      </span>
      <div aria-live="polite" aria-atomic="true">
        <h2>{{ title() }}</h2>
        <p class="detail">{{ detail() }}</p>
        <p class="dim">{{ reason() }}</p>
      </div>
    </div>
    @if (step().minutes; as minutes) {
      <vt-countdown [seconds]="minutes * 60" [since]="work().job.lastActAt" />
    }
    @if (figures(); as c) {
      <dl>
        <div>
          <dt>{{ isRemoval() ? t.gapItOpens : t.acrossTheGap }}</dt>
          <dd class="figure">{{ fixed(c.gapVolts, 2) }} <small>V</small></dd>
        </div>
        <div>
          <dt>{{ isRemoval() ? t.itCarriesNow : t.whenItIsOn }}</dt>
          <dd class="figure">{{ ampsFigure(c.contactAmps) }} <small>A</small></dd>
        </div>
        <div>
          <dt>{{ t.gasHere }}</dt>
          <dd class="figure" [class.tone-bad]="gas() === 'likely'" [class.tone-good]="gas() === 'none'">
            {{ gasWords[gas()] }}
          </dd>
        </div>
      </dl>
    }
    <div aria-live="assertive">
      @for (h of hazards(); track h.code) {
        @if (!isTold(h)) {
          <p class="hazard" [class]="'is-' + h.severity">
            <strong>{{ severityWords[h.severity] }}</strong>
            <span>{{ why(h) }} {{ wayOut(h) }}</span>
          </p>
        }
      }
    </div>
    @if (still().length > 0) {
      <p class="hazard is-still">
        <strong>{{ t.still }}</strong>
        <span>{{ still().join(', ') }}</span>
      </p>
    }
  `,
  styles: `
    @use 'media';

    :host {
      display: block;
      padding: 16px 22px 12px;
      border: 2px solid var(--ink);
      border-radius: 6px;
      background: var(--sheet);
    }
    .head {
      display: grid;
      grid-template-columns: 90px minmax(0, 1fr);
      gap: 20px;
    }
    .badge {
      display: grid;
      place-items: center;
      width: 90px;
      height: 90px;
      border: 2px solid var(--ink);
      border-radius: 50%;
      font-size: var(--text-xxl);
    }
    .badge vt-polarity-mark {
      width: 58px;
      height: 58px;
    }
    h2 {
      font-size: var(--text-xxl);
      line-height: 1.08;
    }
    .detail {
      margin-top: 8px;
      font-size: var(--text-m);
    }
    .dim {
      margin-top: 6px;
      font-size: var(--text-s);
    }
    dl {
      display: grid;
      grid-template-columns: repeat(3, minmax(0, 1fr));
      margin: 12px 0 0;
      padding-top: 8px;
      border-top: 1px solid var(--line);
    }
    .hazard {
      display: grid;
      grid-template-columns: 62px minmax(0, 1fr);
      gap: 10px;
      margin-top: 6px;
      padding: 3px 0 3px 10px;
      border-left: 4px solid var(--line);
      font-size: var(--text-xs);
      line-height: 1.2;
    }
    .is-watch {
      border-left: 6px double var(--watch);
    }
    .is-watch strong {
      color: var(--watch);
    }
    .is-still {
      color: var(--dim);
    }
    .is-severe {
      border: 3px solid var(--bad);
      color: var(--bad);
    }
    @include media.narrow {
      :host {
        padding: 14px;
      }
      .head {
        grid-template-columns: 56px minmax(0, 1fr);
        gap: 12px;
      }
      .badge {
        width: 56px;
        height: 56px;
        font-size: var(--text-xl);
      }
      .badge vt-polarity-mark {
        width: 38px;
        height: 38px;
      }
      h2 {
        font-size: var(--text-xl);
      }
    }
  `,
})
export class StepCard {
  protected readonly fixed = fixed;
  protected readonly ampsFigure = ampsFigure;
  protected readonly t = T;

  readonly step = input.required<HookupStep>();
  readonly work = input.required<Work>();
  readonly rescue = input.required<PlannedRescue>();
  /** Called with whether all of the step has been on the screen, and how to show what has not. */
  readonly seen = output<StepSeen>();
  /** The step after this one; null after the last. */
  readonly following = input.required<HookupStep | null>();

  private readonly sight = stepSeen(
    () => JSON.stringify(this.step().action),
    'h2, .detail, .hazard span',
    () => this.hazards(),
  );

  constructor() {
    const frames = inject(Frames);
    afterNextRender(() => this.seen.emit(this.sight));
    const voice = inject(Voice);
    // Once a step: what changes within it is read, and would be said over.
    const stepNow = computed(() => JSON.stringify(this.step().action));
    effect(() => {
      stepNow();
      if (voice.isOn()) untracked(() => voice.say(this.title(), this.detail(), ...this.hazardLines()));
    });
    // The tap that does this step shows the next one: it is judged before, while hands are busy.
    effect((onCleanup) => {
      const following = this.following();
      if (!following) return;
      const { scene } = this.rescue();
      const { job, rules } = this.work();
      const then = act(job.hookup, this.step().action);
      let isAsked = true;
      onCleanup(() => (isAsked = false));
      void frames.after('idle').then(() => {
        if (isAsked) judgedStep(scene, then, following.action, rules);
      });
    });
  }

  protected readonly isRed = isRedClamp;
  protected readonly clamp = computed(() => {
    const { action } = this.step();
    return action.kind === 'attach' || action.kind === 'detach' ? action.clamp : null;
  });
  /** Gap, contact, gas and hazards of the step, solved from the circuit before it is confirmed. */
  private readonly judged = computed(() =>
    judgedStep(this.rescue().scene, this.work().job.hookup, this.step().action, this.work().rules),
  );
  private readonly contact = computed(() => this.judged().contact);
  /** A tap does not wait until their place is made. Where they have one they change with the step, and go with it. */
  private readonly hasPlace = later(computed(() => this.contact() !== null));
  protected readonly figures = computed(() => (this.hasPlace() ? this.contact() : null));
  protected readonly hazards = computed(() => this.judged().hazards);
  /** Each hazard as an earlier step told it: it is told once, and stays as a mark. */
  private readonly told = linkedSignal<ToldSource, ToldHazards>({
    source: () => ({ step: JSON.stringify(this.step().action), hazards: this.hazards() }),
    computation: (now, before) => {
      if (!before) return { ...now, told: new Map() };
      if (before.value.step === now.step) return { ...now, told: before.value.told };
      const told = new Map(before.value.told);
      for (const hazard of before.value.hazards) told.set(hazard.code, hazard);
      return { ...now, told };
    },
  });
  /** A stop is told in full each time, and so is a figure that has grown. */
  protected isTold(hazard: Hazard): boolean {
    const before = this.told().told.get(hazard.code);
    return (
      before !== undefined &&
      hazard.severity !== 'severe' &&
      severityRank(hazard) <= severityRank(before) &&
      (hazard.amps ?? 0) <= (before.amps ?? 0) * GROWN
    );
  }
  /** The hazards that are told in full, the worst first. */
  private readonly hazardLines = computed(() =>
    this.hazards()
      .filter((hazard) => !this.isTold(hazard))
      .map((hazard) => hazardLine(hazard)),
  );
  protected readonly still = computed(() =>
    this.hazards()
      .filter((hazard) => this.isTold(hazard))
      .map((hazard) => shortOf(hazardWhy(hazard))),
  );
  protected readonly gas = computed(() => this.judged().gas);
  protected readonly gasWords = GAS_WORDS;
  protected readonly wayOut = hazardWayOut;
  protected readonly why = hazardWhy;
  protected readonly severityWords = SEVERITY_WORDS;
  protected readonly isRemoval = computed(() => this.step().action.kind === 'detach');
  protected readonly title = computed(() =>
    actionTitle(this.step().action, this.work(), this.rescue(), this.work().job.hookup),
  );
  protected readonly icon = computed(() => {
    switch (this.step().action.kind) {
      case 'donor-engine':
        return 'bi-truck';
      case 'pack':
        return 'bi-power';
      case 'plug':
        return 'bi-plug';
      default:
        return this.step().minutes ? 'bi-hourglass-split' : 'bi-eye';
    }
  });
  protected readonly detail = computed(() => {
    const { action } = this.step();
    switch (action.kind) {
      case 'attach': {
        const point = pointFor(this.work(), action.clamp, action.pointId);
        return T.clampAdvice({ spark: [...(point?.steps ?? [])].pop() ?? '' });
      }
      case 'detach':
        return T.freeEndAdvice;
      case 'donor-engine':
        if (!action.running) return T.keyOff;
        return this.work().rules.donorRevs === 'raised' ? T.raisedRevs : T.idleAdvice;
      case 'pack':
        return this.rescue().option.sourceKind === 'hobby-lithium' ? T.atTheirPlug : T.switchAdvice;
      case 'plug':
        return action.in ? T.wallPlugAdvice : T.wallUnplugAdvice;
      case 'circumstance':
        return CIRCUMSTANCE_WORDS[action.what];
      case 'confirm':
        return [this.setting(), confirmWords(action.what, this.work().machine).detail]
          .filter(Boolean)
          .join(' ');
    }
  });
  /** The setting of a charger, at the step that sets it. */
  private setting(): string {
    const { action } = this.step();
    const { option } = this.rescue();
    const given = option.source.alternator;
    if (action.kind !== 'confirm' || action.what !== 'charger-set' || !given) return '';
    const at = option.across.kind === 'battery' ? option.across.battery : 0;
    const { chemistry } = this.work().machine.batteries[at]!.rating;
    return T.chargerSetting({
      chemistry: CHEMISTRY_WORDS[chemistry],
      volts: given.volts,
      amps: ampsFigure(given.maxAmps),
    });
  }

  protected readonly reason = computed(() => {
    const { reason } = this.step();
    const metres = this.contact()?.metresToBattery;
    const away =
      (reason === 'last-away-from-battery' || reason === 'last-near-battery') && metres
        ? T.batteryAway({ metres: metresWords(metres, 1) })
        : '';
    return reasonWords(this.step(), this.work().machine) + away;
  });
}

import { computed, effect, inject, Injectable, linkedSignal, signal, untracked } from '@angular/core';
import { clampsOn } from '@voltrek/core/hookup';
import { planRecord, repairsOfJob, type Stage } from '@voltrek/core/job';
import {
  type Chosen,
  HAND_MINUTES,
  LIKELY_ODDS,
  rankWays,
  surestOf,
  USUAL_SURENESS,
} from '@voltrek/core/plan';
import { Store } from '@ngrx/store';
import {
  selectOptions,
  selectOtherVans,
  selectPlanCases,
  selectWork,
} from '../../../shared/job/job-selectors';
import { keepText, keptText } from '../../../shared/data/kept';
import { kitCopy } from '../../../shared/data/kit';
import { Reporter } from '../../../shared/job/reporter';
import { serverTicker } from '../../../shared/job/ticker';
import { timeOfDay } from '../../../shared/model/dates';
import { inHundred } from '@words/figures';
import { minutesWords, noSourceWords, wayName } from '@words/way-words';
import { namesIn } from '@words/option-name';
import { waysAsked, WaysStore } from '../../ways-store';
import { inputsOfPlan } from './plan-record';
import { PLAN_WAYS as T } from '@words/screens/job-stages-plan';

/** How often the time by which it runs is shown anew, ms. */
const CLOCK_MS = 5_000;
const SURENESS_KEY = 'voltrek.sureness';
/** Odds that the trouble of a second source, or of other leads, must add. */
const BEATS_BY = 0.02;

/** The ways of the job on screen: which are shown, which is looked at, and what taking it does. Dies with Plan. */
@Injectable()
export class PlanWays {
  private readonly store = inject(Store);
  private readonly search = inject(WaysStore);
  private readonly reporter = inject(Reporter);
  private readonly work = this.store.selectSignal(selectWork);
  private readonly options = this.store.selectSignal(selectOptions);
  private readonly cases = this.store.selectSignal(selectPlanCases);
  private readonly now = serverTicker(CLOCK_MS);

  private readonly others = this.store.selectSignal(selectOtherVans);
  private readonly vans = this.store.selectSignal(kitCopy.selectCopy);
  /** The kit at hand and the kit of other vans. */
  private readonly names = computed(() => {
    // An unused part needs no name.
    const others = this.search.ways().some(({ vanId }) => vanId !== undefined) ? this.others() : [];
    const options = [...this.options(), ...others.flatMap(({ ranked }) => ranked)];
    return namesIn(options, [...(this.work()?.kit ?? []), ...others.flatMap(({ kit }) => kit)]);
  });
  /** The name of an option, of a piece of kit, or of a van. */
  readonly nameOf = (id: string): string =>
    this.vans().find((van) => van.id === id)?.name ?? this.names()(id);
  /** How long another van takes that is asked to come, minutes: as it says. */
  readonly fetchMinutes = signal<number>(HAND_MINUTES.fetch);
  readonly sureness = signal(storedSureness());
  /** The input of the search; null where ways are no question: a machine that wakes, or a battery that forbids any current. */
  private readonly input = waysAsked(
    () => new Date(untracked(this.now)).toISOString(),
    () => this.fetchMinutes(),
  );
  readonly exist = computed(() => this.input() !== null);

  /** The odds that count as sure: against the surest way that there is. */
  readonly bar = computed(() => this.sureness() * surestOf(this.search.settled()));
  private readonly ranked = computed(() => rankWays(this.search.settled(), this.bar()));
  /** Without those that another way of the same beginning beats. */
  readonly shown = computed(() =>
    withoutBeaten(this.ranked(), (id) => {
      const option = this.optionOf(id);
      return JSON.stringify([option?.sourceId, option?.across]);
    }),
  );
  /** The way that was taken; once its first source has charged and is off, what it goes on with. */
  private readonly plannedId = computed(() => {
    const { plan, charged } = this.work()?.job ?? {};
    if (!plan?.thenOptionId) return plan?.optionId ?? null;
    return charged?.optionId === plan.optionId ? plan.thenOptionId : `${plan.optionId}>${plan.thenOptionId}`;
  });
  private readonly pickedId = linkedSignal<string | null>(() => this.plannedId());
  readonly chosen = computed(
    () => this.shown().find((c) => c.way.id === this.pickedId()) ?? this.shown()[0] ?? null,
  );
  readonly isUnlikely = computed(() => (this.chosen()?.point.start ?? 1) < LIKELY_ODDS);

  /** The way to turn to when the one looked at fails: another source that is likely. */
  readonly nextBest = computed(() => {
    const chosen = this.chosen();
    const sourceOf = (c: Chosen | null): string | undefined => this.optionOf(c?.way.optionId)?.sourceId;
    const other = this.shown().find(
      (c) => c.way.kind === 'join' && sourceOf(c) !== sourceOf(chosen) && c.point.start >= LIKELY_ODDS,
    );
    return chosen && other
      ? T.nextBest({
          name: wayName(other.way, this.nameOf),
          minutes: minutesWords(other.point.minutes),
          odds: inHundred(other.point.start),
        })
      : null;
  });
  readonly elsewhere = computed(() => noSourceWords(this.search.noSource()));
  /** Likelier than not no source starts it. */
  readonly isElsewhere = computed(() => this.search.noSource().share >= LIKELY_ODDS);

  readonly label = computed(() => {
    const chosen = this.chosen();
    if (chosen) return this.labelOf(chosen);
    return this.search.progress() === null ? T.nothingFits : T.searching;
  });

  constructor() {
    effect(() => {
      const input = this.input();
      untracked(() => void this.search.ask(input));
    });
  }

  pick(wayId: string): void {
    this.pickedId.set(wayId);
  }

  beSure(sureness: number): void {
    this.sureness.set(sureness);
    keepText(SURENESS_KEY, String(sureness));
  }

  again(): void {
    void this.search.ask(this.input());
  }

  /** The joint that the way looked at mends first, where a meter has shown it. */
  readonly mending = computed(() => {
    const work = this.work();
    if (!work || !this.chosen()?.way.mends) return null;
    return repairsOfJob(work.job, work.machine).find(({ check }) => check !== 'look-joints')?.repair ?? null;
  });

  /** Takes what is looked at. Resolves to the stage where it goes on; null where the log refused it: the reason is on screen. */
  take(): Stage | null {
    const chosen = this.chosen();
    const work = this.work();
    if (!chosen || !work) return null;
    const { way, point } = chosen;
    if (way.mends) return 'measure';
    const asked = this.toAsk();
    if (asked !== null) this.reporter.report('van.called', { vanId: asked, minutes: this.fetchMinutes() });
    // It is joined once it is here; what charges until then is joined now.
    if (way.vanId !== undefined && way.kind !== 'charge-then-join') return null;
    if (way.kind === 'own' || way.kind === 'reclamp') return 'crank';
    // Gone through step by step, like a repair.
    if (way.kind === 'roll') return null;
    if (way.kind === 'swap') return 'verdict';
    if (this.isTaken(chosen)) return 'hookup';
    const ranked = this.options().find((o) => o.option.id === way.optionId);
    const plan = ranked && this.cases().get(ranked.option.id);
    if (!ranked || !plan) return null;
    const { waitMinutes, start } = point;
    const inputs = inputsOfPlan({ ...plan, waitMinutes }, work.job);
    const record = planRecord(ranked, { odds: start, waitMinutes, inputs, thenOptionId: way.thenOptionId });
    if (record) this.reporter.report('plan.chosen', record);
    return clampsOn(work.job.hookup).length > 0 ? null : 'hookup';
  }

  private labelOf(chosen: Chosen): string {
    const { way } = chosen;
    const asked = this.toAsk();
    if (asked !== null) return T.askToCome({ van: this.nameOf(asked) });
    if (this.isWaiting()) return T.waitFor({ van: this.nameOf(way.vanId!) });
    if (way.mends) return this.mending() ? T.mendFirst : T.readJoint;
    switch (way.kind) {
      case 'own':
        return T.goOwn;
      case 'roll':
        return T.goRoll;
      case 'reclamp':
        return T.goReclamp;
      case 'swap':
        return T.goSwap;
      case 'join':
      case 'charge-then-join':
        return this.labelToTake(chosen);
    }
  }

  private labelToTake(chosen: Chosen): string {
    const { way, point } = chosen;
    if (this.isTaken(chosen)) return T.goOnToHookUp;
    const name = wayName(way, this.nameOf);
    if (point.start < LIKELY_ODDS) return T.takeAnyway({ name });
    const at = new Date(this.now() + point.minutes * 60_000);
    return T.takeBy({ name, at: timeOfDay(at) });
  }

  /** The van that what is looked at would ask; null where it asks none, or has asked. */
  readonly toAsk = computed(() => {
    const vanId = this.chosen()?.way.vanId;
    return vanId !== undefined && !this.isOnItsWay(vanId) ? vanId : null;
  });

  /** Nothing can be done but wait: what is looked at is on its way. */
  readonly isWaiting = computed(() => {
    const { vanId, kind } = this.chosen()?.way ?? {};
    return vanId !== undefined && kind !== 'charge-then-join' && this.isOnItsWay(vanId);
  });

  /** Another van that has been asked, and is not here yet. */
  private isOnItsWay(vanId: string): boolean {
    return this.work()?.job.vans?.some((v) => v.vanId === vanId && v.arrivedAt === null) ?? false;
  }

  private isTaken({ way, point }: Chosen): boolean {
    const plan = this.work()?.job.plan;
    return plan?.optionId === way.optionId && plan.waitMinutes === point.waitMinutes;
  }

  private optionOf(id: string | null | undefined) {
    return this.options().find((o) => o.option.id === id)?.option;
  }
}

function storedSureness(): number {
  const stored = Number(keptText(SURENESS_KEY));
  return stored > 0 && stored < 1 ? stored : USUAL_SURENESS;
}

/**
 * One source after another counts only where it beats each alone. A lead set counts only where none of the van is better:
 * those are found in depth.
 */
function withoutBeaten(ranked: readonly Chosen[], sourceOf: (optionId: string) => string): Chosen[] {
  return ranked.filter((c, i) => {
    const rivals =
      c.way.kind === 'charge-then-join'
        ? ranked.filter((r) => r.way.kind !== 'charge-then-join' && !r.way.mends)
        : ranked.slice(0, i).filter((r) => c.way.kind === 'join' && isAlike(r, c, sourceOf));
    return !rivals.some(
      ({ point }) => point.minutes <= c.point.minutes && point.start >= c.point.start - BEATS_BY,
    );
  });
}

/** The same source, mended or not, in the same place with other leads. */
const isAlike = (a: Chosen, b: Chosen, sourceOf: (optionId: string) => string): boolean =>
  a.way.kind === 'join' &&
  a.way.mends === b.way.mends &&
  sourceOf(a.way.optionId!) === sourceOf(b.way.optionId!);

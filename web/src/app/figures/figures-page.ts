import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import {
  type HouseFigures,
  JOB_TRAITS,
  type JobFilter,
  type JobTrait,
  NO_VALUE,
  RETURN_DAYS,
  RUNNING_EDGES_MIN,
} from '@voltrek/contracts';
import { SUSPECTS } from '@voltrek/core/diagnosis';
import { STARTED_BY } from '@voltrek/core/job';
import { MACHINE_CLASSES } from '@voltrek/core/machine';
import { calibrationError, CLAIMS_TO_TELL } from '@voltrek/core/quantities';
import { overriddenText, traitText } from '@words/filter-words';
import { fixed, withinSentence } from '@words/numbers';
import { FIGURES_PAGE as T } from '@words/screens/figures';
import { Api } from '../shared/data/api';
import { crewCopy } from '../shared/data/crew';
import { HouseNames } from '../shared/data/house-names';
import { kitCopy } from '../shared/data/kit';
import { LastAsked } from '../shared/data/last-asked';
import { loaded } from '../shared/data/loaded';
import { localDay } from '../shared/model/dates';
import { Chart } from '../shared/ui/chart';
import { Choices } from '../shared/ui/choices';
import type { ChartColours } from '../shared/ui/colours';
import { withPart } from '../shared/ui/filter-line';
import { type Bar, BarList } from './bar-list';
import { oddsChart } from './odds-chart';

/** Spans back from now, days; null: everything. */
const SPANS = [
  { name: 'week', days: 7 },
  { name: 'month', days: 30 },
  { name: 'year', days: 365 },
  { name: 'all', days: null },
] as const;

/** The moment at which a local day begins, or the day that comes so many days after it, ISO 8601. */
function beginningOf(day: string, more = 0): string {
  const at = new Date(`${day}T00:00`);
  at.setDate(at.getDate() + more);
  return at.toISOString();
}

/** The closed jobs of the house in answers to the questions of a lead. Each bar opens the jobs behind it in the log. */
@Component({
  selector: 'vt-figures-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [BarList, Chart, Choices, RouterLink],
  host: { class: 'page', tabindex: '0' },
  templateUrl: './figures-page.html',
  styleUrl: './figures-page.scss',
})
export class FiguresPage {
  protected readonly t = T;
  protected readonly spans = SPANS;
  protected readonly returnDays = RETURN_DAYS;
  protected readonly minutesText = (minutes: number): string => fixed(minutes);

  private readonly api = inject(Api);
  private readonly router = inject(Router);
  private readonly lastAsked = inject(LastAsked);
  private readonly names = inject(HouseNames);
  private readonly store = inject(Store);
  private readonly crew = this.store.selectSignal(crewCopy.selectCopy);
  private readonly vans = this.store.selectSignal(kitCopy.selectCopy);
  protected readonly query = this.lastAsked.figures;

  /** The whole filter: the span as moments, and what it is narrowed to. */
  private readonly filter = computed((): JobFilter => {
    const { days, filter } = this.query();
    return days === null ? filter : { ...filter, from: beginningOf(localDay(new Date()), -days) };
  });
  private readonly answer = loaded<JobFilter, HouseFigures | null>(
    () => this.filter(),
    (filter) => this.api.figures(filter),
    null,
  );
  protected readonly figures = this.answer.value;
  protected readonly problem = this.answer.problem;

  /** The days of the two fields; empty where the span has no end. */
  protected readonly firstDay = computed(() => dayOf(this.filter().from, 0));
  protected readonly lastDay = computed(() => dayOf(this.filter().to, -1));

  protected readonly choices = computed(() => {
    const values: Partial<Record<JobTrait, readonly string[]>> = {
      vanId: this.vans().map(({ id }) => id),
      by: this.crew().map(({ id }) => id),
      machineClass: MACHINE_CLASSES,
      startedBy: [...STARTED_BY, NO_VALUE],
      suspect: [...SUSPECTS, NO_VALUE],
    };
    const labels = {
      vanId: T.van,
      by: T.person,
      machineClass: T.machineClass,
      startedBy: T.startedBy,
      suspect: T.suspect,
    };
    return (Object.keys(labels) as (keyof typeof labels)[]).map((trait) => ({
      trait,
      label: labels[trait],
      options: values[trait]!.map((value) => ({ value, name: traitText(trait, value, this.names) })),
    }));
  });

  protected readonly minutes = computed((): readonly Bar[] =>
    (this.figures()?.minutesToRunning ?? []).map((jobs, i) => {
      const from = i === 0 ? 0 : RUNNING_EDGES_MIN[i - 1]!;
      const to = RUNNING_EDGES_MIN[i];
      return {
        name: to === undefined ? T.barOver({ from }) : T.barMinutes({ from, to }),
        jobs,
        opens: { runningFrom: String(from) },
      };
    }),
  );
  protected readonly traits = computed(() => {
    const figures = this.figures();
    const barsOf = (trait: JobTrait): readonly Bar[] =>
      (figures?.traits[trait] ?? []).map(({ key, jobs, returned }) => ({
        name: traitText(trait, key, this.names),
        jobs,
        opens: { [trait]: key ?? NO_VALUE },
        ...(trait === 'verdict' && { marked: returned, note: T.cameBack({ returned }) }),
      }));
    return Object.fromEntries(JOB_TRAITS.map((trait) => [trait, barsOf(trait)])) as Record<
      JobTrait,
      readonly Bar[]
    >;
  });
  protected readonly returned = computed(
    () => this.figures()?.returns.reduce((n, { jobs }) => n + jobs, 0) ?? 0,
  );
  protected readonly returns = computed((): readonly Bar[] =>
    (this.figures()?.returns ?? []).map(({ verdict, suspect, jobs }) => ({
      name: T.returnOf({
        verdict: traitText('verdict', verdict, this.names),
        cause: withinSentence(traitText('suspect', suspect, this.names)),
      }),
      jobs,
      opens: { verdict: verdict ?? NO_VALUE, returned: 'yes' },
    })),
  );
  protected readonly kit = computed((): readonly Bar[] =>
    (this.figures()?.kit ?? []).map(({ key, tries, failed }) => ({
      name: this.names.kit(key),
      jobs: tries,
      marked: failed,
      note: T.kitTries({ failed, tries, van: this.names.vanOf(key) }),
      opens: { kit: key },
    })),
  );
  protected readonly overridden = computed((): readonly Bar[] =>
    (this.figures()?.overridden ?? []).map(({ key, jobs }) => ({
      name: overriddenText(key),
      jobs,
      opens: { overridden: key },
    })),
  );

  private readonly odds = computed(() => this.figures()?.odds ?? []);
  protected readonly oddsLine = computed(() => {
    const tries = this.odds().reduce((n, { count }) => n + count, 0);
    if (tries < CLAIMS_TO_TELL) return T.oddsFew({ tries, least: CLAIMS_TO_TELL });
    return T.oddsLine({ tries, off: fixed(100 * calibrationError(this.odds())) });
  });
  protected readonly oddsSummary = computed(() =>
    this.odds()
      .map(({ claimed, met, count }) =>
        T.oddsRow({ said: fixed(100 * claimed), met: fixed(100 * met), count }),
      )
      .join('; '),
  );
  protected readonly drawOdds = computed(() => {
    const rows = this.odds();
    return (c: ChartColours) => oddsChart(rows, c);
  });

  protected since(days: number | null): void {
    const { from: _from, to: _to, ...filter } = this.query().filter;
    this.query.set({ days, filter });
  }

  /** Counts from one day to another, both included. */
  protected setDays(first: string, last: string): void {
    const days = {
      from: first ? beginningOf(first) : undefined,
      to: last ? beginningOf(last, 1) : undefined,
    };
    this.query.set({ days: null, filter: withPart(this.query().filter, days) });
  }

  protected narrow(trait: JobTrait, value: string): void {
    const filter = withPart(this.query().filter, { [trait]: value || undefined });
    this.query.update(({ days }) => ({ days, filter }));
  }

  /** Shows the jobs behind a bar. */
  protected open(bar: JobFilter): void {
    this.lastAsked.log.set({ text: '', filter: { ...this.filter(), ...bar }, pages: [''] });
    void this.router.navigate(['/log']);
  }
}

/** The local day of a moment, some days on; empty without one. */
function dayOf(at: string | undefined, more: number): string {
  if (at === undefined) return '';
  const day = new Date(at);
  day.setDate(day.getDate() + more);
  return localDay(day);
}

import { DatePipe } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import type { Battery } from '@voltrek/contracts';
import {
  type BatteryRating,
  CCA_STANDARDS,
  CHEMISTRIES,
  type CcaStandard,
  type Chemistry,
} from '@voltrek/core/battery';
import { Store } from '@ngrx/store';
import { Api } from '../shared/state/api';
import { KitActions, kitFeature } from '../shared/state/kit';
import { problemText } from '../shared/state/problem';
import { sessionFeature } from '../shared/state/session';
import { choicesOf, FormFields, type FormField, type FormValues } from '../shared/ui/form-fields';
import { ratingFault } from '../shared/ui/rating-fault';
import { typedFigure } from '../shared/ui/typed-figure';
import { BATTERY_STATE_WORDS } from '@words/crew-words';
import { nameOf, ratingWords } from '@words/figures';
import { CHEMISTRY_WORDS } from '@words/plan-words';
import { labelSheet } from './battery-labels';
import { BATTERIES_PAGE as T } from '@words/screens/battery';

const NEW: FormValues = {
  chemistry: 'flooded',
  capacityAh: '',
  ccaAmps: '',
  ccaStandard: 'EN',
  dateMark: '',
  van: '',
};

/** Batteries that sit in no vehicle, and any other by the code on its label. */
@Component({
  selector: 'vt-batteries-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [DatePipe, FormFields, RouterLink],
  host: { class: 'page', tabindex: '0' },
  template: `
    <header>
      <h1>{{ t.batteries }}</h1>
      <span class="dim">{{ t.sparesOfTheVansAndWhat }}</span>
      <a class="key" routerLink="/files">{{ t.files }}</a>
    </header>
    <form class="find" (submit)="$event.preventDefault(); find()">
      <label
        ><span>{{ t.codeOnTheLabel }}</span
        ><input
          class="field"
          maxlength="12"
          autocapitalize="characters"
          [value]="code()"
          #typed
          (input)="code.set(typed.value)"
      /></label>
      <button type="submit" class="key strong" [disabled]="code().trim() === ''">
        {{ t.openItsRecord }}
      </button>
      <button type="button" class="key" [disabled]="loose().length === 0" (click)="print()">
        {{ t.labelsPdf }}
      </button>
      <button type="button" class="key" [attr.aria-pressed]="adding()" (click)="adding.set(!adding())">
        {{ t.newBattery }}
      </button>
    </form>
    @if (problem(); as text) {
      <p class="problem" role="alert">{{ text }}</p>
    }
    @if (adding()) {
      <form class="new" (submit)="$event.preventDefault(); add()">
        <vt-form-fields [fields]="fields()" [values]="values()" (typed)="values.set($event)" />
        @if (fault(); as text) {
          <p class="dim">{{ text }}</p>
        }
        <button type="submit" class="key strong" [disabled]="fault() !== null">
          {{ t.putItInTheRecord }}
        </button>
      </form>
    }
    <ul class="ruled">
      @for (b of loose(); track b.id) {
        <li>
          <a [routerLink]="['/battery', b.id]">
            <strong>{{ b.code }}</strong>
            <span>{{ rating(b.rating) }}{{ b.dateMark ? t.marked + b.dateMark : '' }}</span>
            <span>{{ b.vanId ? vanName(b.vanId) : stateWords[b.state] }}</span>
            <span class="dim">{{ t.since(b.since | date: 'd MMM y') }}</span>
          </a>
        </li>
      } @empty {
        <li class="dim none">{{ t.noneIsLooseEveryBatterySits }}</li>
      }
    </ul>
  `,
  styles: `
    .find {
      display: flex;
      flex-wrap: wrap;
      align-items: end;
      gap: 10px;
      margin-bottom: 14px;
    }
    .new {
      display: grid;
      gap: 12px;
      max-width: 640px;
      margin-bottom: 18px;
    }
    li a {
      display: grid;
      grid-template-columns: 110px 1fr 180px 150px;
      align-items: center;
      gap: 16px;
      min-height: 48px;
      color: inherit;
      text-decoration: none;
    }
    li a:hover {
      background: var(--sheet);
    }
    .none {
      padding: 20px 0;
    }
    @media (max-width: 720px) {
      li a {
        grid-template-columns: 84px 1fr;
        gap: 0 10px;
        padding: 6px 0;
      }
      a strong {
        grid-row: span 3;
        align-self: start;
      }
    }
  `,
})
export class BatteriesPage {
  protected readonly t = T;

  private readonly api = inject(Api);
  private readonly router = inject(Router);
  private readonly store = inject(Store);
  private readonly crewId = this.store.selectSignal(sessionFeature.selectCrewId);
  private readonly vans = this.store.selectSignal(kitFeature.selectVans);
  protected readonly loose = signal<readonly Battery[]>([]);
  protected readonly problem = signal<string | null>(null);
  protected readonly code = signal('');
  protected readonly adding = signal(false);
  protected readonly values = signal<FormValues>(NEW);
  protected readonly rating = ratingWords;
  protected readonly stateWords = BATTERY_STATE_WORDS;
  protected readonly fields = computed<readonly FormField[]>(() => [
    {
      key: 'chemistry',
      label: T.chemistry,
      kind: 'choice',
      choices: choicesOf(CHEMISTRIES, CHEMISTRY_WORDS),
    },
    { key: 'capacityAh', label: T.capacity, kind: 'number', unit: 'Ah' },
    { key: 'ccaAmps', label: T.coldCrankingAmps, kind: 'number', unit: 'A' },
    {
      key: 'ccaStandard',
      label: T.byTheStandard,
      kind: 'choice',
      choices: choicesOf(CCA_STANDARDS),
    },
    { key: 'dateMark', label: T.dateMark, kind: 'text', most: 20 },
    {
      key: 'van',
      label: T.whereItIs,
      kind: 'choice',
      choices: [
        { value: '', name: T.atTheDepot },
        ...this.vans().map(({ id, name }) => ({ value: id, name })),
      ],
    },
  ]);
  private readonly typedRating = computed<BatteryRating>(() => {
    const values = this.values();
    return {
      chemistry: values.chemistry as Chemistry,
      capacityAh: typedFigure(values.capacityAh),
      ccaAmps: typedFigure(values.ccaAmps),
      ccaStandard: values.ccaStandard as CcaStandard,
    };
  });
  protected readonly fault = computed(() => ratingFault(this.typedRating()));

  constructor() {
    this.store.dispatch(KitActions.opened());
    this.api.looseBatteries().subscribe({
      next: (loose) => this.loose.set(loose),
      error: (error: unknown) => this.problem.set(problemText(error)),
    });
  }

  protected vanName(id: string): string {
    return nameOf(this.vans(), id);
  }

  protected find(): void {
    this.api.battery(this.code()).subscribe({
      next: ({ battery }) => void this.router.navigate(['/battery', battery.id]),
      error: () => this.problem.set(T.noBatteryHasTheCode(this.code().trim())),
    });
  }

  protected add(): void {
    const values = this.values();
    const chosenVan = values.van ?? '';
    const dateMark = values.dateMark?.trim() ?? '';
    const battery = {
      rating: this.typedRating(),
      dateMark: dateMark === '' ? null : dateMark,
      vanId: chosenVan === '' ? null : chosenVan,
      by: this.crewId(),
    };
    this.api.addBattery(battery).subscribe({
      next: (record) => void this.router.navigate(['/battery', record.battery.id]),
      error: (error: unknown) => this.problem.set(problemText(error)),
    });
  }

  protected async print(): Promise<void> {
    try {
      const { savePdf } = await import('../shared/ui/save-pdf');
      await savePdf(labelSheet(this.loose(), location.origin), 'battery-labels.pdf');
    } catch {
      this.problem.set(T.theLabelsCouldNotBeMade);
    }
  }
}

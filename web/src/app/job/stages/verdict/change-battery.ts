import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import {
  type BatteryRating,
  CCA_STANDARDS,
  type CcaStandard,
  CHEMISTRIES,
  type Chemistry,
} from '@voltrek/core/battery';
import { fittingOrder } from '@voltrek/core/hookup';
import { bankInstead, misfitsOf, replacementNeed } from '@voltrek/core/verdict';
import { catchError, of } from 'rxjs';
import { Api } from '../../../shared/data/api';
import { ratingFault } from '../../../shared/ui/rating-fault';
import { typedFigure } from '../../../shared/ui/typed-figure';
import { ratingWords } from '@words/figures';
import { LAYOUT_WORDS } from '@words/atlas-words';
import { CHEMISTRY_WORDS, hoursWords, MISFIT_WORDS } from '@words/plan-words';
import { batteryWord } from '@words/words';
import type { Work } from '../../../shared/job/job-selectors';
import { Reporter } from '../../../shared/job/reporter';
import { Choices } from '../../../shared/ui/choices';
import { feedsNoted, FittingSteps, stepsLeft } from './fitting-steps';
import { CHANGE_BATTERY as T } from '@words/screens/job-stages-verdict';

/** The least of the new battery, and the steps of taking one out and putting the other in. */
@Component({
  selector: 'vt-change-battery',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Choices, FittingSteps],
  template: `
    <h3>
      {{ t.replacement({ place: work().machine.batteries[at()]!.place }) }}
      @if (work().machine.batteries.length > 1) {
        <span class="keys inline" role="radiogroup" [attr.aria-label]="t.whichBattery">
          @for (b of work().machine.batteries; track $index) {
            <button
              type="button"
              class="key"
              role="radio"
              [attr.aria-checked]="at() === $index"
              (click)="chosen.set($index)"
            >
              {{ batteryWord($index) }}
            </button>
          }
        </span>
      }
    </h3>
    <dl>
      <div>
        <dt>{{ t.kind }}</dt>
        <dd>{{ kinds() }}</dd>
      </div>
      <div>
        <dt>{{ t.atLeast }}</dt>
        <dd>{{ need().capacityAh }} Ah, {{ need().ccaAmps.EN }} A EN, {{ need().ccaAmps.SAE }} A SAE</dd>
      </div>
      <div>
        <dt>{{ t.posts }}</dt>
        <dd>{{ layoutWords[need().layout] }}{{ need().ventHose ? t.ventHose : '' }}</dd>
      </div>
    </dl>
    @if (need().bothOfString) {
      <p class="caution"><span aria-hidden="true">!</span> {{ t.changeBoth }}</p>
    }
    @if (bank(); as b) {
      <p class="dim">
        {{ t.bankInstead({ cranks: b.cranks, parkedHours: hours(b.parkedHours) }) }}
      </p>
    }
    @if (replaced(); as r) {
      <p class="ready">
        {{ r.batteryId ? t.recordGoesOn : t.recordBegins }}
      </p>
    } @else if (left().length > 0) {
      <vt-fitting-steps [work]="work()" [at]="at()" [order]="order()" />
    } @else {
      @if (spares().length > 0) {
        <div class="keys" role="radiogroup" [attr.aria-label]="t.newBattery">
          @for (b of spares(); track b.id) {
            <button
              type="button"
              class="key"
              role="radio"
              [attr.aria-checked]="spare()?.id === b.id"
              (click)="spareId.set(b.id)"
            >
              {{ t.ofTheVan({ code: b.code, rating: ratingWords(b.rating) }) }}
            </button>
          }
          <button
            type="button"
            class="key"
            role="radio"
            [attr.aria-checked]="spare() === null"
            (click)="spareId.set(null)"
          >
            {{ t.aNewOne }}
          </button>
        </div>
      }
      @if (spare()) {
        <button type="button" class="key strong" [disabled]="isClosed()" (click)="fitted()">
          {{ t.itIsFitted }}
        </button>
      } @else {
        <div class="fitted">
          <label>
            <span>{{ t.kind }}</span>
            <select class="field" [value]="chemistry()" #kind (change)="setChemistry(kind.value)">
              @for (c of chemistries; track c) {
                <option [value]="c" [selected]="c === chemistry()">{{ chemistryWords[c] }}</option>
              }
            </select>
          </label>
          <label>
            <small>Ah</small>
            <input
              class="field"
              inputmode="decimal"
              [value]="capacityText()"
              #ah
              (input)="capacityText.set(ah.value)"
            />
          </label>
          <label>
            <span>{{ t.ccaAmps }}</span>
            <input
              class="field"
              inputmode="decimal"
              [value]="ccaText()"
              #cca
              (input)="ccaText.set(cca.value)"
            />
          </label>
          <label>
            <span>{{ t.by }}</span>
            <select class="field" #by (change)="setStandard(by.value)">
              @for (s of standards; track s) {
                <option [value]="s" [selected]="s === standard()">{{ s }}</option>
              }
            </select>
          </label>
          <label>
            <span>{{ t.dateMark }}</span>
            <input
              class="field"
              maxlength="20"
              [value]="dateMark()"
              #mark
              (input)="dateMark.set(mark.value)"
            />
          </label>
          <button
            type="button"
            class="key strong"
            [disabled]="fault() !== null || isClosed()"
            (click)="fitted()"
          >
            {{ t.itIsFitted }}
          </button>
        </div>
        @if (fault(); as why) {
          <p class="problem" role="alert">{{ why }}</p>
        }
      }
    }
  `,
  styles: `
    @use 'media';

    :host {
      display: flex;
      flex-direction: column;
      gap: 10px;
    }
    h3 {
      display: flex;
      align-items: center;
      gap: 14px;
    }
    dl {
      display: flex;
      flex-wrap: wrap;
      gap: 8px 30px;
      margin: 0;
    }
    dd {
      font-weight: 600;
    }
    .fitted {
      display: grid;
      grid-template-columns: repeat(5, 1fr) auto;
      align-items: end;
      gap: 8px;
    }
    @include media.narrow {
      .fitted {
        grid-template-columns: 1fr 1fr;
      }
    }
  `,
})
export class ChangeBattery {
  protected readonly t = T;

  readonly work = input.required<Work>();

  private readonly reporter = inject(Reporter);
  protected readonly batteryWord = batteryWord;

  protected readonly layoutWords = LAYOUT_WORDS;
  protected readonly chemistryWords = CHEMISTRY_WORDS;
  protected readonly chemistries = CHEMISTRIES;
  protected readonly standards = CCA_STANDARDS;

  private readonly batteries = computed(() => this.work().situation.batteries);
  protected readonly chosen = signal<number | null>(null);
  protected readonly at = computed(() => this.chosen() ?? this.batteries().weakest);
  protected readonly need = computed(() => replacementNeed(this.work().machine, this.at()));
  protected readonly kinds = computed(() =>
    this.need()
      .chemistries.map((c) => CHEMISTRY_WORDS[c])
      .join(' or '),
  );
  protected readonly hours = hoursWords;
  /** Only where the house lets a bank stand in for a battery. */
  protected readonly bank = computed(() => {
    const { machine, kit, situation, rules } = this.work();
    const booster = kit.find((item) => item.kind === 'capacitor-booster');
    return rules.capacitors === 'instead' && booster
      ? bankInstead(machine, booster, situation.tempC, rules)
      : null;
  });
  protected readonly order = computed(() =>
    fittingOrder(
      this.work().machine,
      this.batteries().models,
      this.at(),
      this.work().situation.tempC,
      feedsNoted(this.work().job),
    ),
  );
  protected readonly left = computed(() => stepsLeft(this.work().job, this.at(), this.order()));
  /** Batteries on the job's van that fit there. */
  private readonly loose = toSignal(
    inject(Api)
      .looseBatteries()
      .pipe(catchError(() => of([]))),
    {
      initialValue: [],
    },
  );
  protected readonly spares = computed(() =>
    this.loose()
      .filter((b) => b.vanId !== null && b.vanId === this.work().call.vanId)
      .filter((b) => misfitsOf(this.need(), b.rating).length === 0),
  );
  protected readonly spareId = signal<string | null>(null);
  protected readonly spare = computed(() => this.spares().find((b) => b.id === this.spareId()) ?? null);
  protected readonly ratingWords = ratingWords;
  protected readonly dateMark = signal('');
  protected readonly replaced = computed(
    () => this.work().job.replaced.find((r) => r.battery === this.at() || r.battery === null) ?? null,
  );
  protected readonly isClosed = computed(() => this.work().job.closedAt !== null);

  private readonly original = computed(() => this.work().machine.batteries[this.at()]!.rating);
  private readonly typedChemistry = signal<Chemistry | null>(null);
  private readonly typedStandard = signal<CcaStandard | null>(null);
  protected readonly capacityText = signal('');
  protected readonly ccaText = signal('');
  protected readonly chemistry = computed(() => this.typedChemistry() ?? this.original().chemistry);
  protected readonly standard = computed(() => this.typedStandard() ?? this.original().ccaStandard);
  private readonly rating = computed<BatteryRating>(() => ({
    chemistry: this.chemistry(),
    capacityAh: typedFigure(this.capacityText()),
    ccaAmps: typedFigure(this.ccaText()),
    ccaStandard: this.standard(),
  }));
  protected readonly fault = computed(() => {
    if (!this.capacityText() || !this.ccaText()) return T.typeRating;
    const wrong = ratingFault(this.rating());
    if (wrong) return wrong;
    const misfits = misfitsOf(this.need(), this.rating());
    return misfits.length ? T.itDoesNotFit({ list: misfits.map((m) => MISFIT_WORDS[m]).join(', ') }) : null;
  });

  protected setChemistry(value: string): void {
    this.typedChemistry.set(CHEMISTRIES.find((c) => c === value) ?? null);
  }

  protected setStandard(value: string): void {
    this.typedStandard.set(CCA_STANDARDS.find((s) => s === value) ?? null);
  }

  protected fitted(): void {
    const spare = this.spare();
    const dateMark = this.dateMark().trim();
    this.reporter.report(
      'battery.replaced',
      spare
        ? { battery: this.at(), rating: spare.rating, batteryId: spare.id }
        : { battery: this.at(), rating: this.rating(), ...(dateMark && { dateMark }) },
    );
  }
}

import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { fittingOrder } from '@voltrek/core/hookup';
import { bankInstead, type Misfit, misfitsOf, replacementNeed } from '@voltrek/core/verdict';
import { catchError, map, of, startWith, switchMap } from 'rxjs';
import { Api } from '../../../shared/data/api';
import {
  batteryFaults,
  batteryFields,
  batteryValues,
  isSameLabel,
  typedBattery,
} from '../../../shared/entry/battery-fields';
import { formOf, keptOf } from '../../../shared/ui/checked-form';
import { FormFields } from '../../../shared/ui/form-fields';
import { allOf, anyOf } from '@words/numbers';
import { ratingWords } from '@words/figures';
import { LAYOUT_WORDS } from '@words/atlas-words';
import { CHEMISTRY_WORDS, hoursWords, MISFIT_WORDS } from '@words/plan-words';
import { batteryWord } from '@words/words';
import type { Work } from '../../../shared/job/job-selectors';
import { Reporter } from '../../../shared/job/reporter';
import { LabelReader } from '../../../shared/ui/label-dialog';
import { Choices } from '../../../shared/ui/choices';
import { feedsNoted, FittingSteps, stepsLeft } from './fitting-steps';
import { CHANGE_BATTERY as T } from '@words/screens/job-stages-verdict';
import { LABEL_READER as READ } from '@words/screens/ui';

/** Why a battery does not fit; null where it does. */
const misfitWords = (misfits: readonly Misfit[]): string | null =>
  misfits.length > 0 ? T.itDoesNotFit({ list: allOf(misfits.map((m) => MISFIT_WORDS[m])) }) : null;

/** The least of the new battery, and the steps of taking one out and putting the other in. */
@Component({
  selector: 'vt-change-battery',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Choices, FittingSteps, FormFields],
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
      <div class="keys">
        <button type="button" class="key" (click)="readLabel()">{{ readWord }}</button>
      </div>
      @if (problem(); as why) {
        <p class="problem" role="alert">{{ why }}</p>
      }
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
        <p class="dim">{{ t.typeRating }}</p>
        <vt-form-fields [fields]="fields" [form]="form()" />
        <div class="keys">
          <button
            type="button"
            class="key strong"
            [disabled]="form().invalid || misfit() !== null || isClosed()"
            (click)="fitted()"
          >
            {{ t.itIsFitted }}
          </button>
        </div>
        @if (misfit(); as why) {
          <p class="problem" role="alert">{{ why }}</p>
        }
      }
    }
  `,
  styles: `
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
  `,
})
export class ChangeBattery {
  protected readonly t = T;

  readonly work = input.required<Work>();

  private readonly reporter = inject(Reporter);
  private readonly labels = inject(LabelReader);
  protected readonly readWord = READ.read;
  protected readonly batteryWord = batteryWord;

  protected readonly layoutWords = LAYOUT_WORDS;

  private readonly batteries = computed(() => this.work().situation.batteries);
  protected readonly chosen = signal<number | null>(null);
  protected readonly at = computed(() => this.chosen() ?? this.batteries().weakest);
  protected readonly need = computed(() => replacementNeed(this.work().machine, this.at()));
  protected readonly kinds = computed(() => anyOf(this.need().chemistries.map((c) => CHEMISTRY_WORDS[c])));
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
  /** The battery whose label was read: it is at hand, whatever the record says of its place. */
  private readonly atHandId = signal<string | null>(null);
  protected readonly problem = signal<string | null>(null);
  protected readonly spares = computed(() =>
    this.loose()
      .filter((b) => b.id === this.atHandId() || (b.vanId !== null && b.vanId === this.work().call.vanId))
      .filter((b) => misfitsOf(this.need(), b.rating).length === 0),
  );
  protected readonly spareId = signal<string | null>(null);
  protected readonly spare = computed(() => this.spares().find((b) => b.id === this.spareId()) ?? null);
  protected readonly ratingWords = ratingWords;
  protected readonly replaced = computed(
    () => this.work().job.replaced.find((r) => r.battery === this.at() || r.battery === null) ?? null,
  );
  protected readonly isClosed = computed(() => this.work().job.closedAt !== null);

  protected readonly fields = batteryFields();
  /** A new battery is mostly of the kind that went out. */
  private readonly begin = computed(
    () => {
      const { chemistry, ccaStandard } = this.work().machine.batteries[this.at()]!.rating;
      return { chemistry, ccaStandard };
    },
    { equal: isSameLabel },
  );
  protected readonly form = computed(() => formOf(this.fields, batteryValues(this.begin()), batteryFaults));
  private readonly typed = toSignal(
    toObservable(this.form).pipe(
      switchMap((form) =>
        form.valueChanges.pipe(
          startWith(null),
          map(() => keptOf(this.fields, form)),
        ),
      ),
    ),
  );
  /** Why the battery that was typed does not fit; null where it does, and for half a label. */
  protected readonly misfit = computed(() => {
    const values = this.typed();
    if (!values || Object.keys(batteryFaults(values)).length > 0) return null;
    return misfitWords(misfitsOf(this.need(), typedBattery(values).rating));
  });

  protected async readLabel(): Promise<void> {
    const named = await this.labels.read();
    if (named === null) return;
    const battery = this.loose().find(({ id, code }) => id === named || code === named) ?? null;
    const misfits = battery ? misfitsOf(this.need(), battery.rating) : [];
    this.problem.set(battery ? misfitWords(misfits) : T.isNoSpare);
    if (!battery || misfits.length > 0) return;
    this.atHandId.set(battery.id);
    this.spareId.set(battery.id);
  }

  protected fitted(): void {
    const spare = this.spare();
    const { rating, dateMark } = typedBattery(keptOf(this.fields, this.form()));
    this.reporter.report(
      'battery.replaced',
      spare
        ? { battery: this.at(), rating: spare.rating, batteryId: spare.id }
        : { battery: this.at(), rating, ...(dateMark && { dateMark }) },
    );
  }
}

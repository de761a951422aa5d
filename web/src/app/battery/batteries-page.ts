import { HttpErrorResponse } from '@angular/common/http';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { type Battery, type NewBattery, parseNewBattery } from '@voltrek/contracts';
import { Store } from '@ngrx/store';
import { Api } from '../shared/data/api';
import { kitCopy } from '../shared/data/kit';
import { loaded } from '../shared/data/loaded';
import { problemText } from '../shared/data/problem';
import { sessionFeature } from '../shared/data/session';
import { formOf, keptOf, schemaFaults } from '../shared/ui/checked-form';
import { FormFields } from '../shared/ui/form-fields';
import type { FormField, FormValues } from '../shared/ui/form-field';
import { batteryFields, batteryValues, typedBattery } from '../shared/entry/battery-fields';
import { BATTERY_STATE_WORDS } from '@words/crew-words';
import { nameOf, ratingWords } from '@words/figures';
import { labelSheet } from './battery-labels';
import { LabelReader } from '../shared/ui/label-dialog';
import { RecordList, RecordRow } from '../shared/ui/record-list';
import { When } from '../shared/ui/when';
import { BATTERIES_PAGE as T } from '@words/screens/battery';
import { LABEL_READER as READ } from '@words/screens/ui';

const NEW: FormValues = { ...batteryValues({}), vanId: '' };

/** Batteries that sit in no vehicle, and any other by the code on its label. */
@Component({
  selector: 'vt-batteries-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [FormFields, RecordList, RecordRow, RouterLink, When],
  host: { class: 'page', tabindex: '0' },
  template: `
    <header>
      <h1>{{ t.batteries }}</h1>
      <span class="dim">{{ t.subtitle }}</span>
      <a class="key" routerLink="/files">{{ t.files }}</a>
    </header>
    <form class="find" (submit)="$event.preventDefault(); find()">
      <label
        ><span>{{ t.code }}</span
        ><input
          class="field"
          maxlength="12"
          autocapitalize="characters"
          [value]="code()"
          #typed
          (input)="code.set(typed.value)"
      /></label>
      <button type="submit" class="key strong" [disabled]="code().trim() === ''">
        {{ t.openRecord }}
      </button>
      <button type="button" class="key" (click)="readLabel()">{{ readWord }}</button>
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
        <vt-form-fields [fields]="fields()" [form]="form" />
        <button type="submit" class="key strong" [disabled]="form.invalid || isBusy()">
          {{ t.add }}
        </button>
      </form>
    }
    <vt-record-list [link]="linkOf" [none]="isReady() ? t.emptyState : null">
      <ng-template [vtRow]="loose()" let-b>
        <strong>{{ b.code }}</strong>
        <span>{{ rating(b.rating) }}{{ b.dateMark ? t.marked + b.dateMark : '' }}</span>
        <span>{{ b.vanId ? vanName(b.vanId) : stateWords[b.state] }}</span>
        <span class="dim">{{ t.since({ since: b.since | when: 'date' }) }}</span>
      </ng-template>
    </vt-record-list>
  `,
  styles: `
    @use 'media';

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
    vt-record-list {
      --columns: 110px 1fr 180px 150px;
    }
    @include media.phone {
      vt-record-list {
        --columns: 84px 1fr;
      }
      vt-record-list strong {
        grid-row: span 3;
        align-self: start;
      }
    }
  `,
})
export class BatteriesPage {
  protected readonly t = T;

  protected readonly readWord = READ.read;
  private readonly api = inject(Api);
  private readonly labels = inject(LabelReader);
  private readonly router = inject(Router);
  private readonly store = inject(Store);
  private readonly crewId = this.store.selectSignal(sessionFeature.selectCrewId);
  private readonly vans = this.store.selectSignal(kitCopy.selectCopy);
  private readonly list = loaded(
    () => 'loose',
    () => this.api.looseBatteries(),
    [],
  );
  protected readonly loose = this.list.value;
  protected readonly isReady = this.list.isReady;
  protected readonly problem = this.list.problem;
  protected readonly linkOf = ({ id }: Battery): readonly string[] => ['/battery', id];
  protected readonly code = signal('');
  protected readonly adding = signal(false);
  protected readonly isBusy = signal(false);
  protected readonly rating = ratingWords;
  protected readonly stateWords = BATTERY_STATE_WORDS;
  protected readonly fields = computed<readonly FormField[]>(() => [
    ...batteryFields(),
    {
      key: 'vanId',
      label: T.whereItIs,
      kind: 'choice',
      choices: [
        { value: '', name: T.atTheDepot },
        ...this.vans().map(({ id, name }) => ({ value: id, name })),
      ],
    },
  ]);
  protected readonly form = formOf(this.fields(), NEW, (values) =>
    schemaFaults(batteryFields(), () => parseNewBattery(this.entryOf(values))),
  );

  constructor() {
    this.store.dispatch(kitCopy.requested());
  }

  protected vanName(id: string): string {
    return nameOf(this.vans(), id);
  }

  protected async readLabel(): Promise<void> {
    const battery = await this.labels.read();
    if (battery === null) return;
    this.code.set(battery);
    this.find();
  }

  protected find(): void {
    this.api.battery(this.code()).subscribe({
      next: ({ battery }) => void this.router.navigate(['/battery', battery.id]),
      error: (error: unknown) =>
        this.list.tell(isUnknown(error) ? T.unknownCode({ code: this.code().trim() }) : problemText(error)),
    });
  }

  protected add(): void {
    // A second tap while the first is on its way would be a second battery.
    if (this.form.invalid || this.isBusy()) return;
    this.isBusy.set(true);
    this.api.addBattery(this.entryOf(keptOf(this.fields(), this.form))).subscribe({
      next: (record) => void this.router.navigate(['/battery', record.battery.id]),
      error: (error: unknown) => {
        this.isBusy.set(false);
        this.list.tell(problemText(error));
      },
    });
  }

  private entryOf(values: FormValues): NewBattery {
    return {
      ...typedBattery(values),
      vanId: (values.vanId ?? '').trim() || null,
      by: this.crewId(),
    };
  }

  protected async print(): Promise<void> {
    try {
      const { savePdf } = await import('../shared/ui/save-pdf');
      await savePdf(labelSheet(this.loose(), location.origin), 'battery-labels.pdf');
    } catch {
      this.list.tell(T.labelsFailed);
    }
  }
}

/** The server was there, and has none of that name. */
function isUnknown(error: unknown): boolean {
  return error instanceof HttpErrorResponse && error.status === 404;
}

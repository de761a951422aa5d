import { shownUnit } from '@words/units';
import { fixed } from '@words/numbers';
import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import { PLAN_INPUT_RANGES, type PlanChanges, type PlanInput, type PlanInputKey } from '@voltrek/core/plan';
import { typedFigure } from '../../../shared/ui/typed-figure';
import { outOfRange } from '@words/range-words';
import { INPUT_FORMATS, INPUT_WORDS, ORIGIN_WORDS } from '@words/words';
import { parameterFor } from './parameter-notes';
import { PLAN_INPUTS as T } from '@words/screens/job-stages-plan';

interface Row {
  readonly input: PlanInput;
  readonly name: string;
  readonly unit: string;
  readonly text: string;
  readonly origin: string;
  readonly isAssumed: boolean;
  readonly isChanged: boolean;
  readonly fault: string | null;
  readonly note: string | null;
}

/** Every figure the plan counts with: where it came from, its allowed range, and a field to ask "what if". */
@Component({
  selector: 'vt-plan-inputs',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <ul class="ruled">
      @for (row of rows(); track row.input.key) {
        <li [class.assumed]="row.isAssumed">
          <button
            type="button"
            class="name"
            [attr.aria-expanded]="opened() === row.input.key"
            (click)="open(row.input.key)"
          >
            {{ row.name }} <span class="dim origin">{{ row.origin }}</span>
          </button>
          <label>
            <span class="visually-hidden">{{ row.name }}, {{ row.unit }}</span>
            <input
              class="field"
              inputmode="decimal"
              autocomplete="off"
              [value]="row.text"
              [attr.aria-invalid]="row.fault !== null"
              #field
              (change)="type(row.input, field.value)"
            />
          </label>
          <span class="unit dim">{{ row.unit }}</span>
          @if (row.isChanged) {
            <button type="button" class="key back" (click)="reset(row.input.key)">
              <i class="bi bi-arrow-counterclockwise" aria-hidden="true"></i>
              <span class="visually-hidden">{{ t.reset({ name: row.name }) }}</span>
            </button>
          }
          @if (row.fault; as why) {
            <p class="problem" role="alert">{{ why }}</p>
          }
          @if (opened() === row.input.key && row.note) {
            <p class="note">{{ row.note }}</p>
          }
        </li>
      }
    </ul>
  `,
  styles: `
    li {
      display: grid;
      grid-template-columns: 1fr 92px 46px 48px;
      align-items: center;
      gap: 2px 8px;
      padding: 3px 0;
    }
    .name {
      min-height: 48px;
      padding: 0;
      border: 0;
      background: none;
      text-align: left;
      line-height: 1.15;
    }
    .origin {
      display: block;
      font-size: var(--text-xs);
    }
    .assumed .origin {
      color: var(--watch);
      font-weight: 600;
    }
    .assumed .field {
      border-style: dashed;
    }
    .field {
      text-align: right;
    }
    .back {
      padding: 0;
    }
    .problem,
    .note {
      grid-column: 1 / -1;
    }
    .note {
      padding: 4px 0 8px;
      font-size: var(--text-xs);
    }
  `,
})
export class PlanInputs {
  protected readonly t = T;

  readonly inputs = input.required<readonly PlanInput[]>();
  readonly changes = input.required<PlanChanges>();
  readonly changed = output<PlanChanges>();

  protected readonly opened = signal<PlanInputKey | null>(null);
  /** Text that is not a figure in range, by key: kept in its field, never taken. */
  private readonly rejected = signal<Partial<Record<PlanInputKey, { text: string; why: string }>>>({});

  protected readonly rows = computed(() =>
    this.inputs().map((input): Row => {
      const { unit: kept, scale, places } = INPUT_FORMATS[input.key];
      const { unit, show } = shownUnit(kept);
      const rejected = this.rejected()[input.key];
      const isChanged = this.changes()[input.key] !== undefined;
      return {
        input,
        name: INPUT_WORDS[input.key],
        unit,
        text: rejected?.text ?? fixed(show(input.value * scale), places),
        origin: ORIGIN_WORDS[isChanged ? 'changed' : input.origin],
        isAssumed: input.origin === 'assumed' && !isChanged,
        isChanged: isChanged || rejected !== undefined,
        fault: rejected?.why ?? null,
        note: parameterFor(input.key),
      };
    }),
  );

  protected open(key: PlanInputKey): void {
    this.opened.update((now) => (now === key ? null : key));
  }

  protected type({ key }: PlanInput, text: string): void {
    const { scale, unit: kept } = INPUT_FORMATS[key];
    const name = INPUT_WORDS[key];
    const { unit, show, keep } = shownUnit(kept);
    const typed = typedFigure(text);
    const { min, max } = PLAN_INPUT_RANGES[key];
    const ends = [show(min * scale), show(max * scale)];
    const shown = { min: Math.min(...ends), max: Math.max(...ends), unit };
    const why = outOfRange(name, typed, shown);
    const { [key]: _gone, ...others } = this.rejected();
    this.rejected.set(why ? { ...others, [key]: { text, why } } : others);
    if (!why) this.changed.emit({ ...this.changes(), [key]: keep(typed) / scale });
  }

  protected reset(key: PlanInputKey): void {
    const { [key]: _rejected, ...others } = this.rejected();
    this.rejected.set(others);
    const { [key]: _changed, ...left } = this.changes();
    this.changed.emit(left);
  }
}

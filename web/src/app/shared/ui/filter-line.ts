import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { JOB_FILTER_KEYS, type JobFilter } from '@voltrek/contracts';
import { filterText } from '@words/filter-words';
import { FIGURES_PAGE as T } from '@words/screens/figures';
import { HouseNames } from '../data/house-names';

type Part = keyof JobFilter;

/** A filter with some parts changed. A part that is changed to undefined is left out. */
export const withPart = (filter: JobFilter, change: Partial<Record<Part, string | undefined>>): JobFilter =>
  Object.fromEntries(
    Object.entries<string | undefined>({ ...filter, ...change }).filter(([, value]) => value !== undefined),
  );

/** The parts of a filter for jobs, each a key that takes it away. */
@Component({
  selector: 'vt-filter-line',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (parts().length > 0) {
      <div class="keys">
        <span class="dim">{{ t.only }}</span>
        @for (part of parts(); track part.key) {
          <button
            type="button"
            class="key"
            [attr.aria-label]="t.leave({ part: part.text })"
            (click)="narrowed.emit(part.without)"
          >
            {{ part.text }} <i class="bi bi-x-lg" aria-hidden="true"></i>
          </button>
        }
      </div>
    }
  `,
  styles: `
    .keys {
      align-items: center;
    }
  `,
})
export class FilterLine {
  readonly filter = input.required<JobFilter>();
  /** Parts that the page shows itself. */
  readonly leaveOut = input<readonly Part[]>([]);
  readonly narrowed = output<Partial<Record<Part, undefined>>>();

  protected readonly t = T;
  private readonly names = inject(HouseNames);
  protected readonly parts = computed(() => {
    const filter = this.filter();
    return JOB_FILTER_KEYS.filter((key) => filter[key] !== undefined && !this.leaveOut().includes(key)).map(
      (key) => ({ key, text: filterText(key, filter, this.names), without: { [key]: undefined } }),
    );
  });
}

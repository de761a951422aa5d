import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import type { JobFilter } from '@voltrek/contracts';

/** One bar: its jobs, and the filter that opens them. */
export interface Bar {
  readonly name: string;
  readonly jobs: number;
  /** A figure in words beside the count. */
  readonly note?: string;
  /** Jobs of the bar that are marked: those that came back, or failed. */
  readonly marked?: number;
  readonly opens: JobFilter;
}

/** Bars under one another, each a key that opens the jobs behind it. A marked part is hatched as well as coloured. */
@Component({
  selector: 'vt-bar-list',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <ul>
      @for (bar of bars(); track $index) {
        <li>
          <button type="button" (click)="opened.emit(bar.opens)">
            <span class="name">{{ bar.name }}</span>
            <span class="count">{{ bar.jobs }}</span>
            <span class="track" aria-hidden="true">
              <span class="bar" [style.width.%]="(100 * bar.jobs) / most()">
                <span
                  class="marked"
                  [style.width.%]="bar.jobs ? (100 * (bar.marked ?? 0)) / bar.jobs : 0"
                ></span>
              </span>
            </span>
            @if (bar.note) {
              <span class="note">{{ bar.note }}</span>
            }
          </button>
        </li>
      }
    </ul>
  `,
  styles: `
    ul {
      list-style: none;
      margin: 0;
      padding: 0;
    }
    button {
      display: grid;
      grid-template-columns: minmax(0, 1fr) auto;
      gap: 2px 10px;
      align-items: end;
      width: 100%;
      min-height: 48px;
      padding: 4px 0 6px;
      border: 0;
      background: none;
      color: inherit;
      text-align: start;
      font-size: var(--text-s);
    }
    button:hover .name {
      text-decoration: underline;
    }
    .count {
      font-weight: 700;
    }
    .track {
      grid-column: 1 / -1;
      height: 10px;
      background: var(--line);
    }
    .bar {
      display: block;
      height: 100%;
      background: var(--ink);
    }
    .marked {
      display: block;
      height: 100%;
      background: repeating-linear-gradient(135deg, var(--bad) 0 4px, var(--sheet) 4px 7px);
    }
    .note {
      grid-column: 1 / -1;
      font-size: var(--text-xs);
      color: var(--dim);
    }
    @media (forced-colors: active) {
      .bar {
        background: CanvasText;
      }
      .marked {
        background: Highlight;
      }
    }
  `,
})
export class BarList {
  readonly bars = input.required<readonly Bar[]>();
  readonly opened = output<JobFilter>();
  protected readonly most = computed(() => Math.max(1, ...this.bars().map(({ jobs }) => jobs)));
}

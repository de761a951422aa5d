import { Injectable, signal } from '@angular/core';
import type { Forecast, JobFilter } from '@voltrek/contracts';

export interface LogQuery {
  readonly text: string;
  readonly filter: JobFilter;
  /** The beginning of each page gone through; the last is the one on screen, the first begins at the newest. */
  readonly pages: readonly string[];
}

/** The question of the page of figures. */
export interface FiguresQuery {
  /** Back from now; null: the days that the filter names, or all. */
  readonly days: number | null;
  readonly filter: JobFilter;
}

/** The last question of each list, so that a page that is left and opened again shows the same. */
@Injectable({ providedIn: 'root' })
export class LastAsked {
  readonly log = signal<LogQuery>({ text: '', filter: {}, pages: [''] });
  readonly figures = signal<FiguresQuery>({ days: 30, filter: {} });
  readonly atlas = signal('');
  /** The nights of a forecast, or the one that was typed. */
  readonly watch = signal<Forecast>({ place: '', nights: [] });
}

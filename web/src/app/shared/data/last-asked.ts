import { Injectable, signal } from '@angular/core';
import type { VerdictKind } from '@voltrek/core/verdict';

export interface LogQuery {
  readonly text: string;
  readonly verdict: VerdictKind | null;
  /** The beginning of each page gone through; the last is the one on screen, the first begins at the newest. */
  readonly pages: readonly string[];
}

/** The last question of each list, so that a page that is left and opened again shows the same. */
@Injectable({ providedIn: 'root' })
export class LastAsked {
  readonly log = signal<LogQuery>({ text: '', verdict: null, pages: [''] });
  readonly atlas = signal('');
}

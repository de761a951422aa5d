import { computed, inject, Injectable } from '@angular/core';
import { Store } from '@ngrx/store';
import { sessionFeature } from '../data/session';

/** The colours of the light level as it is now, for what is drawn on a canvas. */
export interface ChartColours {
  readonly ink: string;
  readonly dim: string;
  readonly line: string;
  readonly sheet: string;
  readonly body: string;
  readonly lamp: string;
  readonly ok: string;
  readonly bad: string;
  readonly positive: string;
}
const TOKENS = ['ink', 'dim', 'line', 'sheet', 'body', 'lamp', 'ok', 'bad', 'positive'] as const;

/** Reads the colours of the style sheet once for each light level: the browser works out all styles to answer. */
@Injectable({ providedIn: 'root' })
export class Colours {
  private readonly light = inject(Store).selectSignal(sessionFeature.selectLight);

  readonly now = computed(() => {
    this.light();
    const style = getComputedStyle(document.documentElement);
    return Object.fromEntries(
      TOKENS.map((name) => [name, style.getPropertyValue(`--${name}`).trim()]),
    ) as unknown as ChartColours;
  });
}

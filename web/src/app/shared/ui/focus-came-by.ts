import { InputModalityDetector } from '@angular/cdk/a11y';
import { DOCUMENT, inject, Injectable } from '@angular/core';

/**
 * Remembers what the focus came by. A browser calls a focus visible once a key is pressed, whatever brought it there: so a tap that left the focus
 * on a button would have Enter press that button again.
 */
@Injectable({ providedIn: 'root' })
export class FocusCameBy {
  private readonly modality = inject(InputModalityDetector);
  private isByKeyboard = false;

  constructor() {
    inject(DOCUMENT).addEventListener(
      'focusin',
      () => (this.isByKeyboard = this.modality.mostRecentModality === 'keyboard'),
      true,
    );
  }

  /** True where the focus was moved by a key. */
  keyboard(): boolean {
    return this.isByKeyboard;
  }
}

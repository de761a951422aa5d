import { ChangeDetectionStrategy, Component, inject, Injectable, signal } from '@angular/core';
import { NgbActiveModal, NgbModal } from '@ng-bootstrap/ng-bootstrap/modal';

/** Something that hands do, step by step, and how it may end. */
export interface Steps {
  readonly title: string;
  readonly steps: readonly {
    readonly act: string;
    readonly why: string;
    /** The risk of this step now. */
    readonly risk?: string;
  }[];
  readonly note: string;
  /** How it ends well, and, where it is known, how it ends otherwise. */
  readonly yes: string;
  readonly no?: string;
  /** It was not done. */
  readonly leave: string;
}
/** True: it ended well; false: it did not; null: it was not done. */
export type StepsEnd = boolean | null;

@Component({
  selector: 'vt-steps-dialog',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (asked(); as s) {
      <div class="sheet">
        <h1 id="steps-title">{{ s.title }}</h1>
        <ol>
          @for (step of s.steps; track step.act) {
            <li>
              <strong>{{ step.act }}</strong>
              <span class="dim">{{ step.why }}</span>
              @if (step.risk) {
                <span class="risk"><span aria-hidden="true">!</span> {{ step.risk }}</span>
              }
            </li>
          }
        </ol>
        <p class="dim">{{ s.note }}</p>
        <div class="keys">
          <button type="button" class="key strong" (click)="modal.close(true)">{{ s.yes }}</button>
          @if (s.no) {
            <button type="button" class="key strong" (click)="modal.close(false)">{{ s.no }}</button>
          }
          <button type="button" class="key" (click)="modal.dismiss()">{{ s.leave }}</button>
        </div>
      </div>
    }
  `,
  styles: `
    ol {
      display: grid;
      gap: 8px;
      counter-reset: step;
    }
    li {
      display: grid;
      grid-template-columns: 26px 1fr;
      line-height: 1.2;
    }
    li::before {
      grid-row: 1 / span 3;
      content: counter(step);
      counter-increment: step;
      font-size: var(--text-m);
      font-weight: 700;
    }
    li strong {
      font-size: var(--text-m);
      line-height: 1.15;
    }
    li > span {
      grid-column: 2;
      margin: 0;
      font-size: var(--text-s);
    }
    .risk {
      color: var(--watch);
      font-weight: 600;
    }
  `,
})
export class StepsDialog {
  protected readonly modal = inject(NgbActiveModal);
  readonly asked = signal<Steps | null>(null);
}

/** Goes through steps with whoever takes them. */
@Injectable({ providedIn: 'root' })
export class StepsPrompt {
  private readonly modals = inject(NgbModal);

  async goThrough(steps: Steps): Promise<StepsEnd> {
    const dialog = this.modals.open(StepsDialog, { ariaLabelledBy: 'steps-title', scrollable: true });
    (dialog.componentInstance as StepsDialog).asked.set(steps);
    return dialog.result.then(
      (isWell: boolean) => isWell,
      () => null,
    );
  }
}

import { ChangeDetectionStrategy, Component, inject, Injectable, signal } from '@angular/core';
import { NgbActiveModal, NgbModal } from '@ng-bootstrap/ng-bootstrap/modal';

/** The question before something that cannot be taken back. */
export interface Question {
  readonly title: string;
  readonly text: string;
  readonly yes: string;
  readonly no: string;
}

@Component({
  selector: 'vt-confirm-dialog',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="sheet">
      <h1 id="confirm-title">{{ question()?.title }}</h1>
      <p>{{ question()?.text }}</p>
      <div class="keys">
        <button type="button" class="key strong" (click)="modal.close()">{{ question()?.yes }}</button>
        <button type="button" class="key" (click)="modal.dismiss()">{{ question()?.no }}</button>
      </div>
    </div>
  `,
})
export class ConfirmDialog {
  protected readonly modal = inject(NgbActiveModal);
  readonly question = signal<Question | null>(null);
}

/** Asks before something that cannot be taken back. */
@Injectable({ providedIn: 'root' })
export class ConfirmPrompt {
  private readonly modals = inject(NgbModal);

  /** True when it is to be done. */
  async ask(question: Question): Promise<boolean> {
    const dialog = this.modals.open(ConfirmDialog, { ariaLabelledBy: 'confirm-title', centered: true });
    (dialog.componentInstance as ConfirmDialog).question.set(question);
    return dialog.result.then(
      () => true,
      () => false,
    );
  }
}

import { ChangeDetectionStrategy, Component, inject, Injectable, signal } from '@angular/core';
import { NgbActiveModal, NgbModal } from '@ng-bootstrap/ng-bootstrap/modal';
import { REASON_PROMPT as T } from '@words/screens/ui';

/** Shortest reason worth logging, characters. */
const LEAST_REASON = 3;

/** Asks why a caution is set aside. The reason goes into the log. */
@Component({
  selector: 'vt-reason-dialog',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <form class="sheet" (submit)="$event.preventDefault(); give()">
      <h1 id="reason-title">{{ question() }}</h1>
      <label>
        <span>{{ t.label }}</span>
        <textarea
          class="field"
          rows="3"
          maxlength="400"
          [value]="text()"
          #textInput
          (input)="text.set(textInput.value)"
        ></textarea>
      </label>
      <div class="keys">
        <button type="submit" class="key strong" [disabled]="text().trim().length < least">
          {{ t.goOnAndLogIt }}
        </button>
        <button type="button" class="key" (click)="modal.dismiss()">{{ t.leaveIt }}</button>
      </div>
    </form>
  `,
})
export class ReasonDialog {
  protected readonly t = T;

  protected readonly modal = inject(NgbActiveModal);
  readonly question = signal('');
  protected readonly text = signal('');
  protected readonly least = LEAST_REASON;

  protected give(): void {
    if (this.text().trim().length >= LEAST_REASON) this.modal.close(this.text().trim());
  }
}

/** Opens the reason dialog. */
@Injectable({ providedIn: 'root' })
export class ReasonPrompt {
  private readonly modals = inject(NgbModal);

  /** The reason given, or null when the person leaves it. */
  async ask(question: string): Promise<string | null> {
    const dialog = this.modals.open(ReasonDialog, { ariaLabelledBy: 'reason-title', centered: true });
    (dialog.componentInstance as ReasonDialog).question.set(question);
    return dialog.result.then(
      (reason: string) => reason,
      () => null,
    );
  }
}

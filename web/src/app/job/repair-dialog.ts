import { ChangeDetectionStrategy, Component, computed, inject, Injectable, signal } from '@angular/core';
import { type Repair, repairOrder } from '@voltrek/core/diagnosis';
import { FEEDS, stands } from '@voltrek/core/hookup';
import { batteriesOfJob, workingTempC } from '@voltrek/core/job';
import { NgbActiveModal, NgbModal } from '@ng-bootstrap/ng-bootstrap/modal';
import type { Work } from '../shared/job/job-selectors';
import { amps } from '../shared/words/figures';
import { REPAIR_STEP_WORDS, repairName } from '../shared/words/repair-words';

/** A slip that carries less is not told, A. */
const SLIP_TOLD_AMPS = 1;

/** How a repair is made, step by step, with what to mind at each; said once when it is done. */
@Component({
  selector: 'vt-repair-dialog',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="sheet">
      <h1 id="repair-title">{{ title() }}</h1>
      <ol>
        @for (s of steps(); track s.step) {
          <li>
            <strong>{{ words[s.step].act }}</strong>
            <span class="dim">{{ words[s.step].why }}</span>
            @if ((s.slipAmps ?? 0) > told) {
              <span class="slip">
                <span aria-hidden="true">!</span> A spanner slipping to bodywork now: {{ amps(s.slipAmps!) }}.
              </span>
            }
          </li>
        }
      </ol>
      <p class="dim">The maker's instructions come first. What a hand cannot mend here is for a workshop.</p>
      <div class="keys">
        <button type="button" class="key strong" (click)="modal.close()">Mended</button>
        <button type="button" class="key" (click)="modal.dismiss()">Not mended</button>
      </div>
    </div>
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
      font-size: 19px;
      font-weight: 700;
    }
    li strong {
      font-size: 19px;
      line-height: 1.15;
    }
    li span {
      margin: 0;
      font-size: 16px;
    }
    .slip {
      color: var(--watch);
      font-weight: 600;
    }
  `,
})
export class RepairDialog {
  protected readonly modal = inject(NgbActiveModal);
  protected readonly words = REPAIR_STEP_WORDS;
  protected readonly amps = amps;
  protected readonly told = SLIP_TOLD_AMPS;
  readonly asked = signal<{ readonly work: Work; readonly repair: Repair } | null>(null);

  protected readonly title = computed(() => {
    const asked = this.asked();
    return asked ? repairName(asked.repair) : '';
  });
  protected readonly steps = computed(() => {
    const asked = this.asked();
    if (!asked) return [];
    const { job, machine } = asked.work;
    const feeds = FEEDS.filter((feed) => stands(job.hookup, feed));
    return repairOrder(asked.repair, machine, batteriesOfJob(job, machine).models, workingTempC(job), feeds);
  });
}

/** Goes through a repair with whoever makes it. */
@Injectable({ providedIn: 'root' })
export class RepairPrompt {
  private readonly modals = inject(NgbModal);

  /** True when it was mended. It does not go at a stray tap. */
  async goThrough(work: Work, repair: Repair): Promise<boolean> {
    const dialog = this.modals.open(RepairDialog, {
      ariaLabelledBy: 'repair-title',
      backdrop: 'static',
      scrollable: true,
    });
    (dialog.componentInstance as RepairDialog).asked.set({ work, repair });
    return dialog.result.then(
      () => true,
      () => false,
    );
  }
}

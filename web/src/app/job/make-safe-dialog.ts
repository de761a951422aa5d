import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import type { HookupAction } from '@voltrek/core/hookup';
import { entryOf, isLiftJoined } from '@voltrek/core/job';
import { NgbActiveModal } from '@ng-bootstrap/ng-bootstrap/modal';
import { Store } from '@ngrx/store';
import { selectJob, selectMakeSafe, selectRescue, selectWork } from '../shared/job/job-selectors';
import { Reporter } from '../shared/job/reporter';
import { Arms } from './arms';
import { offFirst } from './take-off';
import { actionTitle, stepKey } from './step-words';
import { MAKE_SAFE_DIALOG as T } from '@words/screens/job';

/** Takes everything off, one act at a time, in the order the circuit shows to be safest from here. */
@Component({
  selector: 'vt-make-safe-dialog',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Arms],
  template: `
    <div class="frame">
      <div class="inner">
        <h1 id="make-safe-title">{{ t.makeSafe }}</h1>
        @if (lampOff(); as lamp) {
          <p class="now">{{ lamp.label }}</p>
          <button type="button" class="go" [vtArms]="lamp.label" (click)="lamp.go()">
            {{ t.done({ action: lamp.label }) }}
          </button>
        } @else if (next(); as action) {
          <p class="now">{{ title(action) }}</p>
          <p class="dim">{{ t.caution }}</p>
          <ol>
            @for (later of rest(); track $index) {
              <li>{{ title(later) }}</li>
            }
          </ol>
          <button type="button" class="go" [vtArms]="stepKey({ action })" (click)="done(action)">
            {{ t.done({ action: title(action) }) }}
          </button>
        } @else {
          <p class="now">{{ t.allOff }}</p>
          <p class="dim">{{ t.nothingToDo }}</p>
        }
        <button type="button" class="key" (click)="modal.dismiss()">
          {{ next() || lampOff() ? t.backToTheJob : t.close }}
        </button>
      </div>
    </div>
  `,
  styles: `
    .frame {
      padding: 10px;
      border-radius: 6px;
      background: repeating-linear-gradient(-45deg, var(--bad) 0 16px, var(--sheet) 16px 32px);
    }
    .inner {
      display: grid;
      gap: 14px;
      padding: 22px;
      border-radius: 4px;
      background: var(--sheet);
    }
    .now {
      font-size: var(--text-xxl);
      font-weight: 700;
      line-height: 1.1;
    }
    ol {
      border-top: 1px solid var(--line);
      color: var(--dim);
    }
    li {
      padding: 8px 0;
      border-bottom: 1px solid var(--line);
    }
    .go {
      min-height: 64px;
      border: 0;
      border-radius: 5px;
      background: var(--lamp);
      color: var(--on-lamp);
      font-size: var(--text-l);
      font-weight: 700;
    }
    .go.arming {
      background: var(--lamp-dim);
    }
  `,
})
export class MakeSafeDialog {
  protected readonly t = T;

  protected readonly modal = inject(NgbActiveModal);
  private readonly reporter = inject(Reporter);
  private readonly store = inject(Store);
  private readonly actions = this.store.selectSignal(selectMakeSafe);
  private readonly work = this.store.selectSignal(selectWork);
  private readonly rescue = this.store.selectSignal(selectRescue);
  private readonly job = this.store.selectSignal(selectJob);

  protected readonly next = computed(() => this.actions()[0] ?? null);
  protected readonly rest = computed(() => this.actions().slice(1));

  /** The lamp of a lift: nothing else is on beside it. */
  protected readonly lampOff = computed(() => {
    const work = this.work();
    return work && isLiftJoined(work.job) ? offFirst({ act: 'part-lamp' }, work, this.reporter) : null;
  });

  protected readonly stepKey = stepKey;

  protected title(action: HookupAction): string {
    return actionTitle(action, this.work(), this.rescue(), this.job()?.hookup ?? null);
  }

  protected done(action: HookupAction): void {
    this.reporter.report(...entryOf(action));
  }
}

import { ChangeDetectionStrategy, Component, computed, input, signal } from '@angular/core';
import type { VerdictRecord } from '@voltrek/core/verdict';
import { workshopLines } from './sheet-text';
import type { Work } from '../../../shared/job/job-selectors';
import { WORKSHOP_NOTE as T } from '@words/screens/job-stages-verdict';

/** The note for a workshop: the suspect, the readings, the tries. */
@Component({
  selector: 'vt-workshop-note',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h3>{{ t.title }}</h3>
    <ul class="ruled">
      @for (line of lines(); track line) {
        <li>{{ line }}</li>
      }
    </ul>
    <button type="button" class="key" (click)="copy()">{{ t.copyAsText }}</button>
    <span class="dim" role="status">{{ copied() }}</span>
  `,
  styles: `
    li {
      padding: 5px 0;
      font-size: var(--text-s);
    }
    .key {
      margin: 8px 10px 0 0;
    }
  `,
})
export class WorkshopNote {
  protected readonly t = T;

  readonly work = input.required<Work>();
  readonly record = input.required<VerdictRecord>();

  protected readonly lines = computed(() => workshopLines(this.work(), this.record()));
  protected readonly copied = signal('');

  protected async copy(): Promise<void> {
    try {
      await navigator.clipboard.writeText(this.lines().join('\n'));
      this.copied.set('Copied.');
    } catch {
      this.copied.set(T.copyFailed);
    }
  }
}

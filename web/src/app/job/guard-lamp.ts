import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { guardDark } from '@voltrek/core/hookup';
import type { Work } from '../shared/job/job-selectors';
import { Reporter } from '../shared/job/reporter';
import { volts } from '@words/figures';
import { GUARD_DARK_WORDS } from '@words/guard-words';
import { GUARD_LAMP as T } from '@words/screens/job';

/** The states of a guard lamp other than right: it warns, which stops the hook-up, or stays dark, which has reasons. */
@Component({
  selector: 'vt-guard-lamp',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="keys">
      <button type="button" class="key" (click)="warns()">{{ t.itWarns }}</button>
      <button type="button" class="key" [attr.aria-pressed]="isDark()" (click)="isDark.set(!isDark())">
        {{ t.itStaysDark }}
      </button>
    </div>
    @if (isDark()) {
      <p role="status">{{ why() }}</p>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 6px;
    }
    p {
      font-size: var(--text-s);
      line-height: 1.25;
    }
  `,
})
export class GuardLamp {
  protected readonly t = T;

  readonly work = input.required<Work>();

  private readonly reporter = inject(Reporter);
  protected readonly isDark = signal(false);
  protected readonly why = computed(() => {
    const { machine, rules, situation } = this.work();
    const read = situation.restVolts;
    const sum = read.every((v) => v !== null) ? read.reduce<number>((a, b) => a + b, 0) : null;
    const shown = sum === null ? '' : T.reads({ volts: volts(sum) });
    return shown + GUARD_DARK_WORDS[guardDark(sum, machine.systemVolts, rules)];
  });

  /** The wrong way round, or a short: nothing goes on before that is known. */
  protected warns(): void {
    this.reporter.report('stop.raised', { stop: 'polarity-unknown' });
  }
}

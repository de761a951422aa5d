import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { STANDING_CAUTION, STOP_WORDS } from '@words/words';
import { NextAction } from '../next-action';
import { ReasonPrompt } from '../../shared/ui/reason-prompt';
import type { Work } from '../../shared/job/job-selectors';
import { Reporter } from '../../shared/job/reporter';
import { withdrawStop } from '../withdraw-stop';
import { STOP_SCREEN as T } from '@words/screens/job-stages';

/** What is wrong, and what to do instead. Shown in place of every stage that would go on. */
@Component({
  selector: 'vt-stop-screen',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [NextAction],
  template: `
    <section class="stage" aria-labelledby="stage-title" role="alert">
      <header>
        <h1 id="stage-title">{{ t.stop }}</h1>
      </header>
      <div class="frame">
        <div class="inner">
          @for (stop of work().job.stops; track stop) {
            <h2 class="sign">{{ words[stop].sign }}</h2>
            <p>{{ words[stop].wrong }}</p>
            <p class="instead">{{ words[stop].instead }}</p>
            <button type="button" class="key" (click)="withdraw(stop)">{{ t.itNoLongerStands }}</button>
          }
        </div>
      </div>
      @if (clampsOn()) {
        <p class="problem">{{ t.clampsAreOnMakeSafeNow }}</p>
      }
      <p class="dim">{{ t.noHookUpIsOffered(caution) }}</p>
    </section>
    <vt-next-action [label]="t.stoppedGoToTheVerdict" (go)="toVerdict.emit()" />
  `,
  styles: `
    :host {
      display: contents;
    }
    .frame {
      padding: 12px;
      border-radius: 6px;
      background: repeating-linear-gradient(-45deg, var(--bad) 0 18px, var(--sheet) 18px 36px);
    }
    .inner {
      display: grid;
      gap: 12px;
      justify-items: start;
      padding: 22px;
      border-radius: 4px;
      background: var(--sheet);
    }
    .sign {
      font-size: 33px;
      line-height: 1.1;
    }
    .instead {
      font-size: 20px;
      font-weight: 600;
    }
  `,
})
export class StopScreen {
  protected readonly t = T;

  readonly work = input.required<Work>();
  readonly toVerdict = output();

  private readonly reporter = inject(Reporter);
  private readonly reasons = inject(ReasonPrompt);

  protected readonly words = STOP_WORDS;
  protected readonly caution = STANDING_CAUTION;
  protected readonly clampsOn = computed(() =>
    Object.values(this.work().job.hookup.clamps).some((c) => c !== null),
  );

  protected async withdraw(stop: Work['job']['stops'][number]): Promise<void> {
    await withdrawStop(this.reasons, this.reporter, stop);
  }
}

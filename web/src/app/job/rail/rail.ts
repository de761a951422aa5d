import {
  ChangeDetectionStrategy,
  Component,
  effect,
  type ElementRef,
  input,
  output,
  viewChildren,
} from '@angular/core';
import { type Stage, STAGES } from '@voltrek/core/job';
import { STAGE_WORDS } from '@words/stage-words';
import type { StageResult } from './stage-results';
import { RAIL as T } from '@words/screens/job-rail';

/** The nine stages as a road line: done ones ticked with their result, the current one lit. */
@Component({
  selector: 'vt-rail',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <nav [attr.aria-label]="t.stages">
      <ol>
        @for (stage of stages; track stage; let i = $index) {
          @let result = results()[stage];
          <li>
            <button
              type="button"
              #stop
              [class.current]="stage === current()"
              [class.done]="result.done"
              [class.stopped]="result.stopped"
              [attr.aria-current]="stage === current() ? 'step' : null"
              (click)="chosen.emit(stage)"
            >
              <span class="stop" aria-hidden="true">
                @if (result.done && !result.stopped) {
                  <i class="bi bi-check-lg"></i>
                } @else {
                  {{ result.stopped ? '!' : i + 1 }}
                }
              </span>
              <span class="words">
                <strong>{{ words[stage] }}</strong>
                <span class="result">{{ result.line }}</span>
                @if (result.done) {
                  <span class="visually-hidden">{{ t.done }}</span>
                }
              </span>
            </button>
          </li>
        }
      </ol>
    </nav>
  `,
  styles: `
    @use 'media';

    :host {
      grid-area: rail;
      background: var(--road);
      color: var(--on-road);
      min-height: 0;
      overflow: auto;
    }
    ol {
      position: relative;
      padding: 14px 0;
    }
    ol::before {
      content: '';
      position: absolute;
      left: 33px;
      top: 34px;
      bottom: 34px;
      width: 4px;
      background: repeating-linear-gradient(to bottom, var(--on-road-dim) 0 16px, transparent 16px 30px);
      opacity: 0.55;
    }
    button {
      position: relative;
      display: flex;
      align-items: center;
      gap: 10px;
      width: 100%;
      min-height: 68px;
      padding: 4px 8px 4px 18px;
      border: 0;
      background: none;
      color: inherit;
      text-align: left;
      line-height: 1.2;
    }
    .stop {
      flex: none;
      display: grid;
      place-items: center;
      width: 34px;
      height: 34px;
      border-radius: 50%;
      border: 2.5px solid var(--on-road-dim);
      background: var(--road);
      font-weight: 700;
    }
    strong {
      display: block;
      font-weight: 600;
      font-size: var(--text-s);
    }
    .result {
      display: block;
      font-size: var(--text-xs);
      color: var(--on-road-dim);
    }
    .done .stop {
      background: var(--on-road);
      border-color: var(--on-road);
      color: var(--road);
    }
    .stopped .stop {
      background: var(--bad);
      border-color: var(--bad);
      color: var(--on-bad);
      border-radius: 4px;
      transform: rotate(45deg);
    }
    .current {
      background: var(--lamp);
      color: var(--on-lamp);
    }
    .current .result {
      color: var(--on-lamp);
    }
    .current .stop {
      background: var(--on-lamp);
      border-color: var(--on-lamp);
      color: var(--lamp);
    }
    @media (forced-colors: active) {
      .current {
        border: 4px solid Highlight;
      }
    }
    button:focus-visible {
      outline-offset: -4px;
      outline-color: var(--on-road);
      box-shadow: none;
    }
    .current:focus-visible {
      outline-color: var(--on-lamp);
    }
    @include media.phone {
      :host {
        overflow: hidden;
      }
      ol {
        display: flex;
        padding: 0 4px;
        overflow-x: auto;
        scrollbar-width: none;
      }
      ol::before {
        left: 20px;
        right: 20px;
        top: 22px;
        bottom: auto;
        width: auto;
        height: 4px;
        background: repeating-linear-gradient(to right, var(--on-road-dim) 0 12px, transparent 12px 22px);
      }
      li {
        flex: 1 0 48px;
      }
      button {
        justify-content: center;
        min-height: 48px;
        padding: 4px 0;
      }
      .stop {
        width: 30px;
        height: 30px;
        font-size: var(--text-xs);
      }
      .words {
        position: absolute;
        width: 1px;
        height: 1px;
        overflow: hidden;
        clip-path: inset(50%);
      }
    }
  `,
})
export class Rail {
  protected readonly t = T;

  readonly current = input.required<Stage>();
  readonly results = input.required<Record<Stage, StageResult>>();
  readonly chosen = output<Stage>();

  private readonly stops = viewChildren<ElementRef<HTMLElement>>('stop');
  protected readonly stages = STAGES;
  protected readonly words = STAGE_WORDS;

  constructor() {
    // On a phone the stages are wider than the screen: the one that is open stays in sight.
    effect(() => {
      const at = STAGES.indexOf(this.current());
      this.stops()[at]?.nativeElement.scrollIntoView({ block: 'nearest', inline: 'nearest' });
    });
  }
}

import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  inject,
  input,
  output,
  signal,
  untracked,
} from '@angular/core';
import { FocusCameBy } from '../shared/ui/focus-came-by';
import { tapAnywhere } from './tap-anywhere';
import { armedFor, ARMS_AFTER_MS, HOLD_MS } from './arming';
import { NEXT_ACTION as T } from '@words/screens/job';

/**
 * The one next action of a stage. A stage that has several by turns says which in one value, and has one button: a replaced button would
 * take the focus away and make the browser paint the whole page within the tap.
 */
export interface StageAction {
  readonly label: string;
  /** See {@link NextAction.action}. */
  readonly key?: string;
  /** It can be seen and not be done yet. */
  readonly waits?: boolean;
  readonly go: () => void;
}

/** The one next action of a stage: large, in the action bar, on the Enter key. */
@Component({
  selector: 'vt-next-action',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: {
    '(document:keydown.enter)': 'onEnter($event)',
    '(document:keyup.enter)': 'letGo()',
    '(window:blur)': 'letGo()',
  },
  template: `
    <button
      type="button"
      class="next"
      data-once
      [class.arming]="!armed() && !disabled()"
      [class.holding]="isHolding()"
      [class.plain]="isPlain()"
      [style.--fills-for.ms]="isHolding() ? holdMs : armsAfterMs"
      [disabled]="disabled()"
      [attr.aria-disabled]="armed() ? null : true"
      (click)="onClick($event)"
      (pointerdown)="press($event)"
      (pointerup)="letGo()"
      (pointercancel)="letGo()"
      (pointerleave)="letGo()"
      (contextmenu)="holds() && $event.preventDefault()"
      (keydown.space)="onSpace($event)"
      (keyup.space)="letGo()"
    >
      {{ holds() ? t.hold : '' }}{{ label() }} <kbd aria-hidden="true">Enter</kbd>
    </button>
  `,
  styles: `
    @use 'media';

    :host {
      grid-area: next;
      display: flex;
      background: var(--road);
      padding: 14px 0;
    }
    .next {
      flex: 1;
      position: relative;
      isolation: isolate;
      overflow: hidden;
      border: 0;
      border-radius: 5px;
      background: var(--lamp-dim);
      color: var(--on-lamp);
      font-size: var(--text-xl);
      font-weight: 700;
      line-height: 1.05;
    }
    @media (forced-colors: active) {
      .next {
        border: 4px solid;
      }
    }
    /*
     * Fills while it is not taken yet: by moving what is painted once. It stays as a layer of its own. To make or drop one makes the
     * browser paint the whole page within the tap.
     */
    .next::before {
      content: '';
      position: absolute;
      inset: 0;
      z-index: -1;
      background: var(--lamp);
      transform-origin: left;
      will-change: transform;
    }
    .next.arming::before,
    .next.holding::before {
      animation: fill var(--fills-for) linear both;
    }
    @keyframes fill {
      from {
        transform: scaleX(0);
      }
    }
    .next.plain::before,
    .next:disabled::before {
      content: none;
    }
    @media (prefers-reduced-motion: reduce) {
      .next.arming::before,
      .next.holding::before {
        content: none;
      }
    }
    /* What can be done, and is not what is advised. */
    .next.plain {
      background: transparent;
      border: 2px solid var(--on-road-dim);
      color: var(--on-road);
      font-size: var(--text-l);
    }
    .next:disabled {
      background: transparent;
      border: 2px dashed var(--on-road-dim);
      color: var(--on-road);
      font-size: var(--text-l);
    }
    kbd {
      margin-left: 12px;
      padding: 2px 8px;
      border: 1.5px solid currentcolor;
      border-radius: 4px;
      background: none;
      color: inherit;
      font: inherit;
      font-size: var(--text-xs);
      font-weight: 500;
      vertical-align: 4px;
    }
    .next:disabled kbd {
      display: none;
    }
    @include media.phone {
      /* Room for three lines: what is taken, and by when it runs. */
      :host {
        padding: 6px 0;
      }
      .next {
        font-size: var(--text-m);
        text-wrap: balance;
      }
      .next.plain {
        font-size: var(--text-s);
      }
      kbd {
        display: none;
      }
    }
  `,
})
export class NextAction {
  protected readonly t = T;

  readonly label = input.required<string>();
  readonly disabled = input(false);
  /** It can be done, and is not advised: it does not shine. */
  readonly isPlain = input(false);
  /** Its act, where its label does not tell one step from the next; left out: the label without its figures. */
  readonly action = input<string>();
  /** It is done only when held for half a second. */
  readonly holds = input(false);
  readonly go = output();

  protected readonly armsAfterMs = inject(ARMS_AFTER_MS);
  protected readonly holdMs = inject(HOLD_MS);
  protected readonly isHolding = signal(false);
  private readonly focus = inject(FocusCameBy);
  private timer: ReturnType<typeof setTimeout> | undefined;
  private readonly doing = computed(() => this.action() ?? this.label().replace(/[\d.,:-]+/g, ''));
  private readonly arming = armedFor(this.doing);
  protected readonly armed = this.arming.armed;

  constructor() {
    // A hold was meant for the action that stood there before.
    effect(() => {
      this.doing();
      untracked(() => this.letGo());
    });
    inject(DestroyRef).onDestroy(() => this.letGo());
    tapAnywhere({
      press: (event) => this.arming.press(event),
      tap: (event) => {
        if (this.arming.pressed(event) === 'this') this.actUnseen();
      },
      key: () => this.actUnseen(),
    });
  }

  private act(): void {
    if (this.armed() && !this.disabled()) this.go.emit();
  }

  /** Without a look only what is advised is done. An act that must be held is held on its own button. */
  private actUnseen(): void {
    if (!this.holds() && !this.isPlain()) this.act();
  }

  /**
   * A click that no hand or key has begun comes from an aid that cannot hold. One that was begun for another action is not meant for this.
   */
  protected onClick(event: MouseEvent): void {
    const begunFor = this.arming.pressed(event);
    if (begunFor === 'another') return;
    if (!this.holds() || (event.detail === 0 && begunFor === 'nothing')) this.act();
  }

  /** A finger or the space bar: a click follows when it lets go, which then counts no more. */
  protected press(event: Event): void {
    this.arming.press(event);
    this.hold();
  }

  private hold(): void {
    if (!this.holds() || !this.armed() || this.disabled()) return;
    this.isHolding.set(true);
    clearTimeout(this.timer);
    this.timer = setTimeout(() => {
      this.letGo();
      this.act();
    }, this.holdMs);
  }

  /** Let go before its time: nothing was meant. */
  protected letGo(): void {
    clearTimeout(this.timer);
    this.isHolding.set(false);
  }

  protected onSpace(event: Event): void {
    if (!(event as KeyboardEvent).repeat) this.press(event);
  }

  /**
   * Enter is what the bar says it is, whatever was tapped before: it belongs to another only where that was reached with the keyboard, or
   * is being typed into. A held key acts once.
   */
  protected onEnter(event: Event): void {
    const focused = document.activeElement;
    const isBusy =
      focused !== null &&
      focused !== document.body &&
      (focused.matches('input, select, textarea') ||
        (this.focus.keyboard() && focused.matches('button:not(.next), a, [tabindex]:not(h1)')));
    if (isBusy || document.querySelector('.modal')) return;
    event.preventDefault();
    if ((event as KeyboardEvent).repeat) return;
    if (this.holds()) this.hold();
    else this.act();
  }
}

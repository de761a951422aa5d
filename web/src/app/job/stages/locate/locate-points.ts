import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  linkedSignal,
  output,
} from '@angular/core';
import { POLARITY_SIGNS, POLARITY_SIGNS_NEEDED, type PolaritySign } from '@voltrek/core/diagnosis';
import { isPositiveEarth, isPositivePoint } from '@voltrek/core/machine';

import { CAUTION_WORDS, POINT_KIND_WORDS, POLARITY_WORDS } from '@words/words';
import { NextAction } from '../../next-action';
import type { Work } from '../../../shared/job/job-selectors';
import { Reporter } from '../../../shared/job/reporter';
import { LatchPart } from './latch-part';
import { LocateHead, type LocatePart } from './locate-head';
import { LOCATE_POINTS as T } from '@words/screens/job-stages-locate';

/** The points with the way to each, the warnings, and the signs of positive. */
@Component({
  selector: 'vt-locate-points',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [LatchPart, LocateHead, NextAction],
  template: `
    <section class="stage" aria-labelledby="stage-title">
      <vt-locate-head [work]="work()" part="points" (partChosen)="partChosen.emit($event)" />
      @if (isTurned() || work().machine.cautions.length || work().machine.never.length) {
        <div class="told">
          @if (isTurned()) {
            <p class="caution"><span aria-hidden="true">!</span> {{ turnedWords }}</p>
          }
          @for (caution of work().machine.cautions; track $index) {
            <p class="caution"><span aria-hidden="true">!</span> {{ caution }}</p>
          }
          @for (line of work().machine.never; track $index) {
            <p class="never">
              <strong>{{ t.never }}</strong> {{ line }}
            </p>
          }
        </div>
      }
      <ol class="ruled points">
        @for (point of work().machine.points; track point.id; let i = $index) {
          @let isChosen = point.id === chosen();
          <li>
            <button
              type="button"
              class="point"
              [attr.aria-expanded]="isChosen"
              (click)="pinChosen.emit(point.id)"
            >
              <span class="number" [class.positive]="isPositive(point.kind)" aria-hidden="true">{{
                i + 1
              }}</span>
              <span>{{ point.label }}</span>
              <span class="dim">{{ kindWords[point.kind] }}</span>
            </button>
            @if (isChosen) {
              <ol class="steps">
                @if (point.cover || point.tools?.length) {
                  <li class="dim">
                    {{ point.cover ? t.under + point.cover + '.' : '' }}
                    {{ point.tools?.length ? t.tools + point.tools!.join(', ') + '.' : '' }}
                  </li>
                }
                @for (step of point.steps; track $index) {
                  <li>{{ step }}</li>
                }
              </ol>
            }
          </li>
        }
      </ol>
      <vt-latch-part [work]="work()" />
      <fieldset>
        <legend>{{ t.polarityTitle }}</legend>
        <div class="keys">
          @for (sign of signs(); track sign) {
            <button
              type="button"
              class="key"
              [attr.aria-pressed]="ticked().includes(sign)"
              (click)="tick(sign)"
            >
              {{ signWords[sign] }}
            </button>
          }
        </div>
      </fieldset>
    </section>
    <vt-next-action
      [label]="enough() ? t.polarityAction : t.polarityMissing"
      [disabled]="!enough()"
      (go)="confirm()"
    />
  `,
  styles: `
    @use 'media';

    :host {
      display: contents;
    }
    .point {
      display: grid;
      grid-template-columns: 34px 1fr auto;
      align-items: center;
      gap: 12px;
      width: 100%;
      min-height: 48px;
      padding: 4px 0;
      border: 0;
      background: none;
      text-align: left;
      font-weight: 600;
    }
    .point .dim {
      font-weight: 500;
    }
    .number {
      display: grid;
      place-items: center;
      width: 30px;
      height: 30px;
      border: 2px solid var(--ink);
      border-radius: 50%;
      background: var(--sheet);
      font-weight: 700;
    }
    .number.positive {
      background: var(--positive);
      color: var(--on-positive);
    }
    .steps {
      padding: 2px 0 12px 46px;
      font-size: var(--text-m);
    }
    .steps li {
      padding: 3px 0;
    }
    .told {
      display: grid;
      gap: 4px;
      font-size: var(--text-s);
      line-height: 1.3;
    }
    .never {
      padding-left: 12px;
      border-left: 6px solid var(--bad);
    }
    /* The question of this stage stays in sight while the points are read. */
    fieldset {
      position: sticky;
      bottom: -12px;
      padding: 8px 0 12px;
      background: var(--paper);
      border-top: 1px solid var(--line);
    }
    legend {
      float: left;
      width: 100%;
      margin-bottom: 6px;
    }
    /* On a phone it leaves the points as much room as it can. */
    @include media.narrow {
      fieldset .keys {
        display: grid;
        grid-template-columns: repeat(3, 1fr);
        gap: 6px;
      }
      fieldset .key {
        padding: 4px;
        font-size: var(--text-xs);
      }
      legend {
        font-size: var(--text-xs);
        line-height: 1.15;
        margin-bottom: 4px;
      }
    }
  `,
})
export class LocatePoints {
  protected readonly t = T;

  readonly work = input.required<Work>();
  readonly chosenPin = input<string | null>(null);
  readonly pinChosen = output<string>();
  readonly partChosen = output<LocatePart>();
  readonly next = output();

  private readonly reporter = inject(Reporter);

  protected readonly isPositive = isPositivePoint;
  protected readonly isTurned = computed(() => isPositiveEarth(this.work().machine));
  protected readonly turnedWords = CAUTION_WORDS.positiveEarth;
  protected readonly kindWords = POINT_KIND_WORDS;
  /** A black cable that runs to the body tells nothing where plus is on it. */
  protected readonly signs = computed(() =>
    POLARITY_SIGNS.filter((sign) => sign !== 'black-to-body' || !this.isTurned()),
  );
  protected readonly signWords = POLARITY_WORDS;
  /** The signs in the log, as one word: it changes only when they do, so that no other event clears what is being ticked. */
  private readonly logged = computed(() => this.work().job.polaritySigns.join());
  protected readonly ticked = linkedSignal<readonly PolaritySign[]>(() =>
    POLARITY_SIGNS.filter((sign) => this.logged().split(',').includes(sign)),
  );
  protected readonly enough = computed(() => this.ticked().length >= POLARITY_SIGNS_NEEDED);
  protected readonly chosen = computed(() => this.chosenPin() ?? this.work().machine.points[0]?.id);

  protected tick(sign: PolaritySign): void {
    this.ticked.update((list) => (list.includes(sign) ? list.filter((s) => s !== sign) : [...list, sign]));
    // The second sign finds it. Signs that are changed afterwards are found again by a tap.
    if (this.enough() && !this.logged()) this.confirm();
  }

  protected confirm(): void {
    const signs = POLARITY_SIGNS.filter((sign) => this.ticked().includes(sign));
    if (signs.join() !== this.logged()) this.reporter.report('polarity.proved', { signs });
    this.next.emit();
  }
}

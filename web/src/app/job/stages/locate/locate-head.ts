import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { isPositiveEarth } from '@voltrek/core/machine';
import { isTemplate } from '@voltrek/core/template';
import { CONFIDENCE_MARKS } from '@words/atlas-words';
import type { Work } from '../../../shared/job/job-selectors';
import { AnotherBattery } from '../../another-battery';
import { messagesOf } from '@words/messages-of';
import { ANOTHER_BATTERY } from '@words/screens/job';
import { LOCATE_HEAD as T } from '@words/screens/job-stages-locate';

const PARTS = ['points', 'park', 'identify'] as const;
/** The parts of Locate: the points, a place for the donor, or the machine itself. */
export type LocatePart = (typeof PARTS)[number];

/** A donor may help this machine at all: its body is minus, and is never joined to one that is plus. */
const mayLend = ({ donorMachine, machine }: Work): boolean =>
  donorMachine !== null && !isPositiveEarth(machine);

/** The head of Locate: what is known of the machine, and the way to its other parts. */
@Component({
  selector: 'vt-locate-head',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <header>
      <h1 id="stage-title">{{ t.locate }}</h1>
      <span class="dim">{{ about() }}</span>
    </header>
    <div class="keys" role="group" [attr.aria-label]="t.partOfLocate">
      @for (p of shown(); track p) {
        <button type="button" class="key" [attr.aria-pressed]="p === part()" (click)="partChosen.emit(p)">
          {{ words[p] }}
        </button>
      }
      @if (mayDiffer()) {
        <button type="button" class="key" (click)="other.open()">{{ otherWords.open }}</button>
      }
    </div>
  `,
  styles: `
    @use 'media';

    :host {
      display: grid;
      gap: 12px;
    }
    header {
      display: flex;
      justify-content: space-between;
      align-items: baseline;
      gap: 16px;
    }
    @include media.narrow {
      :host {
        gap: 6px;
      }
      header {
        font-size: var(--text-xs);
        line-height: 1.2;
      }
      .keys {
        display: grid;
        grid-auto-flow: column;
        gap: 6px;
      }
      .key {
        padding: 4px;
        font-size: var(--text-s);
      }
    }
  `,
})
export class LocateHead {
  protected readonly t = T;

  readonly work = input.required<Work>();
  readonly part = input.required<LocatePart>();
  readonly partChosen = output<LocatePart>();

  protected readonly other = inject(AnotherBattery);
  protected readonly otherWords = ANOTHER_BATTERY;
  /** An unknown machine has no battery on record yet. */
  protected readonly mayDiffer = computed(() => this.part() === 'points' && !isTemplate(this.work().machine));
  protected readonly words: Readonly<Record<LocatePart, string>> = messagesOf('locatePart');
  protected readonly shown = computed(() => PARTS.filter((p) => p !== 'park' || mayLend(this.work())));
  protected readonly about = computed(() => {
    const { machine, confidence } = this.work();
    if (isTemplate(machine)) return T.unknownMachine;
    const places = machine.batteries.map((b) => `${b.place}${b.ventHose ? T.ventHose : ''}`).join('; ');
    const mark = CONFIDENCE_MARKS[confidence];
    return T.battery({ places: mark ? `${places} (${mark})` : places });
  });
}

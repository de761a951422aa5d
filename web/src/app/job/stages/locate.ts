import { ChangeDetectionStrategy, Component, computed, input, linkedSignal, output } from '@angular/core';
import { isTemplate } from '@voltrek/core/template';
import type { Work } from '../../shared/job/job-selectors';
import { Identify } from './locate/identify';
import type { LocatePart } from './locate/locate-head';
import { LocatePoints } from './locate/locate-points';
import { ParkDonor } from './locate/park-donor';

/** The points, the ways to them, the positive, and the place of a donor. */
@Component({
  selector: 'vt-locate',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Identify, LocatePoints, ParkDonor],
  template: `
    @let shownPart = part();
    @switch (shownPart) {
      @case ('points') {
        <vt-locate-points
          [work]="work()"
          [chosenPin]="chosenPin()"
          (pinChosen)="pinChosen.emit($event)"
          (partChosen)="part.set($event)"
          (next)="next.emit()"
        />
      }
      @case ('park') {
        <vt-park-donor [work]="work()" (partChosen)="part.set($event)" />
      }
      @case ('identify') {
        <vt-identify [work]="work()" (partChosen)="part.set($event)" />
      }
      @default never;
    }
  `,
  styles: `
    :host {
      display: contents;
    }
  `,
})
export class Locate {
  readonly work = input.required<Work>();
  readonly chosenPin = input<string | null>(null);
  readonly pinChosen = output<string>();
  readonly next = output();

  private readonly isUnknown = computed(() => isTemplate(this.work().machine));
  /** An unknown machine is found first. Only that moves the part: a tap acknowledged late must not. */
  protected readonly part = linkedSignal<LocatePart>(() => (this.isUnknown() ? 'identify' : 'points'));
}

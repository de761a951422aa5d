import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { fixed } from '@words/numbers';
import { LATCH_PULL_SECONDS, type LatchPlace, latchSteps, nothingOpens } from '@voltrek/core/reach';
import { LATCH_PLACE_WORDS, LATCH_STEP_WORDS } from '@words/latch-words';
import { LATCH_FAULT_WORDS } from '@words/words';
import { LATCH_PART as T } from '@words/screens/job-stages-locate';
import { Arms } from '../../arms';
import type { Work } from '../../../shared/job/job-selectors';
import { Reporter } from '../../../shared/job/reporter';
import { StepsPrompt } from '../../../shared/ui/steps-dialog';

/** The ways into a machine whose latches have no power: one place after another, each with its steps and its feed. */
@Component({
  selector: 'vt-latch-part',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Arms],
  template: `
    @if (ways(); as w) {
      <fieldset>
        <legend>{{ t.nothingOpens }}</legend>
        @if (openedBy(); as place) {
          <p class="ready">{{ t.opened({ place: words[place].name }) }}</p>
          @if (place !== 'key-blade' && place !== 'known-wires') {
            <p class="dim">{{ t.addToAtlas }}</p>
          }
        } @else if (w.places[0]) {
          @let place = w.places[0];
          <p>{{ words[place].how }}</p>
          <div class="keys">
            <button type="button" class="key strong" [vtArms]="place" (click)="go(place)">
              {{ t.tryNext({ place: words[place].name }) }}
            </button>
            <button type="button" class="key" [vtArms]="place" (click)="say(place, false)">
              {{ t.notHere }}
            </button>
          </div>
        } @else {
          <p class="problem">{{ t.allTried }}</p>
        }
      </fieldset>
    }
  `,
  styles: `
    p {
      margin: 0 0 6px;
    }
  `,
})
export class LatchPart {
  protected readonly t = T;

  readonly work = input.required<Work>();

  private readonly reporter = inject(Reporter);
  private readonly steps = inject(StepsPrompt);
  protected readonly words = LATCH_PLACE_WORDS;
  protected readonly ways = computed(() => {
    const { machine, kit, job } = this.work();
    return nothingOpens(machine, kit, job.latches ?? []);
  });
  protected readonly openedBy = computed(
    () => this.work().job.latches?.find(({ opened }) => opened)?.place ?? null,
  );

  protected async go(place: LatchPlace): Promise<void> {
    const feeds = place === 'key-blade' ? '' : `${this.fed()} ${T.onlyOpens}`;
    const opened = await this.steps.goThrough({
      title: LATCH_PLACE_WORDS[place].name,
      steps: latchSteps(place).map((step) => LATCH_STEP_WORDS[step]),
      note: feeds,
      yes: T.itOpened,
      no: T.itDidNot,
      leave: T.leave,
    });
    if (opened !== null) this.say(place, opened);
  }

  protected say(place: LatchPlace, opened: boolean): void {
    this.reporter.report('latch.tried', { place, opened });
  }

  /** The item of the van that feeds the wires, in figures; a warning where it has none. */
  private fed(): string {
    const source = this.ways()?.source;
    if (!source) return T.noSource;
    const { item, does } = source;
    return does.fault
      ? `${item.name}: ${LATCH_FAULT_WORDS[does.fault]}.`
      : T.fedBy({ source: item.name, amps: fixed(does.amps, 2), seconds: LATCH_PULL_SECONDS });
  }
}

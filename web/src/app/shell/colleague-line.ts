import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { Store } from '@ngrx/store';
import { timeOf } from '@voltrek/core/job';
import { eventDetail } from '@words/event-detail';
import { EVENT_WORDS } from '@words/event-words';
import { COLLEAGUE_LINE as T } from '@words/screens/shell';
import { HouseNames } from '../shared/data/house-names';
import { selectWork } from '../shared/job/job-selectors';
import { serverTicker } from '../shared/job/ticker';
import { jobFeature } from '../shared/model/job-state';

/** An act of a colleague is told for so long, s: long enough to be seen between two steps. */
const TOLD_S = 30;

/** One line in the bar: the act that a colleague has just done on this job, on another device. */
@Component({
  selector: 'vt-colleague-line',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { role: 'status', '[class.told]': 'line() !== null' },
  template: `{{ line() }}`,
  styles: `
    :host {
      display: none;
      overflow: hidden;
      max-height: 2.4em;
      min-width: 0;
      color: var(--lamp);
      font-size: var(--text-xs);
      font-weight: 600;
      line-height: 1.2;
      white-space: normal;
    }
    :host(.told) {
      display: block;
    }
  `,
})
export class ColleagueLine {
  private readonly store = inject(Store);
  private readonly names = inject(HouseNames);
  private readonly work = this.store.selectSignal(selectWork);
  private readonly event = this.store.selectSignal(jobFeature.selectElsewhere);
  private readonly now = serverTicker(1000);

  protected readonly line = computed(() => {
    const [event, work] = [this.event(), this.work()];
    if (!event || !work) return null;
    const seconds = Math.max(0, Math.round((this.now() - Date.parse(timeOf(event))) / 1000));
    if (seconds > TOLD_S) return null;
    const what = [EVENT_WORDS[event.type], eventDetail(event, work.machine)].filter(Boolean).join(', ');
    return T.did({ name: this.names.person(event.by), what, seconds });
  });
}

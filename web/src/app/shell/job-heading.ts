import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { Store } from '@ngrx/store';
import { callWord, withPlace } from '@words/call-words';
import { degrees } from '@words/units';
import { selectJob, selectSituation } from '../shared/job/job-selectors';

/** The job: its call, its title and place, and the cold it is worked in. Comes with the reducer of a log, which the first page can do without. */
@Component({
  selector: 'vt-job-heading',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (job(); as j) {
      <span>{{ callWord(j.call.callNumber) }}</span>
      <span class="title">{{ withPlace(j.call) }}</span>
      <span class="temp">{{ temp() }}</span>
    }
  `,
  styles: `
    @use 'media';

    :host {
      display: flex;
      gap: 20px;
      min-width: 0;
    }
    .title {
      overflow: hidden;
      text-overflow: ellipsis;
      min-width: 0;
    }
    @include media.phone {
      .title,
      .temp {
        display: none;
      }
    }
  `,
})
export class JobHeading {
  protected readonly job = inject(Store).selectSignal(selectJob);
  private readonly situation = inject(Store).selectSignal(selectSituation);
  protected readonly withPlace = withPlace;
  protected readonly callWord = callWord;
  protected readonly temp = computed(() => {
    const situation = this.situation();
    return situation ? degrees(situation.tempC) : '';
  });
}

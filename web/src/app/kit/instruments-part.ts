import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import type { InstrumentNow } from '@voltrek/contracts';
import { Store } from '@ngrx/store';
import { sessionFeature } from '../shared/data/session';
import { INSTRUMENT_WORDS, LINK_WORDS } from '@words/measure-words';
import { INSTRUMENTS_PART as T } from '@words/screens/instruments';
import { InstrumentLinks } from './instrument-links';

/** The instruments linked to this server, and the state of their lines; a crew lead sets each address. */
@Component({
  selector: 'vt-instruments-part',
  changeDetection: ChangeDetectionStrategy.OnPush,
  providers: [InstrumentLinks],
  template: `
    <section aria-labelledby="links-title">
      <h2 id="links-title">{{ t.title }}</h2>
      @if (links.problem(); as text) {
        <p class="problem" role="alert">{{ text }}</p>
      }
      <ul class="ruled">
        @for (one of links.now(); track one.instrument) {
          <li>
            <strong>{{ names[one.instrument] }}</strong>
            <span role="status">{{ stateWords(one) }}</span>
            @if (links.addressOf(one.instrument); as at) {
              <span class="dim">{{ t.setBy[at.setBy ?? 'none'] }}</span>
              @if (at.setBy === 'server') {
                <span>{{ at.address }}</span>
              } @else {
                <form
                  class="line"
                  (submit)="$event.preventDefault(); links.link(one.instrument, typed.value, crewId())"
                >
                  <label>
                    <span>{{ t.address }}</span>
                    <input
                      #typed
                      class="field"
                      maxlength="60"
                      autocomplete="off"
                      [attr.aria-label]="t.addressOf({ instrument: names[one.instrument] })"
                      [value]="at.setBy === 'crew-lead' ? at.address : ''"
                    />
                  </label>
                  <button type="submit" class="key" [disabled]="links.isBusy()">{{ t.link }}</button>
                  @if (at.setBy === 'crew-lead') {
                    <button
                      type="button"
                      class="key"
                      [disabled]="links.isBusy()"
                      (click)="links.link(one.instrument, null, crewId())"
                    >
                      {{ t.unlink }}
                    </button>
                  }
                </form>
              }
            }
          </li>
        }
      </ul>
      @if (networks(); as list) {
        <p class="dim">{{ t.addressHint({ networks: list }) }}</p>
      } @else if (!isLead()) {
        <p class="dim">{{ t.onlyALead }}</p>
      }
    </section>
  `,
  styles: `
    @use 'media';

    section {
      margin-top: 26px;
    }
    h2 {
      margin-bottom: 6px;
    }
    li {
      display: grid;
      grid-template-columns: 180px minmax(0, 1fr) minmax(0, 1fr);
      align-items: center;
      gap: 8px 16px;
      padding: 8px 0;
    }
    .line {
      grid-column: 1 / -1;
      display: flex;
      flex-wrap: wrap;
      align-items: end;
      gap: 10px 14px;
    }
    label {
      flex: 0 1 300px;
      min-width: 0;
    }
    @include media.phone {
      li {
        grid-template-columns: 1fr;
      }
    }
  `,
})
export class InstrumentsPart {
  protected readonly t = T;
  protected readonly names = INSTRUMENT_WORDS;
  protected readonly links = inject(InstrumentLinks);

  private readonly store = inject(Store);
  protected readonly crewId = this.store.selectSignal(sessionFeature.selectCrewId);
  protected readonly isLead = this.store.selectSignal(sessionFeature.selectIsLead);
  protected readonly networks = computed(() => this.links.addresses()?.networks.join(', ') ?? null);

  constructor() {
    this.links.tellTo(this.isLead);
  }

  protected stateWords({ state, name }: InstrumentNow): string {
    return [LINK_WORDS[state], ...(name ? [name] : [])].join(', ');
  }
}

import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { Store } from '@ngrx/store';
import { KitActions, kitFeature } from '../shared/state/kit';
import { KIT_KIND_WORDS, kitLine } from './kit-words';

/** What each van carries. */
@Component({
  selector: 'vt-kit-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { class: 'page', tabindex: '0' },
  template: `
    <header><h1>Kit</h1></header>
    @if (problem(); as text) {
      <p class="problem" role="alert">{{ text }}</p>
    }
    @for (van of vans(); track van.id) {
      <section [attr.aria-labelledby]="van.id">
        <h2 [id]="van.id">{{ van.name }}</h2>
        <ul class="ruled">
          @for (item of van.kit; track item.id) {
            <li>
              <span class="dim">{{ kindWords[item.kind] }}</span>
              <strong>{{ item.name }}</strong>
              <span>{{ line(item) }}</span>
            </li>
          }
        </ul>
      </section>
    }
  `,
  styles: `
    section {
      margin-bottom: 28px;
    }
    h2 {
      margin-bottom: 6px;
    }
    li {
      display: grid;
      grid-template-columns: 150px 280px 1fr;
      gap: 16px;
      padding: 12px 0;
    }
    @media (max-width: 720px) {
      li {
        grid-template-columns: 1fr;
        gap: 2px;
      }
    }
  `,
})
export class KitPage {
  private readonly store = inject(Store);
  protected readonly vans = this.store.selectSignal(kitFeature.selectVans);
  protected readonly problem = this.store.selectSignal(kitFeature.selectProblem);
  protected readonly kindWords = KIT_KIND_WORDS;
  protected readonly line = kitLine;

  constructor() {
    this.store.dispatch(KitActions.opened());
  }
}

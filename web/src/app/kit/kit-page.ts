import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import type { KitMark, Van } from '@voltrek/contracts';
import { Store } from '@ngrx/store';
import { KitActions, kitFeature } from '../shared/state/kit';
import { NEED_WORDS } from '../shared/words/atlas-words';
import { sessionFeature } from '../shared/state/session';
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
              @for (mark of marksOf(van, item.id); track mark.id) {
                <span class="mark">
                  <strong>{{ needWords[mark.need] }}</strong>
                  <button type="button" class="key" (click)="finish(mark.id)">Done</button>
                </span>
              }
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
    .mark {
      grid-column: 2 / -1;
      display: flex;
      align-items: center;
      gap: 14px;
      padding-left: 12px;
      border-left: 6px solid var(--lamp);
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
  protected readonly needWords = NEED_WORDS;
  private readonly crewId = this.store.selectSignal(sessionFeature.selectCrewId);

  constructor() {
    this.store.dispatch(KitActions.opened());
  }

  protected marksOf(van: Van, kitItemId: string): readonly KitMark[] {
    return van.marks.filter((mark) => mark.kitItemId === kitItemId);
  }

  protected finish(markId: string): void {
    this.store.dispatch(KitActions.markFinished({ markId, by: this.crewId() }));
  }
}

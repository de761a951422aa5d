import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import type { KitEntry, KitMark, Van } from '@voltrek/contracts';
import { chargeOf } from '@voltrek/core/job';
import { chargeNow, isCharged, type KitItem } from '@voltrek/core/sources';
import { RouterLink } from '@angular/router';
import { NgbModal } from '@ng-bootstrap/ng-bootstrap/modal';
import { Store } from '@ngrx/store';
import { kitCopy, type KitChange } from '../shared/data/kit';
import { sessionFeature } from '../shared/data/session';
import { NEED_WORDS } from '@words/atlas-words';
import { percent } from '@words/figures';
import { CrewPart } from './crew-part';
import { InstrumentsPart } from './instruments-part';
import { SignInPart } from './sign-in-part';
import { KitDialog } from './kit-dialog';
import { KIT_KIND_WORDS, kitLine } from '@words/kit-words';
import { KIT_PAGE as T } from '@words/screens/kit';

/** The kit of each van and its charge, and the crew. All of it is changed here; nothing that a log names is deleted. */
@Component({
  selector: 'vt-kit-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [CrewPart, InstrumentsPart, RouterLink, SignInPart],
  host: { class: 'page', tabindex: '0' },
  template: `
    <header>
      <h1>{{ t.kit }}</h1>
      <a class="key" routerLink="/files">{{ t.files }}</a>
    </header>
    @if (problem(); as text) {
      <p class="problem" role="alert">{{ text }}</p>
    }
    @for (van of onTheRoad(); track van.id) {
      <section [attr.aria-labelledby]="van.id">
        <div class="van">
          <h2 [id]="van.id">{{ van.name }}</h2>
          <button type="button" class="key" (click)="add(van)">{{ t.addKit }}</button>
          <button
            type="button"
            class="key"
            (click)="want({ what: 'change-van', vanId: van.id, name: van.name, retired: true })"
          >
            {{ t.retireVan }}
          </button>
        </div>
        <ul class="ruled">
          @for (item of van.kit; track item.id) {
            <li>
              <span class="dim">{{ kindWords[item.kind] }}</span>
              <button type="button" class="key name" (click)="open(item)">{{ item.name }}</button>
              <span>{{ line(item) }}</span>
              @if (charge(item); as c) {
                <span class="charge">
                  <span class="bar" aria-hidden="true"><i [style.width.%]="c.share * 100"></i></span>
                  <strong>{{ t.left({ charge: c.text }) }}</strong>
                  @if (c.share < 0.995) {
                    <button type="button" class="key" (click)="recharge(item)">{{ t.fullAgain }}</button>
                  }
                </span>
              }
              @for (mark of marksOf(van, item.id); track mark.id) {
                <span class="mark">
                  <strong>{{ needWords[mark.need] }}</strong>
                  <button type="button" class="key" (click)="finish(mark.id)">{{ t.done }}</button>
                </span>
              }
            </li>
          } @empty {
            <li class="dim">{{ t.empty }}</li>
          }
        </ul>
      </section>
    }
    <form class="new" (submit)="$event.preventDefault(); addVan()">
      <label
        ><span>{{ t.anotherVan }}</span
        ><input class="field" maxlength="40" [value]="name()" #typed (input)="name.set(typed.value)"
      /></label>
      <button type="submit" class="key" [disabled]="name().trim() === ''">{{ t.addTheVan }}</button>
      @for (van of offTheRoad(); track van.id) {
        <button
          type="button"
          class="key"
          (click)="want({ what: 'change-van', vanId: van.id, name: van.name, retired: false })"
        >
          {{ t.backOnRoad({ name: van.name }) }}
        </button>
      }
    </form>
    <vt-crew-part />
    @defer {
      <vt-instruments-part />
      <vt-sign-in-part />
    }
  `,
  styles: `
    @use 'media';

    section {
      margin-bottom: 22px;
    }
    .van,
    .new {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 10px;
      margin-bottom: 6px;
    }
    .van h2 {
      flex: 1;
    }
    .new {
      align-items: end;
      margin-bottom: 28px;
    }
    li {
      display: grid;
      grid-template-columns: 130px 260px minmax(0, 1fr) 330px;
      align-items: center;
      gap: 6px 16px;
      padding: 6px 0;
    }
    .name {
      text-align: left;
    }
    .charge,
    .mark {
      display: flex;
      align-items: center;
      gap: 14px;
    }
    .charge {
      justify-content: end;
    }
    .mark {
      grid-column: 2 / -1;
      padding-left: 12px;
      border-left: 6px solid var(--lamp);
    }
    .bar {
      flex: 1;
      height: 10px;
      background: var(--body);
    }
    .bar i {
      display: block;
      height: 100%;
      background: var(--ink);
    }
    @include media.phone {
      li {
        grid-template-columns: 1fr;
        gap: 2px;
      }
      .mark {
        grid-column: 1;
      }
    }
  `,
})
export class KitPage {
  protected readonly t = T;

  private readonly store = inject(Store);
  private readonly modals = inject(NgbModal);
  private readonly vans = this.store.selectSignal(kitCopy.selectCopy);
  private readonly crewId = this.store.selectSignal(sessionFeature.selectCrewId);
  protected readonly onTheRoad = computed(() => this.vans().filter((v) => !v.retired));
  protected readonly offTheRoad = computed(() => this.vans().filter((v) => v.retired));
  protected readonly problem = this.store.selectSignal(kitCopy.selectProblem);
  protected readonly kindWords = KIT_KIND_WORDS;
  protected readonly line = kitLine;
  protected readonly needWords = NEED_WORDS;
  protected readonly name = signal('');

  constructor() {
    this.store.dispatch(kitCopy.requested());
  }

  protected marksOf(van: Van, kitItemId: string): readonly KitMark[] {
    return van.marks.filter((mark) => mark.kitItemId === kitItemId);
  }

  /** The charge left in it; null for kit that carries no charge of its own. */
  protected charge(item: KitItem): { readonly share: number; readonly text: string } | null {
    if (!isCharged(item)) return null;
    const share = chargeOf(chargeNow(item, new Date()));
    return { share, text: percent(share) };
  }

  protected want(change: KitChange): void {
    this.store.dispatch(kitCopy.changeSent(change));
  }

  protected finish(markId: string): void {
    this.store.dispatch(kitCopy.changeSent({ what: 'finish-mark', markId, by: this.crewId() }));
  }

  protected recharge(item: KitItem): void {
    this.want({ what: 'recharge-kit', itemId: item.id, by: this.crewId() });
  }

  protected addVan(): void {
    this.want({ what: 'add-van', name: this.name().trim() });
    this.name.set('');
  }

  protected add(van: Van): void {
    void this.ask(null).then((entry) => {
      if (entry && entry !== 'retire') this.want({ what: 'add-kit', vanId: van.id, entry });
    });
  }

  protected open(item: KitItem): void {
    void this.ask(item).then((entry) => {
      if (entry === 'retire') this.want({ what: 'retire-kit', itemId: item.id, by: this.crewId() });
      else if (entry) this.want({ what: 'change-kit', itemId: item.id, entry });
    });
  }

  private ask(item: KitItem | null): Promise<KitEntry | 'retire' | null> {
    const dialog = this.modals.open(KitDialog, {
      ariaLabelledBy: 'kit-title',
      centered: true,
      size: 'lg',
      scrollable: true,
    });
    if (item) (dialog.componentInstance as KitDialog).open(item);
    return dialog.result.then(
      (entry: KitEntry | 'retire') => entry,
      () => null,
    );
  }
}

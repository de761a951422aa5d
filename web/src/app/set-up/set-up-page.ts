import { ChangeDetectionStrategy, Component, computed, effect, inject, signal } from '@angular/core';
import { Router } from '@angular/router';
import { CREW_ROLES, type SetUp } from '@voltrek/contracts';
import { Store } from '@ngrx/store';
import { KIT_KIND_WORDS } from '@words/kit-words';
import type { HouseNow } from '@voltrek/contracts/api';
import { Api } from '../shared/data/api';
import { loaded } from '../shared/data/loaded';
import { problemText } from '../shared/data/problem';
import { crewCopy } from '../shared/data/crew';
import { ROLE_WORDS } from '@words/crew-words';
import { Choices } from '../shared/ui/choices';
import { SET_UP_PAGE as T } from '@words/screens/set-up';

type Role = (typeof CREW_ROLES)[number];

/** How a house begins: who works here, which vans with what on them, and with which atlas. Then the board. */
@Component({
  selector: 'vt-set-up-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Choices],
  host: { class: 'page', tabindex: '0' },
  template: `
    <header>
      <h1>{{ t.setUp }}</h1>
      <span class="dim">{{ t.subtitle }}</span>
    </header>
    @if (problem(); as text) {
      <p class="problem" role="alert">{{ text }}</p>
    }
    <form (submit)="$event.preventDefault(); begin()">
      <fieldset>
        <h2>{{ t.whoWorksHere }}</h2>
        @for (member of crew(); track $index; let i = $index) {
          <div class="row">
            <label
              ><span>{{ t.name }}</span
              ><input
                class="field"
                maxlength="40"
                [value]="member.name"
                #name
                (input)="setCrew(i, { name: name.value })"
            /></label>
            <span
              class="keys"
              role="radiogroup"
              [attr.aria-label]="t.roleOf + (member.name || t.the + (i + 1) + '.')"
            >
              @for (role of roles; track role) {
                <button
                  type="button"
                  class="key"
                  role="radio"
                  [attr.aria-checked]="member.role === role"
                  (click)="setCrew(i, { role })"
                >
                  {{ roleWords[role] }}
                </button>
              }
            </span>
          </div>
        }
        <button type="button" class="key" (click)="moreCrew()">{{ t.oneMore }}</button>
      </fieldset>
      <fieldset>
        <h2>{{ t.vansTitle }}</h2>
        @for (van of vans(); track $index; let i = $index) {
          <label class="van"
            ><span>{{ t.nameOfTheVan }}</span
            ><input
              class="field"
              maxlength="40"
              [value]="van.name"
              #vanName
              (input)="setVan(i, vanName.value)"
          /></label>
          <div class="keys" role="group" [attr.aria-label]="t.kitOf + (van.name || t.the + (i + 1) + t.van)">
            @for (item of usual(); track item.key) {
              <button
                type="button"
                class="key"
                [attr.aria-pressed]="van.kit.includes(item.key)"
                (click)="tick(i, item.key)"
              >
                <span class="kind">{{ item.kind }}</span> {{ item.name }}
              </button>
            }
          </div>
        }
        <button type="button" class="key" (click)="moreVans()">{{ t.oneMoreVan }}</button>
      </fieldset>
      <fieldset>
        <h2>{{ t.atlas }}</h2>
        <div class="keys" role="radiogroup" [attr.aria-label]="t.atlas">
          <button
            type="button"
            class="key"
            role="radio"
            [attr.aria-checked]="atlas() === 'shipped'"
            (click)="atlas.set('shipped')"
          >
            {{ t.atlasShipped }}
          </button>
          <button
            type="button"
            class="key"
            role="radio"
            [attr.aria-checked]="atlas() === 'empty'"
            (click)="atlas.set('empty')"
          >
            {{ t.atlasEmpty }}
          </button>
        </div>
      </fieldset>
      <button type="submit" class="key strong" [disabled]="!ready() || isBusy()">{{ t.toTheBoard }}</button>
    </form>
  `,
  styles: `
    @use 'media';

    form {
      display: grid;
      gap: 22px;
      max-width: 1000px;
    }
    fieldset {
      display: grid;
      gap: 10px;
      border: 0;
    }
    .row {
      display: grid;
      grid-template-columns: 320px 1fr;
      align-items: end;
      gap: 14px;
    }
    .van {
      max-width: 320px;
    }
    fieldset > .key {
      justify-self: start;
    }
    .kind {
      display: block;
      font-size: var(--text-xs);
      font-weight: 500;
    }
    @include media.phone {
      .row {
        grid-template-columns: 1fr;
      }
    }
  `,
})
export class SetUpPage {
  protected readonly t = T;

  private readonly api = inject(Api);
  private readonly router = inject(Router);
  private readonly store = inject(Store);
  private readonly asked = loaded<string, HouseNow | null>(
    () => 'house',
    () => this.api.house(),
    null,
  );
  private readonly house = this.asked.value;
  protected readonly roles = CREW_ROLES;
  protected readonly roleWords = ROLE_WORDS;
  protected readonly crew = signal<readonly { readonly name: string; readonly role: Role }[]>([
    { name: '', role: 'crew-lead' },
  ]);
  protected readonly vans = signal<readonly { readonly name: string; readonly kit: readonly string[] }[]>([
    { name: T.firstVan, kit: ['heavy-leads', 'lithium-pack', 'meter'] },
  ]);
  protected readonly atlas = signal<SetUp['atlas']>('shipped');
  protected readonly problem = this.asked.problem;
  protected readonly isBusy = signal(false);
  protected readonly usual = computed(() =>
    Object.entries(this.house()?.usualKit ?? {}).map(([key, { name, kind }]) => ({
      key,
      name,
      kind: KIT_KIND_WORDS[kind],
    })),
  );
  private readonly setUp = computed<SetUp>(() => ({
    crew: this.crew()
      .map(({ name, role }) => ({ name: name.trim(), role }))
      .filter(({ name }) => name !== ''),
    vans: this.vans()
      .map(({ name, kit }) => ({ name: name.trim(), kit }))
      .filter(({ name }) => name !== ''),
    atlas: this.atlas(),
  }));
  protected readonly ready = computed(() => this.setUp().crew.length > 0 && this.setUp().vans.length > 0);

  constructor() {
    effect(() => {
      if (this.house()?.isSetUp) void this.router.navigate(['/board']);
    });
  }

  protected setCrew(at: number, change: { readonly name?: string; readonly role?: Role }): void {
    this.crew.update((list) => list.map((member, i) => (i === at ? { ...member, ...change } : member)));
  }

  protected moreCrew(): void {
    this.crew.update((list) => [...list, { name: '', role: 'technician' }]);
  }

  protected setVan(at: number, name: string): void {
    this.vans.update((list) => list.map((van, i) => (i === at ? { ...van, name } : van)));
  }

  protected moreVans(): void {
    this.vans.update((list) => [...list, { name: T.nthVan({ number: list.length + 1 }), kit: [] }]);
  }

  protected tick(at: number, key: string): void {
    this.vans.update((list) =>
      list.map((van, i) =>
        i === at
          ? { ...van, kit: van.kit.includes(key) ? van.kit.filter((k) => k !== key) : [...van.kit, key] }
          : van,
      ),
    );
  }

  protected begin(): void {
    // A house is begun once: a second tap would be refused.
    if (this.isBusy()) return;
    this.isBusy.set(true);
    this.api.setUp(this.setUp()).subscribe({
      next: () => {
        this.store.dispatch(crewCopy.requested());
        void this.router.navigate(['/board']);
      },
      error: (error: unknown) => {
        this.isBusy.set(false);
        this.asked.tell(problemText(error));
      },
    });
  }
}

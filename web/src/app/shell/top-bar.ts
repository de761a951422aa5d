import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { RouterLink, RouterLinkActive } from '@angular/router';
import { NgbModal } from '@ng-bootstrap/ng-bootstrap/modal';
import { Store } from '@ngrx/store';
import { jobFeature } from '../shared/model/job-state';
import { kitCopy } from '../shared/data/kit';
import { atWork, crewCopy } from '../shared/data/crew';
import { type Light, LIGHTS, SessionActions, sessionFeature } from '../shared/data/session';
import { SignInActions, signInFeature } from '../shared/data/sign-in';
import { ColleagueLine } from './colleague-line';
import { JobHeading } from './job-heading';
import { SavedLine } from './saved-line';
import { ThisDevice } from './this-device';
import { Choices } from '../shared/ui/choices';
import { TOP_BAR as T } from '@words/screens/shell';

/** The slim bar on top: where you are, whether all is saved, and the light level. */
@Component({
  selector: 'vt-top-bar',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Choices, ColleagueLine, JobHeading, RouterLink, RouterLinkActive, SavedLine],
  host: { role: 'banner' },
  template: `
    <a class="mark" routerLink="/board" [attr.aria-label]="t.homeLabel">{{ t.name }}</a>
    @if (inJob()) {
      @defer {
        <vt-job-heading class="job" />
        <vt-colleague-line />
      }
      @if (crewName(); as name) {
        <span class="by">{{ name }}</span>
      }
      <vt-saved-line class="saved" />
    } @else {
      <nav [attr.aria-label]="t.main">
        @for (link of links; track link.path) {
          <a [routerLink]="link.path" routerLinkActive="here" ariaCurrentWhenActive="page">{{ link.name }}</a>
        }
      </nav>
      <vt-saved-line class="saved" [onlyTrouble]="true" />
      @if (crew().length > 0) {
        <label class="who">
          <span class="visually-hidden">{{ t.whoWorks }}</span>
          <select #crewSelect [value]="crewId()" (change)="chooseCrew(crewSelect)">
            @for (member of crew(); track member.id) {
              <option [value]="member.id" [selected]="member.id === crewId()">{{ member.name }}</option>
            }
          </select>
        </label>
      }
      @if (vans().length > 0) {
        <label class="who van">
          <span class="visually-hidden">{{ t.van }}</span>
          <select #vanSelect (change)="chooseVan(vanSelect.value)">
            @for (van of vans(); track van.id) {
              <option [value]="van.id" [selected]="van.id === vanId()">{{ van.name }}</option>
            }
          </select>
        </label>
      }
    }
    <button type="button" class="device" [attr.aria-label]="t.settingsLabel" (click)="openSettings()">
      <i class="bi bi-sliders" aria-hidden="true"></i>
    </button>
    <div class="lights" role="radiogroup" [attr.aria-label]="t.light">
      @for (level of lights; track level) {
        <button type="button" role="radio" [attr.aria-checked]="level === light()" (click)="choose(level)">
          {{ lightNames[level] }}
        </button>
      }
    </div>
    <button
      type="button"
      class="cycle"
      [attr.aria-label]="t.lightLabel + lightNames[light()] + t.change"
      (click)="choose(following())"
    >
      {{ lightNames[light()] }}
    </button>
  `,
  styles: `
    @use 'media';

    :host {
      flex: none;
      display: flex;
      align-items: center;
      gap: 10px;
      height: 49px;
      padding: 0 18px;
      background: var(--road);
      color: var(--on-road);
      border-bottom: 1px solid color-mix(in srgb, var(--on-road) 18%, transparent);
      white-space: nowrap;
    }
    a {
      color: inherit;
      text-decoration: none;
    }
    .mark {
      display: flex;
      align-items: center;
      height: 48px;
      font-size: var(--text-m);
      font-weight: 800;
      letter-spacing: 0.02em;
    }
    nav {
      display: flex;
      gap: 2px;
      margin-right: auto;
      height: 100%;
    }
    nav a {
      display: flex;
      align-items: center;
      justify-content: center;
      min-width: 48px;
      padding: 3px 5px 0;
      border-bottom: 4px solid transparent;
      font-weight: 600;
    }
    nav a.here {
      border-color: var(--lamp);
    }
    .saved,
    .by {
      margin-left: auto;
      font-size: var(--text-xs);
      color: var(--on-road-dim);
    }
    .by + .saved,
    nav ~ .who {
      margin-left: 0;
    }
    /* Beside nine pages, a name and a van, trouble takes two lines. */
    nav ~ .saved {
      min-width: 0;
      white-space: normal;
    }
    .who {
      font-size: var(--text-xs);
      color: var(--on-road-dim);
    }
    .who.van {
      margin-left: 0;
    }
    select {
      max-width: 148px;
      min-height: 48px;
      padding: 2px 8px;
      border: 1px solid var(--on-road-dim);
      border-radius: 5px;
      background: var(--road);
      color: var(--on-road);
    }
    .lights {
      display: flex;
    }
    .lights button {
      min-height: 48px;
      min-width: 48px;
      padding: 0 10px;
      border: 0;
      background: none;
      color: inherit;
      font-size: var(--text-xs);
    }
    .lights button[aria-checked='true'] {
      background: var(--lamp);
      color: var(--on-lamp);
      font-weight: 700;
    }
    .device {
      flex: none;
      display: grid;
      place-items: center;
      width: 48px;
      height: 48px;
      border: 0;
      background: none;
      color: inherit;
      font-size: var(--text-m);
    }
    .cycle {
      display: none;
      min-height: 48px;
      min-width: 64px;
      border: 0;
      border-radius: 20px;
      background: var(--lamp);
      color: var(--on-lamp);
      font-weight: 700;
    }
    :focus-visible {
      box-shadow: none;
      outline-offset: -3px;
    }
    .lights button[aria-checked='true']:focus-visible {
      outline-color: var(--on-lamp);
    }
    /* Who works and whether all is saved stay; the call stands on every page of it. */
    @media (max-width: 440px) {
      .job {
        display: none;
      }
    }
    /* A colleague's act stands where the call, the name and the saved line are: nothing moves for it. */
    @include media.narrow {
      :host:has(.told) .job,
      :host:has(.told) .by,
      :host:has(.told) .saved {
        display: none;
      }
    }
    /* The pages scroll in their row before the bar grows wider than the screen. */
    @include media.tight {
      nav {
        min-width: 0;
        overflow-x: auto;
        scrollbar-width: none;
      }
      nav a {
        flex: none;
      }
      select {
        max-width: 116px;
      }
      .lights {
        display: none;
      }
      .cycle {
        display: block;
        flex: none;
      }
    }
    @include media.phone {
      :host {
        flex-wrap: wrap;
        gap: 0 4px;
        height: auto;
        min-height: 48px;
        padding: 0 8px;
        font-size: var(--text-xs);
      }
      nav {
        flex: 1 1 120px;
        min-width: 0;
        gap: 0;
        height: 48px;
        overflow-x: auto;
        scrollbar-width: none;
      }
      nav a {
        padding: 3px 6px 0;
      }
      .who {
        order: 1;
        flex: 1 1 40%;
        padding-bottom: 6px;
      }
      .who select {
        width: 100%;
        max-width: none;
        min-height: 48px;
      }
      .lights {
        display: none;
      }
      .cycle {
        display: block;
        margin-left: auto;
      }
      .by {
        padding-left: 8px;
      }
      /* In a job the bar has one row: long texts take a second line, not a second row. */
      .by + .saved {
        flex: 1 1 90px;
        white-space: normal;
      }
      .cycle {
        min-width: 56px;
      }
      .device {
        margin-left: auto;
      }
      .device ~ .cycle {
        margin-left: 0;
      }
      .saved + .lights + .cycle {
        margin-left: 0;
      }
    }
  `,
})
export class TopBar {
  protected readonly t = T;

  private readonly store = inject(Store);
  private readonly modals = inject(NgbModal);

  protected readonly links = [
    { path: '/board', name: T.board },
    { path: '/vehicles', name: T.vehicles },
    { path: '/batteries', name: T.batteries },
    { path: '/atlas', name: T.atlas },
    { path: '/kit', name: T.kit },
    { path: '/log', name: T.log },
    { path: '/bench', name: T.bench },
    { path: '/practice', name: T.practice },
    { path: '/rules', name: T.rules },
  ];
  protected readonly lights = LIGHTS;
  protected readonly lightNames: Record<Light, string> = { day: T.day, dusk: T.dusk, night: T.night };
  private readonly logged = this.store.selectSignal(jobFeature.selectLogged);
  private readonly pending = this.store.selectSignal(jobFeature.selectPending);
  /** A job that is known here: its log begins with its opening. */
  protected readonly inJob = computed(() =>
    [...this.logged().map((l) => l.event), ...this.pending()].some(({ type }) => type === 'job.opened'),
  );
  protected readonly light = this.store.selectSignal(sessionFeature.selectLight);
  private readonly everybody = this.store.selectSignal(crewCopy.selectCopy);
  protected readonly crew = computed(() => atWork(this.everybody()));
  protected readonly crewId = this.store.selectSignal(sessionFeature.selectCrewId);
  private readonly signIn = this.store.selectSignal(signInFeature.selectState);
  private readonly allVans = this.store.selectSignal(kitCopy.selectCopy);
  protected readonly vans = computed(() => this.allVans().filter((v) => !v.retired));
  private readonly chosenVan = this.store.selectSignal(sessionFeature.selectVanId);
  protected readonly vanId = computed(
    () => this.vans().find((v) => v.id === this.chosenVan())?.id ?? this.vans()[0]?.id ?? '',
  );
  protected readonly crewName = computed(() => this.crew().find((c) => c.id === this.crewId())?.name ?? '');
  protected readonly following = computed(() => LIGHTS[(LIGHTS.indexOf(this.light()) + 1) % LIGHTS.length]!);

  protected openSettings(): void {
    this.modals.open(ThisDevice, { ariaLabelledBy: 'device-title', centered: true, scrollable: true });
  }

  protected choose(light: Light): void {
    this.store.dispatch(SessionActions.lightChosen({ light }));
  }

  protected chooseVan(vanId: string): void {
    this.store.dispatch(SessionActions.vanChosen({ vanId }));
  }

  protected chooseCrew(picker: HTMLSelectElement): void {
    const crewId = picker.value;
    if (!this.signIn()?.required) {
      this.store.dispatch(SessionActions.crewChosen({ crewId }));
      return;
    }
    // A new user must sign in before the device changes hands.
    picker.value = this.crewId();
    this.store.dispatch(SignInActions.requested({ crewId }));
  }
}

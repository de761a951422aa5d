import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { Forecast } from '@voltrek/contracts';
import { coldestPlace } from '@voltrek/core/belief';
import { DAY_MS } from '@voltrek/core/quantities';
import { firstValueFrom } from 'rxjs';
import { vehicleWord } from '@words/figures';
import { WATCH_PAGE as T } from '@words/screens/watch';
import { degrees, shownUnit } from '@words/units';
import { Api } from '../shared/data/api';
import { House } from '../shared/data/house';
import { LastAsked } from '../shared/data/last-asked';
import { problemText } from '../shared/data/problem';
import { localDay } from '../shared/model/dates';
import { Choices } from '../shared/ui/choices';
import { savePdf } from '../shared/ui/save-pdf';
import { saveText } from '../shared/ui/save-text';
import { When } from '../shared/ui/when';
import { PlanRunner } from '../workers/plan-runner';
import { listDocument, lettersDocument } from './watch-pdf';
import { type Watched, WatchStore } from './watch-store';
import {
  type ColdNight,
  cureText,
  lettersOf,
  messagesText,
  oddsText,
  ownerText,
  reasonText,
  type Round,
  roundsOf,
} from './watch-words';

/** Vehicles that may not start on the coldest night to come, worst first: why, the cheapest cure, and words for their owners. */
@Component({
  selector: 'vt-watch-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Choices, RouterLink, When],
  providers: [PlanRunner, WatchStore],
  host: { class: 'page', tabindex: '0' },
  templateUrl: './watch-page.html',
  styleUrl: './watch-page.scss',
})
export class WatchPageView {
  protected readonly t = T;
  protected readonly degrees = degrees;
  protected readonly oddsText = oddsText;
  protected readonly reasonText = reasonText;
  protected readonly cureText = cureText;
  protected readonly ownerText = ownerText;
  protected readonly vehicleWord = vehicleWord;

  private readonly api = inject(Api);
  private readonly house = inject(House);
  private readonly store = inject(WatchStore);
  private readonly lastAsked = inject(LastAsked);

  protected readonly unit = computed(() => shownUnit('°C'));
  protected readonly place = computed(() => this.lastAsked.watch().place);
  /** The nights to come: the week's forecast, or the one that was typed. */
  protected readonly nights = computed(() => this.lastAsked.watch().nights);
  protected readonly coldest = computed(
    (): ColdNight | null => this.nights()[coldestPlace(this.nights())] ?? null,
  );
  /** Odds in 100 under which a vehicle is listed, by the house rules. */
  protected readonly bar = signal(0);
  private readonly failure = signal<string | null>(null);
  protected readonly problem = computed(() => this.failure() ?? this.store.problem());
  protected readonly isWeighing = this.store.isWeighing;
  protected readonly isByPlace = signal(false);

  protected readonly watched = this.store.watched;
  protected readonly listed = computed((): readonly Watched[] =>
    this.watched()
      .filter(({ outlook }) => outlook.reason !== null)
      .sort((one, other) => one.outlook.start - other.outlook.start),
  );
  protected readonly rounds = computed((): readonly Round[] =>
    this.isByPlace() ? roundsOf(this.listed()) : [{ place: '', watched: this.listed(), minutes: 0 }],
  );
  protected readonly letters = computed(() => {
    const night = this.coldest();
    return night ? lettersOf(this.watched(), this.listed(), night) : [];
  });

  constructor() {
    if (this.nights().length > 0) void this.weigh();
  }

  /** Asks for the week's forecast of a place. */
  protected async ask(place: string): Promise<void> {
    this.failure.set(null);
    try {
      const forecast: Forecast = await firstValueFrom(this.api.forecast(place));
      this.lastAsked.watch.set({ place, nights: forecast.nights });
      await this.weigh();
    } catch (error) {
      this.failure.set(problemText(error));
    }
  }

  /** Takes the lowest temperature as it was typed, in the unit of the device: it may come any night. */
  protected type(typed: string): void {
    const shown = Number(typed.replace(',', '.').replace('−', '-'));
    if (typed.trim() === '' || !Number.isFinite(shown)) return;
    const lowC = Math.min(40, Math.max(-60, this.unit().keep(shown)));
    const day = localDay(new Date(Date.now() + DAY_MS));
    this.lastAsked.watch.set({ place: this.place(), nights: [{ day, lowC }] });
    void this.weigh();
  }

  private async weigh(): Promise<void> {
    this.failure.set(null);
    try {
      const { rules } = await this.house.rules();
      this.bar.set(rules.watchOddsLeast);
      const nights = this.nights().map(({ lowC }, i) => ({ lowC, daysAhead: i + 1 }));
      await this.store.weigh(nights, rules);
    } catch (error) {
      this.failure.set(problemText(error));
    }
  }

  protected saveList(): void {
    void savePdf(listDocument(this.listed(), this.coldest()!), `frost-${this.coldest()!.day}.pdf`);
  }

  protected saveLetters(): void {
    void savePdf(lettersDocument(this.letters()), `frost-letters-${this.coldest()!.day}.pdf`);
  }

  protected saveMessages(): void {
    saveText(document, `frost-messages-${this.coldest()!.day}.txt`, messagesText(this.letters()));
  }
}

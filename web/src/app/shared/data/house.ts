import { inject, Injectable } from '@angular/core';
import type { RulesPage, Van } from '@voltrek/contracts';
import { Store } from '@ngrx/store';
import { firstValueFrom, type Observable, tap, timeout } from 'rxjs';
import { isAway } from './answer-to';
import { Api } from './api';
import { kitCopy } from './kit';
import { rulesCopy } from './rules';

/** Wait for the server where an earlier answer can stand in, ms. */
const KNOWN_MS = 1_500;
/** Wait for the server where nothing can stand in, ms: a thin line needs long, and a dead one must end in words. */
export const NOTHING_KNOWN_MS = 60_000;

/** Rules and vans as the server has them. Where it is slow or away, as this page last received them: no tap waits for a thin line. */
@Injectable({ providedIn: 'root' })
export class House {
  private readonly api = inject(Api);
  private readonly store = inject(Store);
  private readonly knownRules = this.store.selectSignal(rulesCopy.selectCopy);
  private readonly ruleChanges = this.store.selectSignal(rulesCopy.selectChanges);
  private readonly knownVans = this.store.selectSignal(kitCopy.selectCopy);
  private readonly kitChanges = this.store.selectSignal(kitCopy.selectChanges);

  /** @throws the failed request, where no copy exists */
  rules(): Promise<RulesPage> {
    const changes = this.ruleChanges();
    const answered = this.api
      .rules()
      .pipe(tap((page) => this.store.dispatch(rulesCopy.loaded(page, changes))));
    return inTime(answered, this.knownRules());
  }

  /** @throws the failed request, where no copy exists */
  vans(): Promise<readonly Van[]> {
    const changes = this.kitChanges();
    const answered = this.api.vans().pipe(tap((vans) => this.store.dispatch(kitCopy.loaded(vans, changes))));
    const known = this.knownVans();
    return inTime<readonly Van[]>(answered, known.length > 0 ? known : null);
  }
}

async function inTime<T>(asked: Observable<T>, known: T | null): Promise<T> {
  try {
    return await firstValueFrom(asked.pipe(timeout(known === null ? NOTHING_KNOWN_MS : KNOWN_MS)));
  } catch (error) {
    if (known === null || !isAway(error)) throw error;
    return known;
  }
}

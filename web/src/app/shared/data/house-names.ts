import { inject, Injectable } from '@angular/core';
import { Store } from '@ngrx/store';
import { nameOf } from '@words/figures';
import { crewCopy } from './crew';
import { kitCopy } from './kit';

/** Names by id, those that are gone included; the id itself until they are here. */
@Injectable({ providedIn: 'root' })
export class HouseNames {
  private readonly store = inject(Store);
  private readonly crew = this.store.selectSignal(crewCopy.selectCopy);
  private readonly vans = this.store.selectSignal(kitCopy.selectCopy);

  readonly person = (id: string): string => nameOf(this.crew(), id);
  readonly van = (id: string): string => nameOf(this.vans(), id);
  /** The van that carries a piece of kit; empty where none does any more. */
  readonly vanOf = (kitId: string): string =>
    this.vans().find(({ kit }) => kit.some(({ id }) => id === kitId))?.name ?? '';
  readonly kit = (id: string): string =>
    nameOf(
      this.vans().flatMap(({ kit }) => kit),
      id,
    );
}

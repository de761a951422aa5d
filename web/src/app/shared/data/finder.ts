import { PROBLEM } from '@words/screens/state';
import { inject, Injectable, signal } from '@angular/core';
import type {
  AtlasEntry,
  DevicePack,
  MachineSearch,
  PackedVehicle,
  VehicleSummary,
} from '@voltrek/contracts';
import { machineSummary, plateKeyOf, searchTextOf, wordsOf } from '@voltrek/contracts/search-text';
import { isTemplate } from '@voltrek/core/template';
import { catchError, firstValueFrom, from, map, type Observable, throwError, timeout } from 'rxjs';
import { isAway } from './answer-to';
import { Api } from './api';
import { House } from './house';

/** How old the copy of the house may be before it is fetched again, ms. */
const STALE_MS = 600_000;
/** A copy that takes longer to come is given up, ms. */
const COPY_MS = 15_000;
const FOUND_MOST = 60;
const WORDS_MOST = 8;
/** Typing pauses this long before the server is asked, ms. */
export const TYPING_PAUSE_MS = 80;
/** The answer before there is one. */
export const NO_MACHINES: MachineSearch = { machines: [], total: 0 };

/** Finds machines and vehicles: the server's answer, or, where there is none, in the copy of the house that this device holds. */
@Injectable({ providedIn: 'root' })
export class Finder {
  private readonly api = inject(Api);
  private readonly house = inject(House);
  private held: DevicePack | null = null;
  private fetchedMs = -Infinity;
  private readonly asOf = signal<Date | null>(null);
  /** When the copy was made that answered last; null while the server itself answers. */
  readonly heldAt = this.asOf.asReadonly();

  /** Has the next `prepare` fetch, whatever age the last copy has. */
  outdate(): void {
    this.fetchedMs = -Infinity;
  }

  /** Has a copy of the house ready for a time with no network, pages included that nobody opened here. The service worker keeps it. */
  async prepare(): Promise<void> {
    if (performance.now() - this.fetchedMs < STALE_MS) return;
    this.fetchedMs = performance.now();
    try {
      const { api } = this;
      await this.house.rules();
      await this.house.vans();
      const asked = [api.devicePack(), api.followUps(), api.looseBatteries()];
      for (const request of asked) await firstValueFrom<unknown>(request);
    } catch {
      this.outdate();
    }
  }

  machines(typed: string): Observable<MachineSearch> {
    return this.orHeld(this.api.machines(typed), (pack) => machinesIn(pack, typed));
  }

  vehicles(typed: string): Observable<VehicleSummary[]> {
    return this.orHeld(this.api.vehicles(typed), (pack) =>
      vehiclesIn(pack, typed).map(({ vehicle }) => vehicle),
    );
  }

  /** An entry of the atlas; of one from the copy neither history nor photos are known. @throws RangeError where the copy has none */
  entry(modelId: string): Observable<AtlasEntry> {
    return this.orHeld(this.api.entry(modelId), (pack) => {
      const found = pack.models.find(({ machine }) => machine.id === modelId);
      if (!found) throw new RangeError(PROBLEM.notHeld);
      return { ...found, revision: 0, history: [], photos: [] };
    });
  }

  /** The copy itself. @throws what asking for it came to, where this device has none */
  async pack(): Promise<DevicePack> {
    return (this.held ??= await firstValueFrom(
      this.api.devicePack().pipe(
        timeout(COPY_MS),
        map(({ body, at }) => {
          this.asOf.set(at);
          return body;
        }),
      ),
    ));
  }

  private orHeld<T>(asked: Observable<T>, find: (pack: DevicePack) => T): Observable<T> {
    return asked.pipe(
      map((answer) => {
        // The server is back: what it knows may have changed.
        this.held = null;
        this.asOf.set(null);
        return answer;
      }),
      catchError((error: unknown) =>
        isAway(error)
          ? from(this.pack()).pipe(
              map(find),
              catchError(() => throwError(() => error)),
            )
          : throwError(() => error),
      ),
    );
  }
}

export function machinesIn({ models }: DevicePack, typed: string): MachineSearch {
  const words = wordsOf(typed, WORDS_MOST);
  const real = models.filter(({ machine }) => !isTemplate(machine));
  const found = (words.length === 0 ? real : models).filter(({ machine }) => {
    const text = searchTextOf(machine);
    return words.every((word) => text.includes(word));
  });
  return {
    machines: found
      .slice(0, FOUND_MOST)
      .map(({ machine, confidence }) => machineSummary(machine, confidence)),
    total: real.length,
  };
}

/** Vehicles whose plate, number or model has what was typed; blanks and letter case do not matter. */
export function vehiclesIn({ vehicles }: DevicePack, typed: string): readonly PackedVehicle[] {
  const key = plateKeyOf(typed);
  const words = wordsOf(typed, WORDS_MOST);
  if (key === '') return [];
  return vehicles.filter(({ vehicle }) => {
    const { plate, fleetNumber, serialNumber, modelName } = vehicle;
    const text = [plate, fleetNumber, serialNumber, modelName].join(' ').toLowerCase();
    return plateKeyOf(plate ?? '').includes(key) || words.every((word) => text.includes(word));
  });
}

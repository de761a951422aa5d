import type { JobEvent } from '@voltrek/core/job';

const PREFIX = 'voltrek.taps.';

/**
 * Writes a tap down before anything else happens. The device's database takes milliseconds, on a busy
 * tablet many; a page that goes in that time takes what is under way with it. This is written at once, and read
 * again when the database next opens. A browser that denies it loses nothing but this.
 */
export class TapJournal {
  /** Each page writes its own, so that two pages of a device never write over each other. */
  private readonly key = PREFIX + crypto.randomUUID();
  private taps: readonly JobEvent[] = [];

  write(event: JobEvent): void {
    this.change([...this.taps, event]);
  }

  erase(eventId: string): void {
    if (this.taps.some((t) => t.id === eventId)) this.change(this.taps.filter((t) => t.id !== eventId));
  }

  /** The taps that other pages wrote down and have not yet kept: each page's in the order it was tapped. */
  left(): { readonly key: string; readonly taps: readonly JobEvent[] }[] {
    return (
      attempt(() =>
        Object.keys(localStorage)
          .filter((key) => key.startsWith(PREFIX) && key !== this.key)
          .map((key) => ({ key, taps: parsed(localStorage.getItem(key)) })),
      ) ?? []
    );
  }

  /** Taps that a page left are kept now. */
  forget(key: string): void {
    attempt(() => localStorage.removeItem(key));
  }

  private change(taps: readonly JobEvent[]): void {
    this.taps = taps;
    attempt(() =>
      taps.length > 0
        ? localStorage.setItem(this.key, JSON.stringify(taps))
        : localStorage.removeItem(this.key),
    );
  }
}

function parsed(text: string | null): JobEvent[] {
  return attempt(() => JSON.parse(text ?? '[]') as JobEvent[]) ?? [];
}

function attempt<T>(what: () => T): T | undefined {
  try {
    return what();
  } catch {
    // The database is what keeps; this only bridges the moment until it has.
    return undefined;
  }
}

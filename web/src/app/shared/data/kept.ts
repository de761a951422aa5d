/** The memory of this page where the browser denies it a place, or has no room: gone with the page, but no tap waits for it. */
const here = new Map<string, string>();

/** Returns the text that this device kept under a name; null where there is none. */
export function keptText(key: string): string | null {
  const text = here.get(key);
  if (text !== undefined) return text;
  try {
    return localStorage.getItem(key);
  } catch {
    return null;
  }
}

/** Returns the JSON that this device kept under a name; `none` where there is nothing, or it is torn. */
export function keptValue<T>(key: string, none: T): T {
  try {
    const text = keptText(key);
    return text ? (JSON.parse(text) as T) : none;
  } catch {
    return none;
  }
}

/** Keeps a text under a name, as long as the device can; null forgets it. */
export function keepText(key: string, text: string | null): void {
  here.delete(key);
  try {
    if (text === null) localStorage.removeItem(key);
    else localStorage.setItem(key, text);
  } catch {
    if (text !== null) here.set(key, text);
  }
}

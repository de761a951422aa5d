/** The words of what was typed into a search, in lower case; those behind the first `most` are not looked at. */
export function wordsOf(typed: string, most: number): string[] {
  return typed.toLowerCase().split(/\s+/).filter(Boolean).slice(0, most);
}

/** A word for LIKE that means only itself: its wildcards are signs like any other. */
export function plainLike(word: string): string {
  return word.replace(/[\\%_]/g, '\\$&');
}

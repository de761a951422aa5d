/** A word for LIKE that means only itself: its wildcards are signs like any other. */
export function plainLike(word: string): string {
  return word.replace(/[\\%_]/g, '\\$&');
}

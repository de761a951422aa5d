/**
 * A number of a text: the same for the same text.
 *
 * @example seedOf('') // => 2166136261
 */
export function seedOf(text: string): number {
  let seed = 2166136261;
  for (let i = 0; i < text.length; i++) seed = Math.imul(seed ^ text.charCodeAt(i), 16777619) >>> 0;
  return seed;
}

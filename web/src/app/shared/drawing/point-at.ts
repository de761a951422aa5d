/** The point of a drawing that lies under this place of the screen, whatever is carried above it; null where none does. */
export const pointAt = (
  document: Document,
  { x, y }: { readonly x: number; readonly y: number },
): string | null =>
  document
    .elementsFromPoint(x, y)
    .map((element) => element.closest('[data-point]'))
    .find((pin) => pin !== null)
    ?.getAttribute('data-point') ?? null;

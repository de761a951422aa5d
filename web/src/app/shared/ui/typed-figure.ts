/** A typed figure, with a point or a comma; NaN for none. */
export function typedFigure(text: string | undefined): number {
  return text === undefined || text.trim() === '' ? NaN : Number(text.trim().replace(',', '.'));
}

/** The properties of a drawing's look, once style sheets are gone. */
const LOOK = [
  'fill',
  'fill-opacity',
  'stroke',
  'stroke-width',
  'stroke-dasharray',
  'stroke-linecap',
  'stroke-linejoin',
  'opacity',
  'font-size',
  'font-weight',
  'text-anchor',
  'visibility',
] as const;
const PAPER_FONT = 'Roboto';

/**
 * A drawing on screen as text that stands by itself: every style written into its elements, in the colours of day, for paper.
 */
export function svgText(drawing: SVGSVGElement): string {
  const root = document.documentElement;
  const light = root.getAttribute('data-light');
  const copy = drawing.cloneNode(true) as SVGSVGElement;
  // Read in one go and set back before anything is painted.
  root.setAttribute('data-light', 'day');
  const from = [...drawing.querySelectorAll('*')];
  [...copy.querySelectorAll('*')].forEach((element, i) => {
    const style = getComputedStyle(from[i]!);
    for (const name of LOOK) {
      const value = style.getPropertyValue(name);
      if (value && !value.startsWith('url(')) element.setAttribute(name, value);
    }
    if (element.tagName === 'text') element.setAttribute('font-family', PAPER_FONT);
    if (style.display === 'none') element.setAttribute('visibility', 'hidden');
    element.removeAttribute('class');
  });
  if (light === null) root.removeAttribute('data-light');
  else root.setAttribute('data-light', light);
  const { width, height } = drawing.viewBox.baseVal;
  copy.setAttribute('width', String(width));
  copy.setAttribute('height', String(height));
  return new XMLSerializer().serializeToString(copy);
}

/** Every sign that a figure is written with, and a unit beside it. */
const FIGURE = '0123456789.,-<small>V A</small>';

/**
 * Has the browser shape the big figures, out of sight, and forget them: the first of a size takes as long as a whole step card. The tap
 * with the first figure of a job would wait for it.
 *
 * @param place where figures of the house style are shown; laid out anew by this, so call it in an idle moment
 */
export function shapeFigures(place: HTMLElement): void {
  const aside = document.createElement('div');
  aside.className = 'figure';
  aside.setAttribute('aria-hidden', 'true');
  aside.style.cssText = 'position: absolute; visibility: hidden; contain: strict; width: 1px; height: 1px';
  aside.innerHTML = FIGURE;
  place.append(aside);
  void aside.offsetWidth;
  aside.remove();
}

/** A second tap on the same toggle within this is the same tap of a glove, ms. */
export const DOUBLE_TAP_MS = 350;

/**
 * Keeps the second half of a double tap from turning a toggle back. Keys of a pad and steppers are meant to be tapped fast, and are no toggles.
 *
 * @returns ends it
 */
export function ignoreDoubleTaps(root: Document): () => void {
  let last: { readonly toggle: Element; readonly at: number } | null = null;
  const hear = (event: Event): void => {
    const toggle = event.target instanceof Element ? event.target.closest('[aria-pressed]') : null;
    const isSame = toggle !== null && last?.toggle === toggle && event.timeStamp - last.at < DOUBLE_TAP_MS;
    last = toggle && { toggle, at: event.timeStamp };
    if (!isSame) return;
    event.stopImmediatePropagation();
    event.preventDefault();
  };
  root.addEventListener('click', hear, { capture: true });
  return () => root.removeEventListener('click', hear, { capture: true });
}

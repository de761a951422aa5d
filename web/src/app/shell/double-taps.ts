/** A second tap within this on the same toggle, or in the same place, is the same tap, ms. */
export const DOUBLE_TAP_MS = 350;

/** A finger that taps twice in one place meets it within so many pixels. */
const SPOT_PX = 40;

const CONTROLS =
  'button, a[href], summary, input, select, [role=button], [role=radio], [role=tab], [role=option]';

const TOGGLE = '[aria-pressed]';

/** Buttons that are another act by the time of a second tap. */
const ONCE = '[data-once]';

/** A tap that counted. */
interface Tap {
  readonly control: Element | null;
  readonly at: number;
  readonly x: number;
  readonly y: number;
}

/** The control that was tapped is not where it was: taken away, moved, or covered. */
function isGone({ control, x, y }: Tap): boolean {
  const under = document.elementFromPoint(x, y);
  return control !== null && (under === null || !control.contains(under));
}

/**
 * Keeps the second half of a double tap from turning a toggle back, and from acting under the finger: the next row of a list, a dialog's
 * button. A mouse is aimed anew for each click, so that only toggles mind its second one. Keys of a pad and steppers are meant to be tapped
 * fast, stay where they are and are no toggles. A key that is held on a button acts once.
 *
 * @returns ends it
 */
export function ignoreDoubleTaps(root: Document): () => void {
  let last: Tap | null = null;
  let pointer = '';
  const point = (event: PointerEvent): void => {
    pointer = event.pointerType;
  };
  const hear = (event: MouseEvent): void => {
    const control = event.target instanceof Element ? event.target.closest(CONTROLS) : null;
    const tap: Tap = { control, at: event.timeStamp, x: event.clientX, y: event.clientY };
    const before = last !== null && tap.at - last.at < DOUBLE_TAP_MS ? last : null;
    // A key or an aid has no place.
    const isFinger = event.detail > 0 && pointer !== 'mouse';
    const isSame =
      before?.control === control && control?.matches(isFinger ? `${TOGGLE}, ${ONCE}` : TOGGLE) === true;
    const isAnother =
      before !== null &&
      isFinger &&
      control !== null &&
      before.control !== control &&
      Math.hypot(tap.x - before.x, tap.y - before.y) < SPOT_PX &&
      isGone(before);
    last = isAnother ? { ...before, at: tap.at } : tap;
    if (!isSame && !isAnother) return;
    event.stopImmediatePropagation();
    event.preventDefault();
  };
  const hold = (event: KeyboardEvent): void => {
    const isButton =
      event.target instanceof Element && event.target.closest('button, a[href], summary') !== null;
    if (event.repeat && isButton && (event.key === 'Enter' || event.key === ' ')) event.preventDefault();
  };
  root.addEventListener('pointerdown', point, { capture: true });
  root.addEventListener('click', hear, { capture: true });
  root.addEventListener('keydown', hold, { capture: true });
  return () => {
    root.removeEventListener('pointerdown', point, { capture: true });
    root.removeEventListener('click', hear, { capture: true });
    root.removeEventListener('keydown', hold, { capture: true });
  };
}

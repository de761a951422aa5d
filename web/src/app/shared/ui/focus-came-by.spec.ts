import { TestBed } from '@angular/core/testing';
import { FocusCameBy } from './focus-came-by';

describe('FocusCameBy', () => {
  let button: HTMLButtonElement;
  let focus: FocusCameBy;

  beforeEach(() => {
    focus = TestBed.inject(FocusCameBy);
    button = document.body.appendChild(document.createElement('button'));
  });
  afterEach(() => button.remove());

  // A press of a real pointer has a position and buttons: without them a screen reader made it.
  const tap = (): void => {
    const at = { bubbles: true, buttons: 1, detail: 1, clientX: 5, clientY: 5, screenX: 5, screenY: 5 };
    button.dispatchEvent(new MouseEvent('mousedown', at));
    button.focus();
  };
  const key = (keyCode: number): void => {
    document.body.dispatchEvent(
      new KeyboardEvent('keydown', { bubbles: true, keyCode } as KeyboardEventInit),
    );
  };

  it('stays with the tap that brought the focus, whatever key follows', () => {
    tap();
    expect(focus.keyboard()).toBeFalse();
    key(13);
    expect(focus.keyboard()).toBeFalse();
  });

  it('is the keyboard once a key moved the focus', () => {
    tap();
    key(9);
    button.blur();
    button.focus();
    expect(focus.keyboard()).toBeTrue();
  });
});

import { DOUBLE_TAP_MS, ignoreDoubleTaps } from './double-taps';

describe('A double tap', () => {
  let counted: string[];
  const add = (html: string): HTMLElement => {
    const host = document.createElement('div');
    host.innerHTML = html;
    document.body.append(host);
    host.addEventListener('click', (event) => counted.push((event.target as Element).textContent));
    return host;
  };

  let end: () => void;
  beforeAll(() => (end = ignoreDoubleTaps(document)));
  afterAll(() => end());
  beforeEach(() => (counted = []));

  it('on a toggle counts once, and again after a moment', async () => {
    const host = add('<button aria-pressed="false">lamp</button>');
    const button = host.querySelector('button')!;
    button.click();
    button.click();
    expect(counted).toEqual(['lamp']);
    await new Promise((done) => setTimeout(done, DOUBLE_TAP_MS + 30));
    button.click();
    expect(counted).toEqual(['lamp', 'lamp']);
    host.remove();
  });

  it('is two taps on two toggles, and on a key of a pad', () => {
    const host = add(
      '<button aria-pressed="false">a</button><button aria-pressed="true">b</button><button>1</button>',
    );
    const [a, b, one] = [...host.querySelectorAll('button')];
    a!.click();
    b!.click();
    a!.click();
    one!.click();
    one!.click();
    expect(counted).toEqual(['a', 'b', 'a', '1', '1']);
    host.remove();
  });

  describe('of a finger', () => {
    const PAUSE = (): Promise<void> => new Promise((done) => setTimeout(done, DOUBLE_TAP_MS + 30));
    // The tap of the spec before is gone.
    beforeEach(PAUSE);
    const tapAt = (x: number, y: number, pointerType = 'touch'): void => {
      const under = document.elementFromPoint(x, y)!;
      under.dispatchEvent(new PointerEvent('pointerdown', { bubbles: true, pointerType }));
      under.dispatchEvent(
        new MouseEvent('click', { bubbles: true, cancelable: true, detail: 1, clientX: x, clientY: y }),
      );
    };
    const onTop = (html: string): HTMLElement => {
      const host = add(html);
      host.style.cssText = 'position: fixed; left: 0; top: 0; z-index: 9999; background: white';
      for (const button of host.querySelectorAll('button'))
        button.style.cssText = 'display: block; width: 120px; height: 60px';
      return host;
    };

    it('is not taken by what came under it: the row that moved up, or a dialog', async () => {
      const host = onTop('<button>first</button><button>second</button>');
      host.addEventListener('click', (event) => (event.target as Element).remove());
      tapAt(40, 30);
      tapAt(44, 33);
      tapAt(40, 30);
      expect(counted).toEqual(['first']);
      await PAUSE();
      tapAt(40, 30);
      expect(counted).toEqual(['first', 'second']);
      host.remove();
    });

    it('is two of a mouse, which is aimed anew for each', () => {
      const host = onTop('<button data-once="">first</button><button>second</button>');
      tapAt(40, 30, 'mouse');
      tapAt(40, 30, 'mouse');
      host.querySelector('button')!.remove();
      tapAt(40, 30, 'mouse');
      expect(counted).toEqual(['first', 'first', 'second']);
      host.remove();
    });

    it('is two taps on two that both stay, however quick and near', () => {
      const host = onTop('<button>1</button><button>2</button>');
      tapAt(40, 55);
      tapAt(40, 65);
      tapAt(40, 65);
      expect(counted).toEqual(['1', '2', '2']);
      host.remove();
    });

    it('is one where the act changes with each tap', () => {
      const host = onTop('<button data-once="">next</button>');
      tapAt(40, 30);
      tapAt(40, 30);
      expect(counted).toEqual(['next']);
      host.remove();
    });
  });

  it('is one for a key that is held on a button, and more for one that is typed with', () => {
    const host = add('<button>do</button><input />');
    const held = (target: Element, key: string): boolean =>
      target.dispatchEvent(
        new KeyboardEvent('keydown', { key, repeat: true, bubbles: true, cancelable: true }),
      );
    expect(held(host.querySelector('button')!, 'Enter')).toBeFalse();
    expect(held(host.querySelector('button')!, ' ')).toBeFalse();
    expect(held(host.querySelector('button')!, 'ArrowDown')).toBeTrue();
    expect(held(host.querySelector('input')!, ' ')).toBeTrue();
    host.remove();
  });
});

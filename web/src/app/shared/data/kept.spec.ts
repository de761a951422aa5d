import { keepText, keptText } from './kept';

describe('What a device keeps', () => {
  const KEY = 'voltrek.kept.spec';
  afterEach(() => keepText(KEY, null));

  it('is there again, until it is forgotten', () => {
    expect(keptText(KEY)).toBeNull();
    keepText(KEY, 'dusk');
    expect(keptText(KEY)).toBe('dusk');
    expect(localStorage.getItem(KEY)).toBe('dusk');
    keepText(KEY, null);
    expect(keptText(KEY)).toBeNull();
    expect(localStorage.getItem(KEY)).toBeNull();
  });

  it('lasts as long as the page where there is no room for it, and the older text does not come back', () => {
    keepText(KEY, 'day');
    const full = spyOn(Storage.prototype, 'setItem').and.throwError(
      new DOMException('', 'QuotaExceededError'),
    );
    keepText(KEY, 'night');
    expect(keptText(KEY)).toBe('night');
    full.and.callThrough();
    keepText(KEY, 'dusk');
    expect(keptText(KEY)).toBe('dusk');
    expect(localStorage.getItem(KEY)).toBe('dusk');
  });

  it('lasts as long as the page where the browser denies it', () => {
    const denied = spyOnProperty(window, 'localStorage').and.throwError(
      new DOMException('', 'SecurityError'),
    );
    expect(keptText(KEY)).toBeNull();
    keepText(KEY, 'night');
    expect(keptText(KEY)).toBe('night');
    keepText(KEY, null);
    expect(keptText(KEY)).toBeNull();
    expect(denied).toHaveBeenCalled();
  });
});

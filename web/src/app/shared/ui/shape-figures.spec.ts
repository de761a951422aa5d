import { shapeFigures } from './shape-figures';

describe('shapeFigures', () => {
  it('lays out every digit in the style of figures, seen and read by nobody, and leaves nothing behind', () => {
    const place = document.createElement('div');
    place.textContent = 'Hook up';
    document.body.append(place);
    const seen: { readonly digits: boolean; readonly hidden: boolean; readonly said: boolean }[] = [];
    const append = place.append.bind(place);
    spyOn(place, 'append').and.callFake((aside: HTMLElement) => {
      append(aside);
      seen.push({
        digits: aside.matches('.figure') && aside.textContent.startsWith('0123456789'),
        hidden: getComputedStyle(aside).visibility === 'hidden',
        said: aside.getAttribute('aria-hidden') !== 'true',
      });
    });
    shapeFigures(place);
    expect(seen).toEqual([{ digits: true, hidden: true, said: false }]);
    expect(place.innerHTML).toBe('Hook up');
    place.remove();
  });
});

import { LIGHTS } from '../data/session';

/** WCAG 2.2: the least contrast of text, and of what is no text. */
const AA_TEXT = 4.5;
const AA_SHAPE = 3;

/** Every pair of text and ground that a screen may use. */
const TEXT_ON: Readonly<Record<string, readonly string[]>> = {
  paper: ['ink', 'dim', 'lamp-text', 'ok', 'watch', 'bad'],
  sheet: ['ink', 'dim', 'lamp-text', 'ok', 'watch', 'bad'],
  body: ['ink'],
  glass: ['ink'],
  road: ['on-road', 'on-road-dim', 'lamp'],
  lamp: ['on-lamp'],
  'lamp-dim': ['on-lamp'],
  positive: ['on-positive'],
  negative: ['on-negative'],
  bad: ['on-bad'],
};
const SHAPE_ON: Readonly<Record<string, readonly string[]>> = {
  sheet: ['positive', 'negative-edge', 'ink'],
  paper: ['positive', 'negative-edge'],
};

/** WCAG 2.2, relative luminance of #rrggbb. */
function luminance(hex: string): number {
  const [r, g, b] = [1, 3, 5]
    .map((at) => parseInt(hex.slice(at, at + 2), 16) / 255)
    .map((c) => (c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4)) as [number, number, number];
  return 0.2126 * r + 0.7152 * g + 0.0722 * b;
}

function contrast(one: string, other: string): number {
  const [light, dark] = [luminance(one), luminance(other)].sort((a, b) => b - a) as [number, number];
  return (light + 0.05) / (dark + 0.05);
}

describe('the colours of each light', () => {
  const root = document.documentElement;
  const before = root.dataset.light;
  afterEach(() => {
    if (before === undefined) delete root.dataset.light;
    else root.dataset.light = before;
  });

  for (const light of LIGHTS)
    it(`have the contrast of WCAG AA: ${light}`, () => {
      root.dataset.light = light;
      const style = getComputedStyle(root);
      const colour = (name: string): string => {
        const value = style.getPropertyValue(`--${name}`).trim();
        return /^#[0-9a-f]{3}$/i.test(value) ? value.replace(/[0-9a-f]/gi, '$&$&') : value;
      };
      for (const [table, least] of [
        [TEXT_ON, AA_TEXT],
        [SHAPE_ON, AA_SHAPE],
      ] as const)
        for (const [ground, names] of Object.entries(table))
          for (const name of names) {
            expect(colour(name))
              .withContext(name)
              .toMatch(/^#[0-9a-f]{6}$/i);
            expect(contrast(colour(name), colour(ground)))
              .withContext(`${name} on ${ground}, ${light}`)
              .toBeGreaterThanOrEqual(least);
          }
    });
});

import type { Page } from '@playwright/test';

/** Words of the drawing in sight, with their size on the screen. @param within what the drawing is in, as a selector */
export function drawnWords(
  page: Page,
  within = '.circuit',
): Promise<{ readonly words: string; readonly px: number }[]> {
  return page.locator(`${within} svg text`).evaluateAll((all) =>
    (all as SVGTextElement[])
      .filter((text) => text.checkVisibility() && text.getBoundingClientRect().height > 0)
      .map((text) => ({
        words: text.textContent,
        px: Number.parseFloat(getComputedStyle(text).fontSize) * (text.getScreenCTM()?.a ?? 0),
      })),
  );
}

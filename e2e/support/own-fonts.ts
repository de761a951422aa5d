import type { Page } from '@playwright/test';

/**
 * Finds text in signs that no font of the application has: drawn with whatever the machine holds, found slowly, or not drawn at all.
 * Letters and digits every font has, so only elements with something else are asked after.
 */
export async function foreignSigns(page: Page): Promise<string[]> {
  await page.evaluate(() => {
    document.querySelectorAll('body *').forEach((element) => {
      const own = Array.from(element.childNodes).filter((n) => n.nodeType === Node.TEXT_NODE);
      element.toggleAttribute(
        'data-signs',
        own.some((n) => /[^\s\x20-\x7e]/.test(n.nodeValue ?? '')),
      );
    });
  });
  const devtools = await page.context().newCDPSession(page);
  await devtools.send('DOM.enable');
  await devtools.send('CSS.enable');
  const { root } = await devtools.send('DOM.getDocument');
  const { nodeIds } = await devtools.send('DOM.querySelectorAll', {
    nodeId: root.nodeId,
    selector: '[data-signs]',
  });
  const foreign: string[] = [];
  for (const nodeId of nodeIds) {
    const { fonts } = await devtools.send('CSS.getPlatformFontsForNode', { nodeId });
    const strange = fonts.filter(({ isCustomFont }) => !isCustomFont);
    if (strange.length === 0) continue;
    const { outerHTML } = await devtools.send('DOM.getOuterHTML', { nodeId });
    foreign.push(`${outerHTML.slice(0, 120)} in ${strange.map(({ familyName }) => familyName).join(', ')}`);
  }
  await devtools.detach();
  return foreign;
}

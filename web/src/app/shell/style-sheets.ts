import { DOCUMENT, inject, Injectable, type OnDestroy, type Provider } from '@angular/core';
import { ɵSharedStylesHost as SharedStylesHost } from '@angular/platform-browser';

/**
 * The styles of the components as sheets of the document, where the framework would write them into the page: so the policy of what a page may
 * load can refuse styles that are written into it. A sheet stays once it is made: a stage that is opened again finds its own.
 */
@Injectable()
export class StyleSheets
  implements OnDestroy, Pick<SharedStylesHost, 'addStyles' | 'removeStyles' | 'addHost' | 'removeHost'>
{
  private readonly document = inject(DOCUMENT);
  private readonly made = new Map<string, CSSStyleSheet>();

  addStyles(styles: readonly string[]): void {
    for (const text of styles) {
      if (this.made.has(text)) continue;
      const sheet = new CSSStyleSheet();
      sheet.replaceSync(text);
      this.made.set(text, sheet);
      this.document.adoptedStyleSheets.push(sheet);
    }
  }

  removeStyles(): void {
    // They stay: few, small, and wanted again at the next turn.
  }

  addHost(): void {
    // No component has a shadow root of its own.
  }

  removeHost(): void {
    // See above.
  }

  ngOnDestroy(): void {
    const mine = new Set(this.made.values());
    this.document.adoptedStyleSheets = this.document.adoptedStyleSheets.filter((sheet) => !mine.has(sheet));
  }
}

export function provideStyleSheets(): Provider {
  return { provide: SharedStylesHost, useClass: StyleSheets };
}

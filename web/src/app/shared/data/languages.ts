import { DOCUMENT, inject, Injectable } from '@angular/core';
import type { formOf } from './icu';
import { DefaultTranspiler, TranslocoService } from '@jsverse/transloco';
import { type MessageTree, showMessages } from '@words/messages-of';
import { type Language, setLanguage } from '../model/language';

type TranspileParams = Parameters<DefaultTranspiler['transpile']>[0];

/** The messages of a language: those of the first page, and all others. */
interface Parts {
  readonly first: () => Promise<MessageTree>;
  readonly whole: () => Promise<MessageTree>;
}

const PARTS: Readonly<Record<Language, Parts>> = {
  en: {
    first: () => import('../../../messages/en/app.json').then((part) => part.default),
    whole: () => import('../../../messages/en/whole').then((part) => part.whole),
  },
  de: {
    first: () => import('../../../messages/de/app.json').then((part) => part.default),
    whole: () => import('../../../messages/de/whole').then((part) => part.whole),
  },
};

/** Loads the messages of a language and shows them. The page stays; the service worker keeps all languages. */
@Injectable({ providedIn: 'root' })
export class Languages {
  private readonly transloco = inject(TranslocoService);
  private readonly document = inject(DOCUMENT);
  private asked: Language | null = null;
  /** Another page than the first was opened: from then on a language is loaded whole. */
  private needsWhole = false;
  private isWhole = false;

  /** Shows a language. Of two calls the later one stands, whichever is loaded first. */
  async show(language: Language): Promise<void> {
    if (language === this.asked) return;
    this.asked = language;
    await this.load(language);
  }

  /** Loads what the first page does without. True when it is there: a guard of the other pages. */
  async whole(): Promise<true> {
    this.needsWhole = true;
    // The language can change while another is loaded: then none is whole yet.
    while (!this.isWhole) await this.load(this.asked ?? 'en');
    return true;
  }

  private async load(language: Language): Promise<void> {
    const { first, whole } = PARTS[language];
    const isWhole = this.needsWhole;
    const parts = await Promise.all([first(), isWhole ? whole() : {}]);
    if (isWhole) fillFormsBy((await import('./icu')).formOf);
    if (this.asked !== language || (this.needsWhole && !isWhole)) return;
    const messages: MessageTree = Object.assign({}, ...parts);
    this.transloco.setTranslation(messages, language, { merge: false });
    this.transloco.setActiveLang(language);
    this.document.documentElement.lang = language;
    setLanguage(language);
    showMessages(messages);
    this.isWhole = isWhole;
  }
}

/** A message with a form for each number or kind. */
const HAS_FORMS = /\{\w+, /;

let filler: typeof formOf | null = null;

/** Sets what fills forms by ICU. */
export const fillFormsBy = (formatter: typeof formOf): void => {
  filler = formatter;
};

/**
 * Fills the places of a message. The first page has no message with forms, so ICU comes with all other messages: its parser is half as large
 * as they are.
 */
@Injectable()
export class IcuTranspiler extends DefaultTranspiler {
  private language = 'en';

  onLangChanged(language: string): void {
    this.language = language;
  }

  override transpile(part: TranspileParams): unknown {
    const text = String(part.value);
    return HAS_FORMS.test(text)
      ? filler!(text, this.language, part.params as Record<string, unknown>)
      : super.transpile(part);
  }
}

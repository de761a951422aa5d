import { DOCUMENT, inject, Injectable } from '@angular/core';
import { TranslocoService, type TranslocoTranspiler } from '@jsverse/transloco';
import { IntlMessageFormat } from 'intl-messageformat';
import { type MessageTree, showMessages } from '@words/messages-of';
import { type Language, setLanguage } from '../model/language';

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
  private asked: Language = 'en';
  /** Another page than the first was opened: from then on a language is loaded whole. */
  private isWhole = false;

  /** Shows a language. Of two calls the later one stands, whichever is loaded first. */
  async show(language: Language): Promise<void> {
    this.asked = language;
    const { first, whole } = PARTS[language];
    const parts = await Promise.all([first(), this.isWhole ? whole() : {}]);
    if (this.asked !== language) return;
    const messages: MessageTree = Object.assign({}, ...parts);
    this.transloco.setTranslation(messages, language, { merge: false });
    this.transloco.setActiveLang(language);
    this.document.documentElement.lang = language;
    setLanguage(language);
    showMessages(messages);
  }

  /** Loads what the first page does without. True when it is there: a guard of the other pages. */
  async whole(): Promise<true> {
    if (!this.isWhole) {
      this.isWhole = true;
      await this.show(this.asked);
    }
    return true;
  }
}

/** Fills the places of a message by ICU. A parsed message is kept: parsing takes longer than a hundred uses. */
export class IcuTranspiler implements TranslocoTranspiler {
  private language = 'en';
  private readonly parsed = new Map<string, IntlMessageFormat>();

  onLangChanged(language: string): void {
    this.language = language;
    this.parsed.clear();
  }

  transpile({
    value,
    params,
  }: {
    readonly value: unknown;
    readonly params?: Record<string, unknown>;
  }): unknown {
    const text = String(value);
    let message = this.parsed.get(text);
    if (!message) {
      message = new IntlMessageFormat(text, this.language, undefined, { ignoreTag: true });
      this.parsed.set(text, message);
    }
    return message.format(params as Record<string, string | number>);
  }
}

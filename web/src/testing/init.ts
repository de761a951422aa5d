import { createEnvironmentInjector, type EnvironmentInjector } from '@angular/core';
import { getTestBed } from '@angular/core/testing';
import { BrowserTestingModule, platformBrowserTesting } from '@angular/platform-browser/testing';
import { provideTransloco, provideTranslocoTranspiler, TranslocoService } from '@jsverse/transloco';
import { showMessages } from '@words/messages-of';
import { formOf } from '../app/shared/data/icu';
import { fillFormsBy, IcuTranspiler } from '../app/shared/data/languages';
import first from '../messages/en/app.json';
import { whole } from '../messages/en/whole';

/** Starts the test environment with the English messages, as the application has them before its first page. */
const platform = platformBrowserTesting();
getTestBed().initTestEnvironment(BrowserTestingModule, platform, {
  errorOnUnknownElements: true,
  errorOnUnknownProperties: true,
});

const messages = { ...first, ...whole };
const transloco = createEnvironmentInjector(
  [
    TranslocoService,
    provideTransloco({ config: { availableLangs: ['en'], defaultLang: 'en', interpolation: ['{', '}'] } }),
    provideTranslocoTranspiler(IcuTranspiler),
  ],
  platform.injector as EnvironmentInjector,
).get(TranslocoService);
transloco.setTranslation(messages, 'en');
transloco.setActiveLang('en');
showMessages(messages);
fillFormsBy(formOf);

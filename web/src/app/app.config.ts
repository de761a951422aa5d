import { provideHttpClient, withInterceptors } from '@angular/common/http';
import {
  type ApplicationConfig,
  DOCUMENT,
  inject,
  isDevMode,
  provideAppInitializer,
  provideBrowserGlobalErrorListeners,
  provideZonelessChangeDetection,
} from '@angular/core';
import { provideRouter, withComponentInputBinding, withNavigationErrorHandler } from '@angular/router';
import { provideServiceWorker } from '@angular/service-worker';
import { NgbModalConfig } from '@ng-bootstrap/ng-bootstrap/modal';
import { provideTransloco, provideTranslocoTranspiler } from '@jsverse/transloco';
import { provideEffects } from '@ngrx/effects';
import { provideState, provideStore, Store } from '@ngrx/store';
import { routes } from './app.routes';
import { ignoreDoubleTaps } from './shell/double-taps';
import { provideStyleSheets } from './shell/style-sheets';
import { Versions } from './shell/versions';
import * as jobEffects from './shared/job/job-effects';
import { LANGUAGES, languageBy } from './shared/model/language';
import { IcuTranspiler, Languages } from './shared/data/languages';
import { jobFeature } from './shared/model/job-state';
import { crewCopy } from './shared/data/crew';
import { boardCopy, hearBoard } from './shared/data/board';
import { kitCopy } from './shared/data/kit';
import { rulesCopy } from './shared/data/rules';
import { deviceFeature } from './shared/sync/device-state';
import { JobSync } from './shared/sync/job-sync';
import { SharedPages } from './shared/sync/shared-pages';
import { keepSettings, settingsFeature } from './shared/data/settings';
import { keepSession, sessionFeature } from './shared/data/session';
import { askLate, askSignIn, goOn, catchUnauthorized, signInFeature } from './shared/data/sign-in';
import { shownLanguage } from './shared/model/shown-language';
import { StreamLine } from './shared/data/stream-line';

export const appConfig: ApplicationConfig = {
  providers: [
    provideBrowserGlobalErrorListeners(),
    provideZonelessChangeDetection(),
    provideStyleSheets(),
    provideHttpClient(withInterceptors([catchUnauthorized])),
    // Not before the page has settled: what it keeps for later must not delay what is wanted now.
    provideServiceWorker('ngsw-worker.js', {
      enabled: !isDevMode(),
      registrationStrategy: 'registerWhenStable:8000',
    }),
    provideRouter(
      routes,
      withComponentInputBinding(),
      // A part of the application that is not there any more belongs to an older version of it.
      withNavigationErrorHandler(() => inject(Versions).askForReload()),
    ),
    provideStore(),
    provideTransloco({
      config: { availableLangs: [...LANGUAGES], interpolation: ['{', '}'], prodMode: !isDevMode() },
    }),
    provideTranslocoTranspiler(IcuTranspiler),
    // A request can fail at once, and its failure is told in words: they come before the first request.
    provideAppInitializer(async () => {
      const [store, sync] = [inject(Store), inject(JobSync)];
      const { language } = store.selectSignal(settingsFeature.selectSettingsState)();
      await inject(Languages).show(languageBy(language, navigator.languages));
      sync.start();
      // Pages that are opened when the network is gone need them, too.
      for (const { requested } of [crewCopy, kitCopy, rulesCopy]) store.dispatch(requested());
    }),
    provideState(sessionFeature),
    provideState(settingsFeature),
    provideState(shownLanguage),
    provideState(signInFeature),
    provideState(boardCopy),
    provideState(crewCopy),
    provideState(kitCopy),
    provideState(rulesCopy),
    provideState(jobFeature),
    provideState(deviceFeature),
    provideAppInitializer(() => inject(SharedPages).start()),
    provideAppInitializer(() => inject(StreamLine).start()),
    provideAppInitializer(() => void ignoreDoubleTaps(inject(DOCUMENT))),
    // A dialog holds work: a stray tap beside it does not take that away.
    provideAppInitializer(() => {
      inject(NgbModalConfig).backdrop = 'static';
    }),
    provideEffects(
      { askLate, askSignIn, goOn, keepSession, keepSettings, hearBoard },
      jobEffects,
      // In one call: the start of the application is announced once.
      ...[boardCopy, crewCopy, kitCopy, rulesCopy].map(({ effects }) => effects),
    ),
  ],
};

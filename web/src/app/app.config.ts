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
import { provideEffects } from '@ngrx/effects';
import { provideState, provideStore } from '@ngrx/store';
import { routes } from './app.routes';
import { ignoreDoubleTaps } from './shell/double-taps';
import { provideStyleSheets } from './shell/style-sheets';
import { Versions } from './shell/versions';
import * as jobEffects from './shared/job/job-effects';
import { jobFeature } from './shared/model/job-state';
import { atlasFeature, searchAtlas, loadEntry, changeEntry, sendPhoto } from './shared/sync/atlas';
import { boardFeature, hearBoard, loadBoard } from './shared/data/board';
import { changeKit, finishMark, kitFeature, loadKit } from './shared/data/kit';
import { askLog, logFeature } from './shared/data/log';
import { loadRules, rulesFeature, setRule } from './shared/data/rules';
import { deviceFeature } from './shared/sync/device-state';
import { JobSync } from './shared/sync/job-sync';
import { SharedPages } from './shared/sync/shared-pages';
import { keepSettings, settingsFeature } from './shared/data/settings';
import { changeCrew, keepCrew, keepLight, keepVan, loadCrew, sessionFeature } from './shared/data/session';
import { askLate, askSignIn, goOn, hearClosedDoor, signInFeature } from './shared/data/sign-in';
import { NewsLine } from './shared/data/news-line';

export const appConfig: ApplicationConfig = {
  providers: [
    provideBrowserGlobalErrorListeners(),
    provideZonelessChangeDetection(),
    provideStyleSheets(),
    provideHttpClient(withInterceptors([hearClosedDoor])),
    // Not before the page has settled: what it keeps for later must not delay what is wanted now.
    provideServiceWorker('ngsw-worker.js', {
      enabled: !isDevMode(),
      registrationStrategy: 'registerWhenStable:8000',
    }),
    provideRouter(
      routes,
      withComponentInputBinding(),
      // A part of the application that is not there any more belongs to an older version of it.
      withNavigationErrorHandler(() => inject(Versions).reloadWanted()),
    ),
    provideStore(),
    provideState(sessionFeature),
    provideState(settingsFeature),
    provideState(signInFeature),
    provideState(boardFeature),
    provideState(atlasFeature),
    provideState(kitFeature),
    provideState(logFeature),
    provideState(rulesFeature),
    provideState(jobFeature),
    provideState(deviceFeature),
    provideAppInitializer(() => inject(JobSync).start()),
    provideAppInitializer(() => inject(SharedPages).start()),
    provideAppInitializer(() => inject(NewsLine).start()),
    provideAppInitializer(() => void ignoreDoubleTaps(inject(DOCUMENT))),
    // A dialog holds work: a stray tap beside it does not take that away.
    provideAppInitializer(() => {
      inject(NgbModalConfig).backdrop = 'static';
    }),
    provideEffects(
      {
        loadCrew,
        askLate,
        askSignIn,
        goOn,
        keepLight,
        keepCrew,
        keepVan,
        keepSettings,
        hearBoard,
        loadBoard,
        searchAtlas,
        loadEntry,
        changeEntry,
        sendPhoto,
        loadKit,
        finishMark,
        changeKit,
        changeCrew,
        askLog,
        loadRules,
        setRule,
      },
      jobEffects,
    ),
  ],
};

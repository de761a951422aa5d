import { provideHttpClient } from '@angular/common/http';
import {
  type ApplicationConfig,
  provideBrowserGlobalErrorListeners,
  provideZonelessChangeDetection,
} from '@angular/core';
import { provideRouter, withComponentInputBinding } from '@angular/router';
import { provideEffects } from '@ngrx/effects';
import { provideState, provideStore } from '@ngrx/store';
import { routes } from './app.routes';
import * as jobEffects from './shared/job/job-effects';
import { jobFeature } from './shared/job/job-state';
import { atlasFeature, searchAtlas, loadEntry, changeEntry } from './shared/state/atlas';
import { boardFeature, hearBoard, loadBoard } from './shared/state/board';
import { changeKit, finishMark, kitFeature, loadKit } from './shared/state/kit';
import { askLog, logFeature } from './shared/state/log';
import { loadRules, rulesFeature, setRule } from './shared/state/rules';
import { changeCrew, keepCrew, keepLight, keepVan, loadCrew, sessionFeature } from './shared/state/session';

export const appConfig: ApplicationConfig = {
  providers: [
    provideBrowserGlobalErrorListeners(),
    provideZonelessChangeDetection(),
    provideHttpClient(),
    provideRouter(routes, withComponentInputBinding()),
    provideStore(),
    provideState(sessionFeature),
    provideState(boardFeature),
    provideState(atlasFeature),
    provideState(kitFeature),
    provideState(logFeature),
    provideState(rulesFeature),
    provideState(jobFeature),
    provideEffects(
      {
        loadCrew,
        keepLight,
        keepCrew,
        keepVan,
        hearBoard,
        loadBoard,
        searchAtlas,
        loadEntry,
        changeEntry,
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

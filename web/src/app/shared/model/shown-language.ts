import { createActionGroup, createReducer, on, props } from '@ngrx/store';
import type { Language } from './language';

/** The language on screen, and whether all its messages are here. */
export interface ShownLanguage {
  readonly language: Language;
  readonly isWhole: boolean;
}

export const LanguageActions = createActionGroup({
  source: 'Language',
  events: { Shown: props<ShownLanguage>() },
});

/** The language on screen as state: a selector that makes words from codes is asked again when it changes. */
export const shownLanguage = {
  name: 'shownLanguage',
  reducer: createReducer<ShownLanguage | null>(
    null,
    on(LanguageActions.shown, (_, { language, isWhole }) => ({ language, isWhole })),
  ),
};

export const selectShownLanguage = (state: object): ShownLanguage | null =>
  (state as { shownLanguage?: ShownLanguage | null }).shownLanguage ?? null;

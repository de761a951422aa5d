import { inject } from '@angular/core';
import { Actions, createEffect, ofType } from '@ngrx/effects';
import { createActionGroup, createFeature, createReducer, on, props, Store } from '@ngrx/store';
import { tap, withLatestFrom } from 'rxjs';
import { keepText, keptText } from './kept';
import {
  type DeviceSettings,
  type SettingKey,
  settingsBy,
  SETTINGS,
  USUAL_SETTINGS,
} from '../model/setting-table';
import { SessionActions } from './session';

const SETTINGS_KEY = 'voltrek.settings';

export const SettingsActions = createActionGroup({
  source: 'Settings',
  events: { Set: props<{ key: SettingKey; value: DeviceSettings[SettingKey] }>() },
});

/** Returns the kept settings: an unknown one, or one of no value of today, is as usual. */
export function storedSettings(text: string | null): DeviceSettings {
  let kept: Partial<Record<string, unknown>> = {};
  try {
    kept = (JSON.parse(text ?? '{}') as typeof kept | null) ?? {};
  } catch {
    // Torn or foreign: as usual.
  }
  return settingsBy((key) => SETTINGS[key].find((value) => value === kept[key]) ?? USUAL_SETTINGS[key]);
}

export const settingsFeature = createFeature({
  name: 'settings',
  reducer: createReducer(
    storedSettings(keptText(SETTINGS_KEY)),
    on(SessionActions.lightChosen, (state, { byItself }) =>
      byItself ? state : { ...state, lightByClock: false, lightBySensor: false },
    ),
    on(SettingsActions.set, (state, { key, value }): DeviceSettings => ({ ...state, [key]: value })),
  ),
});

export const keepSettings = createEffect(
  (actions = inject(Actions), store = inject(Store)) =>
    actions.pipe(
      ofType(SettingsActions.set, SessionActions.lightChosen),
      withLatestFrom(store.select(settingsFeature.selectSettingsState)),
      tap(([, settings]) => keepText(SETTINGS_KEY, JSON.stringify(settings))),
    ),
  { functional: true, dispatch: false },
);

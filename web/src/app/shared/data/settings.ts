import { inject } from '@angular/core';
import { Actions, createEffect, ofType } from '@ngrx/effects';
import { createActionGroup, createFeature, createReducer, on, props, Store } from '@ngrx/store';
import { tap, withLatestFrom } from 'rxjs';
import { keepText, keptText } from './kept';
import { SessionActions } from './session';

const ON_FIRST = [true, false] as const;
const OFF_FIRST = [false, true] as const;

/**
 * The settings of a device, in the order it is shown, each with its values, the usual one first. A new one does not compile without its
 * words. Values that are no switch do not compile without a place on the screen.
 */
const SETTINGS = {
  /** Day, Dusk and Night by the clock of the device; a light that is chosen ends it. */
  lightByClock: OFF_FIRST,
  /** The same by how bright it is around, where the device can tell; before the clock. */
  lightBySensor: OFF_FIRST,
  largeType: OFF_FIRST,
  /** Undo at the right, Make safe at the left. */
  leftHand: OFF_FIRST,
  /** A tone at the end of a wait, of a rest, and when a try has lasted long enough. */
  tones: ON_FIRST,
  /** The same in the hand, where the device can. */
  vibrates: ON_FIRST,
  /** Temperatures in °F, lead sections by the gauge, lengths in feet; the store stays SI. */
  fahrenheit: OFF_FIRST,
  wireGauge: OFF_FIRST,
  feet: OFF_FIRST,
  /** U, R, M, 1 to 9, / and ? act by themselves. Enter does in any case. */
  letterKeys: ON_FIRST,
} as const satisfies Readonly<Record<string, readonly (boolean | string)[]>>;

export type SettingKey = keyof typeof SETTINGS;
export const SETTING_KEYS = Object.keys(SETTINGS) as SettingKey[];

/** How this device is set: it is nobody else's. */
export type DeviceSettings = { readonly [K in SettingKey]: (typeof SETTINGS)[K][number] };

const settingsBy = (value: (key: SettingKey) => unknown): DeviceSettings =>
  Object.fromEntries(SETTING_KEYS.map((key) => [key, value(key)])) as unknown as DeviceSettings;

export const USUAL_SETTINGS: DeviceSettings = settingsBy((key) => SETTINGS[key][0]);

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

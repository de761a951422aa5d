import { inject } from '@angular/core';
import { Actions, createEffect, ofType } from '@ngrx/effects';
import { createActionGroup, createFeature, createReducer, on, props, Store } from '@ngrx/store';
import { tap, withLatestFrom } from 'rxjs';
import { keepText, keptText } from './kept';
import { SessionActions } from './session';

/** How this device is set: it is nobody else's. */
export interface DeviceSettings {
  /** A tone at the end of a wait, of a rest, and when a try has lasted long enough. */
  readonly tones: boolean;
  /** The same in the hand, where the device can. */
  readonly vibrates: boolean;
  /** U, R, M, 1 to 9, / and ? act by themselves. Enter does in any case. */
  readonly letterKeys: boolean;
  readonly largeType: boolean;
  /** Undo at the right, Make safe at the left. */
  readonly leftHand: boolean;
  /** Day, Dusk and Night by the clock of the device; a light that is chosen ends it. */
  readonly lightByClock: boolean;
  /** The same by how bright it is around, where the device can tell; before the clock. */
  readonly lightBySensor: boolean;
  /** Temperatures in °F, lead sections by the gauge, lengths in feet; what is kept stays SI. */
  readonly fahrenheit: boolean;
  readonly wireGauge: boolean;
  readonly feet: boolean;
}
export type SettingKey = keyof DeviceSettings;

export const USUAL_SETTINGS: DeviceSettings = {
  tones: true,
  vibrates: true,
  letterKeys: true,
  largeType: false,
  leftHand: false,
  lightByClock: false,
  lightBySensor: false,
  fahrenheit: false,
  wireGauge: false,
  feet: false,
};

const SETTINGS_KEY = 'voltrek.settings';

export const SettingsActions = createActionGroup({
  source: 'Settings',
  events: { Set: props<{ key: SettingKey; on: boolean }>() },
});

/** Returns the kept settings: an unknown one, or one of no value of today, is as usual. */
export function storedSettings(text: string | null): DeviceSettings {
  let kept: Partial<Record<string, unknown>> = {};
  try {
    kept = (JSON.parse(text ?? '{}') as typeof kept | null) ?? {};
  } catch {
    // Torn or foreign: as usual.
  }
  const entries = Object.entries(USUAL_SETTINGS).map(([key, usual]): [string, boolean] => {
    const value = kept[key];
    return [key, typeof value === 'boolean' ? value : (usual as boolean)];
  });
  return Object.fromEntries(entries) as unknown as DeviceSettings;
}

export const settingsFeature = createFeature({
  name: 'settings',
  reducer: createReducer(
    storedSettings(keptText(SETTINGS_KEY)),
    on(SessionActions.lightChosen, (state, { byItself }) =>
      byItself ? state : { ...state, lightByClock: false, lightBySensor: false },
    ),
    on(SettingsActions.set, (state, { key, on: isOn }): DeviceSettings => ({ ...state, [key]: isOn })),
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

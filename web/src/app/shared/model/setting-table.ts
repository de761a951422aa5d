import { LANGUAGE_SETTINGS } from './language';

const ON_FIRST = [true, false] as const;
const OFF_FIRST = [false, true] as const;

/**
 * The settings of a device, in the order it is shown, each with its values, the usual one first. A new one does not compile without its
 * words. Values that are no switch do not compile without a place on the screen.
 */
export const SETTINGS = {
  language: LANGUAGE_SETTINGS,
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
  /** Steps, hazards and the end of waits are read aloud; a tap anywhere on the stage does the next action. */
  speaks: OFF_FIRST,
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

/** Returns settings from a value for each key. */
export const settingsBy = (value: (key: SettingKey) => unknown): DeviceSettings =>
  Object.fromEntries(SETTING_KEYS.map((key) => [key, value(key)])) as unknown as DeviceSettings;

export const USUAL_SETTINGS: DeviceSettings = settingsBy((key) => SETTINGS[key][0]);

import type { SettingKey } from '../model/setting-table';

/** The settings of a device. */
export const SETTING_WORDS: Readonly<Record<SettingKey, { readonly name: string; readonly says: string }>> = {
  lightByClock: {
    name: 'Light by the clock',
    says: 'Night from 20:00 to 06:00, Dusk for two hours around it.',
  },
  lightBySensor: { name: 'Light by the sensor', says: 'By how bright it is around the device.' },
  largeType: { name: 'Larger type', says: 'Everything an eighth larger; more has to be scrolled.' },
  leftHand: { name: 'Left hand', says: 'Make safe at the left, Undo at the right.' },
  tones: { name: 'Tones', says: 'When a wait or a rest is over, and when a try must stop.' },
  vibrates: { name: 'Vibration', says: 'The same in the hand, where the device can.' },
  fahrenheit: { name: 'Temperatures in °F', says: 'On screen; what is kept stays in °C.' },
  wireGauge: { name: 'Lead sections by gauge', says: 'AWG in place of mm².' },
  feet: { name: 'Lengths in feet', says: 'In place of metres.' },
  letterKeys: { name: 'Keys of one letter', says: 'U, R, M, the digits, / and ? act by themselves.' },
};

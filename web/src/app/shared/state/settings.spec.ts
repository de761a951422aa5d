import { lightAt } from './light-by-clock';
import { SessionActions } from './session';
import { settingsFeature, SettingsActions, storedSettings, USUAL_SETTINGS } from './settings';

describe('settings of a device', () => {
  it('keep what is set, and take what is torn, foreign or new as usual', () => {
    expect(storedSettings(null)).toEqual(USUAL_SETTINGS);
    expect(storedSettings('{"tones":')).toEqual(USUAL_SETTINGS);
    expect(storedSettings('null')).toEqual(USUAL_SETTINGS);
    const kept = storedSettings('{"tones":false,"leftHand":"yes","gone":true}');
    expect(kept).toEqual({ ...USUAL_SETTINGS, tones: false });
  });

  it('end the light by the clock when somebody chooses one, and not when the clock does', () => {
    const { reducer } = settingsFeature;
    const on = reducer(USUAL_SETTINGS, SettingsActions.set({ key: 'lightByClock', on: true }));
    const still = reducer(on, SessionActions.lightChosen({ light: 'night', byClock: true }));
    expect(still.lightByClock).toBeTrue();
    expect(reducer(still, SessionActions.lightChosen({ light: 'day' })).lightByClock).toBeFalse();
  });

  it('are night from eight to six, with two hours of dusk around it', () => {
    const levels = [0, 5, 6, 7, 8, 12, 17, 18, 19, 20, 23].map(lightAt);
    expect(levels).toEqual([
      'night',
      'night',
      'dusk',
      'dusk',
      'day',
      'day',
      'day',
      'dusk',
      'dusk',
      'night',
      'night',
    ]);
  });
});

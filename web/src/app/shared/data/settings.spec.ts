import { lightAt } from './light-by-clock';
import { followLight, hasLightSensor, lightFor } from './light-by-sensor';
import type { Light } from './session';
import { SessionActions } from './session';
import { USUAL_SETTINGS } from '../model/setting-table';
import { settingsFeature, SettingsActions, storedSettings } from './settings';

describe('settings of a device', () => {
  it('keep what is set, and take what is torn, foreign or new as usual', () => {
    expect(storedSettings(null)).toEqual(USUAL_SETTINGS);
    expect(storedSettings('{"tones":')).toEqual(USUAL_SETTINGS);
    expect(storedSettings('null')).toEqual(USUAL_SETTINGS);
    const kept = storedSettings('{"tones":false,"leftHand":"yes","gone":true}');
    expect(kept).toEqual({ ...USUAL_SETTINGS, tones: false });
  });

  for (const key of ['lightByClock', 'lightBySensor'] as const)
    it(`end ${key} when somebody chooses a light, and not when it is chosen by itself`, () => {
      const { reducer } = settingsFeature;
      const on = reducer(USUAL_SETTINGS, SettingsActions.set({ key, value: true }));
      const still = reducer(on, SessionActions.lightChosen({ light: 'night', byItself: true }));
      expect(still[key]).toBeTrue();
      expect(reducer(still, SessionActions.lightChosen({ light: 'day' }))[key]).toBeFalse();
    });

  it('go by the light around, and stay where they are between two levels', () => {
    let light: Light = 'day';
    const seen = [5_000, 150, 99, 150, 250, 15, 9, 15, 21, 15, 0].map(
      (lux) => (light = lightFor(lux, light)),
    );
    expect(seen).toEqual([
      'day',
      'day',
      'dusk',
      'dusk',
      'day',
      'dusk',
      'night',
      'night',
      'dusk',
      'dusk',
      'night',
    ]);
  });

  it('hear a sensor until it is let go, and do without one that is missing or denied', () => {
    const page = window as unknown as { AmbientLightSensor?: unknown };
    expect(hasLightSensor()).toBeFalse();
    expect(() => followLight(fail)()).not.toThrow();
    class Sensor extends EventTarget {
      illuminance = 0;
      isOn = false;
      start(): void {
        this.isOn = true;
      }
      stop(): void {
        this.isOn = false;
      }
    }
    const sensor = new Sensor();
    page.AmbientLightSensor = function () {
      return sensor;
    };
    try {
      const heard: number[] = [];
      const end = followLight((lux) => heard.push(lux));
      expect(sensor.isOn).toBeTrue();
      for (const lux of [3, 400]) {
        sensor.illuminance = lux;
        sensor.dispatchEvent(new Event('reading'));
      }
      expect(heard).toEqual([3, 400]);
      end();
      expect(sensor.isOn).toBeFalse();
      page.AmbientLightSensor = function () {
        throw new DOMException('denied', 'SecurityError');
      };
      expect(() => followLight(fail)()).not.toThrow();
    } finally {
      delete page.AmbientLightSensor;
    }
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

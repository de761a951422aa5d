import type { Light } from './session';

/** Darker than this is Night, brighter than that Day, lux: a lit street has about ten, a grey morning some hundreds. */
const NIGHT_BELOW_LUX = 10;
const DAY_ABOVE_LUX = 200;
/** So many times past its edge a level is left again: headlamps that pass must not change the screen. */
const MARGIN = 2;
const READS_A_SECOND = 0.5;

/** A browser's sensor of the light around; few have one. */
interface LightSensor extends EventTarget {
  readonly illuminance: number;
  start(): void;
  stop(): void;
}
type SensorMaker = new (options: { readonly frequency: number }) => LightSensor;
const sensorMaker = (): SensorMaker | undefined =>
  (window as { readonly AmbientLightSensor?: SensorMaker }).AmbientLightSensor;

/** Whether the device can tell how bright it is around. */
export const hasLightSensor = (): boolean => sensorMaker() !== undefined;

/** The light level for so many lux, from the one that is on. */
export function lightFor(lux: number, now: Light): Light {
  if (lux < NIGHT_BELOW_LUX * (now === 'night' ? MARGIN : 1)) return 'night';
  return lux > DAY_ABOVE_LUX / (now === 'day' ? MARGIN : 1) ? 'day' : 'dusk';
}

/**
 * Follows the light around, lux. Without a sensor, or where it is denied, the light stays.
 *
 * @returns what ends it
 */
export function followLight(onLux: (lux: number) => void): () => void {
  const Sensor = sensorMaker();
  if (!Sensor) return () => undefined;
  try {
    const sensor = new Sensor({ frequency: READS_A_SECOND });
    sensor.addEventListener('reading', () => onLux(sensor.illuminance));
    sensor.start();
    return () => sensor.stop();
  } catch {
    // Denied by the browser's policy.
    return () => undefined;
  }
}

import { batteryOhms, batteryOpenVolts, type BatteryRating } from '../src/battery/index.js';
import { aloneRescue, type Rescue } from '../src/circuit/index.js';
import { crankPoint, simulateCrank } from '../src/crank/index.js';
import type { Engine } from '../src/engine/index.js';
import type { Machine } from '../src/machine/index.js';
import { soundForTests } from './population.js';
import { startOdds } from '../src/belief/index.js';
import { motor, ratedEn } from './fixtures.js';
import { EVERY_MACHINE } from './order-proof.js';

const SOUND = { soc: 0.95, ageing: 1 };

function alone(ratings: readonly BatteryRating[], tempC: number): Rescue {
  return aloneRescue(
    ratings.map((rating) => ({
      openVolts: batteryOpenVolts(rating, { ...SOUND, tempC }),
      ohms: batteryOhms(rating, { ...SOUND, tempC }),
    })),
    tempC,
  );
}

describe('what sound engines draw at 20 degC', () => {
  // Field guide, section 17: measured in the field, warm and sound.
  const rows: readonly [string, Engine, readonly BatteryRating[], number, number][] = [
    ['450 single', motor('petrol', 0.45, 1), [ratedEn('agm', 8, 115)], 60, 110],
    ['1.2 petrol', motor('petrol', 1.2, 3), [ratedEn('flooded', 45, 400)], 90, 150],
    ['2.0 diesel', motor('diesel', 2, 4), [ratedEn('efb', 70, 720)], 180, 280],
    ['5.7 V8 petrol', motor('petrol', 5.7, 8), [ratedEn('flooded', 70, 640)], 150, 250],
    [
      '12.8 diesel on 24 V',
      motor('diesel', 12.8, 6, 24),
      [ratedEn('flooded', 180, 1000), ratedEn('flooded', 180, 1000)],
      350,
      600,
    ],
  ];
  for (const [name, engine, ratings, low, high] of rows) {
    it(`${name}: ${low} to ${high} A, and it starts at -18 degC`, () => {
      const { starterAmps, turns, rpm, neededRpm } = crankPoint(alone(ratings, 20), engine);
      expect(turns && rpm > neededRpm).toBeTrue();
      expect(starterAmps).toBeGreaterThan(low);
      expect(starterAmps).toBeLessThan(high);
      expect(coldOdds(engine, ratings)).toBeGreaterThan(0.85);
    });
  }

  it('amps and drag grow with size, but less than size does', () => {
    const amps = (litres: number, fuel: Engine['fuel']): number =>
      crankPoint(alone([ratedEn('flooded', 200, 1400)], 20), motor(fuel, litres, 6)).starterAmps;
    for (const fuel of ['petrol', 'diesel'] as const)
      for (const litres of [0.3, 0.8, 1.5, 2.5, 4, 6]) {
        expect(amps(litres * 1.3, fuel))
          .withContext(`${fuel} ${litres}`)
          .toBeGreaterThan(amps(litres, fuel));
        expect(amps(litres * 1.3, fuel)).toBeLessThan(1.3 * amps(litres, fuel) * 1.06);
      }
  });
});

/** Odds of a start at -18 degC by itself: the maker's battery, as new, 95 % charged. */
function coldOdds(engine: Engine, ratings: readonly BatteryRating[]): number {
  const tempC = -18;
  const batteries = ratings.map((rating) => ({
    rating,
    soc: SOUND.soc,
    socLow: 0.91,
    socHigh: 0.99,
    ageing: SOUND.ageing,
  }));
  return startOdds({ rescue: alone(ratings, tempC), beliefs: batteries }, engine, soundForTests(1000))!.start;
}

describe('a sound machine with the battery its maker fits', () => {
  const cranking = EVERY_MACHINE.filter((m): m is Machine & { engine: Engine } => m.engine !== null);
  for (const machine of cranking) {
    it(`${machine.id}: over nine in ten at -18 degC, and the run in time agrees`, () => {
      const ratings = machine.batteries.map((b) => b.rating);
      expect(coldOdds(machine.engine, ratings)).toBeGreaterThan(0.85);
      const trace = simulateCrank({
        rescue: alone(ratings, -18),
        batteries: ratings.map((rating) => ({ rating, state: { ...SOUND, tempC: -18 } })),
        engine: machine.engine,
        seconds: 4,
      });
      expect(trace.startsAtSeconds).not.toBeNull();
    });
  }
});

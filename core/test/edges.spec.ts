import fc from 'fast-check';
import { BATTERY_RANGES, batteryOhms, batteryOpenVolts, CHEMISTRIES } from '../src/battery/index.js';
import { crankPoint, simulateCrank } from '../src/crank/index.js';
import { aloneRescue } from '../src/circuit/index.js';
import type { Engine } from '../src/engine/index.js';
import { soundForTests } from './population.js';
import { startOdds } from '../src/belief/index.js';

/** A value inside a range, its very ends as often as not. */
const within = ({ min, max }: { readonly min: number; readonly max: number }) =>
  fc.oneof(fc.constant(min), fc.constant(max), fc.double({ min, max, noNaN: true }));

describe('valid inputs never throw', () => {
  it('at every edge of battery, cold and engine: a crank, its run in time and its odds', () => {
    fc.assert(
      fc.property(
        fc.record({
          chemistry: fc.constantFrom(...CHEMISTRIES),
          capacityAh: within(BATTERY_RANGES.capacityAh),
          ccaAmps: within(BATTERY_RANGES.ccaAmps),
          soc: within(BATTERY_RANGES.soc),
          ageing: within(BATTERY_RANGES.ageing),
          tempC: within({ min: -40, max: 50 }),
          displacementL: within({ min: 0.04, max: 20 }),
          fuel: fc.constantFrom('petrol', 'diesel'),
          systemVolts: fc.constantFrom(12, 24),
          cylinders: fc.integer({ min: 1, max: 12 }),
        }),
        ({
          chemistry,
          capacityAh,
          ccaAmps,
          soc,
          ageing,
          tempC,
          displacementL,
          fuel,
          systemVolts,
          cylinders,
        }) => {
          const rating = { chemistry, capacityAh, ccaAmps, ccaStandard: 'EN' } as const;
          const state = { soc, ageing, tempC };
          const engine = { fuel, displacementL, cylinders, systemVolts } as Engine;
          const count = systemVolts / 12;
          const models = Array.from({ length: count }, () => ({
            openVolts: batteryOpenVolts(rating, state),
            ohms: batteryOhms(rating, state),
          }));
          const rescue = aloneRescue(models, tempC);
          const point = crankPoint(rescue, engine);
          expect([point.rpm, point.postVolts, point.starterAmps].every(Number.isFinite)).toBeTrue();
          expect(point.rpm).toBeGreaterThanOrEqual(0);
          const batteries = models.map(() => ({ rating, soc, socLow: soc, socHigh: soc, ageing }));
          const { start } = startOdds({ rescue, beliefs: batteries }, engine, soundForTests(20))!;
          expect(start).toBeGreaterThanOrEqual(0);
          expect(start).toBeLessThanOrEqual(1);
          const trace = simulateCrank({
            rescue,
            engine,
            seconds: 0.3,
            batteries: models.map(() => ({ rating, state })),
          });
          expect(trace.postVolts.every(Number.isFinite)).toBeTrue();
          expect(trace.rpm.every((rpm) => Number.isFinite(rpm) && rpm >= 0)).toBeTrue();
        },
      ),
      { numRuns: 300, seed: 3 },
    );
  });
});

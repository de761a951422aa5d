import type { Engine } from '../src/engine/index.js';
import type { Machine } from '../src/machine/index.js';
import { seededRandom } from '../src/quantities/index.js';
import { trial } from './calibration.js';
import { EVERY_MACHINE } from './order-proof.js';
import { reliability, reliabilityLines } from './reliability.js';

const EDGES = [0, 0.05, 0.2, 0.4, 0.6, 0.8, 0.95, 1];
/** A claim and what comes of it may differ by this much. */
const POINTS = 0.05;

describe('odds against truth drawn apart and followed in time', () => {
  it('a claim is met within five points, and what chance leaves of so many rescues', () => {
    const count = process.env.PROVE_SHARE ? Math.round(4000 * Number(process.env.PROVE_SHARE)) : 500;
    const random = seededRandom(5);
    const cranking = EVERY_MACHINE.filter((m): m is Machine & { engine: Engine } => m.engine !== null);
    const trials = Array.from({ length: count }, (_, i) => trial(cranking[i % cranking.length]!, random));
    const rows = reliability(trials, EDGES);
    process.stdout.write([`odds: ${count} rescues`, ...reliabilityLines(rows), ''].join('\n'));
    for (const { count: n, claimed, met } of rows) {
      const chance = 2.6 * Math.sqrt((claimed * (1 - claimed)) / n);
      expect(Math.abs(claimed - met))
        .withContext(`claimed ${claimed}`)
        .toBeLessThan(POINTS + chance);
    }
    const off = rows.reduce((sum, r) => sum + (Math.abs(r.claimed - r.met) * r.count) / count, 0);
    expect(off).toBeLessThan(POINTS);
  }, 300_000);
});

import type { Engine } from '../src/engine/index.js';
import type { Machine } from '../src/machine/index.js';
import { seededRandom } from '../src/quantities/index.js';
import type { Claim } from './reliability.js';
import { trial, trialOfWay } from './calibration.js';
import { EVERY_MACHINE } from './order-proof.js';
import { reliability, reliabilityLines } from './reliability.js';
import { shareOf } from './proof-share.js';

const EDGES = [0, 0.05, 0.2, 0.4, 0.6, 0.8, 0.95, 1];
/** A claim and what comes of it may differ by this much. */
const POINTS = 0.05;

const CRANKING = EVERY_MACHINE.filter((m): m is Machine & { engine: Engine } => m.engine !== null);
const countOf = (most: number, usual: number): number => Math.round(most * shareOf(usual / most));

/** A claim is met within five points, and what chance leaves of so many. */
function holds(name: string, trials: readonly Claim[]): void {
  const rows = reliability(trials, EDGES);
  process.stdout.write([`${name}: ${trials.length} rescues`, ...reliabilityLines(rows), ''].join('\n'));
  for (const { count: n, claimed, met } of rows) {
    const chance = 2.6 * Math.sqrt((claimed * (1 - claimed)) / n);
    expect(Math.abs(claimed - met))
      .withContext(`claimed ${claimed}`)
      .toBeLessThan(POINTS + chance);
  }
  const off = rows.reduce((sum, r) => sum + (Math.abs(r.claimed - r.met) * r.count) / trials.length, 0);
  expect(off).toBeLessThan(POINTS);
}

describe('odds against truth drawn apart and followed in time', () => {
  it('a claim is met within five points, and what chance leaves of so many rescues', () => {
    const random = seededRandom(5);
    holds(
      'odds',
      Array.from({ length: countOf(4000, 300) }, (_, i) => trial(CRANKING[i % CRANKING.length]!, random)),
    );
  }, 300_000);

  it('and so is what a way claims of its try after its minutes on a donor', () => {
    const random = seededRandom(6);
    holds(
      'ways',
      Array.from({ length: countOf(1000, 100) }, (_, i) =>
        trialOfWay(CRANKING[i % CRANKING.length]!, random),
      ),
    );
  }, 300_000);
});

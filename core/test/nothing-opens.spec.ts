import { LATCH_PLACES, latchSteps, nothingOpens } from '../src/reach/index.js';
import type { Machine } from '../src/machine/index.js';
import { CAR, EV, KIT } from './fixtures.js';
import { Log } from './job-log.js';

const WIRED: Machine = {
  ...EV,
  points: [
    ...EV.points,
    { id: 'lw+', kind: 'latch-wire-positive', label: 'red', xMm: 500, yMm: 50, steps: [] },
    { id: 'lw-', kind: 'latch-wire-negative', label: 'black', xMm: 560, yMm: 50, steps: [] },
  ],
};
const NINE_VOLTS = { kind: 'latch-source', id: 'small', name: 'Small', volts: 9 } as const;

describe('nothing opens', () => {
  it('is no question of a machine that opens without power', () => {
    expect(nothingOpens(CAR, KIT, [])).toBeNull();
  });

  it('tries the blade first, then the wires that the entry knows, and searches only where it knows none', () => {
    expect(nothingOpens(WIRED, [], [])!.places).toEqual(['key-blade', 'known-wires']);
    expect(nothingOpens(EV, [], [])!.places).toEqual(LATCH_PLACES.filter((p) => p !== 'known-wires'));
    const after = nothingOpens(EV, [], [{ place: 'key-blade', opened: false }])!;
    expect(after.places[0]).toBe('tow-eye-cover');
    expect(after.opened).toBeFalse();
  });

  it('feeds the wires with what pulls and burns nothing: 9 V over 12 ohm are 0.75 A', () => {
    const { source } = nothingOpens(WIRED, [NINE_VOLTS], [])!;
    expect(source!.does.amps).toBeCloseTo(9 / 12, 9);
    expect(source!.does.fault).toBeNull();
    const weak = nothingOpens(WIRED, [{ ...NINE_VOLTS, id: 'weak', volts: 3 }, NINE_VOLTS], [])!;
    expect(weak.source!.item.id).toBe('small');
    expect(nothingOpens(WIRED, [{ ...NINE_VOLTS, volts: 3 }], [])!.source!.does.fault).toBe('too-weak');
    expect(nothingOpens(WIRED, [], [])!.source).toBeNull();
  });

  it('meters the wires before anything is on them, and takes red off first', () => {
    const steps = latchSteps('grille');
    expect(steps.indexOf('meter-wires')).toBeLessThan(steps.indexOf('black-on'));
    expect(steps.indexOf('black-on')).toBeLessThan(steps.indexOf('red-touches'));
    expect(steps.indexOf('red-off-first')).toBeGreaterThan(steps.indexOf('bonnet-up'));
    expect(latchSteps('key-blade')).not.toContain('meter-wires');
  });

  it('is kept in the log, each place once, until it is open', () => {
    const log = new Log(EV);
    log.take('latch.tried', { place: 'key-blade', opened: false });
    expect(log.refuses('latch.tried', { place: 'key-blade', opened: true })).toBe('latch-not-to-try');
    expect(log.refuses('latch.tried', { place: 'known-wires', opened: true })).toBe('latch-not-to-try');
    log.take('latch.tried', { place: 'grille', opened: true });
    expect(log.refuses('latch.tried', { place: 'arch-liner', opened: true })).toBe('latch-not-to-try');
    expect(log.job.latches!.map(({ place, opened }) => [place, opened])).toEqual([
      ['key-blade', false],
      ['grille', true],
    ]);
    expect(new Log(CAR).refuses('latch.tried', { place: 'key-blade', opened: true })).toBe(
      'latch-not-to-try',
    );
  });
});

import { checkOf, MEASURE_GROUPS, measuresFor, probingOf } from '../src/diagnosis/index.js';
import type { Machine, MachinePoint } from '../src/machine/index.js';
import { CAR, EV, MOTORCYCLE, TRUCK } from './fixtures.js';

const point = (id: string, kind: MachinePoint['kind']): MachinePoint => ({
  id,
  kind,
  label: id,
  xMm: 500,
  yMm: 500,
  steps: [],
});
const without = (machine: Machine, ...kinds: MachinePoint['kind'][]): Machine => ({
  ...machine,
  points: machine.points.filter((p) => !kinds.includes(p.kind)),
});

describe('Where the probes go', () => {
  it('reads one battery at its own posts, and the machine at the ends of its string', () => {
    expect(probingOf(CAR, 'rest', 0)).toEqual({ kind: 'probes', red: 'plus', black: 'minus', onCable: null });
    expect(probingOf(TRUCK, 'rest', 0)).toEqual(jasmine.objectContaining({ red: 'plus1', black: 'minus1' }));
    expect(probingOf(TRUCK, 'rest', 1)).toEqual(jasmine.objectContaining({ red: 'plus2', black: 'minus2' }));
    for (const check of ['key-on', 'crank', 'recovery', 'charging', 'charging-loaded'] as const)
      expect(probingOf(TRUCK, check, 0))
        .withContext(check)
        .toEqual(jasmine.objectContaining({ red: 'plus2', black: 'minus1' }));
  });

  it('keeps red on plus where plus is on the body', () => {
    const old: Machine = { ...TRUCK, earth: 'positive' };
    expect(probingOf(old, 'crank', 0)).toEqual(jasmine.objectContaining({ red: 'plus1', black: 'minus2' }));
    expect(probingOf(old, 'joint-minus', 0)).toEqual({
      kind: 'probes',
      red: 'minus2',
      black: 'minus2',
      onCable: 'red',
    });
  });

  it('reads what a joint loses with the sign of a loss: red where the current comes from', () => {
    expect(probingOf(CAR, 'joint-plus', 0)).toEqual({
      kind: 'probes',
      red: 'plus',
      black: 'plus',
      onCable: 'black',
    });
    // It comes back over the engine to minus.
    expect(probingOf(CAR, 'joint-minus', 0)).toEqual(
      jasmine.objectContaining({ red: 'ground', black: 'minus' }),
    );
    expect(probingOf(CAR, 'starter-stud', 0)).toBeNull();
    const withStud = { ...CAR, points: [...CAR.points, point('stud', 'starter-stud')] };
    expect(probingOf(withStud, 'starter-stud', 0)).toEqual(
      jasmine.objectContaining({ red: 'plus', black: 'stud' }),
    );
  });

  it('goes to the posts meant for help where a battery is out of reach', () => {
    const hidden = without(CAR, 'battery-positive', 'battery-negative');
    const posted = { ...hidden, points: [...hidden.points, point('post', 'red-post')] };
    expect(probingOf(posted, 'rest', 0)).toEqual(jasmine.objectContaining({ red: 'post', black: 'ground' }));
    expect(probingOf(hidden, 'rest', 0)).toBeNull();
    expect(probingOf(posted, 'drain', 0)).toBeNull();
    // Of a string the middle cannot be read from outside.
    const far = without(TRUCK, 'battery-positive');
    expect(probingOf({ ...far, points: [...far.points, point('post', 'red-post')] }, 'rest', 0)).toBeNull();
  });

  it('clamps round the negative cable for a draw, and puts nothing on for what is seen or asked', () => {
    expect(probingOf(TRUCK, 'drain', 0)).toEqual({ kind: 'round-cable', at: 'minus1' });
    for (const check of ['specific-gravity', 'acceptance', 'look-joints'] as const)
      expect(probingOf(CAR, check, 0))
        .withContext(check)
        .toBeNull();
  });

  it('names only points that the machine has, for everything that can be measured on it', () => {
    let named = 0;
    for (const machine of [CAR, TRUCK, EV, MOTORCYCLE])
      for (const kind of measuresFor(machine.batteries[0]!.rating, machine.engine !== null))
        for (const [battery] of machine.batteries.entries()) {
          const probing = probingOf(machine, kind.check, battery);
          if (!probing) continue;
          const ids = probing.kind === 'probes' ? [probing.red, probing.black] : [probing.at];
          for (const id of ids) expect(machine.points.map((p) => p.id)).toContain(id);
          named++;
          expect(MEASURE_GROUPS).toContain(kind.group);
          if (checkOf(kind.check).isOfBattery && machine === TRUCK && probing.kind === 'probes')
            expect(ids.every((id) => id.endsWith(String(battery + 1)))).toBeTrue();
        }
    expect(named).toBeGreaterThan(30);
  });
});

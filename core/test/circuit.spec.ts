import fc from 'fast-check';
import { type Circuit, CircuitError, type Element, solveDc, voltsAcross } from '../src/circuit/index.js';

const source = (volts: number, ohms: number, name = 's'): Element => ({
  kind: 'source',
  name,
  plus: 'top',
  minus: '0',
  volts,
  ohms,
});
const resistor = (name: string, a: string, b: string, ohms: number): Element => ({
  kind: 'resistor',
  name,
  a,
  b,
  ohms,
});

describe('solveDc', () => {
  it('divides a voltage as by hand: 12 V behind 1 ohm into 5 ohm', () => {
    const solution = solveDc({ ground: '0', elements: [source(12, 1), resistor('r', 'top', '0', 5)] });
    expect(voltsAcross(solution, 'top', '0')).toBeCloseTo(10, 6);
    expect(solution.amps.get('r')).toBeCloseTo(2, 6);
    expect(solution.amps.get('s')).toBeCloseTo(2, 6);
  });

  it('drives the balancing current between two unequal sources: (12.8 - 11.8) / (0.01 + 0.04 + 0.05)', () => {
    const solution = solveDc({
      ground: '0',
      elements: [
        source(12.8, 0.01, 'strong'),
        resistor('lead', 'top', 'far', 0.05),
        { kind: 'source', name: 'weak', plus: 'far', minus: '0', volts: 11.8, ohms: 0.04 },
      ],
    });
    expect(solution.amps.get('lead')).toBeCloseTo(10, 4);
    expect(solution.amps.get('weak')).toBeCloseTo(-10, 4);
  });

  it('holds a regulated supply at its volts until its limit, then at its amps, and never takes current back', () => {
    const withLoad = (ohms: number): number => {
      const supply: Element = {
        kind: 'regulated',
        name: 'alt',
        plus: 'top',
        minus: '0',
        volts: 14.2,
        ohms: 0.01,
        maxAmps: 60,
      };
      return solveDc({ ground: '0', elements: [supply, resistor('load', 'top', '0', ohms)] }).amps.get(
        'alt',
      )!;
    };
    expect(withLoad(1)).toBeCloseTo(14.2 / 1.01, 4);
    expect(withLoad(0.1)).toBe(60);
    const supply: Element = {
      kind: 'regulated',
      name: 'alt',
      plus: 'top',
      minus: '0',
      volts: 12,
      ohms: 0.01,
      maxAmps: 60,
    };
    expect(solveDc({ ground: '0', elements: [supply, source(14, 0.1)] }).amps.get('alt')).toBe(0);
  });

  it('gives a free end the volts of what it hangs from', () => {
    const solution = solveDc({
      ground: '0',
      elements: [source(12.6, 0.005), resistor('lead', 'top', 'free', 0.002)],
    });
    expect(voltsAcross(solution, 'free', '0')).toBeCloseTo(12.6, 5);
  });

  it('names what it cannot solve', () => {
    const code = (circuit: Circuit): string | null => {
      try {
        solveDc(circuit);
        return null;
      } catch (error) {
        return error instanceof CircuitError ? error.code : String(error);
      }
    };
    expect(code({ ground: '0', elements: [source(12, 0)] })).toBe('ideal-source');
    expect(code({ ground: '0', elements: [source(NaN, 1)] })).toBe('not-finite');
    expect(code({ ground: '0', elements: [resistor('r', 'a', '0', -1)] })).toBe('ideal-source');
  });

  it('balances power: what sources give is what resistances take', () => {
    const ohms = fc.double({ min: 0.001, max: 10, noNaN: true });
    const volts = fc.double({ min: -15, max: 30, noNaN: true });
    fc.assert(
      fc.property(volts, volts, ohms, ohms, ohms, ohms, (v1, v2, r1, r2, r3, r4) => {
        const elements: Element[] = [
          source(v1, r1, 'a'),
          resistor('m', 'top', 'mid', r2),
          { kind: 'source', name: 'b', plus: 'mid', minus: '0', volts: v2, ohms: r3 },
          resistor('n', 'mid', '0', r4),
        ];
        const { amps } = solveDc({ ground: '0', elements });
        const given = v1 * amps.get('a')! + v2 * amps.get('b')!;
        const parts: [string, number][] = [
          ['a', r1],
          ['m', r2],
          ['b', r3],
          ['n', r4],
        ];
        const taken = parts.reduce((sum, [name, r]) => sum + amps.get(name)! ** 2 * r, 0);
        expect(Math.abs(given - taken)).toBeLessThan(1e-6 * Math.max(1, taken));
      }),
    );
  });
});

import { type MeasureKind, measuresFor } from '@voltrek/core/diagnosis';
import { CAR } from '../../../../testing/fixtures';
import { figureFault, figureOf, gravityOf } from './entry';

const kindOf = (id: string): MeasureKind =>
  measuresFor(CAR.batteries[0]!.rating, true).find((m) => m.id === id)!;

describe('entry of a measurement', () => {
  it('reads volts as gloves type them, and other figures as they stand', () => {
    expect(figureOf(kindOf('rest'), 12, '1162')).toBe(11.62);
    // 29 V is no 12 V battery: a very flat one.
    expect(figureOf(kindOf('rest'), 24, '290')).toBe(2.9);
    expect(figureOf(kindOf('crank-minimum'), 24, '190')).toBe(19);
    expect(figureOf(kindOf('conductance'), 12, '380')).toBe(380);
    expect(figureOf(kindOf('joint-plus'), 12, '0.24')).toBe(0.24);
    expect(figureOf(kindOf('drain'), 12, '-')).toBeNull();
    expect(figureOf(kindOf('drain'), 12, '')).toBeNull();
  });

  it('reads a float with its point or without', () => {
    expect(gravityOf('1265')).toBe(1.265);
    expect(gravityOf('1,24')).toBe(1.24);
    expect(gravityOf('')).toBe(0);
  });

  it('allows a string twice what a battery may read, but never a battery by itself', () => {
    expect(figureFault(kindOf('crank-minimum'), 24, 20)).toBeNull();
    expect(figureFault(kindOf('crank-minimum'), 12, 20)).toContain('between -16 and 16 V');
    expect(figureFault(kindOf('rest'), 24, 20)).toContain('16 V');
    expect(figureFault(kindOf('charging-idle'), 12, 14.4)).toBeNull();
    expect(figureFault(kindOf('charging-idle'), 12, 28)).toContain('20 V');
    expect(figureFault(kindOf('charging-loaded'), 12, 18)).toBeNull();
    expect(figureFault(kindOf('charging-loaded'), 24, 41)).toContain('40 V');
    expect(figureFault(kindOf('drain'), 12, 90_000)).toContain('Draw must be between 0 and 60000 mA');
  });
});

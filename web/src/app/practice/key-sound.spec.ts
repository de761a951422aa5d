import type { Engine } from '@voltrek/core/engine';
import type { KeyOutcome } from '@voltrek/core/practice';
import { soundOf } from './key-sound';

const ENGINE: Engine = { fuel: 'petrol', displacementL: 1.6, cylinders: 4, systemVolts: 12 };
const heard = (outcome: KeyOutcome, rpm: number | null, engine: Engine | null = ENGINE) =>
  soundOf({ outcome, helped: false, lampVolts: 12, point: rpm === null ? null : ({ rpm } as never) }, engine);

describe('what the key sounds like', () => {
  it('beats once for each compression at the speed that was solved', () => {
    // Four cylinders at 180 rpm: three turns a second, two compressions a turn.
    const brisk = heard('brisk-no-fire', 180);
    expect(brisk[1]!.atSeconds - brisk[0]!.atSeconds).toBeCloseTo(1 / 6, 9);
    const slow = heard('slow', 60);
    expect(slow[1]!.atSeconds).toBeCloseTo(1 / 2, 9);
    expect(heard('brisk-no-fire', 180, { ...ENGINE, cylinders: 1 })[1]!.atSeconds).toBeCloseTo(4 / 6, 9);
  });

  it('goes on running where it starts, chatters or clicks where it does not turn, and is still where nothing happens', () => {
    expect(heard('starts', 180).at(-1)!.atSeconds).toBeGreaterThan(
      heard('brisk-no-fire', 180).at(-1)!.atSeconds,
    );
    expect(heard('rapid-click', null).length).toBeGreaterThan(5);
    expect(heard('one-click', null).length).toBe(1);
    expect(heard('silence', null)).toEqual([]);
    expect(heard('wakes', null, null)).toEqual([]);
    expect(heard('slow', 0)).toEqual([]);
  });
});

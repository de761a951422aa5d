import { GRAVITY_BAD_SPREAD, gravityAt } from '../src/battery/index.js';
import { type Cause, restVoltsOf } from '../src/diagnosis/index.js';
import type { Machine, MachineClass } from '../src/machine/index.js';
import {
  act,
  type AmpsAround,
  ASLEEP_AFTER_MINUTES,
  CELLS,
  codeOfWritten,
  type Happened,
  optionsOf,
  PRACTICE_KIT,
  type PracticeAction,
  startCase,
  type World,
  type WrittenCase,
} from '../src/practice/index.js';

const caseOf = (
  machineClass: MachineClass,
  cause: Cause,
  number = 1,
  along: WrittenCase['along'] = null,
): World =>
  startCase(
    codeOfWritten({
      ...{ title: 'x', machineClass, tempC: 10, cause, along, symptom: 'slow-crank', says: '' },
      ...{ answers: {}, kit: PRACTICE_KIT.map(({ id }) => id), number },
    }),
  );
const doing = (world: World, ...actions: PracticeAction[]): World => actions.reduce(act, world);
const last = (world: World): Happened => world.log.at(-1)!;
const amps = (around: AmpsAround): PracticeAction => ({ kind: 'amps', around });
const wait = (minutes: number): PracticeAction => ({ kind: 'wait', minutes });
const numbers = Array.from({ length: 40 }, (_, i) => i + 1);
const restOf = ({ hidden, practice }: World): number => restVoltsOf(hidden, practice.profile)[0]!;
/** The point of this kind of a machine. */
const at = ({ points }: Machine, kind: 'battery-positive' | 'battery-negative'): string =>
  points.find((point) => point.kind === kind)!.id;
const found = (world: World, check: string) => world.evidence.filter((e) => e.check === check);

describe('the clamp meter by hand', () => {
  it('shows the drain of a parked machine once its units sleep, and their own draw before', () => {
    // One whose battery still feeds what is on it.
    const start = numbers.map((n) => caseOf('car', 'drain', n)).find((world) => restOf(world) > 11)!;
    const { drainAmps } = start.hidden;
    const awake = act(start, amps('own-cable'));
    expect(last(awake).amps).toBeLessThan(-3.9);
    expect(found(awake, 'drain')).toEqual([]);
    const asleep = doing(start, wait(ASLEEP_AFTER_MINUTES), amps('own-cable'));
    expect(last(asleep).amps!).toBeCloseTo(-drainAmps, 1);
    expect(found(asleep, 'drain')).toEqual([{ check: 'drain', found: -last(asleep).amps! }]);
    // The key wakes them again.
    const again = doing(asleep, { kind: 'key' }, amps('own-cable'));
    expect(last(again).amps).toBeLessThan(-3.9);
    // The current of somebody's own consumer is seen on the cable until the switch is found.
    const lit = numbers.map((n) => caseOf('car', 'left-on', n)).find((world) => restOf(world) > 11)!;
    expect(last(doing(lit, wait(10), amps('own-cable'))).amps).toBeLessThan(-5);
  });

  it('tells nothing of a drain where the battery is so low that nothing is fed', () => {
    const low = numbers.map((n) => caseOf('car', 'drain', n)).find((world) => restOf(world) < 5)!;
    const read = doing(low, wait(ASLEEP_AFTER_MINUTES), amps('own-cable'));
    expect(Math.abs(last(read).amps!)).toBeLessThan(low.hidden.drainAmps);
    expect(found(read, 'drain')).toEqual([]);
  });

  it('shows in a lead what flows there, alike in red and black, and nothing in a lead that hangs', () => {
    const start = caseOf('car', 'discharged', 2);
    const option = optionsOf(start).find(({ sourceKind }) => sourceKind === 'donor')!;
    const fetched = act(start, { kind: 'fetch', optionId: option.id });
    const on = (clamp: 'redCasualty' | 'redSource' | 'blackSource' | 'blackCasualty', pointId: string) =>
      ({ kind: 'hands', action: { kind: 'attach', clamp, pointId } }) as const;
    const { machine, donor } = start.practice;
    const three = doing(
      fetched,
      on('redCasualty', at(machine, 'battery-positive')),
      on('redSource', at(donor, 'battery-positive')),
      on('blackSource', at(donor, 'battery-negative')),
    );
    expect(last(act(three, amps('red-lead'))).amps).toBeCloseTo(0, 1);
    const joined = act(three, on('blackCasualty', at(machine, 'battery-negative')));
    const red = last(act(joined, amps('red-lead'))).amps!;
    const black = last(act(joined, amps('black-lead'))).amps!;
    expect(red).toBeGreaterThan(5);
    expect(black).toBeCloseTo(red, 0);
    // Kirchhoff: what the leads bring goes into its battery, less what the machine draws.
    expect(last(act(joined, amps('own-cable'))).amps!).toBeLessThan(red);
    expect(last(act(joined, amps('own-cable'))).amps!).toBeGreaterThan(red - 12);
    // A drain is not read through a donor.
    expect(found(doing(joined, wait(10), amps('own-cable')), 'drain')).toEqual([]);
  });

  it('draws nothing where its own minus is off', () => {
    const start = caseOf('car', 'drain', 2);
    const option = optionsOf(start)[0]!;
    const pointId = at(start.practice.machine, 'battery-negative');
    const off = doing(
      start,
      { kind: 'fetch', optionId: option.id },
      { kind: 'hands', action: { kind: 'loosen', pointId } },
      amps('own-cable'),
    );
    expect(last(off).amps!).toBeCloseTo(0, 1);
  });
});

describe('the hydrometer by hand', () => {
  const read = (world: World, cells = CELLS): World =>
    Array.from(
      { length: cells },
      (_, cell): PracticeAction => ({ kind: 'gravity', battery: 0, cell }),
    ).reduce(act, world);
  const gravities = (world: World): number[] => world.log.flatMap(({ gravity }) => gravity ?? []);

  it('reads the acid of one cell, and tells what a check of all of them tells once all are read', () => {
    const start = caseOf('van', 'worn', 3);
    // The template of a van has plates in felt: the plant machine is flooded.
    expect(() => read(start)).toThrowError(RangeError);
    const flooded = caseOf('plant', 'interlock', 3);
    const state = flooded.hidden.batteries[0]!;
    const five = read(flooded, 5);
    expect(found(five, 'specific-gravity')).toEqual([]);
    const six = read(flooded);
    for (const g of gravities(six)) expect(Math.abs(g - gravityAt(state.soc, 10))).toBeLessThan(0.02);
    const even = state.soc > 0.6 ? 'even-high' : 'even-low';
    expect(found(six, 'specific-gravity').map((e) => e.found)).toEqual([even]);
    // A minute a cell, and the box lid off first: two things to do of four tenths each.
    expect(six.minutes).toBeCloseTo(6 + 2 * 0.4, 9);
  });

  it('finds the shorted cell where it is, whichever is read first', () => {
    const where = new Set<string>();
    for (let number = 1; number <= 8; number++) {
      const world = caseOf('ride-on', 'dead-cell', number);
      const order = [0, 1, 2, 3, 4, 5];
      /** The cells that stand out, read in this order. */
      const low = (cells: readonly number[]): string => {
        const done = cells
          .map((cell): PracticeAction => ({ kind: 'gravity', battery: 0, cell }))
          .reduce(act, world);
        expect(found(done, 'specific-gravity').map((e) => e.found)).toEqual(['one-cell-low']);
        const most = Math.max(...gravities(done));
        return cells
          .filter((_, i) => gravities(done)[i]! < most - GRAVITY_BAD_SPREAD)
          .sort()
          .join();
      };
      where.add(low(order));
      expect(low(order).split(',').length).toBe(world.hidden.batteries[0]!.deadCells!);
      expect(low([...order].reverse())).toBe(low(order));
    }
    expect(where.size).toBeGreaterThan(1);
  });
});

describe('the lamps at the key', () => {
  it('go out with a flat battery, dim with a tired one, and stay bright where no current flows', () => {
    const lampsOf = (cause: Cause, number: number): number =>
      last(act(caseOf('car', cause, number), { kind: 'key' })).key!.lampVolts;
    expect(lampsOf('main-fuse', 1)).toBe(0);
    expect(lampsOf('interlock', 1)).toBeGreaterThan(11);
    for (let number = 1; number <= 6; number++) {
      const world = act(caseOf('car', 'worn', number), { kind: 'key' });
      const { key } = last(world);
      // By the circuit: what the posts have, less what its joints lose.
      if (key!.point) expect(key!.lampVolts).toBeLessThan(key!.point.postVolts);
      expect(key!.lampVolts).toBeLessThan(11.5);
    }
  });
});

describe('what lies over a battery', () => {
  const start = caseOf('motorcycle', 'discharged', 2);
  const { machine } = start.practice;
  const [plus, minus, ground] = ['battery-positive', 'battery-negative', 'ground-point'].map(
    (kind) => machine.points.find((p) => p.kind === kind)!.id,
  ) as [string, string, string];
  const attach = (clamp: 'redCasualty' | 'blackCasualty', pointId: string): PracticeAction => ({
    kind: 'hands',
    action: { kind: 'attach', clamp, pointId },
  });

  it('comes off once, first and in its minutes, for whatever reaches the battery, and for nothing else', () => {
    const fetched = act(start, {
      kind: 'fetch',
      optionId: optionsOf(start).find(({ sourceKind }) => sourceKind === 'donor')!.id,
    });
    const reaching: PracticeAction[] = [
      { kind: 'probe', red: plus, black: ground },
      { kind: 'check', check: 'rest' },
      { kind: 'check', check: 'conductance' },
      { kind: 'check', check: 'look-joints' },
      { kind: 'amps', around: 'own-cable' },
      attach('redCasualty', plus),
      attach('blackCasualty', minus),
      { kind: 'hands', action: { kind: 'loosen', pointId: minus } },
      { kind: 'hands', action: { kind: 'bridge', pointId: plus } },
    ];
    for (const action of reaching) {
      const done = act(fetched, action);
      const again = act(done, action);
      const about = JSON.stringify(action);
      expect(last(done).opened).withContext(about).toEqual(['saddle']);
      expect(done.isOpen).toBeTrue();
      expect(last(again).opened).withContext(about).toBeUndefined();
      expect(last(done).minutes - last(again).minutes)
        .withContext(about)
        .toBeCloseTo(0.4, 9);
      expect(done.minutes).toBeCloseTo(fetched.minutes + last(done).minutes, 9);
      // An action that was taken back was done: its minutes are gone, and the saddle is on again.
      const back = act(done, { kind: 'back' });
      expect([back.isOpen, back.minutes]).toEqual([false, done.minutes]);
    }
    const beside: PracticeAction[] = [
      { kind: 'check', check: 'ask-left-on' },
      { kind: 'amps', around: 'red-lead' },
      { kind: 'probe', red: ground, black: ground },
      attach('blackCasualty', ground),
      { kind: 'key' },
      { kind: 'wait', minutes: 3 },
    ];
    for (const action of beside)
      expect(act(fetched, action).isOpen).withContext(JSON.stringify(action)).toBeFalse();
  });
});

describe('an instrument of a training bench', () => {
  const start = caseOf('car', 'discharged', 2);
  const across = {
    red: at(start.practice.machine, 'battery-positive'),
    black: at(start.practice.machine, 'battery-negative'),
  };

  it('stands in the run as it showed, and tells what the case’s own would tell', () => {
    const own = act(start, { kind: 'probe', ...across });
    const bench = act(start, { kind: 'probe', ...across, shown: 11.234 });
    expect(last(bench).volts).toBe(11.234);
    expect(found(bench, 'rest')).toEqual([{ check: 'rest', found: 11.234 }]);
    expect(last(bench).minutes).toBe(last(own).minutes);
    expect(last(doing(start, { kind: 'amps', around: 'own-cable', shown: -3.3 })).amps).toBe(-3.3);
  });

  it('is no more than what can be done', () => {
    expect(() => act(start, { kind: 'dance' } as never)).toThrowError(/nobody can/);
  });

  it('shows what can be shown', () => {
    for (const shown of [61, -61, NaN, Infinity])
      expect(() => act(start, { kind: 'probe', ...across, shown }))
        .withContext(`${shown} V`)
        .toThrowError(RangeError);
    expect(() => act(start, { kind: 'amps', around: 'red-lead', shown: 1501 })).toThrowError(RangeError);
    expect(last(act(start, { kind: 'probe', ...across, shown: 0 })).volts).toBe(0);
  });
});

describe('what a slip breaks', () => {
  const join = (world: World, isCrossed: boolean): World => {
    const option = optionsOf(world).find(({ sourceKind }) => sourceKind === 'donor')!;
    const hands = (clamp: string, pointId: string) =>
      ({ kind: 'hands', action: { kind: 'attach', clamp, pointId } }) as PracticeAction;
    const { machine, donor } = world.practice;
    const [plus, minus] = [at(machine, 'battery-positive'), at(machine, 'battery-negative')];
    return doing(
      world,
      { kind: 'fetch', optionId: option.id },
      hands('redCasualty', isCrossed ? minus : plus),
      hands('redSource', at(donor, 'battery-positive')),
      hands('blackSource', at(donor, 'battery-negative')),
      hands('blackCasualty', isCrossed ? plus : minus),
    );
  };

  const across = ({ practice: { machine } }: World): PracticeAction => ({
    kind: 'probe',
    red: at(machine, 'battery-positive'),
    black: at(machine, 'battery-negative'),
  });

  it('is the main fuse and the alternator where it is joined the wrong way round, until it is taken back', () => {
    const start = caseOf('car', 'discharged', 5);
    const crossed = join(start, true);
    expect(
      last(crossed)
        .hazards.filter((h) => h.severity === 'severe')
        .map((h) => h.code),
    ).toContain('reversed');
    expect(last(crossed).broke).toEqual(['main-fuse', 'alternator']);
    expect(crossed.broken).toEqual(['main-fuse', 'alternator']);
    // It stays so when the clamps are off again: the key does nothing.
    const off = doing(
      crossed,
      ...(['blackCasualty', 'blackSource', 'redSource', 'redCasualty'] as const).map(
        (clamp): PracticeAction => ({ kind: 'hands', action: { kind: 'detach', clamp } }),
      ),
    );
    const key = last(act(off, { kind: 'key' })).key!;
    expect([key.outcome, key.lampVolts]).toEqual(['silence', 0]);
    const back = act(crossed, { kind: 'back' });
    expect(back.broken).toEqual([]);
    expect(back.hidden.open).toBeFalse();
  });

  it('is nothing where it is joined as it should be, and it starts', () => {
    const well = doing(join(caseOf('car', 'discharged', 5), false), wait(5), { kind: 'key' });
    expect(well.broken).toEqual([]);
    expect(last(well).key!.outcome).toBe('starts');
    // Its own alternator charges it, as the meter shows at the posts.
    const posts = act(well, across(well));
    expect(last(posts).volts!).toBeGreaterThan(13);
  });

  it('is a small battery that a running donor is left on, and no battery of a car in the same time', () => {
    const left = (of: MachineClass, number: number): World => {
      const joined = act(join(caseOf(of, 'discharged', number), false), {
        kind: 'hands',
        action: { kind: 'donor-engine', running: true },
      });
      return doing(joined, ...Array.from({ length: 8 }, () => wait(10)));
    };
    const cooked = left('motorcycle', 3);
    const when = cooked.log.find(({ broke }) => broke?.includes('battery'))!;
    expect(when.hazards.map(({ code, severity }) => `${code} ${severity}`)).toEqual([
      'over-charges-battery severe',
    ]);
    // More than the two amps for each Ah that a battery takes for moments only.
    expect(when.hazards[0]!.amps!).toBeGreaterThan(
      2 * cooked.practice.machine.batteries[0]!.rating.capacityAh,
    );
    expect(cooked.broken).toEqual(['battery']);
    expect(cooked.hidden.batteries[0]!.ageing).toBeGreaterThan(cooked.practice.hidden.batteries[0]!.ageing);
    expect(cooked.log.filter(({ broke }) => broke)).toHaveSize(1);
    const car = left('car', 3);
    expect(car.broken).toEqual([]);
    expect(car.hidden.batteries[0]!.tempC).toBeLessThan(45);
  });

  it('leaves a machine whose charging is broken without volts while it runs', () => {
    for (let number = 1; number <= 12; number++) {
      const start = caseOf('car', 'charging', number);
      if (start.hidden.chargingVolts > 12.9) continue;
      const runs = doing(join(start, false), wait(10), { kind: 'key' });
      if (last(runs).key!.outcome !== 'starts') continue;
      const alone = doing(
        runs,
        ...(['blackCasualty', 'blackSource', 'redSource', 'redCasualty'] as const).map(
          (clamp): PracticeAction => ({ kind: 'hands', action: { kind: 'detach', clamp } }),
        ),
        across(runs),
      );
      expect(last(alone).volts!).withContext(`${number}`).toBeLessThan(13);
      return;
    }
    fail('no such case was drawn');
  });
});

import { batteryOhms } from '../src/battery/index.js';
import { conductorOhms } from '../src/leads/index.js';
import {
  act,
  clearingOrder,
  NOTHING_CONNECTED,
  type Circumstance,
  CIRCUMSTANCES,
  type HandAction,
  type Hazard,
  type HazardCode,
  hazardsAsIs,
  hazardsOf,
  type HookupAction,
  type HookupScene,
  hookupOrder,
  makeSafe,
  permutations,
  rescueOf,
  storiesOf,
} from '../src/hookup/index.js';
import { gasAt, SPARK_WATTS } from '../src/hookup/judge/hazards.js';
import { allowedSequences, hazardCost } from '../src/hookup/order/safest-order.js';
import type { ClampId } from '../src/circuit/index.js';
import type { Machine } from '../src/machine/index.js';
import { chargeOptions } from '../src/plan/index.js';
import type { HouseRules } from '../src/rules/index.js';
import { CAR, KIT, TRUCK } from './fixtures.js';
import { ALLOWING, optionNamed, run, sceneFor, SCENE_TEMP_C } from './scenes.js';

const on = (clamp: ClampId, pointId: string): HookupAction => ({ kind: 'attach', clamp, pointId });
const so = (what: Circumstance, isSo = true): HandAction => ({ kind: 'circumstance', what, on: isSo });
const find = (hazards: readonly Hazard[], code: HazardCode): Hazard | undefined =>
  hazards.find((h) => h.code === code);
const LOOSE = [on('redCasualty', 'plus'), on('redSource', 'plus'), on('blackSource', 'ground')];
const ALL_ON = [...LOOSE, on('blackCasualty', 'ground')];
const donorScene = (rest: number): HookupScene =>
  sceneFor(CAR, optionNamed(CAR, 'donor+heavy', [rest]), [rest]);
const started: HandAction = { kind: 'donor-engine', running: true };

describe('a hazard that stands', () => {
  const RULES: HouseRules = { ...ALLOWING, unequalWatchAmps: 1, unequalSevereAmps: 5000 };
  const told = (
    scene: HookupScene,
    before: readonly HandAction[],
    action: HandAction,
    rules = RULES,
  ): Hazard | undefined => find(hazardsAsIs(scene, run(CAR, before), action, rules), 'unequal-sources');
  // Half flat, a donor’s engine raises by half what flows; deep down, by little of what flows.
  const half = donorScene(12.2);
  const deep = donorScene(3.5);
  /** Amps of the standing circuit, as the first clamp that closes it and then the engine tell them. */
  const still = (scene: HookupScene): number => told(scene, LOOSE, ALL_ON[3]!)!.amps!;
  const running = (scene: HookupScene): number => told(scene, [...LOOSE, started], ALL_ON[3]!)!.amps!;

  it('is told by the action that brings it, and not again by one that changes nothing of it', () => {
    for (const scene of [half, deep]) {
      expect(told(scene, LOOSE, ALL_ON[3]!)?.severity).toBe('watch');
      for (const what of ['not-secured', 'gear-engaged', 'positive-earth'] as const)
        expect(told(scene, ALL_ON, so(what)))
          .withContext(what)
          .toBeUndefined();
    }
  });

  it('is told again once its amps have grown by a fifth, and not where they have grown by less', () => {
    expect(running(half) / still(half)).toBeGreaterThan(1.25);
    expect(told(half, ALL_ON, started)?.amps).toBeCloseTo(running(half), 6);
    expect(running(deep) / still(deep)).toBeGreaterThan(1.01);
    expect(running(deep) / still(deep)).toBeLessThan(1.19);
    expect(told(deep, ALL_ON, started)).toBeUndefined();
    // Nothing is news that has become less.
    expect(told(half, [...ALL_ON, started], { kind: 'donor-engine', running: false })).toBeUndefined();
  });

  it('is told again where it has become severe, however little it has grown', () => {
    const between = (still(deep) + running(deep)) / 2;
    const rules = { ...RULES, unequalSevereAmps: between };
    expect(told(deep, LOOSE, ALL_ON[3]!, rules)?.severity).toBe('watch');
    expect(told(deep, ALL_ON, started, rules)?.severity).toBe('severe');
    // Severe before, and as severe after: no news.
    expect(told(deep, ALL_ON, started, { ...RULES, unequalSevereAmps: still(deep) - 1 })).toBeUndefined();
  });
});

describe('a spark where gas may be', () => {
  it('is severe from five watts on where gas is likely, never severe where it is only possible, and nothing below one', () => {
    expect(SPARK_WATTS).toEqual({ seen: 1, hard: 5000, inGas: 5 });
    const [battery] = CAR.batteries;
    const boot: Machine = { ...CAR, batteries: [{ ...battery!, closedIn: true }] };
    let below = 0;
    let above = 0;
    for (const machine of [boot, CAR])
      for (let rest = 12; rest <= 12.9; rest += 0.01) {
        const scene = sceneFor(machine, optionNamed(machine, 'donor+heavy', [rest]), [rest]);
        const found = hazardsAsIs(scene, run(machine, LOOSE), on('blackCasualty', 'minus'), ALLOWING);
        const spark = find(found, 'spark-in-gas');
        if (!spark) continue;
        const watts = spark.amps! * spark.volts!;
        const isLikely = machine === boot;
        expect(watts).toBeGreaterThanOrEqual(1);
        expect(spark.severity)
          .withContext(`${watts.toFixed(2)} W, ${isLikely ? 'likely' : 'possible'}`)
          .toBe(isLikely && watts >= 5 ? 'severe' : 'watch');
        if (watts < 5) below++;
        else above++;
      }
    // Both sides of the line were met.
    expect(below).toBeGreaterThan(3);
    expect(above).toBeGreaterThan(20);
  });

  it('is likely at every battery of a string of which one is closed in', () => {
    const contact = { end: 'casualty', gasNear: true, gapVolts: 1, contactAmps: 1 } as unknown as Parameters<
      typeof gasAt
    >[2];
    const truckWith = (closed: readonly boolean[]): HookupScene => {
      const batteries = TRUCK.batteries.map((b, i) => ({ ...b, closedIn: closed[i]! }));
      const machine: Machine = { ...TRUCK, batteries };
      return sceneFor(machine, optionNamed(machine, 'lead@24', [12.4, 12.4]), [12.4, 12.4]);
    };
    const state = run(TRUCK, []);
    expect(gasAt(truckWith([false, false]), state, contact)).toBe('possible');
    expect(gasAt(truckWith([true, false]), state, contact)).toBe('likely');
    expect(gasAt(truckWith([false, true]), state, contact)).toBe('likely');
    expect(gasAt(truckWith([false, true]), state, { ...contact, gasNear: false })).toBe('none');
    // One that was run down to below flat has been abused.
    const low = sceneFor(CAR, optionNamed(CAR, 'lead@12', [9.5]), [9.5]);
    expect(gasAt(low, run(CAR, []), contact)).toBe('likely');
    expect(gasAt({ ...donorScene(12.4), enclosed: true }, state, contact)).toBe('likely');
    expect(gasAt({ ...donorScene(12.4), casualtyRuns: true }, state, contact)).toBe('likely');
  });
});

describe('a source that is no charger', () => {
  const [battery] = CAR.batteries;
  const boot: Machine = { ...CAR, batteries: [{ ...battery!, closedIn: true }] };

  it('is not told as charging a battery that is closed in', () => {
    const scene = sceneFor(boot, optionNamed(boot, 'lead@12', [11.9]), [11.9]);
    const before = [on('redCasualty', 'plus'), on('blackCasualty', 'ground')];
    const found = hazardsAsIs(scene, run(boot, before), { kind: 'pack', on: true }, ALLOWING);
    expect(find(found, 'closed-in-charging')).toBeUndefined();
  });

  it('gives no more for an engine that it does not have', () => {
    const charger = sceneFor(CAR, chargeOptions(CAR, KIT)[0]!, [11.9]);
    const joined: HandAction[] = [
      on('redCasualty', 'plus'),
      on('blackCasualty', 'ground'),
      { kind: 'pack', on: true },
      { kind: 'plug', in: true },
    ];
    const most = (scene: HookupScene, actions: readonly HandAction[]): number =>
      rescueOf(scene, run(CAR, actions)).source!.alternator!.maxAmps;
    expect(most(charger, [...joined, so('donor-revs-raised')])).toBe(most(charger, joined));
    const donor = donorScene(11.9);
    expect(most(donor, [...ALL_ON, started, so('donor-revs-raised')])).toBeGreaterThan(
      1.5 * most(donor, [...ALL_ON, started]),
    );
  });
});

describe('a clamp that hangs free', () => {
  const scene = donorScene(11.9);
  const free = (actions: readonly HandAction[], rules: Partial<HouseRules> = {}): Hazard | undefined =>
    hazardsAsIs(scene, run(CAR, actions.slice(0, -1)), actions.at(-1)!, { ...ALLOWING, ...rules }).find((h) =>
      h.code.includes('live-free'),
    );

  it('is told from the amps that the house calls live, and at what it would drive', () => {
    const one = free(LOOSE.slice(0, 1))!;
    expect(one.code).toBe('live-free-clamp');
    // By hand: no more than the battery’s volts behind its own ohms and one conductor of these leads.
    const { openVolts, ohms } = scene.batteries.models[0]!;
    expect(one.amps!).toBeLessThan(openVolts / (ohms + conductorOhms(scene.option.leads, SCENE_TEMP_C)));
    expect(one.amps!).toBeGreaterThan(100);
    expect(free(LOOSE.slice(0, 1), { liveFreeAmps: one.amps! + 1 })).toBeUndefined();
    expect(free(LOOSE.slice(0, 1), { liveFreeAmps: one.amps! - 1 })?.amps).toBeCloseTo(one.amps!, 9);
    // Both ends of the red lead on: a black lead that hangs by both its ends carries nothing.
    expect(free(LOOSE.slice(0, 2))).toBeUndefined();
  });

  it('is one of two where both far ends are live, and their meeting is what counts', () => {
    const both = free([on('redCasualty', 'plus'), on('blackCasualty', 'ground')])!;
    expect([both.code, both.severity]).toEqual(['two-live-free-clamps', 'watch']);
    expect(
      free([on('redCasualty', 'plus'), on('blackCasualty', 'ground')], { liveFreeAmps: both.amps! })?.code,
    ).not.toBe('two-live-free-clamps');
    // A single one above what the house calls severe is to be watched.
    const one = free(LOOSE.slice(0, 1))!;
    expect(one.severity).toBe(one.amps! > ALLOWING.unequalSevereAmps ? 'watch' : 'note');
    expect(free(LOOSE.slice(0, 1), { unequalSevereAmps: one.amps! - 1 })?.severity).toBe('watch');
    expect(free(LOOSE.slice(0, 1), { unequalSevereAmps: one.amps! + 1 })?.severity).toBe('note');
  });
});

describe('a loop whose body is not whole', () => {
  it('closes something where current flows all the same', () => {
    const scene = donorScene(11.9);
    const open = so('isolator-open');
    const toMinus = on('blackCasualty', 'minus');
    const codes = (before: readonly HandAction[], action: HandAction): HazardCode[] =>
      hazardsAsIs(scene, run(CAR, before), action, ALLOWING).map(({ code }) => code);
    // On the battery itself the switch is not between.
    expect(codes([open, ...LOOSE], toMinus)).not.toContain('closes-nothing');
    expect(codes([open, ...LOOSE], ALL_ON[3]!)).toContain('closes-nothing');
  });
});

describe('a machine with its plus on the body, beside how things stand', () => {
  const old: Machine = { ...CAR, id: 'old-car', earth: 'positive' };
  const usual = sceneFor(CAR, optionNamed(CAR, 'lead@12', [11.9]), [11.9]);
  const scene = sceneFor(old, optionNamed(old, 'lead@12', [11.9]), [11.9]);
  const both = [on('redCasualty', 'plus'), on('blackCasualty', 'minus')];
  const others = CIRCUMSTANCES.filter((what) => what !== 'positive-earth');

  it('is told of its plus once, by the mirror, and of all else as its like', () => {
    for (const what of others) {
      const here = [so('positive-earth'), so(what), ...both];
      const there = [so(what), ...both];
      const codes = (of: HookupScene, machine: Machine, actions: readonly HandAction[]): string[] =>
        hazardsAsIs(of, run(machine, actions), { kind: 'pack', on: true }, ALLOWING).map(
          ({ code, severity, amps }) => `${code} ${severity} ${amps?.toFixed(3)}`,
        );
      expect(codes(scene, old, here))
        .withContext(what)
        .toEqual(codes(usual, CAR, there));
    }
    // A feed of a machine whose battery is off is in the circuit, on its own side.
    const fed = rescueOf(scene, run(old, [so('positive-earth'), so('second-battery')]));
    expect(fed.feeds).toHaveSize(1);
  });
});

describe('a battery that is taken at its strongest', () => {
  it('is new and as full as its reading allows, over-discharged where it was read so', () => {
    for (const rest of [6, 9, 10, 11.2, 12, 12.4]) {
      const scene = donorScene(rest);
      const { rating, socHigh, overDischargedVolts } = scene.batteries.beliefs[0]!;
      const strong = storiesOf(scene).find(({ story }) => story === 'strong-battery');
      const state = { soc: socHigh, tempC: SCENE_TEMP_C, ageing: 1 };
      const expected =
        overDischargedVolts === undefined
          ? batteryOhms(rating, state)
          : batteryOhms(rating, { ...state, overDischargedVolts });
      if (expected < scene.batteries.models[0]!.ohms)
        expect(strong?.scene.batteries.models[0]!.ohms).withContext(`${rest} V`).toBeCloseTo(expected, 12);
      else expect(strong).withContext(`${rest} V`).toBeUndefined();
      if (rest < 11) {
        expect(overDischargedVolts).withContext(`${rest} V`).toBe(rest);
        // Thin acid resists more than a battery that is merely flat.
        expect(expected).toBeGreaterThan(batteryOhms(rating, state));
      }
    }
  });
});

describe('a donor that runs before the clamps go on', () => {
  it('is started once, before them, where the house wants it so, and after them where it does not', () => {
    const { option } = donorScene(11.9);
    const kinds = (rules: HouseRules): string[] =>
      hookupOrder(CAR, CAR, option, 3, rules).map(({ action }) => action.kind);
    const first = kinds({ ...ALLOWING, donorEngine: 'running' });
    expect(first.filter((kind) => kind === 'donor-engine')).toHaveSize(1);
    expect(first.indexOf('donor-engine')).toBeLessThan(first.indexOf('attach'));
    const later = kinds({ ...ALLOWING, donorEngine: 'off-then-run' });
    expect(later.filter((kind) => kind === 'donor-engine')).toHaveSize(1);
    expect(later.indexOf('donor-engine')).toBeGreaterThan(later.lastIndexOf('attach'));
    expect(kinds({ ...ALLOWING, donorEngine: 'off-throughout' })).not.toContain('donor-engine');
  });
});

describe('the sequences that a house allows', () => {
  const of = (rules: Partial<HouseRules>, mayEndAtSource: boolean): readonly string[] =>
    allowedSequences({ ...ALLOWING, ...rules }, mayEndAtSource).map((s) => s.join());
  const [RC, RS, BS, BC] = ['redCasualty', 'redSource', 'blackSource', 'blackCasualty'];

  it('are both reds first, the house’s red before the other, and its last black last', () => {
    const reds = { clampSequence: 'reds-first', firstRed: 'casualty' } as const;
    expect(of({ ...reds, lastBlack: 'ground-point' }, true)).toEqual([[RC, RS, BS, BC].join()]);
    expect(of({ ...reds, lastBlack: 'negative-terminal' }, true)).toEqual([
      [RC, RS, BS, BC].join(),
      [RC, RS, BC, BS].join(),
    ]);
    // A clamp that ends on a donor’s battery is no order, whatever the house says.
    expect(of({ ...reds, lastBlack: 'negative-terminal' }, false)).toEqual([[RC, RS, BS, BC].join()]);
    expect(of({ ...reds, firstRed: 'source', lastBlack: 'negative-terminal' }, true)).toEqual([
      [RS, RC, BS, BC].join(),
      [RS, RC, BC, BS].join(),
    ]);
  });

  it('are both ends of the source first where the house begins there', () => {
    const source = { clampSequence: 'source-first' } as const;
    for (const lastBlack of ['ground-point', 'negative-terminal'] as const)
      expect(of({ ...source, lastBlack }, true)).toEqual([[RS, BS, RC, BC].join(), [BS, RS, RC, BC].join()]);
  });
});

describe('hazards of one action', () => {
  it('are told worst first', () => {
    const rank = ['note', 'watch', 'severe'];
    let mixed = 0;
    for (const rest of [3.5, 6, 9, 11.9, 12.5])
      for (const enclosed of [false, true])
        for (const judge of [hazardsOf, hazardsAsIs])
          for (const [i, action] of [...ALL_ON, started].entries()) {
            const scene = { ...donorScene(rest), enclosed };
            const before = [...ALL_ON, started].slice(0, i);
            const ranks = judge(scene, run(CAR, before), action, ALLOWING).map(({ severity }) =>
              rank.indexOf(severity),
            );
            expect(ranks).toEqual([...ranks].sort((a, b) => b - a));
            if (new Set(ranks).size > 1) mixed++;
          }
    expect(mixed).toBeGreaterThan(5);
  });
});

describe('a spark where no gas is', () => {
  it('is to be watched from five thousand watts on, and a note below', () => {
    // The worst of what is not known: cells shorted, or a battery that is charged and fitted backwards.
    let hard = 0;
    let soft = 0;
    for (let rest = -12.6; rest < 12.6; rest += 0.9) {
      const scene = donorScene(rest);
      const found = find(hazardsOf(scene, run(CAR, LOOSE), ALL_ON[3]!, ALLOWING), 'hard-spark');
      if (!found) continue;
      const watts = found.amps! * found.volts!;
      expect(found.severity)
        .withContext(`${watts.toFixed(0)} W`)
        .toBe(watts >= 5000 ? 'watch' : 'note');
      if (watts >= 5000) hard++;
      else soft++;
    }
    expect(hard).toBeGreaterThan(0);
    expect(soft).toBeGreaterThan(3);
  });
});

describe('clearing a charger down', () => {
  it('switches it off and pulls its plug before a clamp comes off', () => {
    const scene = sceneFor(CAR, chargeOptions(CAR, KIT)[0]!, [11.9]);
    const on = hookupOrder(CAR, null, scene.option, 0, ALLOWING);
    const off = clearingOrder(on, CAR, ALLOWING).map(({ action }) => action);
    expect(off.slice(0, 2)).toEqual([
      { kind: 'pack', on: false },
      { kind: 'plug', in: false },
    ]);
    expect(off.slice(2).every(({ kind }) => kind === 'detach')).toBeTrue();
    const state = [...on.map(({ action }) => action), ...off].reduce(act, NOTHING_CONNECTED);
    expect([state.packOn, state.pluggedIn, state.clamps.redCasualty]).toEqual([false, false, null]);
  });
});

describe('a clamp on wrong metal of a machine with its plus on the body', () => {
  it('is that clamp’s own, seen through the mirror', () => {
    const old: Machine = { ...CAR, id: 'old-car', earth: 'positive' };
    const scene = sceneFor(old, optionNamed(old, 'lead@12', [11.9]), [11.9]);
    const onto: HandAction = {
      kind: 'attach',
      clamp: 'redCasualty',
      pointId: 'ground',
      onto: 'isolated-body',
    };
    const joined = run(old, [onto, on('blackCasualty', 'minus'), { kind: 'pack', on: true }]);
    // The red on a body that nothing bonds is as good as in the air: nothing flows.
    const { clamps } = rescueOf(scene, joined);
    expect([clamps.redCasualty, clamps.blackCasualty].filter((at) => at === null)).toHaveSize(1);
    const whole = run(old, [on('redCasualty', 'ground'), on('blackCasualty', 'minus')]);
    const { clamps: bonded } = rescueOf(scene, whole);
    expect([bonded.redCasualty, bonded.blackCasualty]).not.toContain(null);
  });
});

describe('make safe', () => {
  it('takes clamps off at no more than any other way: every way tried, its cost added up clamp by clamp', () => {
    const crossed: HookupAction[] = [
      on('redCasualty', 'minus'),
      on('redSource', 'plus'),
      on('blackSource', 'ground'),
      on('blackCasualty', 'ground'),
    ];
    let reversed = 0;
    for (const rest of [3.5, 8, 11.9])
      for (const actions of [
        ALL_ON,
        crossed,
        [...ALL_ON].reverse(),
        ALL_ON.slice(0, 3),
        crossed.slice(0, 2),
      ]) {
        const scene = donorScene(rest);
        const state = run(CAR, actions);
        const costOf = (clamps: readonly ClampId[]): number => {
          let at = state;
          return clamps.reduce((sum, clamp) => {
            const action: HookupAction = { kind: 'detach', clamp };
            const isLast = at.attachedInOrder.at(-1) === clamp;
            const cost =
              hazardCost(scene, [{ action, reason: 'start-again' }], ALLOWING, at) + (isLast ? 0 : 4);
            at = act(at, action);
            return sum + cost;
          }, 0);
        };
        const ways = permutations(state.attachedInOrder);
        const least = Math.min(...ways.map(costOf));
        const taken = makeSafe(scene, state, ALLOWING).flatMap((a) => (a.kind === 'detach' ? [a.clamp] : []));
        expect(taken).toHaveSize(state.attachedInOrder.length);
        expect(costOf(taken)).withContext(`${rest} V, ${actions.length} on`).toBeCloseTo(least, 6);
        if (taken.join() === [...state.attachedInOrder].reverse().join()) reversed++;
      }
    // Mostly as hands know it, and not always: else there was nothing to find.
    expect(reversed).toBeGreaterThan(3);
    expect(reversed).toBeLessThan(15);
  });
});

describe('what is foretold of a wrong clamp', () => {
  it('is only what would be severe, and names its figures', () => {
    const scene = donorScene(11.9);
    const wrong = hazardsAsIs(scene, run(CAR, []), on('redCasualty', 'minus'), ALLOWING);
    const foretold = wrong.filter(({ code }) => code.startsWith('will-'));
    expect(foretold.map(({ severity }) => severity)).toContain('severe');
    // A school that calls a slighter thing severe is foretold it too, and a plain order nothing.
    const right = hazardsAsIs(scene, run(CAR, []), on('redCasualty', 'plus'), ALLOWING);
    expect(right.filter(({ code }) => code.startsWith('will-'))).toEqual([]);
  });
});

describe('what is not known', () => {
  it('is told at its worst, with the story that makes it so, and as it is where it is known', () => {
    const scene = donorScene(8);
    const state = run(CAR, LOOSE);
    const worst = find(hazardsOf(scene, state, ALL_ON[3]!, ALLOWING), 'unequal-sources')!;
    const likely = find(hazardsAsIs(scene, state, ALL_ON[3]!, ALLOWING), 'unequal-sources');
    expect(worst.story).toBe('cells-shorted');
    expect(worst.amps!).toBeGreaterThan(1.5 * (likely?.amps ?? 1));
    expect(likely?.story).toBeUndefined();
  });
});

import {
  act,
  anyClampOn,
  clearingOrder,
  contactAt,
  hookupOrder,
  type HookupAction,
  type HookupScene,
  type HookupState,
  isDone,
  isToBeCleared,
  makeSafe,
  NOTHING_CONNECTED,
} from '../src/hookup/index.js';
import type { Machine } from '../src/machine/index.js';
import { casualtyBatteries } from '../src/belief/index.js';
import { rankOptions, ruledWaitMinutes, type SourceOption } from '../src/plan/index.js';
import { DEFAULT_RULES } from '../src/rules/index.js';
import { CAR, EV, KIT, MOTORCYCLE, TRUCK } from './fixtures.js';
import { SCENE_TEMP_C, sceneFor } from './scenes.js';

function optionOf(machine: Machine, id: string, rest: number[]): SourceOption {
  const batteries = casualtyBatteries(machine, rest, SCENE_TEMP_C);
  const all = rankOptions(machine, KIT, batteries, SCENE_TEMP_C, DEFAULT_RULES);
  const found = all.find((r) => r.option.id === id);
  if (!found) throw new Error(`no option ${id}: ${all.map((r) => r.option.id).join()}`);
  return found.option;
}

const sceneOf = (machine: Machine, option: SourceOption, rest: number[], casualtyRuns = false): HookupScene =>
  sceneFor(machine, option, rest, { donor: CAR, casualtyRuns });

const run = (actions: readonly HookupAction[], from: HookupState = NOTHING_CONNECTED): HookupState =>
  actions.reduce(act, from);
const names = (actions: readonly HookupAction[]): string[] =>
  actions.map((a) =>
    a.kind === 'attach' || a.kind === 'detach'
      ? `${a.kind} ${a.clamp}`
      : a.kind === 'confirm'
        ? a.what
        : a.kind,
  );

describe('hookupOrder', () => {
  it('joins a donor red, red, black, and last black on the ground point; then the donor runs', () => {
    const option = optionOf(CAR, 'donor+heavy', [11.9]);
    const order = hookupOrder(CAR, CAR, option, 3, DEFAULT_RULES);
    expect(names(order.map((s) => s.action))).toEqual([
      'all-off',
      'attach redCasualty',
      'attach redSource',
      'attach blackSource',
      'attach blackCasualty',
      'donor-engine',
      'wait',
    ]);
    expect(order[4]).toEqual(
      jasmine.objectContaining({ reason: 'last-away-from-battery', rule: 'lastBlack' }),
    );
  });

  it('starts at the donor, or ends at the terminal, when the house rule says so', () => {
    const option = optionOf(CAR, 'donor+heavy', [11.9]);
    const rules = { ...DEFAULT_RULES, firstRed: 'source', lastBlack: 'negative-terminal' } as const;
    const actions = hookupOrder(CAR, CAR, option, 3, rules).map((s) => s.action);
    expect(actions[1]).toEqual(jasmine.objectContaining({ clamp: 'redSource' }));
    expect(actions[4]).toEqual({ kind: 'attach', clamp: 'blackCasualty', pointId: 'minus' });
  });

  it('waits longer for a very flat battery', () => {
    const option = optionOf(CAR, 'donor+heavy', [11.9]);
    const wait = (soc: number): number => ruledWaitMinutes(CAR, option, soc, DEFAULT_RULES);
    expect(wait(0)).toBe(DEFAULT_RULES.donorWaitMinVeryFlat);
    expect(wait(0.3)).toBe(DEFAULT_RULES.donorWaitMinPetrol);
    const order = hookupOrder(CAR, CAR, option, 5, DEFAULT_RULES);
    expect(order.find((s) => s.minutes)?.minutes).toBe(5);
  });

  it('plugs a charger in last and takes it away plug first', () => {
    const option = optionOf(CAR, 'charger@12', [11.9]);
    const order = hookupOrder(CAR, null, option, 30, DEFAULT_RULES);
    expect(names(order.map((s) => s.action))).toEqual([
      'all-off',
      'charger-set',
      'attach redCasualty',
      'attach blackCasualty',
      'plug',
      'pack',
      'wait',
    ]);
    expect(names(clearingOrder(order, CAR, DEFAULT_RULES).map((s) => s.action))).toEqual([
      'pack',
      'plug',
      'detach blackCasualty',
      'detach redCasualty',
    ]);
  });

  it('links two spare batteries, proves their sum, and joins them with loose leads', () => {
    const option = optionOf(TRUCK, 'spares@24+heavy', [11.9, 11.9]);
    const order = hookupOrder(TRUCK, null, option, 0, DEFAULT_RULES).map((s) => s.action);
    expect(names(order)).toEqual([
      'all-off',
      'series-sum',
      'attach redCasualty',
      'attach redSource',
      'attach blackSource',
      'attach blackCasualty',
    ]);
    const scene = sceneOf(TRUCK, option, [11.9, 11.9]);
    const last = contactAt(scene, run(order.slice(0, 5)), 'blackCasualty', 'ground', DEFAULT_RULES);
    expect(last.gapVolts).toBeGreaterThan(0.5);
    expect(last.gapVolts).toBeLessThan(2);
  });

  it('never runs the donor for an EV or a motorcycle', () => {
    for (const machine of [EV, MOTORCYCLE]) {
      const option = optionOf(machine, 'donor+heavy', [11.9]);
      const order = hookupOrder(machine, CAR, option, 3, DEFAULT_RULES);
      expect(order.some((s) => s.action.kind === 'donor-engine')).toBeFalse();
    }
  });

  it('arms a pack only after both clamps and the guard lamp', () => {
    const option = optionOf(CAR, 'lithium@12', [11.9]);
    const order = hookupOrder(CAR, null, option, 3, DEFAULT_RULES).map((s) => s.action);
    expect(names(order)).toEqual([
      'all-off',
      'attach redCasualty',
      'attach blackCasualty',
      'guard-lamp',
      'pack',
    ]);
  });

  it('puts black on the middle joint only for the upper battery of a string', () => {
    const upper = optionOf(TRUCK, 'lead@12#battery1', [12.6, 11.7]);
    const lower = optionOf(TRUCK, 'lead@12#battery0', [11.7, 12.6]);
    const black = (o: SourceOption): HookupAction => hookupOrder(TRUCK, null, o, 3, DEFAULT_RULES)[2]!.action;
    expect(black(upper)).toEqual(jasmine.objectContaining({ pointId: 'minus2' }));
    expect(black(lower)).toEqual(jasmine.objectContaining({ pointId: 'ground' }));
  });

  it('says so when a machine has nowhere to clamp', () => {
    const bare = { ...CAR, points: [] };
    const option = optionOf(CAR, 'lithium@12', [11.9]);
    expect(() => hookupOrder(bare, null, option, 3, DEFAULT_RULES)).toThrowError(/no place for the clamps/);
  });
});

describe('clearingOrder', () => {
  for (const [machine, id, rest] of [
    [CAR, 'donor+heavy', [11.9]],
    [CAR, 'lithium@12', [11.9]],
    [EV, 'lead@12', [9]],
    [TRUCK, 'lead@24', [12.1, 12.0]],
    [TRUCK, 'lead@12#battery0', [11.7, 12.6]],
  ] as const) {
    it(`is the exact reverse for ${machine.id} with ${id} and ends clear`, () => {
      const order = hookupOrder(machine, CAR, optionOf(machine, id, [...rest]), 3, DEFAULT_RULES);
      const off = clearingOrder(order, machine, DEFAULT_RULES);
      const attached = order.flatMap((s) => (s.action.kind === 'attach' ? [s.action.clamp] : []));
      const detached = off.flatMap((s) => (s.action.kind === 'detach' ? [s.action.clamp] : []));
      expect(detached).toEqual([...attached].reverse());
      const end = run([...order, ...off].map((s) => s.action));
      expect(anyClampOn(end)).toBeFalse();
      expect(end.packOn || end.donorRunning).toBeFalse();
    });
  }
});

describe('contactAt', () => {
  const rest = [11.8];
  const option = optionOf(CAR, 'donor+heavy', rest);
  const scene = sceneOf(CAR, option, rest);
  const steps = hookupOrder(CAR, CAR, option, 3, DEFAULT_RULES).map((s) => s.action);

  it('finds no spark at the first three contacts and the volts of the gap at the last', () => {
    for (const n of [1, 2, 3]) {
      const action = steps[n]!;
      if (action.kind !== 'attach') throw new Error('not a clamp');
      const contact = contactAt(scene, run(steps.slice(0, n)), action.clamp, action.pointId, DEFAULT_RULES);
      expect(contact.contactAmps).toBe(0);
      expect(contact.gapVolts).toBe(0);
    }
    const last = contactAt(scene, run(steps.slice(0, 4)), 'blackCasualty', 'ground', DEFAULT_RULES);
    expect(last.gapVolts).toBeCloseTo(option.source.openVolts - 11.8, 2);
    expect(last.contactAmps).toBeGreaterThan(5);
    expect(last.gasNear).toBeFalse();
    expect(last.metresToBattery).toBeCloseTo(1.06, 2);
  });

  it('warns of gas at the battery itself, and everywhere in a closed space', () => {
    const state = run(steps.slice(0, 4));
    expect(contactAt(scene, state, 'blackCasualty', 'minus', DEFAULT_RULES).gasNear).toBeTrue();
    expect(
      contactAt({ ...scene, enclosed: true }, state, 'blackCasualty', 'ground', DEFAULT_RULES).gasNear,
    ).toBeTrue();
  });
});

describe('makeSafe', () => {
  const rest = [11.8];

  it('from a full hook-up is the plain reverse', () => {
    for (const id of ['donor+heavy', 'lithium@12', 'cap@12']) {
      const option = optionOf(CAR, id, rest);
      const order = hookupOrder(CAR, CAR, option, 3, DEFAULT_RULES);
      const off = clearingOrder(order, CAR, DEFAULT_RULES).filter((s) => s.action.kind !== 'confirm');
      for (const casualtyRuns of [false, true]) {
        const found = makeSafe(
          sceneOf(CAR, option, rest, casualtyRuns),
          run(order.map((s) => s.action)),
          DEFAULT_RULES,
        );
        expect(names(found)).toEqual(names(off.map((s) => s.action)));
      }
    }
  });

  it('ends clear from every step of every order', () => {
    let states = 0;
    for (const [machine, readings] of [
      [CAR, [11.8]],
      [EV, [9]],
      [MOTORCYCLE, [12]],
      [TRUCK, [11.7, 12.6]],
    ] as const) {
      const batteries = casualtyBatteries(machine, [...readings], SCENE_TEMP_C);
      for (const { option, unfit } of rankOptions(machine, KIT, batteries, SCENE_TEMP_C, DEFAULT_RULES)) {
        if (unfit) continue;
        const steps = hookupOrder(machine, CAR, option, 3, DEFAULT_RULES).map((s) => s.action);
        for (let n = 0; n <= steps.length; n++) {
          const state = run(steps.slice(0, n));
          const off = makeSafe(sceneOf(machine, option, [...readings]), state, DEFAULT_RULES);
          expect(isToBeCleared(state))
            .withContext(`${option.id} after ${n}`)
            .toBe(off.length > 0);
          const end = run(off, state);
          expect(isToBeCleared(end)).toBeFalse();
          expect(anyClampOn(end)).toBeFalse();
          expect(end.packOn || end.donorRunning).toBeFalse();
          states++;
        }
      }
    }
    expect(states).toBeGreaterThan(80);
  });

  it('takes the clamp away from the gas first, whatever order they went on in', () => {
    const option = optionOf(CAR, 'donor+heavy', rest);
    const wrong = run([
      { kind: 'attach', clamp: 'blackCasualty', pointId: 'ground' },
      { kind: 'attach', clamp: 'blackSource', pointId: 'minus' },
      { kind: 'attach', clamp: 'redSource', pointId: 'plus' },
      { kind: 'attach', clamp: 'redCasualty', pointId: 'plus' },
    ]);
    const [first] = makeSafe(sceneOf(CAR, option, rest), wrong, DEFAULT_RULES);
    expect(first).toEqual({ kind: 'detach', clamp: 'blackCasualty' });
  });

  it('has nothing to do when nothing is on', () => {
    const option = optionOf(CAR, 'donor+heavy', rest);
    expect(makeSafe(sceneOf(CAR, option, rest), NOTHING_CONNECTED, DEFAULT_RULES)).toEqual([]);
  });
});

describe('act and isDone', () => {
  it('agree for every action of an order, and forget the looks when the last clamp comes off', () => {
    const option = optionOf(CAR, 'donor+heavy', [11.8]);
    const order = hookupOrder(CAR, CAR, option, 3, DEFAULT_RULES).map((s) => s.action);
    let state = NOTHING_CONNECTED;
    for (const action of order) {
      expect(isDone(state, action)).withContext(JSON.stringify(action)).toBeFalse();
      state = act(state, action);
      expect(isDone(state, action)).toBeTrue();
    }
    const off = run(
      clearingOrder(hookupOrder(CAR, CAR, option, 3, DEFAULT_RULES), CAR, DEFAULT_RULES).map((s) => s.action),
      state,
    );
    expect(off.confirmed).toEqual([]);
  });
});

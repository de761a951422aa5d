import { batteryOhms } from '../src/battery/index.js';
import { CLAMP_IDS, type ClampId } from '../src/circuit/index.js';
import {
  act,
  actByHand,
  casualtyRuns,
  clampsOn,
  clearingOrder,
  crankingRescueOf,
  fittingOrder,
  hazardsOf,
  hookupOrder,
  type HookupAction,
  type HookupState,
  isDone,
  lastBlackReason,
  looseReason,
  overruledBy,
  safestOrder,
  NOTHING_CONNECTED,
  PACK_END,
  progressOf,
  replan,
  rescueOf,
  SPARE_POSTS,
  sourceTerminalOf,
  isInForce,
  stillActions,
  storiesOf,
} from '../src/hookup/index.js';
import { type Machine, pointOf } from '../src/machine/index.js';
import { casualtyBatteries } from '../src/belief/index.js';
import { chargeOptions } from '../src/plan/index.js';
import { DEFAULT_RULES, type HouseRules } from '../src/rules/index.js';
import { CAR, EV, KIT, TRUCK } from './fixtures.js';
import { ALLOWING, optionNamed, run, SCENE_TEMP_C, sceneFor } from './scenes.js';

describe('bare cells', () => {
  const cells = optionNamed(CAR, 'hobby@12', [11.9]);
  const steps = hookupOrder(CAR, null, cells, 0, ALLOWING);

  it('have no switch: they are unplugged until both clamps are on, and no step says that a pack is off', () => {
    const reasons = steps.flatMap(({ action, reason }) => (action.kind === 'attach' ? [reason] : []));
    expect(reasons).toEqual(['cells-unplugged', 'cells-unplugged-black']);
    const plugged = steps.findIndex(({ reason }) => reason === 'cells-plugged');
    expect(plugged).toBeGreaterThan(steps.map(({ action }) => action.kind).lastIndexOf('attach'));
    expect(steps.map(({ reason }) => reason)).not.toContain('pack-still-off');
  });

  it('show no volts across their clamps before they are plugged', () => {
    const scene = sceneFor(CAR, cells, [11.9]);
    const clamped = run(CAR, [{ kind: 'attach', clamp: 'redCasualty', pointId: 'plus' }]);
    expect(rescueOf(scene, clamped).sourceOn).toBeFalse();
  });
});

describe('house rules that an order does not keep', () => {
  const scene = sceneFor(CAR, optionNamed(CAR, 'donor+heavy', [11.9]), [11.9]);
  const overruledIn = (rules: Partial<HouseRules>) => {
    const ruled = { ...DEFAULT_RULES, ...rules };
    return overruledBy(scene, safestOrder(scene, 0, ruled), 0, ruled);
  };

  it('are none by default', () => {
    expect(overruledIn({})).toEqual([]);
  });

  it('are either kept or named, each with what overrules it', () => {
    const schools = {
      clampSequence: ['reds-first', 'source-first'],
      firstRed: ['casualty', 'source'],
      lastBlack: ['ground-point', 'negative-terminal'],
      donorEngine: ['off-then-run', 'running'],
    } as const;
    for (const clampSequence of schools.clampSequence)
      for (const firstRed of schools.firstRed)
        for (const lastBlack of schools.lastBlack)
          for (const donorEngine of schools.donorEngine) {
            const ruled = { ...DEFAULT_RULES, clampSequence, firstRed, lastBlack, donorEngine };
            const order = safestOrder(scene, 0, ruled).map(({ action }) => action);
            const clamps = order.flatMap((a) => (a.kind === 'attach' ? [a.clamp] : []));
            const black = order.find((a) => a.kind === 'attach' && a.clamp === 'blackCasualty');
            const isKept = {
              clampSequence:
                clampSequence === 'reds-first' || clamps.slice(0, 2).every((c) => c.endsWith('Source')),
              lastBlack:
                lastBlack === 'ground-point' ||
                (black?.kind === 'attach' && pointOf(CAR, black.pointId).kind === 'battery-negative'),
            };
            const named = overruledBy(scene, safestOrder(scene, 0, ruled), 0, ruled);
            for (const rule of ['clampSequence', 'lastBlack'] as const)
              if (!isKept[rule]) {
                const found = named.find((o) => o.rule === rule);
                expect(found?.hazard?.severity)
                  .withContext(
                    JSON.stringify({ clampSequence, firstRed, lastBlack, donorEngine, rule, clamps }),
                  )
                  .toBe('severe');
              }
          }
  });
});

const LAST = 'last-away-from-battery';
const donor = optionNamed(CAR, 'donor+heavy', [11.9]);

describe('looseReason, by what is on already', () => {
  const reasons = (clamp: ClampId, isDonor = true) =>
    [[], ['redCasualty'], ['redSource'], ['redCasualty', 'redSource']].map((on) =>
      looseReason(clamp, on as ClampId[], isDonor, LAST),
    );

  it('says of a red which end is free, and how strong it is', () => {
    expect(reasons('redCasualty')).toEqual(['red-first', 'red-first', 'red-closes', 'red-closes']);
    expect(reasons('redSource')).toEqual([
      'free-end-strong',
      'red-free-end-weak',
      'free-end-strong',
      'red-free-end-weak',
    ]);
  });

  it('says of a black whether the reds are joined, whose it is, and whether it closes the loop', () => {
    expect(reasons('blackSource')).toEqual([
      'two-ends-live',
      'two-ends-live',
      'two-ends-live',
      'donor-black',
    ]);
    expect(reasons('blackSource', false).at(-1)).toBe('helper-black');
    const three: ClampId[] = ['redSource', 'redCasualty', 'blackCasualty'];
    expect(looseReason('blackSource', three, true, LAST)).toBe('last-at-source');
    expect(reasons('blackCasualty')).toEqual(Array(4).fill('black-not-last') as never);
    expect(looseReason('blackCasualty', ['redSource', 'redCasualty', 'blackSource'], true, LAST)).toBe(LAST);
  });
});

describe('lastBlackReason', () => {
  const reason = (machine: Machine, pointId: string, option: typeof donor = donor) =>
    lastBlackReason(machine, machine.points.find((p) => p.id === pointId)!, option, DEFAULT_RULES);
  const near: Machine = {
    ...CAR,
    points: CAR.points.map((p) => (p.id === 'ground' ? { ...p, xMm: 420 } : p)),
  };
  const bare: Machine = { ...CAR, points: CAR.points.filter((p) => p.id !== 'ground') };

  it('tells a ground point away from one that is near, and a terminal chosen from one that is all there is', () => {
    // The battery ends at 340 mm: 1060 mm away, and 80 mm.
    expect(reason(CAR, 'ground')).toBe('last-away-from-battery');
    expect(reason(near, 'ground')).toBe('last-near-battery');
    expect(reason(CAR, 'minus')).toBe('last-at-battery-ruled');
    expect(reason(bare, 'minus')).toBe('last-at-battery');
  });

  it('tells the live joint in the middle of a string', () => {
    const across = (battery: number) => ({ ...donor, across: { kind: 'battery', battery } as const });
    expect(reason(TRUCK, 'minus2', across(1))).toBe('middle-joint-live');
    expect(reason(TRUCK, 'ground', across(0))).toBe('last-away-from-battery');
  });

  it('is told by the distance of the house', () => {
    const far = { ...DEFAULT_RULES, gasDistanceM: 1.05 };
    const farther = { ...DEFAULT_RULES, gasDistanceM: 1.07 };
    const ground = CAR.points.find((p) => p.id === 'ground')!;
    expect(lastBlackReason(CAR, ground, donor, far)).toBe('last-away-from-battery');
    expect(lastBlackReason(CAR, ground, donor, farther)).toBe('last-near-battery');
  });
});

describe('the state of a hook-up', () => {
  const on: HookupAction[] = [
    { kind: 'attach', clamp: 'redCasualty', pointId: 'plus' },
    { kind: 'attach', clamp: 'redSource', pointId: 'plus' },
    { kind: 'attach', clamp: 'blackCasualty', pointId: 'ground', onto: 'pipe' },
  ];
  const pairs: [HookupAction, HookupAction][] = [
    [
      { kind: 'donor-engine', running: true },
      { kind: 'donor-engine', running: false },
    ],
    [
      { kind: 'pack', on: true },
      { kind: 'pack', on: false },
    ],
    [
      { kind: 'plug', in: true },
      { kind: 'plug', in: false },
    ],
    [
      { kind: 'confirm', what: 'negative-off' },
      { kind: 'confirm', what: 'negative-on' },
    ],
    [
      { kind: 'circumstance', what: 'gear-engaged', on: true },
      { kind: 'circumstance', what: 'gear-engaged', on: false },
    ],
    [on[0]!, { kind: 'detach', clamp: 'redCasualty' }],
  ];

  it('shows what is done, and no longer what was taken back', () => {
    for (const [done, back] of pairs) {
      const after = act(NOTHING_CONNECTED, done);
      expect([isDone(NOTHING_CONNECTED, done), isDone(after, done), isDone(after, back)])
        .withContext(JSON.stringify(done))
        .toEqual([false, true, false]);
      const again = act(after, back);
      expect([isDone(again, done), isDone(again, back)])
        .withContext(JSON.stringify(back))
        .toEqual([false, true]);
    }
  });

  it('keeps the negative off through every other look', () => {
    const off = run(CAR, [
      { kind: 'confirm', what: 'negative-off' },
      { kind: 'confirm', what: 'all-off' },
    ]);
    expect(off.negativeOff).toBeTrue();
    expect(off.confirmed).toEqual(['negative-off', 'all-off']);
    expect(act(off, { kind: 'confirm', what: 'guard-lamp' }).negativeOff).toBeTrue();
    const kept = act(NOTHING_CONNECTED, { kind: 'confirm', what: 'all-off' });
    expect(kept.negativeOff).toBeFalse();
  });

  it('is put off by a spanner at the lowest negative alone', () => {
    const loosened = (machine: Machine, pointId: string): boolean =>
      actByHand(NOTHING_CONNECTED, { kind: 'loosen', pointId }, machine).negativeOff;
    expect(loosened(CAR, 'minus')).toBeTrue();
    expect(loosened(CAR, 'plus')).toBeFalse();
    expect(loosened(TRUCK, 'minus1')).toBeTrue();
    expect(loosened(TRUCK, 'minus2')).toBeFalse();
    expect(loosened(CAR, 'no such point')).toBeFalse();
    for (const slip of [
      { kind: 'crank' },
      { kind: 'touch', a: 'redCasualty', b: 'blackCasualty' },
      { kind: 'lay', clamp: 'redCasualty' },
      { kind: 'bridge', pointId: 'plus' },
    ] as const)
      expect(actByHand(NOTHING_CONNECTED, slip, CAR)).toBe(NOTHING_CONNECTED);
  });

  it('holds clamps in the order they went on, and the metal they are on', () => {
    const state = run(CAR, on);
    expect(clampsOn(state)).toEqual(['redCasualty', 'redSource', 'blackCasualty']);
    expect(isDone(state, on[2]!)).toBeTrue();
    expect(isDone(state, { kind: 'attach', clamp: 'blackCasualty', pointId: 'ground' })).toBeFalse();
    const off = act(state, { kind: 'detach', clamp: 'redSource' });
    expect(clampsOn(off)).toEqual(['redCasualty', 'blackCasualty']);
    expect(off.onto?.blackCasualty).toBe('pipe');
    expect(act(off, { kind: 'detach', clamp: 'blackCasualty' }).onto?.blackCasualty).toBeUndefined();
  });

  it('forgets its first look with the last clamp, not before', () => {
    const looked = run(CAR, [{ kind: 'confirm', what: 'all-off' }, ...on]);
    let state = looked;
    for (const clamp of CLAMP_IDS.filter((c) => looked.clamps[c] !== null)) {
      expect(state.confirmed).toEqual(['all-off']);
      state = act(state, { kind: 'detach', clamp });
    }
    expect(state.confirmed).toEqual([]);
  });

  it('is stilled at its switch, its plug, then its engine, as far as they are on', () => {
    expect(stillActions(NOTHING_CONNECTED)).toEqual([]);
    const all = run(CAR, [pairs[0]![0], pairs[1]![0], pairs[2]![0]]);
    expect(stillActions(all).map(({ kind }) => kind)).toEqual(['pack', 'plug', 'donor-engine']);
    const still = stillActions(all).reduce(act, all);
    expect([still.packOn, still.pluggedIn, still.donorRunning]).toEqual([false, false, false]);
  });

  it('parts an order at the first step that is not seen', () => {
    const steps = on.map((action) => ({ action }));
    const [first, second, third] = steps;
    expect(progressOf(steps, NOTHING_CONNECTED)).toEqual({
      done: [],
      next: first!,
      later: [second!, third!],
    });
    expect(progressOf(steps, run(CAR, on.slice(0, 1)))).toEqual({
      done: [first!],
      next: second!,
      later: [third!],
    });
    // A later one that is done already does not hide the one before it.
    expect(progressOf(steps, run(CAR, [on[0]!, on[2]!])).next).toBe(second!);
    expect(progressOf(steps, run(CAR, on))).toEqual({ done: steps, next: null, later: [] });
  });

  it('notes each circumstance once', () => {
    const twice = run(CAR, [
      pairs[4]![0],
      pairs[4]![0],
      { kind: 'circumstance', what: 'not-secured', on: true },
    ]);
    expect(twice.circumstances).toEqual(['gear-engaged', 'not-secured']);
    expect(isInForce(twice, 'positive-earth')).toBeFalse();
  });
});

describe('the circuit of a hook-up', () => {
  it('ends each clamp at the pole of what it is on', () => {
    const scene = { donor: CAR };
    const poles = (['plus', 'minus', 'ground', SPARE_POSTS.plus, SPARE_POSTS.minus, PACK_END] as const).map(
      (id) => [
        sourceTerminalOf(scene, 'redSource', id).kind,
        sourceTerminalOf(scene, 'blackSource', id).kind,
      ],
    );
    expect(poles).toEqual([
      ['plus', 'plus'],
      ['minus', 'minus'],
      ['minus', 'minus'],
      ['plus', 'plus'],
      ['minus', 'minus'],
      // A place that nobody knows is taken for what its clamp is meant for.
      ['plus', 'minus'],
    ]);
  });

  it('is the same while nothing can crank, and has the starter in it where something can', () => {
    const still = sceneFor(EV, donor, [9]);
    expect(crankingRescueOf(still, NOTHING_CONNECTED)).toEqual(rescueOf(still, NOTHING_CONNECTED));
    const turning = crankingRescueOf(sceneFor(CAR, donor, [11.9]), NOTHING_CONNECTED);
    expect(turning.load.kind).toBe('starter');
    expect(turning.source?.openVolts).toBe(donor.source.openVolts);
  });

  it('charges from an engine that is known to run, at 14.2 V for each 12 V of system', () => {
    const noted = act(NOTHING_CONNECTED, { kind: 'circumstance', what: 'casualty-engine-runs', on: true });
    const truck = optionNamed(TRUCK, 'donor+heavy', [12, 12]);
    for (const [machine, volts] of [
      [CAR, 14.2],
      [TRUCK, 28.4],
    ] as const) {
      const scene = sceneFor(machine, truck, machine === CAR ? [11.9] : [12, 12]);
      expect(casualtyRuns(scene, NOTHING_CONNECTED)).toBeFalse();
      expect(rescueOf(scene, NOTHING_CONNECTED).casualtyAlternator).toBeUndefined();
      expect(rescueOf(scene, noted).casualtyAlternator?.volts).toBeCloseTo(volts, 9);
      expect(
        rescueOf({ ...scene, casualtyRuns: true }, NOTHING_CONNECTED).casualtyAlternator?.volts,
      ).toBeCloseTo(volts, 9);
    }
  });

  it('is lent more by raised revs, and nothing by a source that went off by itself', () => {
    const scene = sceneFor(CAR, donor, [11.9]);
    const running = act(NOTHING_CONNECTED, { kind: 'donor-engine', running: true });
    const raised = act(running, { kind: 'circumstance', what: 'donor-revs-raised', on: true });
    const amps = (state: HookupState): number => rescueOf(scene, state).source?.alternator?.maxAmps ?? 0;
    expect(amps(NOTHING_CONNECTED)).toBe(0);
    expect(amps(raised) / amps(running)).toBeGreaterThan(1.3);
    const tripped = act(running, { kind: 'circumstance', what: 'source-tripped', on: true });
    expect(rescueOf(scene, tripped).sourceOn).toBeFalse();
    expect(rescueOf(scene, running).sourceOn).toBeTrue();
  });
});

describe('what stands beside the clamps', () => {
  const figureOf = (
    state: HookupState,
    scene: Parameters<typeof hazardsOf>[0],
    action: Parameters<typeof hazardsOf>[2],
    code: string,
  ) => hazardsOf(scene, state, action, DEFAULT_RULES).find((h) => h.code === code);

  it('shorts one of two spare batteries by a link that lies across it', () => {
    const spares = optionNamed(TRUCK, 'spares@24+heavy', [12, 12]);
    const wrong = { kind: 'circumstance', what: 'series-link-wrong', on: true } as const;
    const told = figureOf(NOTHING_CONNECTED, sceneFor(TRUCK, spares, [12, 12]), wrong, 'link-short');
    // Half the volts, through half of what is not the link, and the link.
    const { openVolts, ohms } = spares.source;
    expect(told?.severity).toBe('severe');
    expect(told?.amps).toBeCloseTo(openVolts / 2 / ((ohms - 0.0012) / 2 + 0.0012), 3);
  });

  it('tells a source that tripped on a fault from one that tripped on what a battery asks', () => {
    const switched = optionNamed(CAR, 'lithium@12', [11.9]);
    const joined = (restVolts: number) => {
      const scene = sceneFor(CAR, switched, [restVolts]);
      const state = run(CAR, [
        { kind: 'confirm', what: 'all-off' },
        { kind: 'attach', clamp: 'redCasualty', pointId: 'plus' },
        { kind: 'attach', clamp: 'blackCasualty', pointId: 'ground' },
        { kind: 'pack', on: true },
      ]);
      return figureOf(
        state,
        scene,
        { kind: 'circumstance', what: 'source-tripped', on: true },
        'source-tripped',
      );
    };
    expect(joined(12.2)?.severity).toBe('watch');
    expect(joined(12.2)!.amps!).toBeGreaterThan(1);
    expect(joined(-12)?.severity).toBe('severe');
    expect(joined(-12)!.amps!).toBeGreaterThan(300);
  });
});

describe('bare lithium cells', () => {
  const cells = optionNamed(CAR, 'hobby@12', [12]);
  const order = hookupOrder(CAR, null, cells, 0, DEFAULT_RULES);
  const told = (steps: readonly { readonly action: HookupAction; readonly reason: string }[]) =>
    steps.map(({ action, reason }) => `${action.kind === 'confirm' ? action.what : action.kind}: ${reason}`);

  it('are bagged before a clamp goes on, and read by meter where a pack’s guard would look', () => {
    expect(told(order)).toEqual([
      'all-off: nothing-drawing',
      'cells-bagged: cells-burn',
      'attach: cells-unplugged',
      'attach: cells-unplugged-black',
      'cells-read: cells-unguarded',
      'pack: cells-plugged',
    ]);
    const pack = hookupOrder(CAR, null, optionNamed(CAR, 'lithium@12', [12]), 0, DEFAULT_RULES);
    expect(told(pack).filter((step) => step.startsWith('cells') || step.startsWith('guard'))).toEqual([
      'guard-lamp: polarity-guard',
    ]);
  });

  it('go off before anything else once an engine charges them', () => {
    expect(told(clearingOrder(order, CAR, DEFAULT_RULES)).slice(0, 2)).toEqual([
      'pack: cells-off-first',
      'big-consumer-on: spike-tamed',
    ]);
    const calm = clearingOrder(order, CAR, { ...DEFAULT_RULES, bigConsumer: 'not' });
    expect(told(calm)).toEqual(['pack: cells-off-first', 'detach: broken-away', 'detach: loop-open']);
    // A machine that wakes has no engine that charges.
    expect(told(clearingOrder(order, EV, DEFAULT_RULES))[0]).toBe('pack: no-arc-at-clamps');
  });

  it('are warned of when they go on unbagged or unread', () => {
    const scene = sceneFor(CAR, cells, [12]);
    const judge = (kept: (action: HookupAction) => boolean) => {
      const actions = order.map(({ action }) => action).filter(kept);
      return hazardsOf(scene, run(CAR, actions.slice(0, -1)), actions.at(-1)!, DEFAULT_RULES).map(
        ({ code }) => code,
      );
    };
    expect(judge(() => true)).not.toContain('cells-not-ready');
    for (const what of ['cells-bagged', 'cells-read'])
      expect(judge((a) => a.kind !== 'confirm' || a.what !== what))
        .withContext(what)
        .toContain('cells-not-ready');
  });
});

describe('clearingOrder', () => {
  it('breaks the loop where it was closed, and gives the reason of that place', () => {
    const attach = (clamp: ClampId, pointId: string) =>
      ({ action: { kind: 'attach', clamp, pointId }, reason: LAST }) as const;
    const first = (clamp: ClampId, pointId: string) =>
      clearingOrder([attach('redCasualty', 'plus'), attach(clamp, pointId)], CAR, {
        ...DEFAULT_RULES,
        bigConsumer: 'not',
      }).map(({ reason }) => reason);
    expect(first('blackCasualty', 'ground')).toEqual(['broken-away', 'loop-open']);
    expect(first('blackCasualty', 'minus')).toEqual(['broken-at-battery', 'loop-open']);
    expect(first('blackSource', 'minus')).toEqual(['broken-away', 'loop-open']);
  });
});

describe('storiesOf', () => {
  const told = (rest: number) => storiesOf(sceneFor(CAR, donor, [rest])).map(({ story }) => story);

  it('tells of shorted cells between 3 and 10.8 V, and of nothing worse where the likeliest is the worst', () => {
    for (const rest of [0, 0.4, 2.2, 2.9, 3.1, 10.4])
      expect(told(rest)).withContext(`${rest} V`).toContain('cells-shorted');
    expect(told(-0.5)).not.toContain('cells-shorted');
    expect(told(10.9)).not.toContain('cells-shorted');
  });

  it('takes five sound cells at 10.5 V, each a sixth of the battery as new', () => {
    const scene = sceneFor(CAR, donor, [10.5]);
    const shorted = storiesOf(scene).find(({ story }) => story === 'cells-shorted')!.scene.batteries
      .models[0]!;
    const full = storiesOf(sceneFor(CAR, donor, [12.72]))[0]!.scene.batteries.models[0]!;
    expect(shorted.openVolts).toBe(10.5);
    expect(shorted.ohms / full.ohms).toBeGreaterThan(0.5);
    expect(shorted.ohms / full.ohms).toBeLessThan(0.9);
    expect(shorted.ohms).toBeLessThan(scene.batteries.models[0]!.ohms);
  });

  it('takes one that reads backwards for charged and fitted the wrong way round: 25 V through both', () => {
    const scene = sceneFor(CAR, optionNamed(CAR, 'lithium@12', [-12.5]), [-12.5]);
    const joined = run(CAR, [
      { kind: 'attach', clamp: 'redCasualty', pointId: 'plus' },
      { kind: 'attach', clamp: 'blackCasualty', pointId: 'ground' },
    ]);
    const strong = storiesOf(scene).find(({ story }) => story === 'strong-battery')!.scene.batteries
      .models[0]!;
    const full = batteryOhms(CAR.batteries[0]!.rating, { soc: 1, tempC: SCENE_TEMP_C, ageing: 1 });
    expect(strong).toEqual({ openVolts: -12.5, ohms: full });
    const told = hazardsOf(scene, joined, { kind: 'pack', on: true }, DEFAULT_RULES);
    const short = told.find(({ code }) => code === 'dead-short')!;
    // No more than both drive through their own ohms, and most of that: leads and clamps take the rest.
    const most = (scene.option.source.openVolts + 12.5) / (scene.option.source.ohms + full);
    expect(short.severity).toBe('severe');
    expect(short.amps!).toBeGreaterThan(0.4 * most);
    expect(short.amps!).toBeLessThan(most);
    expect(told.map(({ code }) => code)).toContain('battery-reversed');
  });

  it('tells what the diodes of an alternator carry and leave at the posts of a flat battery that is joined backwards', () => {
    const scene = sceneFor(CAR, optionNamed(CAR, 'donor+heavy', [6]), [6]);
    const [battery] = scene.batteries.models;
    const before = run(CAR, [
      { kind: 'attach', clamp: 'redCasualty', pointId: 'minus' },
      { kind: 'attach', clamp: 'redSource', pointId: 'plus' },
      { kind: 'attach', clamp: 'blackSource', pointId: 'minus' },
    ]);
    const last = { kind: 'attach', clamp: 'blackCasualty', pointId: 'plus' } as const;
    const told = hazardsOf(scene, before, last, DEFAULT_RULES).find(({ code }) => code === 'reversed')!;
    // Near -2 V and hundreds of amps, as the trade tells it.
    expect(told.volts!).toBeGreaterThan(-3.5);
    expect(told.volts!).toBeLessThan(-1.8);
    expect(told.amps!).toBeGreaterThan(200);
    // By hand: all that leaves the post comes through the diodes, 1.8 V behind 2 milliohm, and out of the battery.
    const diodes = (-1.8 - told.volts!) / 0.002;
    const drawn = (battery!.openVolts - told.volts!) / battery!.ohms;
    expect(Math.abs((diodes + drawn) / told.amps! - 1)).toBeLessThan(0.05);
  });

  it('never makes a battery weaker than it is likeliest', () => {
    for (const rest of [4, 6, 8, 10.2, 11.4, 11.9, 12.3, 12.7])
      for (const { scene, story } of storiesOf(sceneFor(CAR, donor, [rest])))
        if (story)
          expect(scene.batteries.models[0]!.ohms)
            .withContext(`${rest} V, ${story}`)
            .toBeLessThan(sceneFor(CAR, donor, [rest]).batteries.models[0]!.ohms);
  });
});

describe('what a crank through these clamps does', () => {
  const joined = (option: typeof donor) => {
    const scene = sceneFor(CAR, option, [11.9]);
    return {
      scene,
      state: hookupOrder(CAR, CAR, option, 0, DEFAULT_RULES).reduce(
        (s, { action }) => act(s, action),
        NOTHING_CONNECTED,
      ),
    };
  };
  const toldOf = (option: typeof donor, rules = DEFAULT_RULES): string[] => {
    const { scene, state } = joined(option);
    return hazardsOf(scene, state, { kind: 'crank' }, rules).map(({ code }) => code);
  };

  it('heats thin leads past what the house allows, and thick ones not', () => {
    const thin = {
      ...donor,
      leads: { ...donor.leads, sectionMm2: 4, conductor: 'copper-clad-aluminium' as const },
    };
    expect(toldOf(thin)).toContain('leads-too-hot');
    expect(toldOf(donor)).not.toContain('leads-too-hot');
    // The house draws the line.
    expect(toldOf(donor, { ...DEFAULT_RULES, leadRiseMaxC: 0 })).toContain('leads-too-hot');
    expect(toldOf(thin, { ...DEFAULT_RULES, leadRiseMaxC: 1e6 })).not.toContain('leads-too-hot');
  });

  it('asks more of a source than it gives, or not', () => {
    const weak = { ...donor, source: { ...donor.source, maxAmps: 20 } };
    expect(toldOf(weak)).toContain('over-current');
    expect(toldOf({ ...weak, source: { ...weak.source, maxAmps: 5000 } })).not.toContain('over-current');
  });
});

describe('a battery that must not be joined', () => {
  it('bars whatever puts a current through it, and nothing that takes one away', () => {
    const scene = sceneFor(CAR, donor, [-11.5]);
    const barred = (action: Parameters<typeof hazardsOf>[2]): boolean =>
      hazardsOf(scene, NOTHING_CONNECTED, action, DEFAULT_RULES).some(({ code }) =>
        code.startsWith('battery-'),
      );
    expect(barred({ kind: 'donor-engine', running: true })).toBeTrue();
    expect(barred({ kind: 'donor-engine', running: false })).toBeFalse();
    expect(barred({ kind: 'pack', on: true })).toBeTrue();
    expect(barred({ kind: 'pack', on: false })).toBeFalse();
    expect(barred({ kind: 'plug', in: true })).toBeTrue();
    expect(barred({ kind: 'plug', in: false })).toBeFalse();
    expect(barred({ kind: 'detach', clamp: 'redCasualty' })).toBeFalse();
    expect(barred({ kind: 'attach', clamp: 'redCasualty', pointId: 'plus' })).toBeTrue();
  });
});

describe('a donor at the end of what it has', () => {
  type Act = Parameters<typeof hazardsOf>[2];
  const start: Act = { kind: 'donor-engine', running: true };
  const codes = (option: typeof donor, raised = false, action: Act = start) => {
    const clamped = hookupOrder(CAR, CAR, donor, 5, DEFAULT_RULES)
      .map(({ action: a }) => a)
      .filter(({ kind }) => kind === 'attach')
      .reduce((s: HookupState, a) => act(s, a), NOTHING_CONNECTED);
    const state = raised
      ? act(clamped, { kind: 'circumstance', what: 'donor-revs-raised', on: true })
      : clamped;
    return hazardsOf(sceneFor(CAR, option, [11.2]), state, action, DEFAULT_RULES)
      .filter(({ code }) => code === 'alternator-at-limit')
      .map(({ severity }) => severity);
  };
  const lending = (maxAmps: number) => ({
    ...donor,
    source: { ...donor.source, openVolts: 11.4, alternator: { volts: 14.2, maxAmps } },
  });

  it('is noted at idle, watched at raised revs, and told of nothing with amps to spare', () => {
    expect(codes(lending(8))).toEqual(['note']);
    expect(codes(lending(8), true)).toEqual(['watch']);
    expect(codes(lending(900))).toEqual([]);
  });

  it('is no matter of a charger, which is made for it', () => {
    expect(codes({ ...lending(8), sourceKind: 'mains-charger' }, false, { kind: 'plug', in: true })).toEqual(
      [],
    );
  });
});

describe('replan, half way through an order', () => {
  it('keeps looks before the clamps, and switches, waits and lamps behind them', () => {
    const order = hookupOrder(CAR, CAR, donor, 5, DEFAULT_RULES);
    // Out of order: the donor's red went on first.
    const first = order.find(({ action }) => action.kind === 'attach' && action.clamp === 'redSource')!;
    const state = act(NOTHING_CONNECTED, first.action);
    const scene = sceneFor(CAR, donor, [11.9]);
    const { next, later } = replan(scene, order, state, DEFAULT_RULES);
    const steps = [next!, ...later].map(({ action }) => action);
    const isClamp = (a: HookupAction): boolean => a.kind === 'attach';
    const lastClamp = steps.map(isClamp).lastIndexOf(true);
    const due = order.map(({ action }) => action).filter((a) => a !== first.action);
    // Nothing of the order is lost, and nothing comes twice.
    const said = (a: HookupAction): string => JSON.stringify(a);
    expect(steps.map(said).sort()).toEqual(due.map(said).sort());
    const behind = steps.filter(
      (a) => a.kind === 'donor-engine' || (a.kind === 'confirm' && a.what === 'wait'),
    );
    expect(behind.length).toBe(2);
    for (const action of behind) expect(steps.indexOf(action)).toBeGreaterThan(lastClamp);
    const looks = steps.filter((a) => a.kind === 'confirm' && a.what !== 'wait');
    expect(looks.length).toBeGreaterThan(0);
    for (const action of looks) expect(steps.indexOf(action)).toBeLessThan(steps.findIndex(isClamp));
  });
});

describe('a charger', () => {
  const charger = chargeOptions(CAR, KIT)[0]!;
  const apart: HouseRules = { ...DEFAULT_RULES, chargeOnVehicle: 'negative-off' };
  const says = (machine: Machine, rules: HouseRules): string[] =>
    hookupOrder(machine, null, charger, 0, rules).flatMap(({ action }) =>
      action.kind === 'confirm' ? [action.what] : [],
    );

  it('has the negative taken off where the house wants it and the battery can be reached, and nowhere else', () => {
    expect(says(CAR, apart)).toContain('negative-off');
    expect(says(CAR, DEFAULT_RULES)).not.toContain('negative-off');
    const unreached = { ...CAR, points: CAR.points.filter((p) => p.kind !== 'battery-negative') };
    expect(says(unreached, apart)).not.toContain('negative-off');
    expect(hookupOrder(CAR, null, charger, 0, apart).at(-1)!.action.kind).toBe('pack');
  });

  it('forbids a crank once a clamp of it is on or it is plugged in, not before', () => {
    const scene = sceneFor(CAR, charger, [11.9]);
    const codes = (state: HookupState): string[] =>
      hazardsOf(scene, state, { kind: 'crank' }, DEFAULT_RULES).map(({ code }) => code);
    const post = CAR.points.find((p) => p.kind === 'battery-positive')!;
    const clamped = act(NOTHING_CONNECTED, { kind: 'attach', clamp: 'redCasualty', pointId: post.id });
    expect(codes(NOTHING_CONNECTED)).not.toContain('crank-on-charger');
    expect(codes(clamped)).toContain('crank-on-charger');
    expect(codes(act(NOTHING_CONNECTED, { kind: 'plug', in: true }))).toContain('crank-on-charger');
  });

  it('gives nothing until it is both switched on and plugged in', () => {
    const scene = sceneFor(CAR, charger, [11.9]);
    const on = act(NOTHING_CONNECTED, { kind: 'pack', on: true });
    expect(rescueOf(scene, on).sourceOn).toBeFalse();
    expect(rescueOf(scene, act(on, { kind: 'plug', in: true })).sourceOn).toBeTrue();
    expect(rescueOf(scene, act(NOTHING_CONNECTED, { kind: 'plug', in: true })).sourceOn).toBeFalse();
  });
});

describe('orders, by what the house wants', () => {
  it('start a donor’s engine, unless it is to stay off throughout', () => {
    const starts = (rules: HouseRules): boolean =>
      hookupOrder(CAR, CAR, donor, 0, rules).some(
        ({ action }) => action.kind === 'donor-engine' && action.running,
      );
    expect(starts(DEFAULT_RULES)).toBeTrue();
    expect(starts({ ...DEFAULT_RULES, donorEngine: 'off-throughout' })).toBeFalse();
  });

  it('take the link of a string off after its positive and put it on before it, and know none of a single battery', () => {
    const steps = (machine: Machine, rest: readonly number[]): string[] =>
      fittingOrder(machine, casualtyBatteries(machine, rest, 5).models, 0, 5).map(({ step }) => step);
    const string = steps(TRUCK, [12.4, 12.4]);
    expect(string.indexOf('link-off')).toBe(string.indexOf('positive-off') + 1);
    expect(string.indexOf('link-on')).toBe(string.indexOf('positive-on') - 1);
    expect(string).toContain('link-on');
    expect(steps(CAR, [12.4]).filter((step) => step.startsWith('link'))).toEqual([]);
  });
});

import { batteryOhms } from '../src/battery/index.js';
import type { ClampId } from '../src/circuit/index.js';
import {
  act,
  actByHand,
  anyClampOn,
  clampsInHand,
  clearingOrder,
  guardDark,
  type HandAction,
  type Hazard,
  hazardsOf,
  hookupOrder,
  type HookupAction,
  type HookupScene,
  type HookupState,
  isDone,
  makeSafe,
  NOTHING_CONNECTED,
  orderCost,
  orderHazards,
  PACK_END,
  permutations,
  replan,
  safestOrder,
  usualSequence,
} from '../src/hookup/index.js';
import type { Machine } from '../src/machine/index.js';
import { casualtyBatteries } from '../src/belief/index.js';
import {
  hasLooseLeads,
  planCase,
  rankOptions,
  ruledWaitMinutes,
  type SourceOption,
} from '../src/plan/index.js';
import { DEFAULT_RULES, type HouseRules } from '../src/rules/index.js';
import { CAR, CLOSED, EV, KIT, MOTORCYCLE, TRUCK } from './fixtures.js';
import { ALLOWING, optionNamed, run, SCENE_TEMP_C, sceneFor } from './scenes.js';
import { seededRandom } from '../src/quantities/index.js';
import { PROVES } from './proof-share.js';
import { sweep } from './sweep.js';

const NO_GROUND: Machine = {
  ...CAR,
  id: 'bare',
  points: CAR.points.filter((p) => p.kind !== 'ground-point'),
};
const MACHINES: readonly (readonly [Machine, readonly number[]])[] = [
  [CAR, [11.9]],
  [CAR, [6]],
  [CAR, [12.4]],
  [CLOSED, [11.7]],
  [NO_GROUND, [11.8]],
  [EV, [9]],
  [{ ...EV, id: 'hybrid', machineClass: 'hybrid' }, [11]],
  [MOTORCYCLE, [12]],
  [{ ...MOTORCYCLE, id: 'mower', machineClass: 'ride-on' }, [11.5]],
  [{ ...CAR, id: 'genset', machineClass: 'genset', gearbox: 'none' }, [12.1]],
  [{ ...CAR, id: 'boat', machineClass: 'boat', gearbox: 'none' }, [11.9]],
  [{ ...CAR, id: 'van', machineClass: 'van' }, [11.9]],
  [TRUCK, [11.7, 12.6]],
  [TRUCK, [12, 11.9]],
  [{ ...TRUCK, id: 'plant', machineClass: 'plant' }, [12.6, 11.7]],
];
const ALL_SCHOOLS: readonly Machine[] = [CAR, CLOSED, NO_GROUND, EV, TRUCK];
const SCHOOLS: readonly HouseRules[] = (['ground-point', 'negative-terminal'] as const).flatMap((lastBlack) =>
  (['casualty', 'source'] as const).flatMap((firstRed) =>
    (['reds-first', 'source-first'] as const).flatMap((clampSequence) =>
      (['off-then-run', 'off-throughout', 'running'] as const).map((donorEngine) => ({
        ...ALLOWING,
        lastBlack,
        firstRed,
        clampSequence,
        donorEngine,
      })),
    ),
  ),
);
/** Schools that stand by themselves: each with the others as they usually are. */
const SINGLE_SCHOOLS: readonly HouseRules[] = [
  { ...ALLOWING, chargeOnVehicle: 'negative-off' },
  { ...ALLOWING, motorcycleDonor: 'running' },
  { ...ALLOWING, bigConsumer: 'not' },
  { ...ALLOWING, donorRevs: 'raised' },
];

/** Every fitting way of the kit, at a socket. */
function fitting(machine: Machine, rest: readonly number[], rules = ALLOWING): SourceOption[] {
  return rankOptions(machine, KIT, casualtyBatteries(machine, rest, SCENE_TEMP_C), SCENE_TEMP_C, rules, {
    mainsNear: true,
    donorMetres: null,
  })
    .filter((r) => !r.unfit)
    .map((r) => r.option);
}

const severe = (hazards: readonly Hazard[]): Hazard[] => hazards.filter((h) => h.severity === 'severe');

/** Of all machines and schools so many in `npm test`; `npm run prove` goes through every one. */
const USUAL_SHARE = 0.05;
/** And of the wrong states that Make safe clears. */
const USUAL_STATES = 0.1;

describe('generated orders', () => {
  sweep('over all machines, sources and schools hold no severe hazard, hooking up or clearing', () => {
    let orders = 0;
    let steps = 0;
    const random = seededRandom(19);
    MACHINES.forEach(([machine, rest], i) => {
      // Every school on the machines that differ in kind; on their cousins every fourth, each another.
      const schools = ALL_SCHOOLS.includes(machine) ? SCHOOLS : SCHOOLS.filter((_, k) => k % 4 === i % 4);
      const singles =
        ALL_SCHOOLS.includes(machine) || machine.machineClass === 'motorcycle' ? SINGLE_SCHOOLS : [];
      for (const rules of [...schools, ...singles]) {
        if (!PROVES && random() >= USUAL_SHARE) continue;
        for (const option of fitting(machine, rest, rules)) {
          const scene = sceneFor(machine, option, rest);
          const order = safestOrder(scene, ruledWaitMinutes(machine, option, 0.1, rules), rules);
          const about = `${machine.id} ${rest.join('+')} ${option.id} ${JSON.stringify([rules.lastBlack, rules.firstRed, rules.clampSequence, rules.donorEngine])}`;
          orderHazards(scene, order, rules).forEach((found, i) => {
            expect(severe(found))
              .withContext(`${about}: ${JSON.stringify(order[i]!.action)}`)
              .toEqual([]);
          });
          const off = clearingOrder(order, machine, rules);
          const attached = order.flatMap((s) => (s.action.kind === 'attach' ? [s.action.clamp] : []));
          const detached = off.flatMap((s) => (s.action.kind === 'detach' ? [s.action.clamp] : []));
          expect(detached)
            .withContext(about)
            .toEqual([...attached].reverse());
          // Once it runs the casualty charges; a charger is cleared away before.
          const after = sceneFor(machine, option, rest, { casualtyRuns: !option.chargeOnly });
          const end = run(
            machine,
            order.map((s) => s.action),
          );
          orderHazards(after, off, rules, end).forEach((found, i) => {
            expect(severe(found))
              .withContext(`${about}, clearing: ${JSON.stringify(off[i]!.action)}`)
              .toEqual([]);
          });
          orders++;
          steps += order.length + off.length;
        }
      }
    });
    process.stdout.write(`\n${orders} orders, ${steps} steps, none severe\n`);
    expect(orders).toBeGreaterThan(PROVES ? 1000 : 50);
  });

  sweep(
    'in an enclosed space spark in gas no more than any other order would that ends on black with both reds on before the bodies are joined',
    () => {
      for (const [machine, rest] of [
        [CAR, [11.7]],
        [CLOSED, [11.7]],
        [TRUCK, [11.7, 12.6]],
      ] as const) {
        for (const option of fitting(machine, [...rest])) {
          const scene = sceneFor(machine, option, [...rest], { enclosed: true });
          const chosen = safestOrder(scene, 3, DEFAULT_RULES);
          const codes = severe(orderHazards(scene, chosen, DEFAULT_RULES).flat()).map((h) => h.code);
          expect(codes.every((code) => code === 'spark-in-gas' || code === 'closed-in-charging'))
            .withContext(`${machine.id} ${option.id}: ${codes.join()}`)
            .toBeTrue();
          const cost = orderCost(scene, chosen, DEFAULT_RULES);
          for (const sequence of permutations(usualSequence(DEFAULT_RULES))) {
            if (sequence.lastIndexOf('redCasualty') === 3 || sequence.lastIndexOf('redSource') === 3)
              continue;
            const other = hookupOrder(machine, scene.donor, option, 3, DEFAULT_RULES, sequence);
            if (hasLooseLeads(option))
              expect(orderCost(scene, other, DEFAULT_RULES)).toBeGreaterThanOrEqual(cost);
          }
        }
      }
    },
  );

  it('follow the school that is chosen, and tell what it costs', () => {
    const option = optionNamed(CAR, 'donor+heavy', [11.9]);
    const scene = sceneFor(CAR, option, [11.9]);
    const clamps = (rules: HouseRules): ClampId[] =>
      safestOrder(scene, 3, rules).flatMap((s) => (s.action.kind === 'attach' ? [s.action.clamp] : []));
    expect(clamps(DEFAULT_RULES)).toEqual(['redCasualty', 'redSource', 'blackSource', 'blackCasualty']);
    expect(clamps({ ...DEFAULT_RULES, firstRed: 'source' })[0]).toBe('redSource');
    const both: HouseRules = { ...DEFAULT_RULES, clampSequence: 'source-first' };
    expect(clamps(both).slice(0, 2).sort()).toEqual(['blackSource', 'redSource']);
    expect(clamps(both).slice(2)).toEqual(['redCasualty', 'blackCasualty']);
    const told = orderHazards(scene, safestOrder(scene, 3, both), both).flat();
    expect(told.map((h) => h.code)).toContain('two-live-free-clamps');
    expect(orderCost(scene, safestOrder(scene, 3, both), both)).toBeGreaterThan(
      orderCost(scene, safestOrder(scene, 3, DEFAULT_RULES), DEFAULT_RULES),
    );
  });

  it('make the last contact at the source where the casualty’s own terminal would spark in gas', () => {
    const rules: HouseRules = { ...DEFAULT_RULES, lastBlack: 'negative-terminal' };
    const scene = sceneFor(CLOSED, optionNamed(CLOSED, 'donor+heavy', [11.7]), [11.7]);
    const order = safestOrder(scene, 3, rules);
    const last = order.filter((s) => s.action.kind === 'attach').at(-1)!;
    expect(last.action).toEqual(jasmine.objectContaining({ clamp: 'blackSource' }));
    expect(last.reason).toBe('last-at-source');
  });
});

describe('make safe', () => {
  const placesFor = (machine: Machine, clamp: ClampId): readonly string[] =>
    clamp === 'redSource' || clamp === 'blackSource'
      ? ['plus', 'minus', 'ground']
      : machine.points.map((p) => p.id);

  /** Everything hands could wrongly do from here, one thing at a time. */
  function wrongs(scene: HookupScene, state: HookupState): HookupAction[] {
    const { machine, option } = scene;
    const clamps = clampsInHand(option);
    const attaches = clamps
      .filter((c) => state.clamps[c] === null)
      .flatMap((clamp) =>
        placesFor(machine, clamp).map((pointId) => ({ kind: 'attach', clamp, pointId }) as const),
      );
    const switches: HookupAction[] =
      option.sourceKind === 'donor'
        ? [{ kind: 'donor-engine', running: !state.donorRunning }]
        : option.leadSetId === null
          ? [{ kind: 'pack', on: !state.packOn }]
          : [];
    const detaches = clamps
      .filter((c) => state.clamps[c] !== null)
      .map((clamp) => ({ kind: 'detach', clamp }) as const);
    return [...attaches, ...switches, ...detaches];
  }

  /** The first severe step on the way; null when there is none. */
  function severeStep(scene: HookupScene, from: HookupState, steps: readonly HookupAction[]): string | null {
    let now = from;
    for (const step of steps) {
      const [bad] = severe(hazardsOf(scene, now, step, DEFAULT_RULES));
      if (bad) return `${JSON.stringify(step)}: ${bad.code}`;
      now = act(now, step);
    }
    return null;
  }

  /** Every other sequence of the same acts, sources stilled first. */
  const others = (steps: readonly HookupAction[]): HookupAction[][] => {
    const still = steps.filter((step) => step.kind !== 'detach');
    return permutations(steps.filter((step) => step.kind === 'detach')).map((off) => [...still, ...off]);
  };

  sweep(
    'ends clear with no severe step that another sequence avoids, from every state that up to two wrong actions reach',
    () => {
      const random = seededRandom(23);
      let states = 0;
      let unavoidable = 0;
      for (const [machine, rest, ids] of [
        [CAR, [11.9], ['donor+heavy', 'lithium@12', 'cap@12']],
        [CAR, [11], ['donor+heavy']],
        [EV, [9], ['lead@12']],
        [TRUCK, [11.7, 12.6], ['lead@24', 'lead@12#battery0']],
      ] as const) {
        for (const id of ids) {
          const option = optionNamed(machine, id, rest);
          const scene = sceneFor(machine, option, rest);
          const order = safestOrder(scene, 3, DEFAULT_RULES).map((s) => s.action);
          for (let done = 0; done <= order.length; done++) {
            const right = run(machine, order.slice(0, done));
            for (const first of wrongs(scene, right)) {
              const once = act(right, first);
              for (const state of [once, ...wrongs(scene, once).map((second) => act(once, second))]) {
                if (!PROVES && random() >= USUAL_STATES) continue;
                states++;
                const off = makeSafe(scene, state, DEFAULT_RULES);
                const now = off.reduce(act, state);
                const worst = severeStep(scene, state, off);
                // A short that stands is broken somewhere: severe only where every sequence of the same acts is.
                if (worst && others(off).some((other) => severeStep(scene, state, other) === null))
                  fail(`${machine.id} ${id} ${JSON.stringify(state.clamps)} ${worst}`);
                if (worst) unavoidable++;
                if (anyClampOn(now) || now.packOn || now.donorRunning || now.pluggedIn)
                  fail(`not clear: ${id}`);
              }
            }
          }
        }
      }
      process.stdout.write(
        `\nmake safe from ${states} wrong states, ${unavoidable} of them with a step that nothing makes mild\n`,
      );
      expect(unavoidable).toBeLessThan(states / 10);
      expect(states).toBeGreaterThan(PROVES ? 1500 : 100);
    },
  );
});

describe('replan', () => {
  const option = optionNamed(CAR, 'donor+heavy', [11.9]);
  const scene = sceneFor(CAR, option, [11.9]);
  const order = safestOrder(scene, 3, DEFAULT_RULES);
  const actions = order.map((s) => s.action);
  const on = (clamp: ClampId, pointId: string): HookupAction => ({ kind: 'attach', clamp, pointId });
  const went = (state: HookupState): HookupState => {
    const { next, later } = replan(scene, order, state, DEFAULT_RULES);
    return [next, ...later].reduce((s, step) => (step ? act(s, step.action) : s), state);
  };

  it('is the order itself while hands follow it', () => {
    for (let n = 0; n <= actions.length; n++) {
      const { done, later } = replan(scene, order, run(CAR, actions.slice(0, n)), DEFAULT_RULES);
      expect(done.length).toBe(n);
      expect(later.length).toBe(Math.max(0, actions.length - n - 1));
    }
  });

  it('takes a clamp off its wrong place first, then goes on to its own', () => {
    const state = run(CAR, [...actions.slice(0, 4), on('blackCasualty', 'minus')]);
    const { next, later } = replan(scene, order, state, DEFAULT_RULES);
    expect(next!.action).toEqual({ kind: 'detach', clamp: 'blackCasualty' });
    expect(next!.reason).toBe('wrong-place');
    expect(later[0]!.action).toEqual(on('blackCasualty', 'ground'));
  });

  it('never closes the loop on the donor’s battery, not even where it would hardly spark: what was put on too early comes off again', () => {
    const full = sceneFor(CAR, option, [12.75]);
    const planned = safestOrder(full, 3, DEFAULT_RULES);
    for (const early of ['ground', 'minus']) {
      const state = run(CAR, [...planned.slice(0, 3).map((s) => s.action), on('blackCasualty', early)]);
      const { next, later } = replan(full, planned, state, DEFAULT_RULES);
      const attached = [next!, ...later].flatMap(({ action }) => (action.kind === 'attach' ? [action] : []));
      expect(attached.at(-1))
        .withContext(early)
        .toEqual({ kind: 'attach', clamp: 'blackCasualty', pointId: 'ground' });
    }
  });

  it('goes on from a clamp put on too early', () => {
    const state = run(CAR, [on('blackCasualty', 'ground'), on('redCasualty', 'plus')]);
    const end = went(state);
    expect(end.clamps).toEqual(run(CAR, actions).clamps);
    expect(end.donorRunning).toBeTrue();
  });

  it('reaches the whole hook-up, without a severe step, from every state one wrong act away', () => {
    let states = 0;
    for (let n = 1; n <= actions.length; n++) {
      const right = run(CAR, actions.slice(0, n));
      for (const clamp of clampsInHand(option).filter((c) => right.clamps[c] === null)) {
        const points =
          clamp === 'redSource' || clamp === 'blackSource' ? ['plus', 'minus'] : CAR.points.map((p) => p.id);
        for (const pointId of points) {
          const state = act(right, { kind: 'attach', clamp, pointId });
          const { next, later } = replan(scene, order, state, DEFAULT_RULES);
          const steps = [next, ...later].filter((s) => s !== null);
          expect(orderHazards(scene, steps, DEFAULT_RULES, state).flatMap(severe))
            .withContext(`${n} ${clamp} ${pointId}`)
            .toEqual([]);
          expect(steps.reduce((s, step) => act(s, step.action), state).clamps).toEqual(
            run(CAR, actions).clamps,
          );
          states++;
        }
      }
    }
    expect(states).toBeGreaterThan(20);
  });
});

describe('hazardsOf', () => {
  it('carries the figures of the circuit: what a spanner from plus to body drives', () => {
    const option = optionNamed(CAR, 'lead@12', [12.6]);
    const scene = sceneFor(CAR, option, [12.6]);
    const [short] = hazardsOf(scene, NOTHING_CONNECTED, { kind: 'bridge', pointId: 'plus' }, DEFAULT_RULES);
    const { openVolts } = scene.batteries.models[0]!;
    const { rating, socHigh } = scene.batteries.beliefs[0]!;
    // As strong as 12.6 V allows: new, and at the full end of its band. Battery, strap and the tool itself in one loop.
    const ohms = batteryOhms(rating, { soc: socHigh, tempC: SCENE_TEMP_C, ageing: 1 });
    expect(short!.amps).toBeCloseTo(openVolts / (ohms + 0.0004 + 0.002), 0);
    expect(short!.story).toBe('strong-battery');
  });

  it('lets the negative come off first, and then the positive', () => {
    const scene = sceneFor(CAR, optionNamed(CAR, 'lead@12', [12.6]), [12.6]);
    const negative: HandAction = { kind: 'loosen', pointId: 'minus' };
    expect(hazardsOf(scene, NOTHING_CONNECTED, negative, DEFAULT_RULES)).toEqual([]);
    const open = actByHand(NOTHING_CONNECTED, negative, CAR);
    expect(hazardsOf(scene, open, { kind: 'loosen', pointId: 'plus' }, DEFAULT_RULES)).toEqual([]);
  });

  it('finds nothing severe in a try after a right hook-up', () => {
    const option = optionNamed(CAR, 'donor+heavy', [11.8]);
    const scene = sceneFor(CAR, option, [11.8]);
    const state = run(
      CAR,
      hookupOrder(CAR, CAR, option, 3, DEFAULT_RULES).map((s) => s.action),
    );
    expect(severe(hazardsOf(scene, state, { kind: 'crank' }, DEFAULT_RULES))).toEqual([]);
    expect(isDone(state, { kind: 'donor-engine', running: true })).toBeTrue();
    expect(planCase(CAR, option, scene.batteries, SCENE_TEMP_C, DEFAULT_RULES)!.waitMinutes).toBeGreaterThan(
      0,
    );
    expect(state.clamps.redSource).not.toBe(PACK_END);
  });
});

describe('a battery with two stories', () => {
  const donor = (rest: number): HookupScene => {
    const option = optionNamed(CAR, 'donor+heavy', [rest]);
    return sceneFor(CAR, option, [rest], { tempC: 20, batteries: casualtyBatteries(CAR, [rest], 20) });
  };
  /** The joined current of the last clamp, as the hazards tell it. */
  const joined = (rest: number): Hazard | undefined => {
    const scene = donor(rest);
    const order = safestOrder(scene, 0, DEFAULT_RULES).filter((s) => s.action.kind === 'attach');
    const state = run(
      CAR,
      order.slice(0, -1).map((s) => s.action),
    );
    return hazardsOf(scene, state, order.at(-1)!.action, DEFAULT_RULES).find(
      (h) => h.code === 'unequal-sources' || h.code === 'dead-short',
    );
  };

  it('is told at the current that shorted cells would let through, and says that it rests on them', () => {
    const told = joined(6.3)!;
    expect(told.story).toBe('cells-shorted');
    // By hand: donor 12.6 V behind 5 mohm, leads 8 mohm with clamps, half of a new battery 3 mohm: 6.3 V / 16 mohm is about 400 A.
    expect(told.amps!).toBeGreaterThan(250);
    expect(told.amps!).toBeLessThan(600);
  });

  it('carries more the lower it reads, and has one story from a flat battery up', () => {
    const amps = [8.4, 6.3, 4.2, 2.2, 0.5].map((rest) => joined(rest)?.amps ?? 0);
    expect(amps).toEqual([...amps].sort((a, b) => a - b));
    for (const rest of [11.2, 11.9, 12.6])
      expect(joined(rest)?.story).withContext(`${rest} V`).toBeUndefined();
  });

  it('is never told milder than what was read', () => {
    const rank = { note: 0, watch: 1, severe: 2 } as const;
    for (const rest of [3.5, 5, 7, 9, 10.5]) {
      const scene = donor(rest);
      const told = orderHazards(scene, safestOrder(scene, 3, DEFAULT_RULES), DEFAULT_RULES).flat();
      const high = {
        ...scene,
        batteries: {
          ...scene.batteries,
          beliefs: scene.batteries.beliefs.map(({ overDischargedVolts: _, ...b }) => b),
        },
      };
      const read = orderHazards(high, safestOrder(scene, 3, DEFAULT_RULES), DEFAULT_RULES).flat();
      for (const h of read)
        expect(Math.max(...told.filter((t) => t.code === h.code).map((t) => rank[t.severity])))
          .withContext(`${rest} V ${h.code}`)
          .toBeGreaterThanOrEqual(rank[h.severity]);
    }
  });
});

describe('a guard lamp that stays dark', () => {
  it('is the battery under what a guard senses, else a clamp or the pack, and not known unread', () => {
    // Most lithium packs sense from 2 V on; a string has twice that.
    expect(guardDark(1.4, 12, DEFAULT_RULES)).toBe('battery-too-low');
    expect(guardDark(2.2, 12, DEFAULT_RULES)).toBe('clamp-or-pack');
    expect(guardDark(2.2, 24, DEFAULT_RULES)).toBe('battery-too-low');
    expect(guardDark(null, 12, DEFAULT_RULES)).toBe('read-it-first');
  });
});

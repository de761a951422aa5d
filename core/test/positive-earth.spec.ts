import type { SourceKind } from '../src/sources/index.js';
import { rescueCircuit, solveDc } from '../src/circuit/index.js';
import { repairOrder } from '../src/hookup/index.js';
import {
  act,
  actByHand,
  clearingOrder,
  fittingOrder,
  type HandAction,
  hazardsOf,
  type HookupAction,
  type HookupScene,
  type HookupState,
  makeSafe,
  NOTHING_CONNECTED,
  replan,
  rescueOf,
  safestOrder,
} from '../src/hookup/index.js';
import { dataFaults, type Machine } from '../src/machine/index.js';
import { casualtyBatteries } from '../src/belief/index.js';
import { rankOptions, sourceOptions } from '../src/plan/index.js';
import { CAR, EV, KIT, TRUCK } from './fixtures.js';
import { ALLOWING, run, sceneFor } from './scenes.js';

/** The same car with its plus on the body, as very old ones have it. */
const OLD_CAR: Machine = { ...CAR, id: 'old-car', earth: 'positive' };
const REST = [11.9];

const attach = (
  clamp: 'redCasualty' | 'redSource' | 'blackSource' | 'blackCasualty',
  pointId: string,
): HookupAction => ({
  kind: 'attach',
  clamp,
  pointId,
});
const clampsOf = (steps: readonly { readonly action: HandAction }[]): string[] =>
  steps.flatMap(({ action }) => (action.kind === 'attach' ? [`${action.clamp} ${action.pointId}`] : []));
const hazardsIn = (scene: HookupScene, state: HookupState, action: HandAction) =>
  hazardsOf(scene, state, action, ALLOWING);
const severe = (scene: HookupScene, state: HookupState, action: HandAction): string[] =>
  hazardsIn(scene, state, action)
    .filter((h) => h.severity === 'severe')
    .map((h) => h.code);
const leadAmps = (scene: HookupScene, state: HookupState): number =>
  Math.abs(solveDc(rescueCircuit(rescueOf(scene, state))).amps.get('lead.red') ?? 0);

function withSource(machine: Machine, kind: SourceKind): HookupScene {
  const batteries = casualtyBatteries(machine, REST, -4);
  const option = sourceOptions(machine, KIT, batteries, -4, ALLOWING).find(
    ({ sourceKind, outputVolts }) => sourceKind === kind && outputVolts === 12,
  );
  return sceneFor(machine, option!, REST);
}
const withPack = (machine: Machine) => withSource(machine, 'lithium-pack');
const withSpare = (machine: Machine) => withSource(machine, 'spare-batteries');

describe('a machine with its plus on the body', () => {
  it('is hooked up black to minus first, and red to bare metal of the body last', () => {
    expect(clampsOf(safestOrder(withPack(OLD_CAR), 0, ALLOWING))).toEqual([
      'blackCasualty minus',
      'redCasualty ground',
    ]);
    expect(clampsOf(safestOrder(withSpare(OLD_CAR), 0, ALLOWING))).toEqual([
      'blackCasualty minus',
      'blackSource spare-minus',
      'redSource spare-plus',
      'redCasualty ground',
    ]);
  });

  it('takes no donor: the body of one is minus, and two bodies that touch would short both', () => {
    const ranked = rankOptions(OLD_CAR, KIT, casualtyBatteries(OLD_CAR, REST, -4), -4, ALLOWING, {
      mainsNear: true,
      donorMetres: null,
    });
    const donors = ranked.filter(({ option }) => option.sourceKind === 'donor');
    expect(donors.length).toBeGreaterThan(0);
    for (const { unfit } of donors) expect(unfit).toEqual({ code: 'bodies-apart' });
    const donor = sceneFor(OLD_CAR, donors[0]!.option, REST);
    expect(severe(donor, NOTHING_CONNECTED, attach('redCasualty', 'plus'))).toContain('positive-earth');
  });

  it("closes the loop that Ohm's law gives: source against battery, never the sum of both", () => {
    const scene = withPack(OLD_CAR);
    const joined = [...safestOrder(scene, 0, ALLOWING)].reduce(
      (s, { action }) => act(s, action),
      NOTHING_CONNECTED,
    );
    const { openVolts, ohms } = scene.option.source;
    const [battery] = scene.batteries.models;
    const amps = leadAmps(scene, joined);
    // Everything around the loop, from its own figures: what the two volts apart drive is known.
    const loopOhms = (openVolts - battery!.openVolts) / amps;
    expect(loopOhms).toBeGreaterThan(ohms + battery!.ohms);
    const naive = run(OLD_CAR, [attach('redCasualty', 'plus'), { kind: 'pack', on: true }]);
    // Red on plus and black on the body, as on every other machine: both are plus here, and the source is shorted.
    const shorted = hazardsIn(scene, naive, attach('blackCasualty', 'ground')).find(
      (h) => h.code === 'dead-short',
    );
    expect(shorted!.amps!).toBeCloseTo(openVolts / (loopOhms - battery!.ohms), -1);
    const crossed = run(OLD_CAR, [attach('redCasualty', 'minus'), { kind: 'pack', on: true }]);
    const sum = hazardsIn(scene, crossed, attach('blackCasualty', 'ground'));
    // Two volts in a row across what little resists them: the worst story of the battery lets a little more in than the likely one.
    const most = Math.max(...sum.map((h) => h.amps ?? 0));
    expect(most).toBeGreaterThanOrEqual((0.99 * (openVolts + battery!.openVolts)) / loopOhms);
    expect(sum.map((h) => h.code)).toContain('reversed');
  });

  it('has its mistakes told like any other: the wrong post, a spanner on the live one, minus loosened first', () => {
    const scene = withPack(OLD_CAR);
    expect(severe(scene, NOTHING_CONNECTED, attach('redCasualty', 'minus'))).toContain('will-short');
    expect(severe(scene, NOTHING_CONNECTED, attach('redCasualty', 'plus'))).toEqual([]);
    expect(severe(scene, NOTHING_CONNECTED, attach('blackCasualty', 'ground'))).toContain('will-short');
    expect(severe(scene, NOTHING_CONNECTED, { kind: 'bridge', pointId: 'minus' })).toEqual(['tool-short']);
    expect(hazardsIn(scene, NOTHING_CONNECTED, { kind: 'bridge', pointId: 'plus' })).toEqual([]);
    expect(severe(scene, NOTHING_CONNECTED, { kind: 'loosen', pointId: 'minus' })).toEqual([
      'positive-first',
    ]);
    expect(hazardsIn(scene, NOTHING_CONNECTED, { kind: 'loosen', pointId: 'plus' })).toEqual([]);
    expect(actByHand(NOTHING_CONNECTED, { kind: 'loosen', pointId: 'plus' }, OLD_CAR).negativeOff).toBeTrue();
    expect(hazardsIn(scene, NOTHING_CONNECTED, attach('redCasualty', 'minus'))[0]!.isMirrored).toBeTrue();
  });

  it('is made safe and gone on with from a wrong clamp as from a right one', () => {
    const scene = withSpare(OLD_CAR);
    const order = safestOrder(scene, 0, ALLOWING);
    const wrong = run(OLD_CAR, [{ kind: 'confirm', what: 'all-off' }, attach('redCasualty', 'minus')]);
    const { next } = replan(scene, order, wrong, ALLOWING);
    expect(next!.action).toEqual({ kind: 'detach', clamp: 'redCasualty' });
    const half = run(OLD_CAR, [{ kind: 'confirm', what: 'all-off' }, attach('blackCasualty', 'minus')]);
    expect(replan(scene, order, half, ALLOWING).next!.action).toEqual(attach('blackSource', 'spare-minus'));
    const all = order.reduce((s, { action }) => act(s, action), NOTHING_CONNECTED);
    expect(makeSafe(scene, all, ALLOWING)[0]).toEqual({ kind: 'detach', clamp: 'redCasualty' });
    const off = clearingOrder(order, OLD_CAR, ALLOWING).filter(({ action }) => action.kind === 'detach');
    expect(off[0]!.action).toEqual({ kind: 'detach', clamp: 'redCasualty' });
  });

  it('has plus off first and on last when its battery is changed or a joint is made', () => {
    const { models } = withPack(OLD_CAR).batteries;
    const posts = fittingOrder(OLD_CAR, models, 0, -4).filter(({ slipAmps }) => slipAmps !== null);
    expect(posts.map(({ step }) => step)).toEqual([
      'positive-off',
      'negative-off',
      'negative-on',
      'positive-on',
    ]);
    for (const { slipAmps } of posts) expect(slipAmps).toBe(0);
    expect(posts[1]!.otherWayAmps).toBeGreaterThan(300);
    const steps = (side: 'plus' | 'minus') =>
      repairOrder({ kind: 'joint-cleaned', side }, OLD_CAR, models, -4)
        .filter(({ slipAmps }) => slipAmps !== null)
        .map(({ step }) => step);
    expect(steps('minus')).toEqual(['plus-off', 'minus-off', 'minus-on', 'plus-on']);
    expect(steps('plus')).toEqual(['plus-off', 'plus-on']);
  });

  it('has one battery with its own posts, and an engine', () => {
    const paths = (machine: Machine) =>
      dataFaults(machine)
        .filter(({ code }) => code === 'positive-earth-unknown')
        .map(({ path }) => path);
    expect(paths(OLD_CAR)).toEqual([]);
    expect(paths({ ...TRUCK, earth: 'positive' })).toEqual(['earth']);
    expect(paths({ ...EV, earth: 'positive' })).toEqual(['earth']);
    const post = { ...CAR.points[0]!, id: 'post', kind: 'red-post' } as const;
    expect(paths({ ...OLD_CAR, points: [...CAR.points, post] })).toEqual(['earth']);
  });
});

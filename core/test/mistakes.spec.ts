import {
  type HandAction,
  actByHand,
  hazardsOf,
  type HookupScene,
  NOTHING_CONNECTED,
  replan,
  rescueOf,
  safestOrder,
} from '../src/hookup/index.js';
import { RAISED_REVS_FACTOR } from '../src/sources/index.js';
import { CAR } from './fixtures.js';
import { crank, engine, expectCaught, is, isNot, type Mistake, on, pack, placeOf } from './mistake.js';
import { MISTAKES_OF_HANDS } from './mistakes-of-hands.js';
import { joined, MISTAKES_OF_STANDING, packed, three } from './mistakes-of-standing.js';
import { ALLOWING, optionNamed, run, sceneFor } from './scenes.js';

describe('a known mistake', () => {
  const MISTAKES: readonly Mistake[] = [...MISTAKES_OF_HANDS, ...MISTAKES_OF_STANDING];

  for (const mistake of MISTAKES)
    it(`is caught: ${mistake.name}`, () => {
      const { machine, option, readings, hookup } = placeOf(mistake);
      const scene = sceneFor(machine, option, readings, mistake.more);
      expectCaught(mistake, hazardsOf(scene, hookup, mistake.slip, ALLOWING));
    });

  it('is one of at least a hundred and ten, each once', () => {
    process.stdout.write(`\n${MISTAKES.length} known mistakes caught\n`);
    expect(MISTAKES.length).toBeGreaterThanOrEqual(110);
    for (const table of [MISTAKES_OF_HANDS, MISTAKES_OF_STANDING])
      expect(new Set(table.map(({ name }) => name)).size).toBe(table.length);
  });
});

function sceneOf({ source = 'donor+heavy', rest = [11.8] }: Partial<Mistake>): HookupScene {
  return sceneFor(CAR, optionNamed(CAR, source, rest), rest);
}

describe('how things stand', () => {
  it('none of it is raised by an order that is followed', () => {
    for (const source of ['donor+heavy', 'lithium@12', 'lead@12', 'charger@12']) {
      const scene = sceneOf({ source });
      let state = NOTHING_CONNECTED;
      for (const { action } of safestOrder(scene, 3, ALLOWING)) {
        const codes: string[] = hazardsOf(scene, state, action, ALLOWING).map((h) => h.code);
        for (const code of ['not-all-off', 'guard-not-seen', 'closes-nothing', 'still-fed', 'engine-runs'])
          expect(codes)
            .withContext(`${source} ${JSON.stringify(action)}`)
            .not.toContain(code);
        state = actByHand(state, action, scene.machine);
      }
    }
  });

  it('a clamp on the wrong metal comes off first, and goes on again where it belongs', () => {
    const scene = sceneOf({});
    const order = safestOrder(scene, 3, ALLOWING);
    for (const onto of ['pipe', 'moving-part', 'isolated-body', 'thin-sheet'] as const) {
      const state = run(CAR, [...three, on('blackCasualty', 'ground', onto)]);
      const { next, later } = replan(scene, order, state, ALLOWING);
      expect(next!.action).withContext(onto).toEqual({ kind: 'detach', clamp: 'blackCasualty' });
      const end = [next!, ...later].reduce((s, { action }) => actByHand(s, action, CAR), state);
      expect(end.clamps.blackCasualty).toBe('ground');
      expect(end.onto?.blackCasualty).toBeUndefined();
    }
  });

  it('what is noted can be taken back, and the hazard goes with it', () => {
    const scene = sceneOf({});
    const noted = run(CAR, [...joined, is('gear-engaged')]);
    expect(hazardsOf(scene, noted, crank, ALLOWING).some((h) => h.code === 'may-move')).toBeTrue();
    const back = actByHand(noted, isNot('gear-engaged'), CAR);
    expect(hazardsOf(scene, back, crank, ALLOWING).some((h) => h.code === 'may-move')).toBeFalse();
  });

  it('a source that has gone off gives nothing, and gives again once it is told that it is on', () => {
    const scene = sceneOf({ source: 'lithium@12', rest: [11] });
    const isOn = (more: readonly HandAction[]): boolean =>
      rescueOf(scene, run(CAR, [...packed, pack(true), ...more])).sourceOn;
    expect(isOn([])).toBeTrue();
    expect(isOn([is('source-tripped')])).toBeFalse();
    expect(isOn([is('source-tripped'), isNot('source-tripped')])).toBeTrue();
  });

  it('an alternator that a part-charged battery asks little of is not at its end', () => {
    const codes = hazardsOf(sceneOf({ rest: [12.6] }), run(CAR, joined), engine, ALLOWING).map((h) => h.code);
    expect(codes).not.toContain('alternator-at-limit');
  });

  it('raised revs lend what their factor says', () => {
    const scene = sceneOf({ rest: [11.4] });
    const lent = (before: readonly HandAction[]): number =>
      rescueOf(scene, run(CAR, [...before, engine])).source!.alternator!.maxAmps;
    expect(lent([...joined, is('donor-revs-raised')]) / lent(joined)).toBeCloseTo(RAISED_REVS_FACTOR, 9);
    expect(lent([is('donor-revs-raised'), isNot('donor-revs-raised')])).toBe(lent([]));
  });
});

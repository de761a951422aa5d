import type { ClampId } from '../src/circuit/index.js';
import {
  act,
  clearingOrder,
  type HandAction,
  type HazardCode,
  hazardsOf,
  type HookupAction,
  type HookupScene,
  hookupOrder,
  isSound,
  NOTHING_CONNECTED,
  permutations,
  progressOf,
  replan,
  safestOrder,
} from '../src/hookup/index.js';
import type { Machine } from '../src/machine/index.js';
import { chargeOptions } from '../src/plan/index.js';
import { CAR, EV, KIT, TRUCK } from './fixtures.js';
import { ALLOWING, optionNamed, run, sceneFor } from './scenes.js';

const on = (clamp: ClampId, pointId: string): HookupAction => ({ kind: 'attach', clamp, pointId });
const isOpen: HandAction = { kind: 'circumstance', what: 'isolator-open', on: true };
const codesOf = (scene: HookupScene, before: readonly HandAction[], slip: HandAction): HazardCode[] =>
  hazardsOf(scene, run(scene.machine, before), slip, ALLOWING).map(({ code }) => code);
const donorScene = sceneFor(CAR, optionNamed(CAR, 'donor+heavy', [11.9]), [11.9]);
/** The charger on a machine, across one battery of a string. */
const chargerFor = (machine: Machine, rest: readonly number[], across = 0): HookupScene =>
  sceneFor(machine, chargeOptions(machine, KIT)[across]!, rest);

describe('a sequence of clamps', () => {
  it('is sound where both reds are on before the bodies are joined, and no donor’s battery is last', () => {
    const all = permutations<ClampId>(['redCasualty', 'redSource', 'blackSource', 'blackCasualty']);
    expect(all.length).toBe(24);
    for (const sequence of all) {
      // By hand: what joins the bodies is the later of the blacks.
      const joins = sequence.map((c) => c.startsWith('black')).lastIndexOf(true);
      const redsBefore = sequence.slice(0, joins).filter((c) => c.startsWith('red')).length === 2;
      expect(isSound(sequence, true)).withContext(sequence.join()).toBe(redsBefore);
      expect(isSound(sequence, false))
        .withContext(sequence.join())
        .toBe(redsBefore && sequence[3] === 'blackCasualty');
    }
    // One black may be on before the reds.
    expect(isSound(['blackSource', 'redSource', 'redCasualty', 'blackCasualty'], false)).toBeTrue();
  });
});

describe('charging a battery that is closed in', () => {
  const [battery] = CAR.batteries;
  const boot: Machine = { ...CAR, batteries: [{ ...battery!, closedIn: true }] };

  const switched = (scene: HookupScene, before: readonly HandAction[]): boolean =>
    codesOf(scene, before, { kind: 'pack', on: true }).includes('closed-in-charging');

  it('is told as it is switched on with the red on that battery, and not of a battery beside it', () => {
    expect(switched(chargerFor(boot, [11.9]), [on('redCasualty', 'plus')])).toBeTrue();
    expect(switched(chargerFor(boot, [11.9]), [on('blackCasualty', 'ground')])).toBeFalse();
    expect(switched(chargerFor(CAR, [11.9]), [on('redCasualty', 'plus')])).toBeFalse();
    // The upper of two is on a rack, the lower in a box.
    const [lower, upper] = TRUCK.batteries;
    const truck: Machine = { ...TRUCK, batteries: [{ ...lower!, closedIn: true }, upper!] };
    const plusOf = (battery: number): string =>
      truck.points.find((p) => p.kind === 'battery-positive' && (p.battery ?? 0) === battery)!.id;
    const scene = chargerFor(truck, [11.9, 11.9]);
    expect(switched(scene, [on('redCasualty', plusOf(1))])).toBeFalse();
    expect(switched(scene, [on('redCasualty', plusOf(0))])).toBeTrue();
  });
});

describe('a machine that is woken', () => {
  it('is never cranked, whatever is on', () => {
    const machine: Machine = { ...EV, points: CAR.points };
    const scene = sceneFor(machine, optionNamed(machine, 'lead@12', [11.6]), [11.6]);
    const before = [
      on('redCasualty', 'plus'),
      on('blackCasualty', 'ground'),
      { kind: 'pack', on: true },
    ] as const;
    expect(codesOf(scene, before, { kind: 'crank' })).toEqual([]);
  });
});

describe('a loop that closes nothing', () => {
  const three = [on('redCasualty', 'plus'), on('redSource', 'plus'), on('blackSource', 'minus')];
  const pack = sceneFor(CAR, optionNamed(CAR, 'lead@12', [11.9]), [11.9]);
  const both = [on('redCasualty', 'plus'), on('blackCasualty', 'ground')];

  it('is told once all of it is on, and not while a clamp hangs, a source is off, or the body is whole', () => {
    const last = on('blackCasualty', 'ground');
    expect(codesOf(donorScene, [isOpen, ...three], last)).toContain('closes-nothing');
    expect(codesOf(donorScene, three, last)).not.toContain('closes-nothing');
    expect(codesOf(donorScene, three.slice(0, 2), isOpen)).not.toContain('closes-nothing');
    expect(codesOf(pack, both, isOpen)).not.toContain('closes-nothing');
    expect(codesOf(pack, [...both, isOpen], { kind: 'pack', on: true })).toContain('closes-nothing');
  });
});

describe('a battery that is charged off the body', () => {
  it('is one alone: a string stays where it is', () => {
    const apart = { ...ALLOWING, chargeOnVehicle: 'negative-off' } as const;
    const orderOf = ({ machine, option }: HookupScene) => hookupOrder(machine, null, option, 0, apart);
    const takesOff = (scene: HookupScene): boolean =>
      orderOf(scene).some(({ action }) => JSON.stringify(action).includes('negative-off'));
    const blackOf = (scene: HookupScene): string =>
      orderOf(scene).flatMap(({ action }) =>
        action.kind === 'attach' && action.clamp === 'blackCasualty' ? [action.pointId] : [],
      )[0]!;
    expect(takesOff(chargerFor(CAR, [11.9]))).toBeTrue();
    const minus = CAR.points.find(({ kind }) => kind === 'battery-negative')!;
    expect(blackOf(chargerFor(CAR, [11.9]))).toBe(minus.id);
    expect(takesOff(chargerFor(TRUCK, [11.9, 11.9]))).toBeFalse();
  });
});

describe('clearing down a machine with its plus on the body', () => {
  it('is told as that machine has it, clamp by clamp', () => {
    const old: Machine = { ...CAR, id: 'old-car', earth: 'positive' };
    const scene = sceneFor(old, optionNamed(old, 'lead@12', [11.9]), [11.9]);
    const order = safestOrder(scene, 0, ALLOWING);
    const off = clearingOrder(order, old, ALLOWING);
    const clamps = (steps: typeof order, kind: string): string[] =>
      steps.flatMap(({ action }) => (action.kind === kind && 'clamp' in action ? [action.clamp] : []));
    // Last on, first off: on an old car that is the red on the body.
    expect(clamps(off, 'detach')).toEqual(clamps(order, 'attach').reverse());
    expect(off.filter(({ action }) => action.kind === 'detach').every((step) => step.isMirrored)).toBeTrue();
    expect(
      clearingOrder(safestOrder(donorScene, 0, ALLOWING), CAR, ALLOWING).some((s) => s.isMirrored),
    ).toBeFalse();
  });
});

describe('an order that was begun', () => {
  const orderFor = (scene: HookupScene) => safestOrder(scene, 3, ALLOWING);
  const scenes = [
    donorScene,
    sceneFor(CAR, optionNamed(CAR, 'lead@12', [11.9]), [11.9]),
    sceneFor(TRUCK, optionNamed(TRUCK, 'lead@24', [11.9, 12]), [11.9, 12]),
  ];

  it('goes on as it stands, step by step, and with a look that was taken early', () => {
    for (const scene of scenes) {
      const order = orderFor(scene);
      const late = order.filter(({ action }) => action.kind === 'confirm').at(-1)!;
      for (let count = 0; count <= order.length; count++) {
        const state = order.slice(0, count).reduce((s, { action }) => act(s, action), NOTHING_CONNECTED);
        expect(replan(scene, order, state, ALLOWING)).toEqual(progressOf(order, state));
        const early = act(state, late.action);
        expect(replan(scene, order, early, ALLOWING)).toEqual(progressOf(order, early));
      }
    }
  });

  it('is made anew where a clamp went on before its turn', () => {
    for (const scene of scenes) {
      const order = orderFor(scene);
      const clamps = order.filter(({ action }) => action.kind === 'attach');
      const state = act(NOTHING_CONNECTED, clamps.at(-1)!.action);
      const { next, later } = replan(scene, order, state, ALLOWING);
      const left = [next!, ...later];
      const codes = new Set<string>();
      left.reduce((s, { action }) => {
        for (const hazard of hazardsOf(scene, s, action, ALLOWING))
          if (hazard.severity === 'severe') codes.add(hazard.code);
        return act(s, action);
      }, state);
      expect([...codes]).toEqual([]);
      // Every clamp of the order ends where the order has it.
      const end = left.reduce((s, { action }) => act(s, action), state);
      for (const { action } of clamps)
        if (action.kind === 'attach') expect(end.clamps[action.clamp]).toBe(action.pointId);
    }
  });
});

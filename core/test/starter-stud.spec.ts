import { rescueCircuit, solveDc, STARTER_CABLE_OHMS, voltsAcross } from '../src/circuit/index.js';
import { crankPoint } from '../src/crank/index.js';
import {
  hookupOrder,
  hazardsOf,
  type HookupState,
  NOTHING_CONNECTED,
  orderHazards,
  rescueOf,
  safestOrder,
} from '../src/hookup/index.js';
import { dataFaults, type Machine } from '../src/machine/index.js';
import { clampPoints, terminalOf } from '../src/plan/index.js';
import { DEFAULT_RULES } from '../src/rules/index.js';
import { CAR } from './fixtures.js';
import { optionNamed, run, sceneFor } from './scenes.js';

/** A machine whose battery lies buried: its starter's stud and its frame are all that can be reached. */
const BURIED: Machine = {
  ...CAR,
  id: 'buried',
  points: [
    ...CAR.points.filter((p) => p.kind === 'ground-point'),
    {
      id: 'stud',
      kind: 'starter-stud',
      label: 'Starter stud',
      xMm: 900,
      yMm: 1500,
      steps: ['Under the belly pan.'],
    },
  ],
};
const option = optionNamed(CAR, 'donor+heavy', [11.6]);
const scene = sceneFor(BURIED, option, [11.6]);
const order = safestOrder(scene, 0, DEFAULT_RULES);

describe('the stud of the starter as the red point', () => {
  it('is taken where neither a post nor a terminal can be reached, and only there', () => {
    expect(dataFaults(BURIED)).toEqual([]);
    expect(clampPoints(BURIED, { kind: 'whole' }, DEFAULT_RULES).red.id).toBe('stud');
    expect(terminalOf(BURIED, 'stud')).toEqual({ kind: 'starter' });
    const both = { ...CAR, points: [...CAR.points, BURIED.points.at(-1)!] };
    expect(clampPoints(both, { kind: 'whole' }, DEFAULT_RULES).red.kind).toBe('battery-positive');
  });

  it('has the machine secured before anything is clamped, and no other machine has', () => {
    const kinds = order.map(({ action }) => (action.kind === 'confirm' ? action.what : action.kind));
    expect(kinds.slice(0, 2)).toEqual(['all-off', 'machine-secured']);
    expect(kinds.indexOf('machine-secured')).toBeLessThan(kinds.indexOf('attach'));
    const usual = hookupOrder(CAR, CAR, option, 0, DEFAULT_RULES).map(({ action }) => action);
    expect(usual.some((a) => a.kind === 'confirm' && a.what === 'machine-secured')).toBeFalse();
    for (const found of orderHazards(scene, order, DEFAULT_RULES))
      expect(found.filter(({ severity }) => severity === 'severe')).toEqual([]);
  });

  it('is severe to clamp on before that', () => {
    const codes = (state: HookupState): string[] =>
      hazardsOf(scene, state, { kind: 'attach', clamp: 'redCasualty', pointId: 'stud' }, DEFAULT_RULES)
        .filter(({ severity }) => severity === 'severe')
        .map(({ code }) => code);
    expect(codes(NOTHING_CONNECTED)).toContain('machine-not-secured');
    const secured = run(BURIED, [
      { kind: 'confirm', what: 'all-off' },
      { kind: 'confirm', what: 'machine-secured' },
    ]);
    expect(codes(secured)).not.toContain('machine-not-secured');
  });

  it('reaches the battery through the main cable, and the starter without it', () => {
    const on = run(
      BURIED,
      order.map(({ action }) => action),
    );
    const rescue = rescueOf(scene, on);
    const solution = solveDc(rescueCircuit(rescue));
    const cable = voltsAcross(solution, 'casualty.starter', 'casualty.battery0+');
    const amps = Math.abs(solution.amps.get('lead.red')!);
    expect(amps).toBeGreaterThan(5);
    expect(Math.abs(cable)).toBeCloseTo(amps * STARTER_CABLE_OHMS, 6);
    // The helper's current does not pass the cable on its way to the starter: it turns no slower than from the battery's own post.
    const post = sceneFor(CAR, option, [11.6]);
    const atPost = rescueOf(
      post,
      run(
        CAR,
        safestOrder(post, 0, DEFAULT_RULES).map(({ action }) => action),
      ),
    );
    expect(crankPoint(rescue, CAR.engine!).rpm).toBeGreaterThan(crankPoint(atPost, CAR.engine!).rpm * 0.999);
  });
});

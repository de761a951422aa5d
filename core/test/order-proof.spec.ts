import type { ClampId } from '../src/circuit/index.js';
import {
  act,
  clearingOrder,
  contactAt,
  hazardsOf,
  type HookupScene,
  type HookupState,
  type HookupStep,
  NOTHING_CONNECTED,
  safestOrder,
  type StepReason,
} from '../src/hookup/index.js';
import { dataFaults, type Machine, pointOf } from '../src/machine/index.js';
import { casualtyBatteries } from '../src/belief/index.js';
import { rankOptions, type SourceOption } from '../src/plan/index.js';
import { seededRandom } from '../src/quantities/index.js';
import type { HouseRules } from '../src/rules/index.js';
import { BATTERY_STATES, EVERY_KIT, EVERY_MACHINE, EVERY_SCHOOL } from './order-proof.js';
import { PROVES, shareOf } from './proof-share.js';
import { ALLOWING, sceneFor } from './scenes.js';

const TEMP_C = -4;
const VAN = EVERY_MACHINE.find((m) => m.id === 'service-van')!;

interface Case {
  readonly machine: Machine;
  readonly option: SourceOption;
  readonly rules: HouseRules;
  readonly state: string;
  readonly scene: HookupScene;
  readonly order: readonly HookupStep[];
}

const FELLOW: Readonly<Record<ClampId, ClampId>> = {
  redCasualty: 'blackCasualty',
  blackCasualty: 'redCasualty',
  redSource: 'blackSource',
  blackSource: 'redSource',
};

/** Returns the fault of an order, told from its clamps alone: no circuit and no hazard is asked. */
function wrongs({ machine, option, order, scene }: Case): string[] {
  // With plus on the body every clamp stands where its fellow stands elsewhere.
  const isTurned = machine.earth === 'positive';
  const attached = order.flatMap(({ action }) =>
    action.kind === 'attach' ? [isTurned ? { ...action, clamp: FELLOW[action.clamp] } : action] : [],
  );
  const last = attached.at(-1)!;
  const on = new Set<ClampId>();
  const found: string[] = [];
  for (const { clamp } of attached) {
    on.add(clamp);
    const areBodiesJoined = on.has('blackCasualty') && on.has('blackSource');
    const isRedFree = on.has('redCasualty') !== on.has('redSource');
    if (option.leadSetId !== null && areBodiesJoined && isRedFree)
      found.push('live free red end, bodies joined');
  }
  if (last.clamp === 'redCasualty' || last.clamp === 'redSource') found.push('ends on a red clamp');
  if (last.clamp === 'blackSource' && scene.donor) {
    const point = pointOf(scene.donor, last.pointId);
    if (point.kind !== 'ground-point') found.push("ends on the donor's battery");
  }
  if (last.clamp === 'blackCasualty') {
    const { kind } = pointOf(machine, last.pointId);
    const bodyPost = isTurned ? 'battery-positive' : 'battery-negative';
    if (kind !== 'ground-point' && kind !== bodyPost) found.push(`ends on ${kind}`);
  }
  return found;
}

function casesOf(machine: Machine, state: string, rules: HouseRules): Case[] {
  const rest = machine.batteries.map((_, i) =>
    i === 0 || state === 'full' ? BATTERY_STATES[state]! : BATTERY_STATES.full!,
  );
  const batteries = casualtyBatteries(machine, rest, TEMP_C);
  return rankOptions(machine, EVERY_KIT, batteries, TEMP_C, rules, { mainsNear: true, donorMetres: null })
    .filter((ranked) => !ranked.unfit)
    .map(({ option }) => {
      const scene: HookupScene = {
        machine,
        donor: option.sourceKind === 'donor' ? VAN : null,
        option,
        batteries,
        tempC: TEMP_C,
        enclosed: false,
        casualtyRuns: false,
      };
      return { machine, option, rules, state, scene, order: safestOrder(scene, 3, rules) };
    });
}

const nameOf = ({ machine, option, state, rules }: Case): string =>
  `${machine.id}, ${option.id}, ${state}, ${rules.clampSequence}, first red ${rules.firstRed}, last black ${rules.lastBlack}`;

describe('orders over the whole atlas', () => {
  it('end on a black clamp away from every donor, and never leave a live red end free between joined bodies', () => {
    const random = seededRandom(41);
    const share = shareOf(0.0007);
    const found = new Map<string, string[]>();
    let orders = 0;
    for (const machine of EVERY_MACHINE)
      for (const state of Object.keys(BATTERY_STATES))
        for (const rules of EVERY_SCHOOL) {
          if (random() >= share) continue;
          for (const one of casesOf(machine, state, rules)) {
            orders++;
            for (const wrong of wrongs(one)) found.set(wrong, [...(found.get(wrong) ?? []), nameOf(one)]);
          }
        }
    for (const [wrong, cases] of found)
      fail(`${wrong}: ${cases.length} of ${orders} orders, such as ${cases[0]!}`);
    process.stdout.write(`\n${orders} orders over the whole atlas\n`);
    expect(orders).toBeGreaterThan(80);
  }, 1_200_000);

  it('say nothing untrue: each reason holds in the solved state that its step finds', () => {
    const random = seededRandom(43);
    const share = shareOf(0.0008) / 2;
    const untrue = new Map<string, string>();
    const told = new Set<string>();
    let steps = 0;
    for (const machine of EVERY_MACHINE)
      for (const state of ['full', 'flat', 'shorted cell'])
        for (const rules of EVERY_SCHOOL) {
          if (random() >= share) continue;
          for (const one of casesOf(machine, state, rules)) {
            const runs = { ...one.scene, casualtyRuns: !one.option.chargeOnly };
            const off = clearingOrder(one.order, machine, rules);
            let at = NOTHING_CONNECTED;
            for (const [i, step] of [...one.order, ...off].entries()) {
              const scene = i < one.order.length ? one.scene : runs;
              const why = untruth(scene, at, step, rules);
              told.add(step.reason);
              if (why) untrue.set(`${step.reason}: ${why}`, nameOf(one));
              at = act(at, step.action);
              steps++;
            }
          }
        }
    for (const [what, where] of untrue) fail(`${what}, as in ${where}`);
    expect(steps).toBeGreaterThan(400);
    expect(told.size).toBeGreaterThan(15);
  }, 1_200_000);

  it('end on a red clamp where plus is on the body, and have no severe step that the same machine with minus there has not', () => {
    const old = EVERY_MACHINE.map((machine): Machine => ({ ...machine, earth: 'positive' })).filter(
      (machine) => dataFaults(machine).length === 0,
    );
    expect(old.length).toBeGreaterThan(15);
    let orders = 0;
    for (const [i, machine] of old.entries())
      for (const volts of [12.6, 11.7, 8]) {
        if (!PROVES && i % 4 !== 0) continue;
        const batteries = casualtyBatteries(machine, [volts], -4);
        const ranked = rankOptions(machine, EVERY_KIT, batteries, -4, ALLOWING, {
          mainsNear: true,
          donorMetres: null,
        });
        for (const { option, unfit } of ranked) {
          if (unfit) continue;
          const scene = sceneFor(machine, option, [volts]);
          const order = safestOrder(scene, 0, ALLOWING);
          const twin = { ...machine, earth: undefined };
          const usual = safestOrder(sceneFor(twin, option, [volts]), 0, ALLOWING);
          const last = order.filter(({ action }) => action.kind === 'attach').at(-1)!.action;
          const name = `${machine.id}, ${option.id}, ${volts} V`;
          expect(JSON.stringify(last)).withContext(name).toContain('"clamp":"red');
          // No worse than the same machine with minus on its body.
          expect(severeSteps(scene, order))
            .withContext(name)
            .toBe(severeSteps(sceneFor(twin, option, [volts]), usual));
          orders++;
        }
      }
    expect(orders).toBeGreaterThan(50);
  });
});

const DEAD: readonly StepReason[] = [
  'red-first',
  'red-free-end-weak',
  'pack-still-off',
  'pack-black',
  'cells-unplugged',
  'cells-unplugged-black',
  'charger-dead',
  'charger-black',
  'black-not-last',
  'loop-open',
];

/** Returns the untrue part of a step's reason; null when all of it is true. */
function untruth(scene: HookupScene, state: HookupState, step: HookupStep, rules: HouseRules): string | null {
  const { action, reason, rule } = step;
  if (action.kind !== 'attach' && action.kind !== 'detach') return null;
  const pointId = action.kind === 'attach' ? action.pointId : state.clamps[action.clamp]!;
  const { contactAmps, metresToBattery } = contactAt(scene, state, action.clamp, pointId, rules);
  const own = action.clamp === 'blackCasualty' ? pointOf(scene.machine, pointId) : null;
  const free = Object.values(act(state, action).clamps).filter((at) => at === null).length;
  if (DEAD.includes(reason) && contactAmps > 0.05) return `${contactAmps.toFixed(1)} A flow`;
  if ((reason === 'donor-black' || reason === 'helper-black') && free !== 1) return `${free} clamps are free`;
  if (reason === 'two-ends-live' && free < 2) return 'no two ends are free';
  if ((reason === 'last-away-from-battery' || reason === 'broken-away') && own && metresToBattery! < 0.5)
    return `${metresToBattery!} m from the battery`;
  if (reason === 'last-near-battery' && (own?.kind !== 'ground-point' || metresToBattery! >= 0.5))
    return 'is no ground point near the battery';
  if (reason === 'last-at-battery' && scene.machine.points.some((p) => p.kind === 'ground-point'))
    return 'a ground point is known';
  if (
    reason === 'last-at-battery-ruled' &&
    rules.lastBlack !== 'negative-terminal' &&
    !scene.option.chargeOnly
  )
    return 'no house rule says so';
  if (rule === 'lastBlack' && (rules.lastBlack === 'ground-point') !== (own?.kind === 'ground-point'))
    return 'departs from the house rule that it names';
  if (rule === 'firstRed' && (rules.firstRed === 'casualty') !== (state.clamps.redSource === null))
    return 'departs from the house rule that it names';
  return null;
}

/** How many severe steps an order has. */
function severeSteps(scene: HookupScene, order: ReturnType<typeof safestOrder>): number {
  let state = NOTHING_CONNECTED;
  let found = 0;
  for (const { action } of order) {
    found += hazardsOf(scene, state, action, ALLOWING).filter((h) => h.severity === 'severe').length;
    state = act(state, action);
  }
  return found;
}

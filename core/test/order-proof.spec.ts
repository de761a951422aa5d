import type { ClampId } from '../src/circuit/index.js';
import { type HookupScene, type HookupStep, safestOrder } from '../src/hookup/index.js';
import { type Machine, pointOf } from '../src/machine/index.js';
import { casualtyBatteries, rankOptions, type SourceOption } from '../src/plan/index.js';
import { seededRandom } from '../src/quantities/index.js';
import type { HouseRules } from '../src/rules/index.js';
import { BATTERY_STATES, EVERY_KIT, EVERY_MACHINE, EVERY_SCHOOL } from './order-proof.js';

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

/** What is wrong with an order, told from its clamps alone: no circuit and no hazard is asked. */
function wrongs({ machine, option, order, scene }: Case): string[] {
  const attached = order.flatMap(({ action }) => (action.kind === 'attach' ? [action] : []));
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
    if (kind !== 'ground-point' && kind !== 'battery-negative') found.push(`ends on ${kind}`);
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
    const share = Number(process.env.PROVE_SHARE ?? '0.004');
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
    expect(orders).toBeGreaterThan(500);
  }, 1_200_000);
});

import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT } from './steps.mjs';

const FLOORS = ['job', 'plan', 'rules', 'quantities'];
const RUNS = 7;
const SEED = 20;
const FINE_SAMPLES = 1000;

/** Median of a list of figures. */
const median = (list) => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)];

/** The time that Plan takes to search the ways of a usual van, and its growth with the kit. */
export async function benchPlan() {
  const core = Object.assign(
    {},
    ...(await Promise.all(FLOORS.map((floor) => import(`../core/dist/src/${floor}/index.js`)))),
  );
  const read = (file) => JSON.parse(readFileSync(join(ROOT, 'demo', file), 'utf8'));
  const { vans } = read('house.json');
  const machine = read('atlas.json').machines.find((m) => m.id === 'brinmoor-pella');
  const at = '2027-01-15T02:40:00.000Z';
  const event = (type, data, n) => ({ id: `e${n}`, jobId: 'bench', at, by: 'crew-1', type, data });
  const job = core.foldJob([
    event(
      'job.opened',
      { callId: 'c', callNumber: 1, title: 'Bench', placeName: 'Yard', modelId: machine.id, ambientC: -4 },
      1,
    ),
    event('reading.taken', { kind: 'rest', volts: 11.75, battery: 0, tempC: -4, source: 'typed' }, 2),
  ]);
  const rules = core.DEFAULT_RULES;
  /** The van's kit, and so many packs and lead sets more. */
  const kitOf = (more) => {
    const [first] = vans;
    const packs = first.kit.filter((k) => k.kind === 'lithium-pack');
    const others = Array.from({ length: more }, (_, i) => ({ ...packs[0], id: `more-${i}` }));
    return [...first.kit, ...others];
  };
  const inputOf = (kit) => {
    const ranked = core.rankForJob(job, machine, kit, rules);
    return core.waysInput(job, machine, kit, ranked, core.planCases(job, machine, ranked, rules), rules, at);
  };

  const print = (name, text) => process.stdout.write(`${name.padEnd(34)} ${text}\n`);
  let first = null;
  for (const more of [0, 6, 12, 24]) {
    const kit = kitOf(more);
    const input = inputOf(kit);
    const runs = Array.from({ length: RUNS }, () => {
      const begun = performance.now();
      const search = core.waysOneByOne(input, SEED, core.WAY_SAMPLES);
      const [firstWay] = search.next().value;
      const firstMs = performance.now() - begun;
      const ways = [firstWay, ...Array.from(search, ([way]) => way)];
      const coarseMs = performance.now() - begun;
      return { firstMs, coarseMs, points: ways.reduce((sum, w) => sum + w.points.length, 0) };
    });
    const coarseMs = median(runs.map((r) => r.coarseMs));
    const { points } = runs[0];
    first ??= coarseMs / points;
    print(
      `ways of ${kit.length} pieces, ${points} figures`,
      `first ${median(runs.map((r) => r.firstMs)).toFixed(0)} ms; all ${coarseMs.toFixed(0)} ms; growth a figure ${(coarseMs / points / first).toFixed(2)}`,
    );
  }
  const input = inputOf(kitOf(0));
  const fine = Array.from({ length: 3 }, () => {
    const begun = performance.now();
    core.waysOf(input, SEED, FINE_SAMPLES);
    return performance.now() - begun;
  });
  print('the second, finer pass', `${median(fine).toFixed(0)} ms`);
}

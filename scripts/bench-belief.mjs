import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT } from './steps.mjs';

const SEED = 20;
const AT = '2027-01-15T02:40:00.000Z';
/** Findings of a usual job before its plan. */
const FINDINGS = [
  ['symptom.recorded', { symptom: 'rapid-click' }],
  ['finding.recorded', { check: 'ask-left-on', found: 'yes' }],
  ['finding.recorded', { check: 'look-joints', found: 'clean' }],
  ['reading.taken', { kind: 'rest', volts: 11.75, battery: 0, tempC: -4, source: 'typed' }],
];

/**
 * The cost of the belief: its crowd, a population, a try, the ways of a plan, and how they grow.
 *
 * @param core every floor of the core
 * @param medianMs median time of a task over so many runs
 */
export function benchBelief(core, medianMs, print) {
  const read = (file) => JSON.parse(readFileSync(join(ROOT, 'demo', file), 'utf8'));
  const [van] = read('house.json').vans;
  const machine = read('atlas.json').machines.find((m) => m.id === 'brinmoor-pella');
  const event = ([type, data], n) => ({ id: `e${n}`, jobId: 'bench', at: AT, by: 'crew-1', type, data });
  const opened = {
    callId: 'c',
    callNumber: 1,
    title: 'Bench',
    placeName: 'Yard',
    modelId: machine.id,
    ambientC: -4,
  };
  const job = core.foldJob([['job.opened', opened], ...FINDINGS].map(event));
  const situationWith = (kit) =>
    core.situationOf(job, { machine, donor: null, kit, earlierFlatCalls: 0 }, core.DEFAULT_RULES);
  const planOf = (kit) => {
    const situation = situationWith(kit);
    const ranked = core.rankForJob(situation);
    const cases = core.planCases(situation, ranked);
    return {
      input: core.waysInput(job, situation, ranked, cases, AT),
      findings: core.findingsOfJob(job, situation),
    };
  };
  const { input, findings } = planOf(van.kit);
  const { profile, evidence } = findings;
  const random = () => core.seededRandom(SEED);

  const crowd = core.drawCrowd(profile);
  print(
    'crowd drawn',
    `${medianMs(5, () => core.drawCrowd(profile)).toFixed(0)} ms; ${crowd.machines.length} machines`,
  );
  // A crowd that was asked nothing yet works out what each machine shows.
  const fresh = Array.from({ length: 3 }, () => core.drawCrowd(profile));
  const first = fresh.map((one) => {
    const begun = performance.now();
    core.proposals(one, evidence, core.TOOLS);
    return performance.now() - begun;
  });
  print(
    'next checks ranked, first; again',
    `${first.sort((a, b) => a - b)[1].toFixed(0)} ms; ${medianMs(9, () => core.proposals(crowd, evidence, core.TOOLS)).toFixed(0)} ms`,
  );
  print(
    'a rest reading weighed',
    `${medianMs(9, () => core.weigh(crowd, [{ check: 'rest', found: 11.7 }])).toFixed(1)} ms`,
  );
  print(
    'population of 1000',
    `${medianMs(9, () => core.populationOf(core.copiesOf(crowd, findings, random()), 1000, random())).toFixed(0)} ms`,
  );

  const copies = core.copiesOf(crowd, findings, random());
  const { plan } = input.options[0];
  const moment = core.afterWait(plan);
  let perMachine = null;
  for (const count of [250, 1000, 4000]) {
    const population = core.populationOf(copies, count, random());
    const ms = medianMs(9, () => core.startShare(moment, plan.engine, population));
    perMachine ??= ms / count;
    print(
      `odds of ${count} machines`,
      `${ms.toFixed(1)} ms; ${((ms / count) * 1000).toFixed(1)} us a machine; growth ${(ms / count / perMachine).toFixed(2)}`,
    );
  }
  const population = core.populationOf(copies, 1000, random());
  const tries = [{ at: AT, repaired: 0, moment, outcome: 'slow', lowestVolts: 8.1 }];
  const tried = { ...findings, tries };
  print(
    'a population after a try',
    `${medianMs(9, () => core.copiesOf(crowd, tried, random())).toFixed(0)} ms; ${copies.machines.length} copies`,
  );
  const packs = van.kit.filter(({ kind }) => kind === 'lithium-pack');
  let perFigure = null;
  for (const more of [0, 6, 18]) {
    const kit = [...van.kit, ...Array.from({ length: more }, (_, i) => ({ ...packs[0], id: `more-${i}` }))];
    const asked = planOf(kit).input;
    for (const [pass, machines] of [
      ['first', 200],
      ['fine', 1000],
    ]) {
      const small = core.firstOf(population, machines);
      const ms = medianMs(3, () => core.waysOf(asked, small, SEED));
      const figures = core.waysOf(asked, small, SEED).reduce((sum, { points }) => sum + points.length, 0);
      if (pass === 'first') perFigure ??= ms / figures;
      const grown = pass === 'first' ? `; growth a figure ${(ms / figures / perFigure).toFixed(2)}` : '';
      print(`ways of ${kit.length} pieces, ${pass} pass`, `${ms.toFixed(0)} ms; ${figures} figures${grown}`);
    }
  }
}

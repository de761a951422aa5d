import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, test } from '../support/fixtures';

const CORE = join(import.meta.dirname, '../../core/dist/src');

/** Draws crowds and populations of two machines and returns the decisions that follow. It runs in Node and in the browser alike. */
async function decisions(core: string): Promise<unknown> {
  const floor = async (name: string) =>
    (await import(/* @vite-ignore */ `${core}/${name}/index.js`)) as Record<string, never>;
  const all = Object.assign({}, ...(await Promise.all(['quantities', 'diagnosis', 'belief'].map(floor)))) as {
    seededRandom: (seed: number) => unknown;
    drawCrowd: (profile: unknown) => { machines: { batteries: { soc: number }[]; plusOhms: number }[] };
    diagnose: (crowd: unknown, evidence: unknown) => { cause: string }[];
    proposals: (crowd: unknown, evidence: unknown, tools: unknown) => { check: string }[];
    copiesOf: (crowd: unknown, findings: unknown, random: unknown) => unknown;
    populationOf: (copies: unknown, count: number, random: unknown) => Drawn;
    TOOLS: unknown;
  };
  interface Drawn {
    machines: { draw: Record<string, number>; hidden: { cause: string } }[];
  }
  const rating = { chemistry: 'flooded', capacityAh: 60, ccaAmps: 540, ccaStandard: 'EN' };
  const engines = [
    { fuel: 'petrol', displacementL: 1.6, cylinders: 4, systemVolts: 12 },
    { fuel: 'diesel', displacementL: 9, cylinders: 6, systemVolts: 24 },
  ];
  return engines.map((engine) => {
    const profile = { machineClass: 'car', systemVolts: engine.systemVolts, engine, rating, tempC: -7 };
    const crowd = all.drawCrowd(profile);
    const evidence = [
      { check: 'symptom', found: 'slow-crank' },
      { check: 'rest', found: 11.9 },
      { check: 'look-joints', found: 'clean' },
    ];
    const findings = { profile, repairs: [], earlier: null, evidence, tries: [] };
    const random = all.seededRandom(5);
    const population = all.populationOf(all.copiesOf(crowd, findings, random), 200, random);
    return {
      drawn: crowd.machines.slice(0, 400).map(({ batteries, plusOhms }) => [batteries[0]!.soc, plusOhms]),
      causes: all.diagnose(crowd, evidence).map(({ cause }) => cause),
      next: all.proposals(crowd, evidence, all.TOOLS).map(({ check }) => check),
      population: population.machines.map(({ hidden, draw }) => [hidden.cause, draw.drag, draw.clamps]),
    };
  });
}

test('the browser and Node draw the same machines and decide the same', async ({ page, server }) => {
  await page.route('**/core-in-test/**', (route) => {
    const file = new URL(route.request().url()).pathname.replace('/core-in-test/', '');
    return route.fulfill({ contentType: 'text/javascript', body: readFileSync(join(CORE, file), 'utf8') });
  });
  await page.goto(`${server.url}/board`);
  const here = await decisions(CORE);
  const there = await page.evaluate(decisions, '/core-in-test');
  expect(there).toEqual(here);
});

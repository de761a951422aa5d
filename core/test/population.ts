import { copiesOf, drawSound, type Findings, type Population, populationOf } from '../src/belief/index.js';
import { crowdAfter } from '../src/diagnosis/index.js';
import { seededRandom } from '../src/quantities/index.js';
import { crowdForTests } from './proof-share.js';

/** Machines of a population in tests: enough for odds within four in a hundred. */
const MACHINES = 500;
const SEED = 20;

/** The population that a job's plan is read from, of a small crowd. */
export function populationForTests(findings: Findings): Population {
  const crowd = crowdAfter(crowdForTests(findings.profile), findings.repairs);
  const random = seededRandom(SEED);
  return populationOf(copiesOf(crowd, findings, random), MACHINES, random);
}

/** Machines with nothing at fault but their charge. */
export const soundForTests = (count = 400, seed = 7): Population => drawSound(count, seededRandom(seed));

import { seededRandom } from '../src/quantities/index.js';
import { crossExamine, playJob } from './cross-examination.js';
import { CAR, CLOSED, EV, MOTORCYCLE, TRUCK } from './fixtures.js';
import { shareOf } from './proof-share.js';
import { sweep } from './sweep.js';

const MACHINES = [CAR, TRUCK, EV, MOTORCYCLE, CLOSED];
/** Jobs that `npm test` plays; `npm run prove` plays its share of many more. */
const JOBS = Math.ceil(20_000 * shareOf(0.0008));

describe('the cross-examination of random jobs', () => {
  sweep('finds no two readers that disagree', () => {
    const found = new Map<string, string>();
    let states = 0;
    for (let seed = 1; seed <= JOBS; seed++) {
      const machine = MACHINES[seed % MACHINES.length]!;
      playJob(seededRandom(seed), machine, 60, (examined) => {
        states++;
        for (const { question, said } of crossExamine(examined, machine))
          if (!found.has(question))
            found.set(question, `${machine.id}, seed ${seed}, event ${examined.log.length}: ${said}`);
      });
    }
    process.stdout.write(`cross-examination: ${states} states of ${JOBS} jobs\n`);
    expect([...found].map(([question, said]) => `${question} (${said})`)).toEqual([]);
  });
});

import type { CrankTrace, AttemptOutcome } from '../src/crank/index.js';
import type { Engine } from '../src/engine/index.js';
import type { Machine } from '../src/machine/index.js';
import { learnedFrom, startOdds, startOfLearned } from '../src/plan/index.js';
import { seededRandom } from '../src/quantities/index.js';
import { drawnCase, helpFor } from './calibration.js';
import { EVERY_MACHINE } from './order-proof.js';
import { shareOf } from './proof-share.js';

/** Of machines that call, so many would not start with any help: drawn here, not taken from the core. */
const TRULY_ELSEWHERE = 0.1;
const ELSEWHERE_OUTCOMES: readonly AttemptOutcome[] = [
  'brisk-no-fire',
  'brisk-no-fire',
  'slow',
  'clicks',
  'nothing',
];

/** The hands' word for a crank that did not fire, from its speed alone. */
function heard({ rpm, neededRpm }: CrankTrace): AttemptOutcome {
  const settled =
    rpm.slice(Math.floor(rpm.length / 2)).reduce((a, b) => a + b, 0) / Math.ceil(rpm.length / 2);
  if (settled < 8) return 'clicks';
  return settled < 0.95 * neededRpm ? 'slow' : 'brisk-no-fire';
}

describe('re-weighing after a try, against truth drawn apart and followed in time', () => {
  it('foretells the second try better than a plan that learned nothing', () => {
    const failures = Math.round(2000 * shareOf(0.04));
    const random = seededRandom(12);
    const cranking = EVERY_MACHINE.filter((m): m is Machine & { engine: Engine } => m.engine !== null);
    let [plain, learned, n] = [0, 0, 0];
    for (let i = 0; n < failures; i++) {
      const machine = cranking[i % cranking.length]!;
      const { engine } = machine;
      const { tempC, beliefs, crank } = drawnCase(machine, random);
      const isElsewhere = random() < TRULY_ELSEWHERE;
      const first = helpFor(machine, tempC, random, 0.6);
      const { trace, fires } = crank(first);
      if (fires && !isElsewhere) continue;
      n++;
      const outcome = isElsewhere ? ELSEWHERE_OUTCOMES[i % ELSEWHERE_OUTCOMES.length]! : heard(trace);
      const isRead = random() < 0.5 && !isElsewhere;
      const lowestVolts = isRead ? Math.min(...trace.postVolts.slice(trace.postVolts.length / 4)) : null;
      const second = helpFor(machine, tempC, random, 0.3);
      const before = startOdds({ rescue: second, batteries: beliefs, engine, samples: 250 }, random)!.start;
      const known = learnedFrom(
        [
          {
            moment: {
              rescue: { ...first, casualty: beliefs.map(() => ({ openVolts: 12, ohms: 0.01 })) },
              beliefs,
            },
            outcome,
            lowestVolts,
          },
        ],
        engine,
        400,
        random,
      );
      const after = startOfLearned({ rescue: second, batteries: beliefs }, engine, known);
      const met = crank(second).fires && !isElsewhere ? 1 : 0;
      plain += (before - met) ** 2;
      learned += (after - met) ** 2;
    }
    process.stdout.write(
      `second tries after ${n} failures: Brier ${(plain / n).toFixed(3)} unlearned, ${(learned / n).toFixed(3)} learned\n`,
    );
    expect(learned).toBeLessThan(0.9 * plain);
  }, 300_000);
});

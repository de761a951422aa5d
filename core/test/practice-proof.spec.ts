import type { Crowd, Suspect } from '../src/diagnosis/index.js';
import {
  codeOfCase,
  debriefOf,
  measureOf,
  rightParts,
  rightVerdicts,
  RUNG_IDS,
  startCase,
  toolRun,
  type World,
  wrongIn,
} from '../src/practice/index.js';
import { BOTS, worked } from './practice-bots.js';
import { crowdForTests, PROVES, shareOf } from './proof-share.js';

/** Cases of each rung: the long proof works a hundred, `npm test` one. */
const CASES = Math.ceil(100 * shareOf(0.01));
const FIRST = 7_001;
const codes = RUNG_IDS.flatMap((rung) =>
  Array.from({ length: CASES }, (_, i) => codeOfCase(rung, FIRST + i)),
);

const mindOf = ({ practice: { profile } }: World): Crowd => crowdForTests(profile);

/** Passes of each bot, and of the tool, over the same cases. */
function table(): ReadonlyMap<string, { passed: number; severe: number }> {
  const names = ['tool', ...Object.keys(BOTS)];
  const result = new Map(names.map((name) => [name, { passed: 0, severe: 0 }]));
  for (const code of codes) {
    const mind = mindOf(startCase(code));
    const tool = toolRun(code, mind);
    for (const name of names) {
      const world = name === 'tool' ? tool : worked(name, code, () => mind);
      const { passed, risks } = debriefOf(world, measureOf(tool), mind);
      const row = result.get(name)!;
      if (passed) row.passed++;
      if (risks.some(({ hazard }) => hazard.severity === 'severe')) row.severe++;
    }
  }
  return result;
}

describe('a pass in practice', () => {
  it('is a proof: no habit passes more than one case in ten, the tool nearly all, and hurts nobody', () => {
    const rows = table();
    process.stdout.write(
      [...rows]
        .map(([name, { passed, severe }]) => `${name}: ${passed} of ${codes.length}, ${severe} severe`)
        .join('; ') + '\n',
    );
    for (const [name, { passed }] of rows)
      if (name !== 'tool' && name !== 'greedy')
        expect(passed / codes.length)
          .withContext(name)
          .toBeLessThanOrEqual(0.1);
    const tool = rows.get('tool')!;
    expect(tool.severe).toBe(0);
    // Of 11 cases in `npm test`, and with a smaller crowd, one may be wrong.
    expect(tool.passed / codes.length).toBeGreaterThanOrEqual(PROVES ? 0.95 : 0.9);
  }, 120_000);

  it('cannot be guessed by the name of its rung: no answer is right in more than half of the cases', () => {
    for (const rung of RUNG_IDS) {
      const answers = new Map<string, number>();
      const cases = 200;
      for (let number = 1; number <= cases; number++) {
        const world = startCase(codeOfCase(rung, number));
        const parts = rightParts(world);
        for (const kind of rightVerdicts(world)) {
          // A part that is at fault is named: each part is an answer of its own.
          const named = kind === 'not-the-battery' ? parts.map((part) => `${kind} ${part}`) : [kind];
          for (const answer of named) {
            const suspect = (answer.split(' ')[1] ?? null) as Suspect | null;
            if (wrongIn(world, { verdict: kind, suspect }) === null)
              answers.set(answer, (answers.get(answer) ?? 0) + 1);
          }
        }
      }
      for (const [answer, count] of answers)
        expect(count / cases)
          .withContext(`${rung}: ${answer}`)
          .toBeLessThanOrEqual(0.5);
    }
  });
});

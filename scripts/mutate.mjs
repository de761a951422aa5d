import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { build, findNgspice, install, must, ROOT, say } from './steps.mjs';

/**
 * Changes the core one small fault at a time and counts how many the tests see: `npm run mutate -- FOLDER [FILE ...]`, a folder of
 * core/src and, to be quicker, files of it; or a sample of its lines, `npm run mutate -- FOLDER --lines 60`, the same each time;
 * `--lines 60 8` draws another. Left out are the long proofs and sweeps, texts, and faults in what is worked out once at load.
 */
const [folder, ...rest] = process.argv.slice(2);
if (!folder || !existsSync(`${ROOT}/core/src/${folder}`)) {
  process.stderr.write('Give a folder of core/src, hookup for one.\n');
  process.exit(2);
}
await install();
await findNgspice();
await build();
const mutated =
  rest[0] === '--lines'
    ? sample(Number(rest[1]), Number(rest[2] ?? 7))
    : rest.map((f) => `src/${folder}/${f}`);
if (mutated.length === 0) mutated.push(`src/${folder}/**/*.ts`);
say(`Faults in ${mutated.length > 9 ? `${mutated.length} lines of ${folder}` : mutated.join(', ')}`);
await must('npx', ['stryker', 'run', 'stryker.config.json', '--mutate', mutated.join(',')], {
  cwd: `${ROOT}/core`,
  env: { MUTATING: '1', DEMO_FOLDER: `${ROOT}/demo` },
});

/** Lines with a sum, a comparison or a branch, drawn from the folder's files, as ranges for the mutator. */
function sample(count, seed) {
  const lines = readdirSync(`${ROOT}/core/src/${folder}`, { recursive: true })
    .filter((name) => name.endsWith('.ts'))
    .sort()
    .map((name) => `src/${folder}/${name}`)
    .flatMap((file) =>
      readFileSync(`${ROOT}/core/${file}`, 'utf8')
        .split('\n')
        .flatMap((text, i) =>
          /^\s*(\*|\/|import|export \*|type|readonly)/.test(text) || !/[-+*<>=?!]|if|return/.test(text)
            ? []
            : [`${file}:${i + 1}-${i + 1}`],
        ),
    );
  // Shuffled the same way each time: the same sample of the same code.
  let drawn = seed;
  const key = new Map();
  for (const line of lines) key.set(line, (drawn = (drawn * 48271) % 2147483647));
  return lines.sort((a, b) => key.get(a) - key.get(b)).slice(0, count);
}

import { existsSync } from 'node:fs';
import { build, install, must, ROOT, say } from './steps.mjs';

/**
 * Changes the core one small fault at a time and counts how many the tests see: `npm run mutate -- FOLDER [FILE ...]`, a folder of
 * core/src and, to be quicker, files of it. Left out are the long proofs and sweeps, texts, and faults in what is worked out once at load.
 */
const [folder, ...files] = process.argv.slice(2);
if (!folder || !existsSync(new URL(`../core/src/${folder}`, import.meta.url))) {
  process.stderr.write('Give a folder of core/src, hookup for one.\n');
  process.exit(2);
}
await install();
await build();
const mutated = files.length ? files.map((f) => `src/${folder}/${f}`) : [`src/${folder}/**/*.ts`];
say(`Faults in ${mutated.join(', ')}`);
await must('npx', ['stryker', 'run', 'stryker.config.json', '--mutate', mutated.join(',')], {
  cwd: `${ROOT}/core`,
  env: { MUTATING: '1', DEMO_FOLDER: `${ROOT}/demo` },
});

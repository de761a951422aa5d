import { spawn } from 'node:child_process';
import { build, install, ROOT } from './steps.mjs';

await install();
await build();
// Files are named from where the command was given.
const work = spawn(process.execPath, [`${ROOT}/server/dist/src/house/cli.js`, ...process.argv.slice(2)], {
  cwd: process.env.INIT_CWD ?? ROOT,
  env: { ...process.env, VOLTREK_DATA: process.env.VOLTREK_DATA ?? `${ROOT}/.voltrek` },
  stdio: 'inherit',
});
work.on('exit', (code) => process.exit(code ?? 1));

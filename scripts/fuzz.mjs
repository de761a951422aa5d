import { spawn } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { build, freePort, install, ROOT } from './steps.mjs';

/**
 * Sends a server requests of every route, right and broken: `npm run fuzz`, or `npm run fuzz -- COUNT SEED`. Prints what came of them, and how
 * its memory grew; fails where one is answered with a failure of the server, with no problem document, or not at all.
 */
const [count = 10_000, seed = 1] = process.argv.slice(2).map(Number);
const ROUNDS = 4;
await install();
await build();
const { fuzz } = await import('../server/dist/test/fuzz.js');
const folder = mkdtempSync(join(tmpdir(), 'voltrek-fuzz-'));
const port = await freePort();
const server = spawn(process.execPath, ['server/dist/src/main.js', '--port', String(port)], {
  cwd: ROOT,
  // Nobody is held back here: every answer is looked at.
  env: { ...process.env, VOLTREK_DATA: folder, VOLTREK_LOG: 'silent', VOLTREK_PER_MINUTE: '1e9' },
});
const memoryMb = () =>
  process.platform === 'linux'
    ? Math.round(
        Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${server.pid}/status`, 'utf8'))?.[1]) / 1000,
      )
    : null;
let failed = 0;
try {
  await new Promise((done, gone) => {
    server.stdout.on('data', (text) => String(text).includes('is ready at') && done());
    server.on('close', () => gone(new Error('the server did not start')));
  });
  for (let round = 0; round < ROUNDS; round++) {
    const report = await fuzz(`http://127.0.0.1:${port}`, Math.ceil(count / ROUNDS), seed + round);
    failed += report.failures.length;
    const classes = [...report.byClass].sort(([a], [b]) => a - b).map(([c, n]) => `${c}xx ${n}`);
    process.stdout.write(
      `${report.requests} requests: ${classes.join(', ')}; slowest ${Math.round(report.slowestMs)} ms; memory ${memoryMb()} MB\n`,
    );
    for (const failure of report.failures.slice(0, 10)) process.stdout.write(`  ${failure}\n`);
  }
} finally {
  server.removeAllListeners('close');
  server.kill('SIGKILL');
  rmSync(folder, { recursive: true, force: true });
}
process.stdout.write(`${failed} wrong answers\n`);
process.exit(failed > 0 ? 1 : 0);

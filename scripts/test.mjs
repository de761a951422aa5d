import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { build, install, must, ROOT, run, say } from './steps.mjs';

/** Finds Chromium, or installs Debian's where that is allowed. */
async function findChromium() {
  const known = [process.env.CHROME_BIN, '/usr/bin/chromium'].find((path) => path && existsSync(path));
  if (known) return known;
  if (process.getuid?.() === 0 && existsSync('/usr/bin/apt-get')) {
    say('Installing Chromium from Debian');
    await must('apt-get', ['update'], { quiet: true });
    await must('apt-get', ['install', '-y', '--no-install-recommends', 'chromium'], { quiet: true });
    return '/usr/bin/chromium';
  }
  process.stderr.write(
    'Chromium is missing. Install the Debian package "chromium", or set CHROME_BIN to one.\n',
  );
  return process.exit(1);
}

/** The independent solver that the core is proved against. */
async function findNgspice() {
  const { code } = await run('ngspice', ['--version'], { quiet: true }).catch(() => ({ code: 1 }));
  if (code === 0) return;
  if (process.getuid?.() === 0 && existsSync('/usr/bin/apt-get')) {
    say('Installing ngspice from Debian');
    await must('apt-get', ['update'], { quiet: true });
    await must('apt-get', ['install', '-y', '--no-install-recommends', 'ngspice'], { quiet: true });
    return;
  }
  process.stderr.write('ngspice is missing. Install the Debian package "ngspice".\n');
  process.exit(1);
}

let passed = 0;
let failed = 0;

/** Runs one suite, adds what it counted, and stops at the first suite that fails. */
async function suite(name, command, args, options, count) {
  say(name);
  const { code, output } = await run(command, args, options);
  const counted = count(output);
  passed += counted.passed;
  failed += counted.failed;
  if (code !== 0 || counted.failed > 0 || counted.passed === 0) {
    failed = Math.max(failed, 1);
    finish();
  }
}

function finish() {
  process.stdout.write(`\n${passed} passed, ${failed} failed\n`);
  process.exit(failed > 0 ? 1 : 0);
}

/** The last match of a pattern's named groups, as numbers. */
function last(output, pattern) {
  const groups = [...output.matchAll(pattern)].at(-1)?.groups ?? {};
  return Object.fromEntries(Object.entries(groups).map(([name, value]) => [name, Number(value ?? 0)]));
}

function countJasmine(output) {
  const { specs = 0, failures = 0 } = last(output, /(?<specs>\d+) specs?, (?<failures>\d+) failures?/g);
  return { passed: specs - failures, failed: failures };
}

function countKarma(output) {
  const { total = 0, failures = 0 } = last(
    output,
    /Executed \d+ of (?<total>\d+)(?:[^\n]*?\((?<failures>\d+) FAILED\))?/g,
  );
  return { passed: total - failures, failed: failures };
}

function countPlaywright(output) {
  const { ok = 0 } = last(output, /(?<ok>\d+) passed/g);
  const { bad = 0 } = last(output, /(?<bad>\d+) failed/g);
  return { passed: ok, failed: bad };
}

await install();
const chromium = await findChromium();
await findNgspice();
const env = { CHROME_BIN: chromium };
await build();
say('Type check and lint');
await must('npx', ['tsc', '--noEmit', '-p', 'e2e'], { quiet: true });
await must('npm', ['run', '--silent', 'lint'], { quiet: true });
for (const part of ['core', 'contracts', 'instruments', 'server']) {
  await suite(
    `Tests: ${part}`,
    'npx',
    ['jasmine', '--config=jasmine.json'],
    { cwd: join(ROOT, part) },
    countJasmine,
  );
}
await suite('Tests: web', 'npx', ['ng', 'test'], { cwd: join(ROOT, 'web'), env, quiet: true }, countKarma);
await suite(
  'Tests: the real interface',
  'npx',
  ['playwright', 'test'],
  { cwd: join(ROOT, 'e2e'), env },
  countPlaywright,
);
finish();

import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { startPostgres } from './postgres.mjs';
import { build, findNgspice, install, installDebian, must, ROOT, run, say } from './steps.mjs';

/** Finds Chromium, or installs Debian's where that is allowed. */
async function findChromium() {
  const known = [process.env.CHROME_BIN, '/usr/bin/chromium'].find((path) => path && existsSync(path));
  if (known) return known;
  if (await installDebian('chromium', 'Chromium')) return '/usr/bin/chromium';
  process.stderr.write(
    'Chromium is missing. Install the Debian package "chromium", or set CHROME_BIN to one.\n',
  );
  return process.exit(1);
}

let passed = 0;
let failed = 0;

/** Runs one suite, shows what it printed when it ends, and adds what it counted. True when all of it passed. */
async function suite(name, command, args, { shown = 'after', ...options }, count) {
  const { code, output } = await run(command, args, { ...options, quiet: shown !== 'live' });
  const counted = count(output);
  const isGood = code === 0 && counted.failed === 0 && counted.passed > 0;
  passed += counted.passed;
  failed += isGood ? 0 : Math.max(counted.failed, 1);
  say(`${name}: ${counted.passed} passed${isGood ? '' : `, ${Math.max(counted.failed, 1)} failed`}`);
  if (shown === 'after' && code === 0) process.stdout.write(output);
  return isGood;
}

/** One thing after another, until one of them is not good. */
async function inTurn(...steps) {
  for (const step of steps) if (!(await step())) return false;
  return true;
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

const unit = (part) => () =>
  suite(
    `Tests: ${part}`,
    'npx',
    ['jasmine', '--config=jasmine.json'],
    { cwd: join(ROOT, part) },
    countJasmine,
  );
const web = () =>
  suite('Tests: web', 'npx', ['ng', 'test'], { cwd: join(ROOT, 'web'), env, shown: 'never' }, countKarma);
const lint = async () => {
  await must('npx', ['tsc', '--noEmit', '-p', 'e2e'], { quiet: true });
  await must('npm', ['run', '--silent', 'lint'], { quiet: true });
  say('Types and lint: good');
  return true;
};

/** What the server keeps, again on the database of a fleet. */
const onPostgres = async () => {
  // A scratch database that outlives no test needs no syncs.
  const postgres = await startPostgres({ fsync: 'off' });
  if (!postgres) {
    say('Tests: server on PostgreSQL: left out, PostgreSQL 15 or newer is not on this machine');
    return true;
  }
  try {
    return await suite(
      'Tests: server on PostgreSQL',
      'npx',
      ['jasmine', '--config=jasmine.postgres.json'],
      { cwd: join(ROOT, 'server'), env: { VOLTREK_TEST_PG: postgres.url } },
      countJasmine,
    );
  } finally {
    postgres.stop();
  }
};

/** The tasks that are timed, each once: they still are what the core does. */
const bench = async () => {
  await must('node', [join(ROOT, 'scripts', 'bench.mjs'), 'once'], { quiet: true });
  say('Tasks of the bench: good');
  return true;
};

say('Unit tests, types and lint, three at a time');
const areGood = await Promise.all([
  inTurn(unit('core')),
  inTurn(lint, bench, web, unit('contracts'), unit('instruments')),
  inTurn(unit('server'), onPostgres),
]);
if (!areGood.every(Boolean)) finish();
say('Tests: the real interface');
await suite(
  'Tests: the real interface',
  'npx',
  ['playwright', 'test'],
  { cwd: join(ROOT, 'e2e'), env, shown: 'live' },
  countPlaywright,
);
finish();

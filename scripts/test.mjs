import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { testsOfChange } from './changed.mjs';
import { startPostgres } from './postgres.mjs';
import {
  buildServer,
  buildWeb,
  findNgspice,
  install,
  installDebian,
  must,
  ROOT,
  run,
  say,
} from './steps.mjs';

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

/** `npm test -- changed`: only what a change can have broken, against the last commit or the one that is named. */
const ofChange = process.argv[2] === 'changed' ? testsOfChange(process.argv[3] ?? 'HEAD') : null;

/** Leaves the tests that have ` @long` at the end of their title to `npm run prove`. */
const SHORT = '--filter=^(?!.*@long)';

/** So many of the slowest tests are listed at the end. */
const SLOWEST = 10;

let passed = 0;
let failed = 0;
/** How long each stage took, and each test that tells it, seconds. */
const stages = [];
const slow = [];

/** Does a stage and notes how long it took. */
async function timed(stage, act) {
  const from = performance.now();
  const result = await act();
  stages.push({ name: stage, seconds: (performance.now() - from) / 1000 });
  return result;
}

/** The tests of a suite with their times: as `slow-tests.mjs` prints them, or Playwright's list. */
function timesIn(output) {
  const told = [...output.matchAll(/^ {2}took (?<seconds>[\d.]+) s: (?<name>.+)$/gm)];
  const listed = [...output.matchAll(/^ +[✓✘] +\d+ (?<name>.+) \((?<seconds>[\d.]+)(?<unit>ms|s|m)\)$/gm)];
  const UNITS = { ms: 0.001, s: 1, m: 60 };
  return [...told, ...listed].map(({ groups }) => ({
    name: groups.name,
    seconds: Number(groups.seconds) * UNITS[groups.unit ?? 's'],
  }));
}

/** Runs one suite, shows what it printed when it ends, and adds what it counted. True when all of it passed. */
async function suite(name, command, args, { shown = 'after', ...options }, count) {
  const { code, output } = await timed(name, () =>
    run(command, args, { ...options, quiet: shown !== 'live' }),
  );
  slow.push(...timesIn(output));
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
  const line = ({ name, seconds }) => `${seconds.toFixed(1).padStart(7)} s  ${name}\n`;
  slow.sort((a, b) => b.seconds - a.seconds);
  process.stdout.write(`\nThe stages:\n${stages.map(line).join('')}`);
  process.stdout.write(`The slowest tests:\n${slow.slice(0, SLOWEST).map(line).join('')}`);
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

await timed('Installing', install);
const chromium = await findChromium();
await findNgspice();
const env = { CHROME_BIN: chromium };

const isLeftOut = (part) => ofChange !== null && ofChange.specs[part].length === 0;
const unit = (part) => () =>
  isLeftOut(part) ||
  suite(
    `Tests: ${part}`,
    'npx',
    [
      'jasmine',
      '--config=jasmine.json',
      ...(ofChange ? [] : [SHORT]),
      ...(ofChange?.specs[part] ?? []).map((path) => `dist/${path.replace(/\.ts$/, '.js')}`),
    ],
    { cwd: join(ROOT, part) },
    countJasmine,
  );
const web = () =>
  isLeftOut('web') ||
  suite(
    'Tests: web',
    'npx',
    ['ng', 'test', ...(ofChange?.specs.web ?? []).map((path) => `--include=${path}`)],
    { cwd: join(ROOT, 'web'), env, shown: 'never' },
    countKarma,
  );
/** Needs nothing that is built: it runs beside the compiler, which has one core. */
const format = () =>
  timed('Format', async () => {
    await must('npx', ['prettier', '--check', '--log-level', 'warn', '.'], { quiet: true });
    return true;
  });
const lint = () =>
  timed('Types and lint', async () => {
    await must('node', ['scripts/messages.mjs', 'check'], { quiet: true });
    await must('npx', ['tsc', '--noEmit', '-p', 'e2e'], { quiet: true });
    await must('npm', ['run', '--silent', 'lint:code'], { quiet: true });
    // Only told: a commit that is made cannot be mended. The hook refuses it before (`.githooks`).
    const { code, output } = await run('npx', ['commitlint', '--last'], { quiet: true }).catch(() => ({
      code: 0,
    }));
    if (code !== 0) say(`The message of the last commit is not as CONTRIBUTING.md asks:\n${output}`);
    say('Types and lint: good');
    return true;
  });

/** Writes of several hands and servers: here the two databases can differ. `npm run prove` runs all that is stored. */
const ON_POSTGRES = ['jobs', 'accept', 'servers'].map((name) => `dist/test/${name}.spec.js`);

/** Runs the tests of writes again on the database of a fleet. */
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
      ['jasmine', '--config=jasmine.postgres.json', SHORT, ...ON_POSTGRES],
      { cwd: join(ROOT, 'server'), env: { VOLTREK_TEST_PG: postgres.url } },
      countJasmine,
    );
  } finally {
    postgres.stop();
  }
};

/** The real interface; of a change its own tests, and a whole rescue where the product changed. */
const interfaceTests = () => {
  const files = ofChange && [...ofChange.interface, ...(ofChange.isProduct ? ['tests/jobs.spec.ts'] : [])];
  if (files?.length === 0) return true;
  say('Tests: the real interface');
  return suite(
    'Tests: the real interface',
    'npx',
    ['playwright', 'test', ...(files ?? [])],
    { cwd: join(ROOT, 'e2e'), env: { ...env, ...(ofChange && { LONG_TESTS: '1' }) }, shown: 'live' },
    countPlaywright,
  );
};

const compile = () => timed('Compiling', buildServer);
const bundle = () =>
  timed('Building the web application', async () => {
    await buildWeb();
    return true;
  });

if (ofChange) {
  await compile();
  await bundle();
  for (const act of [
    unit('core'),
    unit('contracts'),
    unit('instruments'),
    unit('server'),
    web,
    interfaceTests,
  ])
    await act();
  finish();
}
say('Unit tests, types and lint, three at a time');
const compiled = compile();
const areGood = await Promise.all([
  compiled.then(() => inTurn(unit('core'), onPostgres)),
  inTurn(format, () => compiled.then(() => true), lint, web, unit('contracts'), unit('instruments')),
  // The server's tests ask it for pages of the application.
  compiled.then(() => inTurn(bundle, unit('server'))),
]);
if (!areGood.every(Boolean)) finish();
await interfaceTests();
finish();

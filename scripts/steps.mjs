import { spawn } from 'node:child_process';
import { existsSync, readdirSync, statSync } from 'node:fs';
import { createServer } from 'node:net';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { compressFolder } from './compress.mjs';

export const ROOT = dirname(dirname(fileURLToPath(import.meta.url)));
const NPM = process.platform === 'win32' ? 'npm.cmd' : 'npm';

/**
 * Runs a command in the foreground and resolves with its output and exit code.
 * With `quiet` the output is shown only when it fails.
 */
export function run(command, args, { cwd = ROOT, quiet = false, env = {} } = {}) {
  return new Promise((done, failed) => {
    const child = spawn(command, args, {
      cwd,
      env: { ...process.env, ...env },
      stdio: ['ignore', 'pipe', 'pipe'],
    });
    let output = '';
    const take = (stream) => (chunk) => {
      output += chunk;
      if (!quiet) stream.write(chunk);
    };
    child.stdout.on('data', take(process.stdout));
    child.stderr.on('data', take(process.stderr));
    child.on('error', failed);
    child.on('close', (code) => {
      if (quiet && code !== 0) process.stderr.write(output);
      done({ code, output });
    });
  });
}

/** Runs a command and stops the whole script when it fails. */
export async function must(command, args, options) {
  const result = await run(command, args, options);
  if (result.code !== 0) {
    process.stderr.write(`\nFailed: ${command} ${args.join(' ')}\n`);
    process.exit(result.code ?? 1);
  }
  return result;
}

/** Installs the locked dependencies when they are missing or older than the lock file. */
export async function install() {
  const installed = join(ROOT, 'node_modules', '.package-lock.json');
  const isCurrent =
    existsSync(installed) && statSync(installed).mtimeMs >= statSync(join(ROOT, 'package-lock.json')).mtimeMs;
  if (isCurrent) return;
  say('Installing the locked dependencies');
  await must(NPM, ['ci', '--no-audit', '--no-fund'], { quiet: true });
}

/** Installs a package of Debian's where that is allowed: as root. False where it is not. */
export async function installDebian(name, what) {
  if (process.getuid?.() !== 0 || !existsSync('/usr/bin/apt-get')) return false;
  say(`Installing ${what} from Debian`);
  await must('apt-get', ['update'], { quiet: true });
  await must('apt-get', ['install', '-y', '--no-install-recommends', name], { quiet: true });
  return true;
}

/** The independent solver that the core is proved against. */
export async function findNgspice() {
  const { code } = await run('ngspice', ['--version'], { quiet: true }).catch(() => ({ code: 1 }));
  if (code === 0 || (await installDebian('ngspice', 'ngspice'))) return;
  process.stderr.write('ngspice is missing. Install the Debian package "ngspice".\n');
  process.exit(1);
}

const SOURCES = ['core', 'contracts', 'instruments', 'server', 'web'];
const SKIPPED = new Set(['node_modules', 'dist', 'out', '.angular', 'test']);

/** A port of this machine that nobody listens on. */
export async function freePort() {
  const server = createServer();
  await new Promise((done) => server.listen(0, '127.0.0.1', done));
  const { port } = server.address();
  await new Promise((done) => server.close(done));
  return port;
}

/** True when a source is newer than each of these results. */
function isOlderThanSources(results) {
  const builtAt = Math.min(...results.map((file) => (existsSync(file) ? statSync(file).mtimeMs : 0)));
  return builtAt <= Math.max(...SOURCES.map((folder) => newest(join(ROOT, folder))));
}

/** Compiles the core and all that runs in Node.js, when a source is newer than the last build. */
export async function buildServer({ force = false } = {}) {
  if (!force && !isOlderThanSources([join(ROOT, 'server', 'dist', 'empty-database.tgz')])) return;
  say('Building core, contracts, instruments and server');
  await must('npx', ['tsc', '-b', 'core', 'contracts', 'instruments', 'server']);
  say('Packing an empty database');
  await must(process.execPath, ['server/dist/src/db/make-snapshot.js']);
}

/** Builds the web application, when a source is newer than the last build. */
export async function buildWeb({ force = false } = {}) {
  if (!force && !isOlderThanSources([join(ROOT, 'web', 'dist', 'browser', 'index.html')])) return;
  say('Building the web application');
  await must('npx', ['ng', 'build', '--progress', 'false'], {
    cwd: join(ROOT, 'web'),
    quiet: true,
    // Fewer and larger files: a first page of fifty small ones weighs a third more over the wire.
    env: { NG_BUILD_OPTIMIZE_CHUNKS: '1' },
  });
  await compressFolder(join(ROOT, 'web', 'dist', 'browser'));
}

/** Builds everything that is older than its sources. */
export async function build(how = {}) {
  await buildServer(how);
  await buildWeb(how);
}

function newest(folder) {
  let latest = 0;
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    if (SKIPPED.has(entry.name)) continue;
    const path = join(folder, entry.name);
    latest = Math.max(latest, entry.isDirectory() ? newest(path) : statSync(path).mtimeMs);
  }
  return latest;
}

export function say(text) {
  process.stdout.write(`> ${text}\n`);
}

import { execFileSync, spawn, spawnSync } from 'node:child_process';
import { chmodSync, existsSync, mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { freePort, installDebian } from './steps.mjs';

const DEBIAN = '/usr/lib/postgresql';

/** Programs of the newest PostgreSQL on this machine; null where there is none. */
function programs() {
  const versions = existsSync(DEBIAN) ? readdirSync(DEBIAN).map(Number).filter(Boolean) : [];
  const newest = Math.max(...versions, 0);
  return newest >= 15 && existsSync(`${DEBIAN}/${newest}/bin/postgres`) ? `${DEBIAN}/${newest}/bin` : null;
}

/**
 * A PostgreSQL server in a scratch folder, on loopback, with nothing in it. Root lends it to another user: it refuses to run as root.
 *
 * @param settings of the server, `{ fsync: 'off' }` for one
 * @returns its address and what ends it; null where there is no PostgreSQL and none may be installed
 */
export async function startPostgres(settings = {}) {
  const bin = programs() ?? ((await installDebian('postgresql', 'PostgreSQL')) ? programs() : null);
  if (!bin) return null;
  const folder = mkdtempSync(join(tmpdir(), 'voltrek-postgres-'));
  const isRoot = process.getuid?.() === 0;
  const as = (program, args) =>
    isRoot ? ['runuser', ['-u', 'postgres', '--', program, ...args]] : [program, args];
  if (isRoot) {
    execFileSync('chown', ['postgres', folder]);
    chmodSync(folder, 0o700);
  }
  const data = join(folder, 'data');
  execFileSync(
    ...as(`${bin}/initdb`, [
      '-D',
      data,
      '-U',
      'voltrek',
      '-A',
      'trust',
      '-E',
      'UTF8',
      '--locale=C.UTF-8',
      '--no-sync',
    ]),
    { stdio: 'ignore', cwd: folder },
  );
  const port = await freePort();
  const given = { port, listen_addresses: '127.0.0.1', unix_socket_directories: folder, ...settings };
  const child = spawn(
    ...as(`${bin}/postgres`, [
      '-D',
      data,
      ...Object.entries(given).flatMap(([name, value]) => ['-c', `${name}=${value}`]),
    ]),
    { stdio: 'ignore', cwd: folder },
  );
  const isReady = () =>
    spawnSync(`${bin}/pg_isready`, ['-h', '127.0.0.1', '-p', String(port)], { stdio: 'ignore' }).status === 0;
  for (let tries = 0; !isReady(); tries++) {
    if (tries === 100) throw new Error('PostgreSQL did not start.');
    await new Promise((done) => setTimeout(done, 100));
  }
  return {
    url: `postgres://voltrek@127.0.0.1:${port}/postgres`,
    stop: () => {
      spawnSync(...as(`${bin}/pg_ctl`, ['-D', data, 'stop', '-m', 'immediate']), {
        stdio: 'ignore',
        cwd: folder,
      });
      child.kill('SIGKILL');
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

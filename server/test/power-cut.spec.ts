import type { ChildProcess } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { once } from 'node:events';
import { appendFileSync } from 'node:fs';
import { cp, mkdtemp, readdir, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join, relative } from 'node:path';
import type { Call } from '@voltrek/contracts';
import type { JobEvent } from '@voltrek/core/job';
import { seededRandom } from '@voltrek/core/quantities';
import { openDatabase } from '../src/db/database.js';
import { jobEvents } from '../src/db/schema.js';
import { rebuild } from '../src/jobs/rebuild.js';
import { Disk, type DiskCall } from './disk.js';
import { freePort, setUpHouse, startServer } from './processes.js';
import { eventOf } from './shared-server.js';

/** Cuts at this share of the whole proof of two hundred; `npm run prove` goes through more. */
const CUTS = Math.max(2, Math.round(200 * Number(process.env.PROVE_SHARE ?? 0)));
const WRITERS = 4;
const WRITES_FOR_MS = process.env.PROVE_SHARE ? 6_000 : 3_000;
/** Of a program that never syncs at most so many cuts are looked at: one of them at least must lose something. */
const CUTS_WITHOUT_SYNCS = 5;
/** Of so many cuts one has all its logs folded again. */
const FOLDS_EVERY = 3;

type Line = DiskCall | { readonly do: 'acknowledged'; readonly id: string };

/**
 * The lines of a trace. SIGKILL can end a write of the recorder at a page of the file: the call of that line had not returned, so no
 * acknowledgement depends on it, and the line is left out. Any other line that cannot be read is an error.
 */
function linesOf(trace: string): readonly Line[] {
  const texts = trace.split('\n').filter((text) => text !== '');
  const isCut = (text: string): boolean => !text.endsWith('}');
  const cut = texts.findIndex(isCut);
  const lines = texts.filter((text) => !isCut(text)).map((text) => JSON.parse(text) as Line);
  const after = cut < 0 ? [] : lines.slice(cut);
  if (after.some((line) => line.do !== 'acknowledged'))
    throw new Error(`line ${cut + 1} of the trace is cut short, and calls to the disk follow it`);
  return lines;
}

describe('the trace of a server that is killed', () => {
  const event = '{"do":"acknowledged","id":"a"}';

  it('leaves out the call whose line the kill cut short, and keeps what was acknowledged after it', () => {
    const trace = `{"do":"fsync","fd":3}\n{"do":"write","fd":3,"data":"AAA\n${event}\n`;
    expect(linesOf(trace).map((line) => line.do)).toEqual(['fsync', 'acknowledged']);
    expect(linesOf('{"do":"fsync","fd":3}\n{"do":"wri').length).toBe(1);
  });

  it('is refused where the disk is asked for more after a line that is cut short', () => {
    expect(() => linesOf('{"do":"wri\n{"do":"fsync","fd":3}\n')).toThrowError(/line 1/);
  });
});

describe('a server whose power is cut', () => {
  let folder: string;
  let child: ChildProcess | undefined;

  beforeEach(async () => {
    folder = await mkdtemp(join(tmpdir(), 'voltrek-power-'));
  });
  afterEach(async () => {
    child?.kill('SIGKILL');
    await rm(folder, { recursive: true, force: true });
  });

  async function start(args: readonly string[], env: Readonly<Record<string, string>>): Promise<string> {
    const port = await freePort();
    child = await startServer(port, env, args);
    return `http://127.0.0.1:${port}`;
  }

  async function stop(signal: NodeJS.Signals): Promise<void> {
    const gone = once(child!, 'exit');
    child!.kill(signal);
    await gone;
  }

  /** Writers at work until the power goes; every event that was acknowledged goes into the trace as soon as it was. */
  async function work(url: string, by: string, trace: string): Promise<void> {
    const post = async (path: string, body: unknown): Promise<Response | null> =>
      fetch(url + path, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify(body),
      }).catch(() => null);
    const report = async (jobId: string, event: JobEvent): Promise<void> => {
      const answer = await post(`/api/jobs/${jobId}/events`, event);
      // The line break before it keeps it apart from a line that the kill cut short.
      if (answer?.ok) appendFileSync(trace, `\n${JSON.stringify({ do: 'acknowledged', id: event.id })}\n`);
    };
    let isOver = false;
    const writers = Array.from({ length: WRITERS }, async () => {
      const entry = { title: 'Cut', placeName: 'Yard', said: '', ambientC: 0, urgent: false };
      const answer = await post('/api/board', { ...entry, id: randomUUID(), modelId: 'unknown-car' });
      const { id: callId, number: callNumber, modelId } = (await answer!.json()) as Call;
      const jobId = randomUUID();
      const data = { callId, callNumber, title: 'Cut', placeName: 'Yard', modelId, ambientC: 0 };
      await report(jobId, { ...eventOf(jobId, 'job.opened', data), by });
      while (!isOver)
        await report(jobId, { ...eventOf(jobId, 'symptom.recorded', { symptom: 'silence' }), by });
    });
    await new Promise((done) => setTimeout(done, WRITES_FOR_MS));
    await stop('SIGKILL');
    isOver = true;
    await Promise.all(writers);
  }

  /** Returns the loss of a cut after these calls of the trace, in words; empty when all that was acknowledged is there and folds. */
  async function lossesAt(
    disk: Disk,
    sure: readonly string[],
    seed: number,
    isFolded: boolean,
  ): Promise<string[]> {
    const found = join(folder, 'found');
    await rm(found, { recursive: true, force: true });
    await disk.cut(seededRandom(seed), join(found, 'pg'));
    try {
      const database = await openDatabase(found, () => undefined);
      try {
        const rows = await database.db.select({ id: jobEvents.id }).from(jobEvents);
        const there = new Set(rows.map(({ id }) => id));
        const lost = sure.filter((id) => !there.has(id)).map((id) => `event ${id} is gone`);
        const differed = isFolded ? (await rebuild(database.db)).differed : [];
        return [...lost, ...differed];
      } finally {
        await database.close();
      }
    } catch (error) {
      return [String(error)];
    }
  }

  /** Goes through the trace, with cuts at these lines; of a program that never syncs only up to the first that loses something. */
  async function lossesOver(
    base: string,
    lines: readonly Line[],
    cuts: readonly number[],
    keepsSyncs: boolean,
  ): Promise<string[]> {
    const entries = await readdir(base, { withFileTypes: true, recursive: true });
    const pathOf = (entry: (typeof entries)[number]): string =>
      relative(base, join(entry.parentPath, entry.name));
    const disk = new Disk(
      base,
      entries.filter((e) => e.isFile()).map(pathOf),
      entries.filter((e) => e.isDirectory()).map(pathOf),
    );
    const sure: string[] = [];
    const losses: string[] = [];
    const at = [...cuts].sort((a, b) => a - b);
    for (const [i, line] of lines.entries()) {
      while (at[0] === i) {
        const left = at.length;
        at.shift();
        const found = await lossesAt(disk, sure, 100 + left, left % FOLDS_EVERY === 0);
        losses.push(...found.map((why) => `at line ${i}: ${why}`));
        if (!keepsSyncs && losses.length > 0) return losses;
      }
      if (line.do === 'acknowledged') sure.push(line.id);
      else await disk.do(line, keepsSyncs);
    }
    return losses;
  }

  it(
    `at work with ${WRITERS} writers opens again with every event that it acknowledged, at ${CUTS} moments; without syncs it would not @long`,
    async () => {
      const data = join(folder, 'data');
      const trace = join(folder, 'trace');
      const by = await setUpHouse(await start([], { VOLTREK_DATA: data }));
      await stop('SIGTERM');
      const base = join(folder, 'base');
      await cp(join(data, 'pg'), base, { recursive: true });
      const recorder = new URL('./disk-recorder.js', import.meta.url).href;
      const url = await start(['--import', recorder], {
        VOLTREK_DATA: data,
        DISK_TRACE: trace,
        DISK_FOLDER: join(data, 'pg'),
        // Checkpoints come within the seconds that are recorded.
        VOLTREK_LOG_MB: '1',
      });
      await work(url, by, trace);
      const lines = linesOf(await readFile(trace, 'utf8'));
      const first = lines.findIndex((line) => line.do === 'acknowledged');
      const acknowledged = lines.filter((line) => line.do === 'acknowledged').length;
      const syncs = lines.filter((line) => line.do === 'fsync').length;
      expect(acknowledged).toBeGreaterThan(10);
      // A checkpoint, the most that is written at once, falls into what is recorded.
      expect(
        lines.slice(first).some((line) => line.do === 'open' && line.path === 'global/pg_control'),
      ).toBeTrue();
      const random = seededRandom(7);
      const moments = (count: number): number[] =>
        Array.from({ length: count }, () => first + Math.floor(random() * (lines.length - first)));
      expect(await lossesOver(base, lines, moments(CUTS), true)).toEqual([]);
      expect((await lossesOver(base, lines, moments(CUTS_WITHOUT_SYNCS), false)).length).toBeGreaterThan(0);
      process.stdout.write(
        `${CUTS} power cuts over ${lines.length} calls to the disk, ${syncs} of them syncs, ${acknowledged} events acknowledged, none lost\n`,
      );
    },
    // Ten times what it takes on a quiet machine: other suites run beside it.
    600_000 + CUTS * 60_000,
  );
});

import type { ChildProcess } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { once } from 'node:events';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Call, JobDetail } from '@voltrek/contracts';
import { seededRandom } from '@voltrek/core/quantities';
import { eventOf } from './shared-server.js';
import { freePort, setUpHouse, startServer } from './processes.js';

/** Kills at this share of the whole proof of two hundred; `npm run prove` goes through more. */
const KILLS = Math.max(1, Math.round(200 * Number(process.env.PROVE_SHARE ?? 0)));
const WRITERS = 4;

describe('a server that is killed', () => {
  let folder: string;
  let child: ChildProcess | undefined;

  beforeEach(async () => {
    folder = await mkdtemp(join(tmpdir(), 'voltrek-kills-'));
  });
  afterEach(async () => {
    child?.kill('SIGKILL');
    await rm(folder, { recursive: true, force: true });
  });

  /** Seconds from the start of the process until it answers. */
  async function start(port: number): Promise<number> {
    const from = performance.now();
    child = await startServer(port, { VOLTREK_DATA: folder });
    return (performance.now() - from) / 1000;
  }

  it(
    `in mid-write with ${WRITERS} writers has every event that it acknowledged, each once, ${KILLS} times over`,
    async () => {
      const random = seededRandom(41);
      const port = await freePort();
      const url = `http://127.0.0.1:${port}`;
      const post = (path: string, body: unknown): Promise<Response> =>
        fetch(url + path, {
          method: 'POST',
          headers: { 'content-type': 'application/json' },
          body: JSON.stringify(body),
        });
      await start(port);
      const by = await setUpHouse(url);
      const jobs: string[] = [];
      for (let i = 0; i < WRITERS; i++) {
        const call = { title: 'Kill', placeName: 'Yard', said: '', ambientC: 0, urgent: false };
        const opened = (await (
          await post('/api/board', { ...call, id: randomUUID(), modelId: 'unknown-car' })
        ).json()) as Call;
        const jobId = randomUUID();
        const { id: callId, number: callNumber, modelId } = opened;
        const data = { callId, callNumber, title: 'Kill', placeName: 'Yard', modelId, ambientC: 0 };
        const answer = await post(`/api/jobs/${jobId}/events`, { ...eventOf(jobId, 'job.opened', data), by });
        expect(answer.status).toBe(201);
        jobs.push(jobId);
      }
      const acknowledged = new Map(jobs.map((id) => [id, [] as string[]]));
      const starts: number[] = [];
      for (let round = 0; round < KILLS; round++) {
        let isOver = false;
        const writers = jobs.map(async (jobId) => {
          while (!isOver) {
            const event = { ...eventOf(jobId, 'symptom.recorded', { symptom: 'silence' }), by };
            const answer = await post(`/api/jobs/${jobId}/events`, event).catch(() => null);
            if (answer?.ok && (await answer.json().catch(() => null)))
              acknowledged.get(jobId)!.push(event.id);
          }
        });
        await new Promise((done) => setTimeout(done, 20 + 600 * random()));
        const gone = once(child!, 'exit');
        child!.kill('SIGKILL');
        await gone;
        isOver = true;
        await Promise.all(writers);
        starts.push(await start(port));
        for (const jobId of jobs) {
          const { events } = (await (await fetch(`${url}/api/jobs/${jobId}`)).json()) as JobDetail;
          const ids = events.map((e) => e.id);
          const lost = acknowledged.get(jobId)!.filter((id) => !ids.includes(id));
          expect(lost).withContext(`round ${round}`).toEqual([]);
          expect(new Set(ids).size).withContext(`round ${round}`).toBe(ids.length);
        }
      }
      const all = [...acknowledged.values()].flat().length;
      expect(all).toBeGreaterThan(KILLS);
      const slowest = Math.max(...starts);
      process.stdout.write(
        `${KILLS} kills, ${all} events acknowledged, none lost; slowest start after a kill ${slowest.toFixed(1)} s\n`,
      );
    },
    120_000 + KILLS * 60_000,
  );
});

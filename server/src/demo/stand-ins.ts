import { type ChildProcess, spawn } from 'node:child_process';
import { type AddressInfo, createServer } from 'node:net';
import { fileURLToPath } from 'node:url';
import type { Cause } from '@voltrek/core/diagnosis';
import { engineRuns, foldJob, type JobEvent, profileOfJob, runningAttempt } from '@voltrek/core/job';
import { drawCase } from '@voltrek/core/practice';
import { seededRandom } from '@voltrek/core/quantities';
import { modelById } from '../atlas/repository.js';
import type { Database } from '../db/database.js';
import type { Bench } from '../instruments/bench.js';
import type { StandInPlaces } from '../instruments/routes.js';
import { readEvents } from '../jobs/repository.js';
import type { StreamHub } from '../http/stream-hub.js';
import { demoHouse } from './data.js';

const PROGRAM = fileURLToPath(new URL('../../../../instruments/dist/src/main.js', import.meta.url));
const KINDS = ['meter', 'clamp', 'tester', 'weather'] as const;
type Kind = (typeof KINDS)[number];
/** One that says nothing for so long is started again, ms. */
const START_MS = 15_000;

/** A stand-in that ends is started again after this, and after twice as long each further time, ms. */
const AGAIN_FIRST_MS = 300;
const AGAIN_MOST_MS = 10_000;
/** A stand-in that ran this long did not end at once, ms. */
const LIVED_MS = 20_000;

/** Stand-ins that run beside the server, each a process of its own. */
export interface StandIns {
  readonly ports: Readonly<Record<Kind, number>>;
  /** Resolves when each has said once that it listens. */
  readonly ready: Promise<void>;
  /** Their processes, for whoever watches them. */
  readonly pids: () => Readonly<Record<Kind, number | undefined>>;
  readonly stop: () => void;
}

/**
 * Starts a stand-in for every instrument and service beside the server, which waits for none of them: one that does not start, or ends, is
 * tried again where it was. They end with this process.
 *
 * @param say called with the missing one
 */
export async function startStandIns(say: (text: string) => void = () => undefined): Promise<StandIns> {
  const children = new Map<Kind, ChildProcess>();
  let stopped = false;

  const start = async (kind: Kind, port: number, afterMs = AGAIN_FIRST_MS): Promise<void> => {
    const from = Date.now();
    const child = spawn(process.execPath, [PROGRAM, kind, '--port', String(port)], {
      stdio: ['pipe', 'pipe', 'inherit'],
    });
    children.set(kind, child);
    await isListening(child, kind);
    child.once('exit', () => again(kind, port, Date.now() - from > LIVED_MS ? AGAIN_FIRST_MS : afterMs));
  };
  const again = (kind: Kind, port: number, afterMs: number): void => {
    if (stopped) return;
    say(`the stand-in ${kind} is missing: it is started again`);
    const next = Math.min(2 * afterMs, AGAIN_MOST_MS);
    setTimeout(() => {
      // Nobody waits for it: one that does not start is tried again.
      if (!stopped) start(kind, port, next).catch(() => again(kind, port, next));
    }, afterMs).unref();
  };

  const free = await Promise.all(KINDS.map(async (kind) => [kind, await freePort()] as const));
  const ports = Object.fromEntries(free) as Record<Kind, number>;
  const begun = free.map(([kind, port]) => start(kind, port).catch(() => again(kind, port, AGAIN_FIRST_MS)));
  return {
    ports,
    ready: Promise.all(begun).then(() => undefined),
    pids: () =>
      Object.fromEntries([...children].map(([kind, { pid }]) => [kind, pid])) as Record<
        Kind,
        number | undefined
      >,
    stop: () => {
      stopped = true;
      for (const child of children.values()) child.kill();
    },
  };
}

/** A port of this machine that nobody listens at. */
function freePort(): Promise<number> {
  return new Promise((done, failed) => {
    const probe = createServer();
    probe.once('error', failed);
    probe.listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as AddressInfo;
      probe.close(() => done(port));
    });
  });
}

function isListening(child: ChildProcess, kind: Kind): Promise<void> {
  return new Promise((done, failed) => {
    const late = setTimeout(() => {
      child.kill();
      failed(new Error(`the stand-in ${kind} does not start`));
    }, START_MS);
    child.once('error', failed);
    child.once('exit', () => {
      clearTimeout(late);
      failed(new Error(`the stand-in ${kind} ended`));
    });
    child.stdout?.once('data', () => {
      clearTimeout(late);
      done();
    });
  });
}

const TONIGHT = demoHouse().calls;
const ofTonight = (title: string) => TONIGHT.find((call) => call.title === title);

/** Returns the true fault of tonight's machine of this call; drawn by its number for any other. */
function causeOf(callNumber: number, title: string, profile: ReturnType<typeof profileOfJob>): Cause {
  const truth = ofTonight(title)?.truth;
  return truth ?? drawCase(profile, seededRandom(callNumber)).cause;
}

/** Events after which the machine does something else, or something else is joined to it. */
const STIRS: readonly JobEvent['type'][] = [
  'attempt.started',
  'attempt.ended',
  'clamp.attached',
  'clamp.detached',
  'event.undone',
];

/**
 * Puts the stand-ins on the hidden truth of a job: where its probes are, and what the machine does now, which follows its log; or on a case
 * of practice.
 */
export function placeOnTruth(database: Database, hub: StreamHub, bench: Bench): StandInPlaces {
  let last: readonly [jobId: string, check: string, battery: number] | null = null;
  hub.listen(({ jobId, type }) => {
    if (last?.[0] === jobId && STIRS.includes(type)) void place(...last, false);
  });
  return {
    onJob: place,
    onCase: (reading) => {
      last = null;
      bench.tellAll(`SIM:SET ${JSON.stringify(reading)}`);
    },
  };

  async function place(jobId: string, check: string, battery: number, isTry: boolean): Promise<void> {
    last = [jobId, check, battery];
    const job = foldJob(await readEvents(database.db, jobId));
    const machine = job && (await modelById(database.db, job.modelId));
    if (!job || !machine) return;
    const profile = profileOfJob(job, machine);
    const phase = isTry || runningAttempt(job) ? 'cranking' : engineRuns(job) ? 'running' : 'still';
    const setup = {
      profile,
      cause: causeOf(job.call.callNumber, job.call.title, profile),
      seed: ofTonight(job.call.title)?.truthSeed ?? job.call.callNumber,
      check,
      battery,
      phase,
      helped: Object.values(job.hookup.clamps).some((at) => at !== null),
    };
    bench.tellAll(`SIM:SET ${JSON.stringify(setup)}`);
  }
}

import type { JobEvent } from '@voltrek/core/job';
import { seededRandom } from '@voltrek/core/quantities';
import { event } from '../../../testing/fixtures';
import { hasGap, type LoggedEvent } from '../model/job-state';
import { withEntry } from './device-store';
import { CHOKES_MOST, type Clock, Queues, RETRY_FIRST_MS, RETRY_MOST_MS, type QueueListener } from './queues';
import type { Answer } from '../data/answer-to';

const tap = (jobId = 'job-1'): JobEvent => ({ ...event('symptom.recorded', { symptom: 'silence' }), jobId });

/** Time that passes when the test lets it: each wait ends when the clock has come to it. */
class FakeClock implements Clock {
  now = 0;
  readonly waits: number[] = [];
  private readonly due: { at: number; end: () => void }[] = [];

  constructor(readonly random: () => number = () => 1) {}

  wait = (ms: number): Promise<void> => {
    this.waits.push(ms);
    return new Promise((end) => this.due.push({ at: this.now + ms, end }));
  };

  async pass(ms: number): Promise<void> {
    this.now += ms;
    for (const one of this.due.filter((d) => d.at <= this.now)) {
      this.due.splice(this.due.indexOf(one), 1);
      one.end();
    }
    await settled();
  }
}
async function settled(): Promise<void> {
  for (let i = 0; i < 40; i++) await Promise.resolve();
}

function queuesWith(answer: (event: JobEvent) => Answer, clock = new FakeClock()) {
  const sent: JobEvent[] = [];
  const heard = { taken: [] as string[], refused: [] as string[], parked: [] as string[], away: 0 };
  const told: QueueListener = {
    taken: (e) => void heard.taken.push(e.id),
    refused: (e) => void heard.refused.push(e.id),
    gone: () => undefined,
    away: () => void heard.away++,
    parked: (e) => void heard.parked.push(e.id),
  };
  const queues = new Queues(
    (e) => {
      sent.push(e);
      return Promise.resolve(answer(e));
    },
    told,
    clock,
  );
  return { queues, sent, heard, clock };
}
const taken = (e: JobEvent): Answer => ({ kind: 'taken', event: e, revision: 1 });

describe('Queues', () => {
  it('sends a job’s events oldest first, each once', async () => {
    const { queues, sent, heard } = queuesWith(taken);
    const events = [tap(), tap(), tap()];
    for (const e of events) queues.add(e);
    queues.add(events[1]!);
    await settled();
    expect(sent.map((e) => e.id)).toEqual(events.map((e) => e.id));
    expect(heard.taken).toEqual(events.map((e) => e.id));
    expect(queues.waiting()).toEqual([]);
  });

  it('asks nobody again while somebody must sign in, and goes on in order when they have', async () => {
    let isIn = false;
    const { queues, sent, heard, clock } = queuesWith((e) => (isIn ? taken(e) : { kind: 'unsigned' }));
    const events = [tap(), tap()];
    for (const e of events) queues.add(e);
    await settled();
    await clock.pass(10 * RETRY_MOST_MS);
    expect([sent.length, heard.away, heard.refused.length, queues.waiting().length]).toEqual([1, 0, 0, 2]);
    isIn = true;
    queues.poke();
    await settled();
    expect(heard.taken).toEqual(events.map((e) => e.id));
  });

  it('keeps trying while nobody answers, waiting twice as long each time up to a limit', async () => {
    let isAway = true;
    const { queues, sent, heard, clock } = queuesWith((e) => (isAway ? { kind: 'away' } : taken(e)));
    const [first, second] = [tap(), tap()];
    queues.add(first);
    queues.add(second);
    for (let i = 0; i < 12; i++) {
      await settled();
      await clock.pass(RETRY_MOST_MS);
    }
    expect(clock.waits.slice(0, 3)).toEqual([RETRY_FIRST_MS, RETRY_FIRST_MS * 2, RETRY_FIRST_MS * 4]);
    expect(Math.max(...clock.waits)).toBe(RETRY_MOST_MS);
    expect(new Set(sent.map((e) => e.id))).toEqual(new Set([first.id]));
    expect(heard.away).toBeGreaterThan(10);
    isAway = false;
    queues.poke();
    await settled();
    expect(heard.taken).toEqual([first.id, second.id]);
  });

  it('spreads its tries, so that many devices do not come back in step', async () => {
    const early = queuesWith(() => ({ kind: 'away' }), new FakeClock(() => 0));
    early.queues.add(tap());
    await settled();
    expect(early.clock.waits).toEqual([RETRY_FIRST_MS / 2]);
  });

  it('parks an event that the server chokes on, and only its job waits', async () => {
    const [bad, behind, other] = [tap('a'), tap('a'), tap('b')];
    let isCured = false;
    const { queues, sent, heard, clock } = queuesWith((e) =>
      e.id === bad.id && !isCured ? { kind: 'choked', why: 'Something went wrong.' } : taken(e),
    );
    for (const e of [bad, behind, other]) queues.add(e);
    for (let i = 0; i < CHOKES_MOST + 3; i++) {
      await settled();
      await clock.pass(RETRY_MOST_MS);
    }
    expect(sent.filter((e) => e.id === bad.id).length).toBe(CHOKES_MOST);
    expect(heard.parked).toEqual([bad.id]);
    expect(heard.taken).toEqual([other.id]);
    isCured = true;
    queues.retry('a');
    await settled();
    expect(heard.taken).toEqual([other.id, bad.id, behind.id]);
  });

  it('goes on behind an event that was refused, or dropped by hand', async () => {
    const [bad, behind] = [tap(), tap()];
    const { queues, heard } = queuesWith((e) =>
      e.id === bad.id ? { kind: 'refused', why: 'No.' } : taken(e),
    );
    queues.add(bad);
    queues.add(behind);
    await settled();
    expect([heard.refused, heard.taken]).toEqual([[bad.id], [behind.id]]);
    const [stuck, next] = [tap('c'), tap('c')];
    const choking = queuesWith((e) => (e.id === stuck.id ? { kind: 'choked', why: 'x' } : taken(e)));
    choking.queues.add(stuck, true);
    choking.queues.add(next);
    await settled();
    expect(choking.sent).toEqual([]);
    choking.queues.drop(stuck);
    await settled();
    expect(choking.heard.taken).toEqual([next.id]);
  });
});

/** A server that takes an event once, and whose answers and stories may be lost. */
class FakeServer {
  readonly log: JobEvent[] = [];
  readonly refusals = new Set<string>();

  take(e: JobEvent): Answer {
    const at = this.log.findIndex((l) => l.id === e.id);
    if (at >= 0) return { kind: 'taken', event: e, revision: at + 1 };
    if (this.refusals.has(e.id)) return { kind: 'refused', why: 'No.' };
    this.log.push(e);
    return { kind: 'taken', event: e, revision: this.log.length };
  }
}

/** A device: what it has kept outlives its pages, which come and go. */
class FakeDevice {
  kept: JobEvent[] = [];
  logged: LoggedEvent[] = [];
  readonly refused = new Set<string>();
  readonly tapped: string[] = [];
  private page!: Queues;
  /** A page that has gone gets nothing more. */
  private life = 0;

  constructor(
    private readonly server: FakeServer,
    private readonly random: () => number,
    private readonly clock: FakeClock,
  ) {
    this.restart();
  }

  restart(): void {
    const life = ++this.life;
    const isHere = (): boolean => life === this.life;
    this.page = new Queues(
      (e) => {
        if (this.random() < 0.25) return Promise.resolve({ kind: 'away' });
        const answer = this.server.take(e);
        // Taken, and the answer lost on its way.
        return Promise.resolve(this.random() < 0.2 ? { kind: 'away' } : answer);
      },
      {
        taken: (e, revision) => {
          if (!isHere()) return;
          this.hear({ event: e, revision });
        },
        refused: (e) => {
          if (!isHere()) return;
          this.refused.add(e.id);
          this.kept = this.kept.filter((k) => k.id !== e.id);
        },
        gone: () => undefined,
        away: () => undefined,
        parked: () => undefined,
      },
      this.clock,
    );
    for (const e of this.kept) this.page.add(e);
  }

  tap(e: JobEvent): void {
    this.tapped.push(e.id);
    this.kept = [...this.kept, e];
    this.page.add(e);
  }

  hear(entry: LoggedEvent): void {
    this.logged = withEntry(this.logged, entry);
    this.kept = this.kept.filter((k) => k.id !== entry.event.id);
  }

  /** The fetch after a gap is seen, or after the line came back. */
  catchUp(): void {
    this.server.log.forEach((e, i) => this.hear({ event: e, revision: i + 1 }));
  }
}

describe('two devices on one job', () => {
  it('come to the same log whatever is lost, told twice, told late or restarted, and lose no tap', async () => {
    for (let seed = 1; seed <= 150; seed++) {
      const random = seededRandom(seed);
      const clock = new FakeClock(random);
      const server = new FakeServer();
      const devices = [0, 1].map(() => new FakeDevice(server, random, clock));
      let told = 0;
      const late: { to: FakeDevice; entry: LoggedEvent }[] = [];
      for (let step = 0; step < 60; step++) {
        const device = devices[Math.floor(random() * 2)]!;
        const what = random();
        if (what < 0.4) {
          const e = tap('shared');
          if (random() < 0.1) server.refusals.add(e.id);
          device.tap(e);
        } else if (what < 0.5) device.restart();
        await clock.pass(random() * 3000);
        // Both hear of an event that the server took, if at all, and in any order.
        for (; told < server.log.length; told++)
          for (const to of devices)
            if (random() < 0.7) late.push({ to, entry: { event: server.log[told]!, revision: told + 1 } });
        for (let n = Math.floor(random() * 4); n > 0 && late.length > 0; n--) {
          const [one] = late.splice(Math.floor(random() * late.length), 1);
          one!.to.hear(one!.entry);
          if (random() < 0.2) one!.to.hear(one!.entry);
          if (hasGap(one!.to.logged)) one!.to.catchUp();
        }
      }
      for (let i = 0; i < 60; i++) await clock.pass(RETRY_MOST_MS);
      for (const device of devices) {
        device.catchUp();
        expect(device.logged.map((l) => l.event.id))
          .withContext(`seed ${seed}`)
          .toEqual(server.log.map((e) => e.id));
        expect(device.kept).withContext(`seed ${seed}`).toEqual([]);
        for (const id of device.tapped)
          expect(server.log.some((e) => e.id === id) !== device.refused.has(id))
            .withContext(`seed ${seed}: ${id}`)
            .toBeTrue();
        // In the order that they were tapped on this device.
        const own = server.log.map((e) => e.id).filter((id) => device.tapped.includes(id));
        expect(own)
          .withContext(`seed ${seed}`)
          .toEqual(device.tapped.filter((id) => own.includes(id)));
      }
    }
  });
});

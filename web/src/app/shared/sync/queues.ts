import type { JobEvent } from '@voltrek/core/job';
import type { Answer } from '../data/answer-to';

/** Time as the queues see it; tests have their own. */
export interface Clock {
  /** Resolves after so long, ms. */
  readonly wait: (ms: number) => Promise<void>;
  /** From 0 up to 1. */
  readonly random: () => number;
}

/** Receives the outcome of each waiting event. */
export interface QueueListener {
  readonly taken: (event: JobEvent, revision: number) => Promise<void> | void;
  readonly refused: (event: JobEvent, why: string) => Promise<void> | void;
  readonly gone: (event: JobEvent) => Promise<void> | void;
  readonly away: () => void;
  /** It failed too often: it waits to be sent again or dropped by hand, and its job with it. */
  readonly parked: (event: JobEvent, why: string) => Promise<void> | void;
}

/** Waits between tries: short at first, then steady, ms. */
export const RETRY_FIRST_MS = 400;
export const RETRY_MOST_MS = 15_000;
/** An event that the server choked on this often is parked: trying on would keep its job from the server for good. */
export const CHOKES_MOST = 6;

interface Line {
  readonly events: JobEvent[];
  parked: boolean;
  isRunning: boolean;
  /** Ends the wait that is under way. */
  wake: () => void;
}

/**
 * Events that wait to be sent: one line a job, oldest first, each by itself, so that one job's trouble is not another's. An event leaves its line
 * only when it was taken, refused, or dropped by hand.
 */
export class Queues {
  private readonly lines = new Map<string, Line>();

  constructor(
    private readonly send: (event: JobEvent) => Promise<Answer>,
    private readonly listener: QueueListener,
    private readonly clock: Clock,
  ) {}

  /** Puts an event at the end of its job's line; one that is there already stays where it is. */
  add(event: JobEvent, isParked = false): void {
    const line = this.lineOf(event.jobId);
    if (!line.events.some((e) => e.id === event.id)) line.events.push(event);
    if (isParked && line.events[0]?.id === event.id) line.parked = true;
    void this.run(event.jobId, line);
  }

  /** Sends a parked event again. */
  retry(jobId: string): void {
    const line = this.lines.get(jobId);
    if (!line) return;
    line.parked = false;
    line.wake();
    void this.run(jobId, line);
  }

  /** Takes an event out of its line unsent, by hand. */
  drop({ id, jobId }: JobEvent): void {
    const line = this.lines.get(jobId);
    if (!line) return;
    line.events.splice(0, line.events.length, ...line.events.filter((e) => e.id !== id));
    this.retry(jobId);
  }

  /** The server answered: nobody waits any longer. */
  poke(): void {
    for (const line of this.lines.values()) line.wake();
  }

  /** The waiting events, oldest first in each job. */
  waiting(): JobEvent[] {
    return [...this.lines.values()].flatMap((line) => line.events);
  }

  private lineOf(jobId: string): Line {
    const line = this.lines.get(jobId) ?? {
      events: [],
      parked: false,
      isRunning: false,
      wake: () => undefined,
    };
    this.lines.set(jobId, line);
    return line;
  }

  private async run(jobId: string, line: Line): Promise<void> {
    if (line.isRunning) return;
    line.isRunning = true;
    try {
      let tries = 0;
      let chokes = 0;
      let at: string | undefined;
      for (let head = line.events[0]; head && !line.parked; head = line.events[0]) {
        if (head.id !== at) {
          at = head.id;
          tries = 0;
          chokes = 0;
        }
        const answer = await this.send(head);
        // Dropped by hand while it was on its way: what came of it is of no account.
        if (line.events[0]?.id !== head.id) continue;
        if (answer.kind === 'taken' || answer.kind === 'refused' || answer.kind === 'gone') {
          // First it is known what became of it, then it leaves: a device that dies in between sends it once more.
          if (answer.kind === 'taken') await this.listener.taken(answer.event, answer.revision);
          else if (answer.kind === 'refused') await this.listener.refused(head, answer.why);
          else await this.listener.gone(head);
          // It may have been dropped by hand meanwhile.
          line.events.splice(0, line.events.length, ...line.events.filter((e) => e.id !== head.id));
          continue;
        }
        if (answer.kind === 'choked' && ++chokes >= CHOKES_MOST) {
          line.parked = true;
          await this.listener.parked(head, answer.why);
          break;
        }
        if (answer.kind === 'unsigned') {
          // Waiting signs nobody in: it is sent when they have signed in.
          await new Promise<void>((woken) => (line.wake = woken));
          continue;
        }
        if (answer.kind === 'away') this.listener.away();
        await this.pause(line, tries++);
      }
    } finally {
      line.isRunning = false;
      if (line.events.length === 0) this.lines.delete(jobId);
    }
  }

  /** Twice as long each time, and never as long as others wait: many devices do not come back in step. */
  private async pause(line: Line, tries: number): Promise<void> {
    const ms = Math.min(RETRY_MOST_MS, RETRY_FIRST_MS * 2 ** Math.min(tries, 10));
    await Promise.race([
      this.clock.wait(ms * (0.5 + this.clock.random() / 2)),
      new Promise<void>((woken) => (line.wake = woken)),
    ]);
    line.wake = () => undefined;
  }
}

import { setImmediate as turn } from 'node:timers/promises';
import type { EventTaken } from '@voltrek/contracts/api';
import { MOST_TOGETHER } from '../db/commits.js';
import type { Database } from '../db/database.js';
import { isDatabaseAway } from '../db/errors.js';
import type { StreamHub } from '../http/stream-hub.js';
import { HttpProblem } from '../http/problem.js';
import { appendAll, isOfItsJobAlone, isOneLine, type Outcome, type Report } from './append.js';
import { ReadForEvents } from './event-context.js';

/**
 * Takes an event that was reported: it is on the disk when it is answered, and then sent to every device.
 *
 * @throws HttpProblem as {@link appendAll} tells
 */
export type Accept = (report: Report) => Promise<EventTaken>;

interface Waiting {
  readonly report: Report;
  readonly answer: (outcome: Outcome) => void;
  readonly fail: (error: unknown) => void;
}

/**
 * Takes events in the order in which they were reported, those of one job one after another. Waiting events are read, judged and written
 * together, as far as each changes its own job alone: the database is asked as often as for one.
 */
export function acceptEvents(database: Database, hub: StreamHub): Accept {
  const waiting: Waiting[] = [];
  const read = new ReadForEvents();
  /** Jobs of which an event is being written. */
  const underWay = new Set<string>();
  let writing = 0;

  const append = (group: readonly Waiting[]): Promise<Outcome[]> => {
    const reports = group.map(({ report }) => report);
    return database.write((tx) => appendAll(tx, read, reports), {
      jobIds: group.map(jobOf),
      isOneStatement: reports.every(isOneLine),
    });
  };
  const settle = async (group: readonly Waiting[]): Promise<void> => {
    let outcomes: Outcome[];
    try {
      outcomes = await append(group);
    } catch (error) {
      // One failed event rolled back the group, so each is tried by itself. With no answer from the database, none would come for each
      // either.
      if (group.length > 1 && !isDatabaseAway(error)) for (const one of group) await settle([one]);
      else for (const one of group) one.fail(error);
      return;
    }
    for (const [i, outcome] of outcomes.entries()) group[i]!.answer(outcome);
  };
  const drain = async (): Promise<void> => {
    writing++;
    for (;;) {
      // Requests that came in the same moment are read first.
      await turn();
      const group = takeGroup(waiting, underWay);
      if (group.length === 0) break;
      for (const one of group) underWay.add(jobOf(one));
      await settle(group);
      for (const one of group) underWay.delete(jobOf(one));
    }
    writing--;
  };

  return async (report) => {
    const outcome = await new Promise<Outcome>((answer, fail) => {
      waiting.push({ report, answer, fail });
      if (writing < database.writesAtOnce) void drain();
    });
    if (outcome instanceof HttpProblem) throw outcome;
    if (outcome.isNew) hub.tell(outcome.event, outcome.revision);
    return outcome;
  };
}

const jobOf = ({ report }: Waiting): string => report.event.jobId;

/**
 * Takes out of those that wait, in their order, the first and what may go with it: nothing overtakes an event of its own job.
 *
 * @param underWay jobs of which nothing may be taken
 */
function takeGroup(waiting: Waiting[], underWay: ReadonlySet<string>): Waiting[] {
  const passed = new Set(underWay);
  const group: Waiting[] = [];
  for (let i = 0; i < waiting.length && group.length < MOST_TOGETHER; ) {
    const one = waiting[i]!;
    const mayGo = !passed.has(jobOf(one));
    passed.add(jobOf(one));
    const goesWithOthers = isOfItsJobAlone(one.report);
    if (mayGo && (goesWithOthers || group.length === 0)) {
      group.push(...waiting.splice(i, 1));
      if (!goesWithOthers) break;
    } else i++;
  }
  return group;
}

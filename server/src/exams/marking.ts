import { Worker } from 'node:worker_threads';
import type { ExamMarks, ExamRun } from '@voltrek/core/practice';

/** An exam for the thread that marks it. */
export interface ToMark {
  readonly number: number;
  readonly runs: readonly ExamRun[];
}

/** Its marks, or why it cannot be replayed; null where the program has no words for it. */
export type Marked = { readonly marks: ExamMarks } | { readonly marks: null; readonly why: string | null };

let last: Promise<unknown> = Promise.resolve();

/**
 * Marks an exam in a thread of its own, one exam after the other: the tool works each case as well. That takes seconds, and no tap waits.
 *
 * @throws Error where the thread ends without an answer
 */
export function markInThread(number: number, runs: readonly ExamRun[]): Promise<Marked> {
  const marked = last.then(() => inThread({ number, runs }));
  last = marked.catch(() => undefined);
  return marked;
}

function inThread(workerData: ToMark): Promise<Marked> {
  const worker = new Worker(new URL('./marking-main.js', import.meta.url), { workerData });
  return new Promise((done, failed) => {
    worker.once('message', done);
    worker.once('error', failed);
    worker.once('exit', () => failed(new Error('the thread that marks an exam is gone')));
  });
}

import { parentPort, workerData } from 'node:worker_threads';
import { markExam } from '@voltrek/core/practice';
import type { Marked, ToMark } from './marking.js';

const { number, runs } = workerData as ToMark;

function marked(): Marked {
  try {
    return { marks: markExam(number, runs) };
  } catch (error) {
    // An act from elsewhere may be anything, and throws anything.
    return { marks: null, why: error instanceof RangeError ? error.message : null };
  }
}

parentPort!.postMessage(marked());

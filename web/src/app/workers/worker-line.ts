import { releaseProxy, type Remote, wrap } from 'comlink';

/** The line to a worker. */
export interface WorkerLine<T> {
  readonly remote: Remote<T>;
  /** Rejects when the worker dies or is ended, which otherwise would answer nothing for ever. */
  readonly ended: Promise<never>;
  /** Ends the worker at once. Open requests fail with the reason. */
  readonly end: (reason: Error) => void;
}

export function workerLine<T>(worker: Worker): WorkerLine<T> {
  const remote = wrap<T>(worker);
  let tellEnd: (reason: Error) => void = () => undefined;
  const ended = new Promise<never>((_, reject) => (tellEnd = reject));
  // Nobody may be asking in the moment it ends.
  ended.catch(() => undefined);
  worker.onerror = ({ message }) => tellEnd(new Error(message));
  return {
    remote,
    ended,
    end: (reason) => {
      // The browser's memory of a worker that is gone must not keep the code that asked it.
      worker.onerror = null;
      worker.terminate();
      remote[releaseProxy]();
      tellEnd(reason);
    },
  };
}

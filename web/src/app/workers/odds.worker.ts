import { type Odds, type OddsInput, seededRandom, startOdds } from '@voltrek/core';
import { expose } from 'comlink';

/** One seed for every option, so that two are compared on the same draws. */
const SEED = 20;

/** What the odds worker does. Ending the worker is how it is stopped. */
export interface OddsWorker {
  odds(input: OddsInput, onProgress: (share: number) => void): Odds | null;
}

const worker: OddsWorker = {
  odds: (input, onProgress) =>
    startOdds(input, seededRandom(SEED), (share) => {
      onProgress(share);
      return true;
    }),
};

expose(worker);

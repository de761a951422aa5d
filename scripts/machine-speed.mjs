const SORTED = 300_000;
const RUNS = 7;

/**
 * How long this machine takes just now for a piece of work that is always the same, ms: the median of some runs. A shared machine is twice
 * as fast in one hour as in another. So a time is compared only with times from beside it.
 */
export function machineMs() {
  const times = Array.from({ length: RUNS }, () => {
    let seed = 1;
    const numbers = Array.from({ length: SORTED }, () => (seed = (seed * 16_807) % 2_147_483_647));
    const from = performance.now();
    numbers.sort((a, b) => a - b);
    return performance.now() - from;
  });
  return times.sort((a, b) => a - b)[Math.floor(RUNS / 2)];
}

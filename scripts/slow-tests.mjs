/** A helper of the test runs: prints at the end how long the slowest tests took, for `npm test` to list. */
const SHOWN = 10;
const taken = [];

jasmine.getEnv().addReporter({
  specDone: ({ fullName, duration }) => void taken.push({ fullName, seconds: (duration ?? 0) / 1000 }),
  jasmineDone: () => {
    taken.sort((a, b) => b.seconds - a.seconds);
    const lines = taken
      .slice(0, Number(process.env.SLOW_TESTS ?? SHOWN))
      .map(({ fullName, seconds }) => `  took ${seconds.toFixed(1)} s: ${fullName}\n`);
    process.stdout.write(`\n${lines.join('')}`);
  },
});

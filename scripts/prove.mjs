import { writeMarkedMessages } from './marked-messages.mjs';
import { startPostgres } from './postgres.mjs';
import { build, install, must, run, say } from './steps.mjs';

/**
 * The long proofs: `npm run prove`, or `npm run prove -- SHARE` with the share of all cases (0 to 1). `npm test` goes
 * through a small seeded part of the same.
 */
const share = Number(process.argv[2] ?? 0.05);
if (!(share > 0 && share <= 1)) {
  process.stderr.write('Give the share of all cases, above 0 and up to 1.\n');
  process.exit(2);
}
await install();
await build();
say(
  `Orders over the whole atlas, odds and diagnosis against truth drawn apart, readers of random jobs against each other: ${share * 100} % of all cases`,
);
await must(
  'npx',
  [
    'jasmine',
    '--config=jasmine.json',
    '--filter=orders|drawn apart|made apart|refused alike|the door of a job|a drill|a pass in practice|cross-examination|make safe|a recheck',
  ],
  {
    cwd: new URL('../core/', import.meta.url).pathname,
    env: { PROVE_SHARE: String(share) },
  },
);
say(
  `Kills of a server in mid-write, and cuts of its power: ${share * 100} % of two hundred each; the tests of the server that npm test leaves out`,
);
await must('npx', ['jasmine', '--config=jasmine.json', '--filter=a server that is killed|@long'], {
  cwd: new URL('../server/', import.meta.url).pathname,
  env: { PROVE_SHARE: String(share) },
});
const postgres = await startPostgres({ fsync: 'off' });
if (postgres) {
  say('The tests of stored data on PostgreSQL, the database of a fleet');
  const { code } = await run('npx', ['jasmine', '--config=jasmine.postgres.json'], {
    cwd: new URL('../server/', import.meta.url).pathname,
    env: { VOLTREK_TEST_PG: postgres.url },
  });
  postgres.stop();
  if (code !== 0) process.exit(1);
} else say('Left out: PostgreSQL 15 or newer is not on this machine');
say('The tasks that are timed, each once: they still are what the core does');
await must('node', ['scripts/bench.mjs', 'once'], { quiet: true });
say('The interface tests that npm test leaves out');
await must('npx', ['playwright', 'test', '--grep', '@long'], {
  cwd: new URL('../e2e/', import.meta.url).pathname,
  env: { LONG_TESTS: '1' },
});
say('Every text of the screens from the message files: a language in which each is marked');
writeMarkedMessages();
await must('npx', ['ng', 'build', '--configuration', 'marked', '--progress', 'false'], {
  cwd: new URL('../web/', import.meta.url).pathname,
  quiet: true,
});
await must('npx', ['playwright', 'test', '--config', 'words.config.ts'], {
  cwd: new URL('../e2e/', import.meta.url).pathname,
});

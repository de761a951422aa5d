import type { Server } from 'node:net';
import { parseArgs } from 'node:util';
import { meterServer } from './meter.js';
import { testerServer } from './tester.js';
import { weatherServer } from './weather.js';

const HOST = '127.0.0.1';
const clock = (): number => performance.now() / 1000;

const KINDS: Readonly<Record<string, () => Server>> = {
  meter: () => meterServer('meter', clock),
  clamp: () => meterServer('clamp', clock),
  tester: testerServer,
  weather: weatherServer,
};

const { values, positionals } = parseArgs({
  options: { port: { type: 'string', default: '0' } },
  allowPositionals: true,
});
const make = KINDS[positionals[0] ?? ''];
const port = Number(values.port);
if (!make || !Number.isInteger(port) || port < 0 || port > 65_535) {
  process.stderr.write(`One of ${Object.keys(KINDS).join(', ')}, then --port N.\n`);
  process.exit(1);
}
const server = make();
server.listen(port, HOST, () => {
  const address = server.address();
  process.stdout.write(`${JSON.stringify(address)}\n`);
});
// The starter holds its input open: when the starter goes, it goes too.
process.stdin.resume();
process.stdin.on('end', () => process.exit(0));
process.on('SIGTERM', () => process.exit(0));

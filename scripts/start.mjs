import { spawn } from 'node:child_process';
import { build, install, ROOT } from './steps.mjs';

await install();
await build();
const server = spawn(process.execPath, ['server/dist/src/main.js', ...process.argv.slice(2)], {
  cwd: ROOT,
  stdio: 'inherit',
});
// The server stops in order on either signal; this process only waits for it.
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
server.on('exit', (code, signal) => process.exit(signal ? 1 : (code ?? 1)));

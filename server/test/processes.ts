import { once } from 'node:events';
import { type AddressInfo, createServer } from 'node:net';
import { fileURLToPath } from 'node:url';

/** The server as it is started. */
export const MAIN = fileURLToPath(new URL('../src/main.js', import.meta.url));

/** A port of this machine that nobody has. */
export async function freePort(): Promise<number> {
  const server = createServer();
  server.listen(0, '127.0.0.1');
  await once(server, 'listening');
  const { port } = server.address() as AddressInfo;
  server.close();
  await once(server, 'close');
  return port;
}

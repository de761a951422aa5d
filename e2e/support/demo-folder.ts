import { TestServer } from './server';

/** Makes the demo's data once, by a first start: each server of the tests begins with a copy, since the demo's two winters take seconds to work out. */
export default async function makeDemoFolder(): Promise<() => Promise<void>> {
  const server = await TestServer.empty();
  const { ready, output } = await server.start();
  if (!ready) throw new Error(`the server did not start: ${output}`);
  await server.stop();
  process.env.VOLTREK_E2E_DEMO = server.folder;
  return () => server.remove();
}

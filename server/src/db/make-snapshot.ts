import { writeFile } from 'node:fs/promises';
import { openInMemory, SNAPSHOT } from './database.js';

const { client } = await openInMemory();
const dump = await client.dumpDataDir('gzip');
await writeFile(SNAPSHOT, Buffer.from(await dump.arrayBuffer()));
await client.close();

import type { Database } from '../src/db/database.js';
import { networksOf, openAddressBook } from '../src/instruments/addresses.js';
import { openBench } from '../src/instruments/bench.js';
import type { InstrumentParts } from '../src/instruments/routes.js';

/** A server with nothing linked to it, and no stand-ins. */
export async function noInstruments({ db }: Database): Promise<InstrumentParts> {
  const bench = openBench({});
  const sources = { server: 'test', networks: networksOf('127.0.0.0/8'), fixed: {}, standIns: {} };
  return { bench, addresses: await openAddressBook(db, bench, sources), weatherUrl: null, place: null };
}

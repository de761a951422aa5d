import { BlockList, isIP } from 'node:net';
import { type Instrument, type InstrumentAddresses, INSTRUMENTS } from '@voltrek/contracts';
import { eq, inArray } from 'drizzle-orm';
import type { Db, Tx } from '../db/database.js';
import { facts } from '../db/schema.js';
import { HttpProblem } from '../http/problem.js';
import type { Addresses, Bench } from './bench.js';
import { type Address, parseAddress } from './scpi-link.js';

/** The private ranges of RFC 1918 and RFC 4193, a house's own network. Not this machine itself, which has more to answer than meters. */
const HOUSE_NETWORKS: readonly string[] = ['10.0.0.0/8', '172.16.0.0/12', '192.168.0.0/16', 'fc00::/7'];

/** Networks that an instrument may be in. */
export interface Networks {
  readonly named: readonly string[];
  readonly has: (host: string) => boolean;
}

/** @param text networks with commas between, as `10.0.0.0/8`; those of a house where it is left out. @throws RangeError for what is none */
export function networksOf(text: string | undefined): Networks {
  const named = text === undefined ? HOUSE_NETWORKS : text.split(',').map((one) => one.trim());
  const list = new BlockList();
  for (const one of named) {
    const [, address, bits] = /^([\d.]+|[\da-f:.]+)\/(\d{1,3})$/i.exec(one) ?? [];
    const family = isIP(address ?? '');
    if (!family || Number(bits) > (family === 4 ? 32 : 128))
      throw new RangeError(`${one} is no network, as 10.0.0.0/8`);
    list.addSubnet(address!, Number(bits), family === 4 ? 'ipv4' : 'ipv6');
  }
  // A name may lead anywhere by tomorrow: only addresses are looked at.
  const has = (host: string): boolean =>
    isIP(host) !== 0 && list.check(host, isIP(host) === 4 ? 'ipv4' : 'ipv6');
  return { named, has };
}

/** The sources that an address book begins with. */
export interface AddressSources {
  /** The name of this server: instruments hang on it, not on others of the same database. */
  readonly server: string;
  readonly networks: Networks;
  /** By the server's settings: nobody changes these. */
  readonly fixed: Addresses;
  /** The stand-ins that play where nothing is set. */
  readonly standIns: Addresses;
}

/** The addresses of the instruments of this server. */
export interface AddressBook {
  readonly page: () => InstrumentAddresses;
  /**
   * @param text `host:port`; null for none
   * @returns writes it down within a transaction and gives what is to be done once that stands
   * @throws HttpProblem 409 for what the server's settings name, 422 for no address and for one outside the allowed networks
   */
  readonly set: (tx: Tx, instrument: Instrument, text: string | null) => Promise<() => void>;
}

/** Reads what crew leads set and links the bench to all of it. */
export async function openAddressBook(db: Db, bench: Bench, sources: AddressSources): Promise<AddressBook> {
  const { server, networks, fixed, standIns } = sources;
  const keyOf = (instrument: Instrument): string => `address of ${instrument} at ${server}`;
  const set = new Map<Instrument, Address>();

  const settled = (instrument: Instrument): Address | null =>
    fixed[instrument] ?? set.get(instrument) ?? standIns[instrument] ?? null;
  const allowed = (text: string): Address => {
    const address = addressIn(text);
    if (!address) throw new HttpProblem(422, 'noAddress');
    if (!networks.has(address.host))
      throw new HttpProblem(422, 'notInTheNetworks', { params: [networks.named] });
    return address;
  };

  const rows = await db
    .select()
    .from(facts)
    .where(inArray(facts.key, INSTRUMENTS.map(keyOf)));
  for (const instrument of INSTRUMENTS) {
    const address = addressIn(rows.find(({ key }) => key === keyOf(instrument))?.value ?? '');
    // The networks may have been drawn closer since.
    if (address && networks.has(address.host)) set.set(instrument, address);
    if (settled(instrument)) bench.link(instrument, settled(instrument));
  }

  return {
    page: () => ({
      networks: networks.named,
      addresses: INSTRUMENTS.map((instrument) => ({
        instrument,
        address: written(settled(instrument)),
        setBy: fixed[instrument]
          ? 'server'
          : set.has(instrument)
            ? 'crew-lead'
            : standIns[instrument]
              ? 'stand-in'
              : null,
      })),
    }),
    set: async (tx, instrument, text) => {
      if (fixed[instrument]) throw new HttpProblem(409, 'addressOfTheServer');
      const key = keyOf(instrument);
      const address = text === null ? null : allowed(text);
      const value = written(address);
      await (value === null
        ? tx.delete(facts).where(eq(facts.key, key))
        : tx.insert(facts).values({ key, value }).onConflictDoUpdate({ target: facts.key, set: { value } }));
      return () => {
        if (address) set.set(instrument, address);
        else set.delete(instrument);
        bench.link(instrument, settled(instrument));
      };
    },
  };
}

function addressIn(text: string): Address | null {
  try {
    return parseAddress(text.trim());
  } catch (error) {
    if (error instanceof RangeError) return null;
    throw error;
  }
}

const written = (address: Address | null): string | null =>
  address && `${isIP(address.host) === 6 ? `[${address.host}]` : address.host}:${address.port}`;

import { randomBytes, scrypt, type ScryptOptions, timingSafeEqual } from 'node:crypto';

/** Cost of one try: about a tenth of a second and 32 MB. So a stolen table of a million PINs takes a day for each person. */
const COST: ScryptOptions = { N: 2 ** 15, r: 8, p: 1, maxmem: 64 * 1024 * 1024 };
const HASH_BYTES = 32;
const SALT_BYTES = 16;

const slowHash = (pin: string, salt: Buffer): Promise<Buffer> =>
  new Promise((done, failed) => {
    scrypt(pin, salt, HASH_BYTES, COST, (error, hash) => {
      if (error) failed(error);
      else done(hash);
    });
  });

/** The stored form of a PIN: its salt and its slow hash, base64url, a dot between. */
export async function hashOfPin(pin: string): Promise<string> {
  const salt = randomBytes(SALT_BYTES);
  return `${salt.toString('base64url')}.${(await slowHash(pin, salt)).toString('base64url')}`;
}

/** Nobody's: whoever is not known is kept waiting as long as whoever is. */
const NOBODYS = `${'A'.repeat(22)}.${'A'.repeat(43)}`;

/** @param kept what {@link hashOfPin} made; null for somebody who has none */
export async function isPin(pin: string, kept: string | null): Promise<boolean> {
  const [salt, hash] = (kept ?? NOBODYS).split('.').map((part) => Buffer.from(part, 'base64url'));
  const isSame = timingSafeEqual(await slowHash(pin, salt!), hash!);
  return kept !== null && isSame;
}

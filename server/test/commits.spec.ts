import { like } from 'drizzle-orm';
import type { Database } from '../src/db/database.js';
import { facts } from '../src/db/schema.js';
import { testDatabase } from './test-database.js';

describe('works that wait together', () => {
  let database: Database;
  beforeAll(async () => {
    database = await testDatabase();
  });
  afterAll(() => database.close());

  const kept = async (prefix: string): Promise<string[]> => {
    const rows = await database.db
      .select({ key: facts.key })
      .from(facts)
      .where(like(facts.key, `${prefix}%`));
    return rows.map(({ key }) => key).sort();
  };
  const put = (key: string, then?: Error): Promise<string> =>
    database.write(async (tx) => {
      await tx.insert(facts).values({ key, value: 'yes' });
      if (then) throw then;
      return key;
    });

  it('stand each for itself: what throws, or the database refuses, is undone alone and told to whoever asked', async () => {
    const asked = [
      put('a-0'),
      put('a-1', new Error('on second thoughts')),
      put('a-2'),
      // The same key again: the database refuses it, and what comes after stands all the same.
      put('a-0'),
      put('a-3', new Error('nor this')),
      put('a-4'),
    ];
    const settled = await Promise.allSettled(asked);
    expect(settled.map(({ status }) => status)).toEqual([
      'fulfilled',
      'rejected',
      'fulfilled',
      'rejected',
      'rejected',
      'fulfilled',
    ]);
    expect(settled.flatMap((one) => (one.status === 'fulfilled' ? [one.value] : []))).toEqual([
      'a-0',
      'a-2',
      'a-4',
    ]);
    expect(await kept('a-')).toEqual(['a-0', 'a-2', 'a-4']);
  });

  it('are all answered and all kept, however many there are, and those behind are not held up by one that throws', async () => {
    const many = Array.from({ length: 70 }, (_, i) =>
      put(`b-${i}`, i % 7 === 3 ? new Error('no') : undefined),
    );
    const settled = await Promise.allSettled(many);
    const good = settled.flatMap(({ status }, i) => (status === 'fulfilled' ? [`b-${i}`] : []));
    expect(good.length).toBe(60);
    expect(await kept('b-')).toEqual(good.sort());
    // The first of a group throws and leaves the next alone.
    const first = put('c-0', new Error('no'));
    await expectAsync(Promise.all([first, put('c-1')])).toBeRejected();
    expect(await put('c-2')).toBe('c-2');
    expect(await kept('c-')).toEqual(['c-1', 'c-2']);
  });
});

import type { RulesPage, RuleSetting } from '@voltrek/contracts';
import { DEFAULT_RULES, type HouseRules, rulesWith } from '@voltrek/core';
import { desc } from 'drizzle-orm';
import type { Db, Tx } from '../db/database.js';
import { ruleSettings } from '../db/schema.js';

/** The rules as they stand and how they came to. */
export async function rulesPage(db: Db | Tx): Promise<RulesPage> {
  const rows = await db.select().from(ruleSettings).orderBy(desc(ruleSettings.position));
  const settings = rows.map(({ key, value, by, at }) => ({ key, value, by, at: at.toISOString() }));
  // Oldest first, so that the newest of each key is the one left standing.
  const standing = Object.fromEntries([...settings].reverse().map(({ key, value }) => [key, value]));
  return { rules: rulesWith(standing, DEFAULT_RULES), settings };
}

export async function houseRules(db: Db | Tx): Promise<HouseRules> {
  return (await rulesPage(db)).rules;
}

export async function addRuleSetting(tx: Tx, { key, value, by }: RuleSetting, at: Date): Promise<void> {
  await tx.insert(ruleSettings).values({ key, value, by, at });
}

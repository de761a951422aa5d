import type { RulesPage, RuleSetting } from '@voltrek/contracts';
import { DEFAULT_RULES, type HouseRules, rulesWith } from '@voltrek/core/rules';
import { asc, desc } from 'drizzle-orm';
import type { Db, Tx } from '../db/database.js';
import { ruleSettings } from '../db/schema.js';

/** The rules as they stand and how they came to. */
export async function rulesPage(db: Db | Tx): Promise<RulesPage> {
  const rows = await db.select().from(ruleSettings).orderBy(desc(ruleSettings.position));
  const settings = rows.map(({ key, value, by, at }) => ({ key, value, by, at: at.toISOString() }));
  return { rules: await houseRules(db), settings };
}

/** The newest setting of each key, without the history that every event would otherwise read. */
export const newestSettings = (db: Db | Tx) =>
  db
    .selectDistinctOn([ruleSettings.key], { key: ruleSettings.key, value: ruleSettings.value })
    .from(ruleSettings)
    .orderBy(asc(ruleSettings.key), desc(ruleSettings.position));

/** The rules as they stand. */
export async function houseRules(db: Db | Tx): Promise<HouseRules> {
  const newest = await newestSettings(db);
  return rulesWith(Object.fromEntries(newest.map(({ key, value }) => [key, value])), DEFAULT_RULES);
}

export async function addRuleSetting(tx: Tx, { key, value, by }: RuleSetting, at: Date): Promise<void> {
  await tx.insert(ruleSettings).values({ key, value, by, at });
}

import { outOfRange } from '../quantities/range.js';
import { type HouseRules, type RuleKey, RULES } from './house-rules.js';

/** What a house rule may be set to: one of the schools, or a figure in a range. */
export type RuleLimit =
  | { readonly kind: 'school'; readonly schools: readonly string[] }
  | { readonly kind: 'figure'; readonly min: number; readonly max: number };

const school = (...schools: string[]): RuleLimit => ({ kind: 'school', schools });
const figure = (min: number, max: number): RuleLimit => ({ kind: 'figure', min, max });

/** Limits of every rule that a house may set. A rule without an entry is fixed. */
export const RULE_LIMITS: Readonly<Partial<Record<RuleKey, RuleLimit>>> = {
  lastBlack: school('ground-point', 'negative-terminal'),
  firstRed: school('casualty', 'source'),
  clampSequence: school('reds-first', 'source-first'),
  donorEngine: school('off-then-run', 'running', 'off-throughout'),
  motorcycleDonor: school('off', 'running'),
  donorRevs: school('idle', 'raised'),
  bigConsumer: school('first', 'not'),
  crankMinimum: school('by-temperature', 'strict'),
  chargeOnVehicle: school('jump-points', 'negative-off', 'take-out'),
  veryFlatBattery: school('revive', 'replace'),
  capacitors: school('beside', 'instead'),
  hobbyLithium: school('refused', 'allowed'),
  donorWaitMinLeast: figure(0, 10),
  donorWaitMinPetrol: figure(0, 30),
  donorWaitMinDiesel: figure(0, 60),
  donorWaitMinVeryFlat: figure(0, 60),
  chargerMinPetrol: figure(5, 240),
  chargerMinDiesel: figure(10, 240),
  engineStartWaitMin: figure(0, 30),
  crankTriesMax: figure(1, 10),
  crankSecondsMaxSmall: figure(2, 10),
  crankSecondsMax: figure(3, 20),
  crankSecondsMaxBigDiesel: figure(5, 30),
  crankRestSeconds: figure(15, 600),
  leadRestRiseC: figure(20, 60),
  starterRestRiseC: figure(40, 140),
  promiseToleranceVolts: figure(0.2, 3),
  crankMinimumStrictVolts: figure(9, 11.5),
  fullVolts: figure(12.4, 12.9),
  driveMinutesLeast: figure(0, 120),
  capacitorMinVolts: figure(9, 12),
  chargingMinVolts: figure(13, 14.2),
  chargingMaxVolts: figure(14, 15),
  chargingMaxVoltsAgmOrCold: figure(14.4, 15.5),
  recheckDays: figure(1, 14),
  replaceSoonDays: figure(1, 60),
  chargeMonthlyDays: figure(14, 90),
  inspectDays: figure(30, 365),
};

/** Rules that a house may set, in the order they are told. */
export const HOUSE_RULE_KEYS = (Object.keys(RULE_LIMITS) as RuleKey[]).filter((key) => RULES[key].houseRule);

/** What a house has set otherwise than by default. */
export type RuleSettings = Readonly<Partial<Record<RuleKey, string | number>>>;

/** What of these rules is not the default. */
export function settingsOf(rules: HouseRules): RuleSettings {
  return Object.fromEntries(
    HOUSE_RULE_KEYS.filter((key) => rules[key] !== RULES[key].value).map((key) => [key, rules[key]]),
  );
}

/** Why a rule cannot be set so; null when it can. */
export function ruleFault(key: string, value: unknown): string | null {
  const limit = HOUSE_RULE_KEYS.find((k) => k === key) && RULE_LIMITS[key as RuleKey];
  if (!limit) return `${key} is not a rule that a house sets`;
  if (limit.kind === 'school')
    return limit.schools.some((s) => s === value)
      ? null
      : `${key} must be one of ${limit.schools.join(', ')}`;
  if (typeof value !== 'number') return `${key} must be a number`;
  return outOfRange(key, value, { ...limit, unit: RULES[key as RuleKey].unit });
}

/** The defaults with what the house has set; settings that are no longer allowed fall back to the default. */
export function rulesWith(settings: Readonly<Record<string, unknown>>, defaults: HouseRules): HouseRules {
  const allowed = Object.entries(settings).filter(([key, value]) => ruleFault(key, value) === null);
  return { ...defaults, ...Object.fromEntries(allowed) };
}

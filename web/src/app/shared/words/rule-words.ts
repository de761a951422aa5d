import { type HouseRuleKey, type RuleKey, RULES, type School } from '@voltrek/core/rules';
import { tell } from './tell';

/** Why a threshold stands where it does: in this language as the core keeps it beside the figure. */
export const ruleReason = (key: RuleKey): string => tell`${RULES[key].reason}`;

/** Names a house rule. */
export const ruleName = (key: RuleKey): string =>
  (RULE_QUESTIONS as Partial<Record<RuleKey, string>>)[key] ?? ruleReason(key);

/** The question of each house rule. */
export const RULE_QUESTIONS: Readonly<Record<HouseRuleKey, string>> = {
  lastBlack: 'Last black clamp on',
  firstRed: 'First red clamp on',
  clampSequence: 'Clamps go on',
  donorEngine: 'Donor engine while connecting',
  clampSteps: 'A step of the clamps is done',
  hobbyLithium: 'Hobby lithium packs',
  motorcycleDonor: 'Motorcycle from a car',
  donorRevs: 'Donor revs while it lends',
  bigConsumer: 'Big consumer on before the leads come off',
  crankMinimum: 'Crank minimum',
  chargeOnVehicle: 'Charging on the vehicle',
  veryFlatBattery: 'Very flat battery',
  capacitors: 'Capacitors',
  fullVolts: 'Charged from',
  driveMinutesLeast: 'Least drive after a start',
  capacitorMinVolts: 'Capacitors count down to',
  leadRestRiseC: 'Leads may warm to, over the air',
  starterRestRiseC: 'Starter windings may warm to, over the air',
  donorWaitMinLeast: 'Least wait on a donor',
  donorWaitMinPetrol: 'Wait on a donor, petrol',
  donorWaitMinDiesel: 'Wait on a donor, diesel',
  donorWaitMinVeryFlat: 'Wait on a donor, very flat battery',
  chargerMinPetrol: 'Mains charger first, petrol',
  chargerMinDiesel: 'Mains charger first, diesel',
  engineStartWaitMin: 'Engine-start charger first',
  crankTriesMax: 'Tries before thinking again',
  crankSecondsMaxSmall: 'Longest try, small engines',
  crankSecondsMax: 'Longest try',
  crankSecondsMaxBigDiesel: 'Longest try, big diesels',
  crankRestSeconds: 'Rest between tries',
  promiseToleranceVolts: 'Crank volts count as planned within',
  crankMinimumStrictVolts: 'Early warning of the crank minimum',
  chargingMinVolts: 'Charging volts, least',
  chargingMaxVolts: 'Charging volts, most',
  chargingMaxVoltsAgmOrCold: 'Charging volts, most, AGM or cold',
  recheckDays: 'Recheck after',
  replaceSoonDays: 'Replace soon within',
  chargeMonthlyDays: 'Charge again after, on short trips',
  inspectDays: 'Inspect after',
};

/** The schools by name. */
export const SCHOOL_WORDS: Readonly<Record<School, string>> = {
  'ground-point': 'a ground point',
  'negative-terminal': 'the negative terminal',
  casualty: 'the casualty',
  source: 'the donor',
  'reds-first': 'red, red, black, black',
  'source-first': 'both donor ends, then both casualty ends',
  'off-then-run': 'off to connect, then runs',
  running: 'running',
  'off-throughout': 'off throughout',
  off: 'car engine off',
  idle: 'at idle',
  raised: 'raised, 1,500 to 2,000 rpm',
  first: 'yes, first',
  not: 'no',
  'by-temperature': 'by temperature',
  strict: 'the strict figure',
  'jump-points': 'at the jump points',
  'negative-off': 'with the negative clamp off',
  'take-out': 'never: take the battery out',
  revive: 'revive, then judge',
  replace: 'replace',
  tap: 'at a tap',
  hold: 'when held for half a second',
  beside: 'beside a battery',
  instead: 'instead of a battery',
  refused: 'never',
  allowed: 'as a last resort',
};

/** Names a value of a rule: a school, or its figure with the unit. */
export const ruleValue = (key: RuleKey, value: string | number): string =>
  (SCHOOL_WORDS as Readonly<Record<string, string>>)[value] ?? `${value} ${RULES[key].unit}`;

import type { RuleKey } from '@voltrek/core';

/** What each house rule asks. */
export const RULE_QUESTIONS: Partial<Record<RuleKey, string>> = {
  lastBlack: 'Last black clamp on',
  firstRed: 'First red clamp on',
  clampSequence: 'Clamps go on',
  donorEngine: 'Donor engine',
  hobbyLithium: 'Hobby lithium packs',
  donorWaitMinLeast: 'Least wait on a donor',
  donorWaitMinPetrol: 'Wait on a donor, petrol',
  donorWaitMinDiesel: 'Wait on a donor, diesel',
  donorWaitMinVeryFlat: 'Wait on a donor, very flat block',
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
  inspectDays: 'Inspect after',
};

/** The schools by name. */
export const SCHOOL_WORDS: Readonly<Record<string, string>> = {
  'ground-point': 'a ground point',
  'negative-terminal': 'the negative terminal',
  casualty: 'the casualty',
  source: 'the donor',
  'reds-first': 'red, red, black, black',
  'source-first': 'both donor ends, then both casualty ends',
  'off-then-run': 'off to connect, then runs',
  running: 'running before connecting',
  'off-throughout': 'off throughout',
  refused: 'never',
  allowed: 'as a last resort',
};

/**
 * Every threshold of the trade, once. A rule has a value, its unit and a technician's reason. Where practitioners differ it has the values
 * that a crew lead may set.
 */
export interface Rule<T> {
  readonly value: T;
  readonly unit: string;
  readonly reason: string;
  /** The choices of a house; null where practitioners do not differ and it is fixed. */
  readonly limit: RuleLimit | null;
}

/** The choices of a house rule: one of the schools, or a figure in a range. */
export type RuleLimit =
  | { readonly kind: 'school'; readonly schools: readonly School[] }
  | { readonly kind: 'figure'; readonly min: number; readonly max: number };

/** A threshold on which practitioners agree. */
const fixed = (value: number, unit: string, reason: string) =>
  ({ value, unit, reason, limit: null }) satisfies Rule<number>;
/** A figure that a house sets within a range. */
const house = (value: number, unit: string, reason: string, { min, max }: { min: number; max: number }) =>
  ({ value, unit, reason, limit: { kind: 'figure', min, max } }) satisfies Rule<number>;
const figure = (min: number, max: number) => ({ min, max });
/** A choice between schools of practice. The first is the default. */
const school = <const S extends string>(reason: string, ...schools: readonly [S, ...S[]]) => ({
  value: schools[0],
  unit: '',
  reason,
  limit: { kind: 'school' as const, schools },
});

/**
 * The defaults: what a house may set first, in the order of the screen, then what is fixed. Volts are for one 12 V battery unless the name
 * says otherwise.
 */
export const RULES = {
  lastBlack: school(
    'the last spark is then away from the gas over the battery',
    'ground-point',
    'negative-terminal',
  ),
  firstRed: school('the free red end is then never live from a strong source', 'casualty', 'source'),
  clampSequence: school(
    'both source clamps first would leave two live free clamps',
    'reds-first',
    'source-first',
  ),
  donorEngine: school(
    'connect with both engines still, then lend charge before the crank',
    'off-then-run',
    'running',
    'off-throughout',
  ),
  motorcycleDonor: school("a car's alternator can push tens of amps into a small battery", 'off', 'running'),
  donorRevs: school(
    'idle is kind to both vehicles; raised to 1,500 to 2,000 rpm the alternator lends more',
    'idle',
    'raised',
  ),
  bigConsumer: school('a lamp or blower that draws takes the spike when the leads come off', 'first', 'not'),
  crankMinimum: school(
    'cold acid gives less, so the limit falls with the temperature; the strict figure stays as an early warning',
    'by-temperature',
    'strict',
  ),
  chargeOnVehicle: school(
    'first aid at the points; out of the vehicle for anything long',
    'jump-points',
    'negative-off',
    'take-out',
  ),
  veryFlatBattery: school(
    'where case, polarity and age allow, then judged after a day at rest',
    'revive',
    'replace',
  ),
  capacitors: school('alone they run down in days while parked', 'beside', 'instead'),
  hobbyLithium: school(
    'an alternator overcharges it past 12.6 V and it can burn: last resort only',
    'refused',
    'allowed',
  ),
  clampSteps: school(
    'held for half a second a step is not logged by a glove that brushes the screen',
    'tap',
    'hold',
  ),
  donorWaitMinLeast: house(
    2,
    'min',
    'even where waiting buys nothing, the volts must settle and be watched',
    figure(0, 10),
  ),
  donorWaitMinPetrol: house(
    3,
    'min',
    'inside the usual 2 to 5 min; gives a low battery surface charge',
    figure(0, 30),
  ),
  donorWaitMinDiesel: house(
    5,
    'min',
    'a diesel draws more and colder, so the long end of 2 to 5 min',
    figure(0, 60),
  ),
  donorWaitMinVeryFlat: house(8, 'min', 'a very flat battery takes little current at first', figure(0, 60)),
  chargerMinPetrol: house(
    30,
    'min',
    'an ordinary charger needs half an hour before a petrol start',
    figure(5, 240),
  ),
  chargerMinDiesel: house(120, 'min', 'and two hours before a diesel', figure(10, 240)),
  engineStartWaitMin: house(
    2,
    'min',
    'an engine-start charger fills the battery a little first',
    figure(0, 30),
  ),
  crankTriesMax: house(
    4,
    'tries',
    'past that the fault is elsewhere or the starter overheats',
    figure(1, 10),
  ),
  crankSecondsMaxSmall: house(5, 's', 'small starters have little copper to take heat', figure(2, 10)),
  crankSecondsMax: house(10, 's', 'starter windings heat faster than they cool', figure(3, 20)),
  crankSecondsMaxBigDiesel: house(15, 's', "big diesels, with the maker's leave", figure(5, 30)),
  crankRestSeconds: house(60, 's', 'starter and leads cool between tries', figure(15, 600)),
  leadRestRiseC: house(
    40,
    '°C',
    'leads warmer than this by the end of the next try go soft and lose more',
    figure(20, 60),
  ),
  starterRestRiseC: house(
    90,
    '°C',
    'windings hotter than this over the air age with every try',
    figure(40, 140),
  ),
  promiseToleranceVolts: house(0.8, 'V', 'spread of age and drag that a plan cannot know', figure(0.2, 3)),
  crankMinimumStrictVolts: house(
    10.5,
    'V',
    'early warning: a sound battery rarely falls below this',
    figure(9, 11.5),
  ),
  watchOddsLeast: house(
    90,
    'in 100',
    'a vehicle with less is worth a visit before the cold: one in ten would strand',
    figure(50, 99),
  ),
  fullVolts: house(12.6, 'V', 'a flooded battery that rests here counts as charged', figure(12.4, 12.9)),
  driveMinutesLeast: house(20, 'min', 'even where the computed drive is shorter', figure(0, 120)),
  capacitorMinVolts: house(
    10.5,
    'V',
    'below this control units drop out before the bank is empty',
    figure(9, 12),
  ),
  chargingMinVolts: house(13.6, 'V', 'below this the alternator gives the battery nothing', figure(13, 14.2)),
  chargingMaxVolts: house(14.8, 'V', 'flooded and EFB gas hard above this', figure(14, 15)),
  chargingMaxVoltsAgmOrCold: house(
    15.0,
    'V',
    'AGM and cold batteries are charged higher',
    figure(14.4, 15.5),
  ),
  recheckDays: house(2, 'days', 'charge overnight, rest 24 h, then judge', figure(1, 14)),
  replaceSoonDays: house(14, 'days', 'time to get the right battery', figure(1, 60)),
  chargeMonthlyDays: house(
    30,
    'days',
    'short trips never fill a battery: a charge each month does',
    figure(14, 90),
  ),
  inspectDays: house(180, 'days', 'a look every six months', figure(30, 365)),
  chargerSenseVolts: fixed(4, 'V', 'ordinary chargers refuse a battery that rests lower: revive it first'),
  crankMinimumBadVolts: fixed(8, 'V', 'under this at the posts is bad unless a joint explains it'),
  chargingStopVolts: fixed(15.0, 'V', 'above this the regulator has failed: stop and isolate'),
  chargingNoteVolts: fixed(14.2, 'V', 'a warm, charged flooded battery should settle below this'),
  deadCellVolts: fixed(10.5, 'V', 'five of six cells rest here, so suspect a dead cell'),
  reversedVolts: fixed(3, 'V', 'a battery this low may have been driven backwards'),
  lithiumPackSenseVolts: fixed(2, 'V', 'most lithium packs refuse a casualty below this'),
  judgeMinSoc: fixed(0.75, '', 'a battery below three quarters must be charged before it is condemned'),
  electronicsMaxVolts: fixed(16, 'V', 'control units of a 12 V system are proof to about this; per 12 V'),
  loadDumpVolts: fixed(
    80,
    'V',
    'an alternator that loses its battery rises to this before its regulator can act; per 12 V',
  ),
  sourceChargedAmps: fixed(1, 'A', 'more than this into a source that was meant to lend is charging it'),
  batteryMaxVolts: fixed(
    15.5,
    'V',
    'above this a battery gasses hard at any temperature; each battery of a string by itself',
  ),
  stringUnevenSevereVolts: fixed(
    20,
    'V',
    'on one battery of a string that is charged as a whole: past 3.3 V a cell even an empty one boils',
  ),
  liveFreeAmps: fixed(20, 'A', 'a free clamp that would drive more than this into metal burns and welds'),
  unequalWatchAmps: fixed(100, 'A', 'joined sources that exchange more spark hard'),
  unequalSevereAmps: fixed(400, 'A', 'past this clamps weld and leads smoke'),
  batteryChargeWatchPerAh: fixed(2, 'A/Ah', 'a battery takes this for moments only'),
  batteryChargeSeverePerAh: fixed(10, 'A/Ah', 'past this it boils and may burst'),
  leadRiseMaxC: fixed(50, '°C', 'insulation softens in one long try past this'),
  parasiticMaxAmps: fixed(0.05, 'A', 'a sleeping vehicle draws less'),
  stringImbalanceVolts: fixed(0.2, 'V', 'batteries this far apart are judged and charged each by itself'),
  wakeMinVolts: fixed(11, 'V', 'an EV or hybrid wake-up needs a steady 11 V'),
  wakeMaxVolts: fixed(14.5, 'V', 'control units of an EV must not see more'),
  wakeAmps: fixed(30, 'A', 'middle of the 20 to 40 A an EV or hybrid draws to wake'),
  gasDistanceM: fixed(0.5, 'm', "hydrogen has thinned out at arm's length in open air"),
  repeatFlatDays: fixed(90, 'days', 'two flat calls inside this: test, and probably replace'),
} as const;

export type RuleKey = keyof typeof RULES;

/** A rule that a house may set. */
export type HouseRuleKey = {
  [K in RuleKey]: (typeof RULES)[K]['limit'] extends null ? never : K;
}[RuleKey];

/** The schools of a rule on which practitioners differ. */
export type SchoolOf<K extends RuleKey> = (typeof RULES)[K]['value'] & string;

export type School = SchoolOf<RuleKey>;

/** Rules that a house may set, in the order of the screen. */
export const HOUSE_RULE_KEYS = (Object.keys(RULES) as RuleKey[]).filter(
  (key): key is HouseRuleKey => RULES[key].limit !== null,
);

/** Whether a stored key still names a rule that a house may set. */
export const isHouseRule = (key: string): key is HouseRuleKey => HOUSE_RULE_KEYS.some((k) => k === key);

/** The value of each rule, as one crew has set it. */
export type HouseRules = { readonly [K in RuleKey]: (typeof RULES)[K]['value'] };

/** The defaults as a plain set of values. */
export const DEFAULT_RULES: HouseRules = Object.fromEntries(
  Object.entries(RULES).map(([key, rule]) => [key, rule.value]),
) as HouseRules;

/**
 * Standard crank minimum at the posts for a 12 V battery by temperature: the load-test table of the trade, volts.
 * Colder acid gives less, so the limit falls.
 */
export const CRANK_MINIMUM_BY_TEMPERATURE = [
  [-18, 8.5],
  [-12, 8.7],
  [-7, 8.9],
  [-1, 9.1],
  [4, 9.3],
  [10, 9.4],
  [16, 9.5],
  [21, 9.6],
] as const;

/**
 * Every threshold of the trade, once. A rule has a value, its unit, and the reason a technician would give.
 * Rules marked `houseRule` are where practitioners differ: the crew lead may choose another school.
 */
export interface Rule<T> {
  readonly value: T;
  readonly unit: string;
  readonly reason: string;
  readonly houseRule: boolean;
}

const fixed = (value: number, unit: string, reason: string): Rule<number> => ({
  value,
  unit,
  reason,
  houseRule: false,
});
const house = <T>(value: T, unit: string, reason: string): Rule<T> => ({
  value,
  unit,
  reason,
  houseRule: true,
});

export type LastBlackSchool = 'ground-point' | 'negative-terminal';
export type FirstRedSchool = 'casualty' | 'source';
export type ClampSequenceSchool = 'reds-first' | 'source-first';
export type HobbyLithiumSchool = 'refused' | 'allowed';
export type MotorcycleDonorSchool = 'off' | 'running';
export type DonorRevsSchool = 'idle' | 'raised';
export type BigConsumerSchool = 'first' | 'not';
export type CrankMinimumSchool = 'by-temperature' | 'strict';
export type ChargeOnVehicleSchool = 'jump-points' | 'negative-off' | 'take-out';
export type VeryFlatSchool = 'revive' | 'replace';
export type CapacitorSchool = 'beside' | 'instead';
export type DonorEngineSchool = 'off-then-run' | 'off-throughout' | 'running';

/** The defaults. Volts are for one 12 V battery unless the name says otherwise. */
export const RULES = {
  lastBlack: house<LastBlackSchool>(
    'ground-point',
    '',
    'the last spark is then away from the gas over the battery',
  ),
  firstRed: house<FirstRedSchool>('casualty', '', 'the free red end is then never live from a strong source'),
  clampSequence: house<ClampSequenceSchool>(
    'reds-first',
    '',
    'both source clamps first would leave two live free clamps',
  ),
  donorEngine: house<DonorEngineSchool>(
    'off-then-run',
    '',
    'connect with both engines still, then lend charge before the crank',
  ),
  motorcycleDonor: house<MotorcycleDonorSchool>(
    'off',
    '',
    "a car's alternator can push tens of amps into a small battery",
  ),
  donorRevs: house<DonorRevsSchool>(
    'idle',
    '',
    'idle is kind to both vehicles; raised to 1,500 to 2,000 rpm the alternator lends more',
  ),
  donorWaitMinLeast: house(2, 'min', 'even where waiting buys nothing, the volts must settle and be watched'),
  donorWaitMinPetrol: house(3, 'min', 'inside the usual 2 to 5 min; gives a low battery surface charge'),
  donorWaitMinDiesel: house(5, 'min', 'a diesel draws more and colder, so the long end of 2 to 5 min'),
  donorWaitMinVeryFlat: house(8, 'min', 'a very flat battery takes little current at first'),
  chargerMinPetrol: house(30, 'min', 'an ordinary charger needs half an hour before a petrol start'),
  chargerMinDiesel: house(120, 'min', 'and two hours before a diesel'),
  engineStartWaitMin: house(2, 'min', 'an engine-start charger fills the battery a little first'),
  chargerSenseVolts: fixed(4, 'V', 'ordinary chargers refuse a battery that rests lower: revive it first'),
  hobbyLithium: house<HobbyLithiumSchool>(
    'refused',
    '',
    'an alternator overcharges it past 12.6 V and it can burn: last resort only',
  ),
  crankTriesMax: house(4, 'tries', 'past that the fault is elsewhere or the starter overheats'),
  crankSecondsMaxSmall: house(5, 's', 'small starters have little copper to take heat'),
  crankSecondsMax: house(10, 's', 'starter windings heat faster than they cool'),
  crankSecondsMaxBigDiesel: house(15, 's', "big diesels, with the maker's leave"),
  crankRestSeconds: house(60, 's', 'starter and leads cool between tries'),
  leadRestRiseC: house(40, '°C', 'leads warmer than this by the end of the next try go soft and lose more'),
  starterRestRiseC: house(90, '°C', 'windings hotter than this over the air age with every try'),
  promiseToleranceVolts: house(0.8, 'V', 'spread of age and drag that a plan cannot know'),
  crankMinimum: house<CrankMinimumSchool>(
    'by-temperature',
    '',
    'cold acid gives less, so the limit falls with the temperature; the strict figure stays as an early warning',
  ),
  crankMinimumStrictVolts: house(10.5, 'V', 'early warning: a sound battery rarely falls below this'),
  crankMinimumBadVolts: fixed(8, 'V', 'under this at the posts is bad unless a joint explains it'),
  fullVolts: house(12.6, 'V', 'a flooded battery that rests here counts as charged'),
  chargingMinVolts: house(13.6, 'V', 'below this the alternator gives the battery nothing'),
  chargingMaxVolts: house(14.8, 'V', 'flooded and EFB gas hard above this'),
  chargingMaxVoltsAgmOrCold: house(15.0, 'V', 'AGM and cold batteries are charged higher'),
  chargingStopVolts: fixed(15.0, 'V', 'above this the regulator has failed: stop and isolate'),
  chargingNoteVolts: fixed(14.2, 'V', 'a warm, charged flooded battery should settle below this'),
  deadCellVolts: fixed(10.5, 'V', 'five of six cells rest here, so suspect a dead cell'),
  reversedVolts: fixed(3, 'V', 'a battery this low may have been driven backwards'),
  lithiumPackSenseVolts: fixed(2, 'V', 'most lithium packs refuse a casualty below this'),
  judgeMinSoc: fixed(0.75, '', 'a battery below three quarters must be charged before it is condemned'),
  bigConsumer: house<BigConsumerSchool>(
    'first',
    '',
    'a lamp or blower that draws takes the spike when the leads come off',
  ),
  driveMinutesLeast: house(20, 'min', 'even where the computed drive is shorter'),
  chargeOnVehicle: house<ChargeOnVehicleSchool>(
    'jump-points',
    '',
    'first aid at the points; out of the vehicle for anything long',
  ),
  veryFlatBattery: house<VeryFlatSchool>(
    'revive',
    '',
    'where case, polarity and age allow, then judged after a day at rest',
  ),
  capacitors: house<CapacitorSchool>('beside', '', 'alone they run down in days while parked'),
  capacitorMinVolts: house(10.5, 'V', 'below this control units drop out before the bank is empty'),
  electronicsMaxVolts: fixed(16, 'V', 'control units of a 12 V system are proof to about this; per 12 V'),
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
  recheckDays: house(2, 'days', 'charge overnight, rest 24 h, then judge'),
  replaceSoonDays: house(14, 'days', 'time to get the right battery'),
  chargeMonthlyDays: house(30, 'days', 'short trips never fill a battery: a charge each month does'),
  inspectDays: house(180, 'days', 'a look every six months'),
} as const;

export type RuleKey = keyof typeof RULES;

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

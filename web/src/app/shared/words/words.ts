import type { AttemptOutcome } from '@voltrek/core/crank';
import { degreesMore, metres } from './units';
import type { KitItem } from '@voltrek/core/sources';
import type { Weather } from '@voltrek/contracts';
import type { WakeOutcome } from '@voltrek/core/crank';
import type { PolaritySign, ReadingKind, StopCondition, Symptom } from '@voltrek/core/diagnosis';
import type { Circumstance, WrongMetal, Confirmation, gasAt, StepReason } from '@voltrek/core/hookup';
import type { DriveAdvice, PlaceKind } from '@voltrek/core/job';
import type { MachineClass, PointKind, RollingStartBar, RollingStartCaution } from '@voltrek/core/machine';
import type {
  CrankComparison,
  Help,
  LimitedBy,
  Origin,
  Outlook,
  PlanInputKey,
  Unfit,
  Unknown,
  WaitCurve,
} from '@voltrek/core/plan';
import type { LatchPoint } from '@voltrek/core/sources';

export const PLACE_WORDS: Record<PlaceKind, string> = {
  verge: 'verge',
  street: 'street',
  'car-park': 'car park',
  yard: 'yard',
  field: 'field',
  quay: 'quay',
  ramp: 'ramp',
  indoors: 'indoors',
};

export const SKY_WORDS: Record<Weather['sky'], string> = {
  clear: 'clear',
  cloud: 'cloud',
  snow: 'snow',
  sleet: 'sleet',
};

export const CLASS_WORDS: Record<MachineClass, string> = {
  car: 'car',
  van: 'van',
  truck: 'truck',
  plant: 'plant',
  motorcycle: 'motorcycle',
  'ride-on': 'ride-on',
  genset: 'genset',
  boat: 'boat',
  hybrid: 'hybrid',
  ev: 'EV',
};

/** How things stand beside the clamps. */
export const CIRCUMSTANCE_WORDS: Record<Circumstance, string> = {
  'memory-keeper': 'memory keeper on',
  'second-battery': 'second battery joined',
  charger: 'a charger on it',
  'solar-panel': 'solar panel on it',
  'vehicles-touch': 'vehicles touch',
  'isolator-open': 'isolator open',
  'casualty-engine-runs': 'its engine runs',
  'donor-revs-raised': 'donor revs raised',
  'gear-engaged': 'a gear is in',
  'not-secured': 'not chocked',
  'positive-earth': 'plus on the body',
  'series-link-wrong': 'series link wrong',
  'source-tripped': 'it switched itself off',
};

/** The metal that a clamp is on in place of clean metal. */
export const METAL_WORDS: Record<WrongMetal, string> = {
  pipe: 'a pipe',
  'thin-sheet': 'thin or painted sheet',
  'moving-part': 'fan, belt or pulley',
  'bare-post': 'the bare lead post',
  'battery-sensor': 'behind the battery sensor',
  'isolated-body': 'a body with no bond',
  'forty-eight-volts': 'the 48 V system',
};

export const UNKNOWN_WORDS: Record<Unknown, string> = {
  charge: 'its true charge',
  ageing: 'the age of its battery',
  clamps: 'contact of the clamps',
  drag: 'the drag of this engine',
  temperature: 'how cold the engine really is',
  starter: 'the strength of its starter',
  breakaway: 'how hard it is to move at first',
  firing: 'the speed and volts it fires at',
  source: 'what the source really gives',
};

/** A stop: what is seen, what to do instead. */
export const STOP_WORDS: Record<
  StopCondition,
  { readonly sign: string; readonly wrong: string; readonly instead: string }
> = {
  frozen: {
    sign: 'Battery frozen',
    wrong: 'A frozen battery can burst when current flows.',
    instead: 'Take the battery out and warm it slowly, or recover the machine to a warm place.',
  },
  'case-damaged': {
    sign: 'Case cracked, leaking, bulged or hot',
    wrong: 'Acid and gas are loose, or the battery is failing inside.',
    instead: 'Keep sparks away. Isolate, take the battery out in a tray, fit another or recover.',
  },
  'gas-smell': {
    sign: 'Rotten-egg or sweet smell, hissing',
    wrong: 'Gas is venting. One spark can burst the case.',
    instead: 'Stand back and let it air. Do not clamp or unclamp anything. Recover.',
  },
  'lithium-damaged': {
    sign: 'Lithium battery damaged',
    wrong: 'A hurt lithium battery can burn without warning, even later.',
    instead: 'Keep people back and call the fire service if it warms or smokes. Recover on an open bed.',
  },
  'high-voltage-damaged': {
    sign: 'High voltage hurt: crash, flood, bare orange cable',
    wrong: 'The body may be live at hundreds of volts.',
    instead: 'Do not touch. Keep clear and call a qualified high-voltage technician.',
  },
  'fuel-smell': {
    sign: 'Fuel smell or spill',
    wrong: 'The last clamp makes a spark. Vapour catches.',
    instead: 'Stop the leak, ventilate, move people away. Recover if it does not clear.',
  },
  'voltage-unknown': {
    sign: 'System voltage unknown or not ours',
    wrong: 'The wrong volts destroy control units at once.',
    instead: 'Count the batteries and read the plate. Nothing goes on until the volts agree.',
  },
  'polarity-unknown': {
    sign: 'Polarity not established',
    wrong: 'Reversed leads put both batteries in series across your hands.',
    instead: 'Find two signs that agree, then prove it with the meter.',
  },
  'case-warm': {
    sign: 'Case warm on charge',
    wrong: 'A battery that warms on charge is failing inside, or is given too much. It can burst.',
    instead:
      'Charger off, plug out, then the clamps. Let it cool in the open. Do not charge or crank it here.',
  },
  'nowhere-to-stand': {
    sign: 'No safe place to stand',
    wrong: 'Traffic, slope or ice can kill faster than a battery.',
    instead: 'Warn traffic, move people off, and recover the machine to a safe place first.',
  },
};

export const SYMPTOM_WORDS: Record<Symptom, string> = {
  silence: 'silent, dash dead',
  'silence-bright': 'silent, lamps bright',
  'one-click': 'one click',
  'rapid-click': 'rapid clicking',
  'slow-crank': 'slow crank',
  'brisk-no-fire': 'brisk crank, no fire',
  'dies-again': 'starts, dies again',
  'warning-lamps': 'all lamps under load',
  'no-doors': 'no doors, no screens',
};

export const POINT_KIND_WORDS: Record<PointKind, string> = {
  'battery-positive': 'battery +',
  'battery-negative': 'battery -',
  'red-post': 'red post',
  'starter-stud': 'starter stud',
  'ground-point': 'ground point',
  release: 'release',
  'latch-wire-positive': 'latch wire +',
  'latch-wire-negative': 'latch wire -',
};

export const POLARITY_WORDS: Record<PolaritySign, string> = {
  mark: '+ mark or P',
  'red-cover': 'red cover or cable',
  'fatter-post': 'fatter post',
  'black-to-body': 'black runs to body',
  meter: 'meter reads plus',
};

export const READING_WORDS: Record<ReadingKind, { readonly name: string; readonly how: string }> = {
  rest: {
    name: 'Rest volts',
    how: 'Everything off. Fresh from a drive: main beam 2 min, off 1 min, then read at the posts.',
  },
  'crank-minimum': {
    name: 'Crank minimum',
    how: 'Meter on the posts, not the clamps. Lowest figure while it cranks.',
  },
  'charging-idle': { name: 'Charging, idle', how: 'Engine at idle, leads off, consumers off.' },
  'charging-loaded': { name: 'Charging, loaded', how: 'Lights, blower and demist on.' },
};

/** The battery of a string, counted from the chassis side. */
export const batteryWord = (battery: number): string => `battery ${battery + 1}`;

/** A reading by its name; of a string also by the battery that it was taken of, where it was one. */
export function readingName(kind: ReadingKind, battery: number, batteries: number): string {
  const { name } = READING_WORDS[kind];
  return ofBattery(name, kind === 'rest' && batteries > 1 ? battery : undefined);
}

/** Returns the name of a reading, with the battery of a string that it was read at. */
export function ofBattery(name: string, battery: number | null | undefined): string {
  return battery == null ? name : `${name}, ${batteryWord(battery)}`;
}

export const OUTLOOK_WORDS: Record<Outlook | 'stop-ahead', string> = {
  cranks: 'will crank',
  marginal: 'may crank',
  'too-slow': 'too slow to fire',
  'does-not-turn': 'will not turn',
  'low-volts': 'turns, volts too low',
  wakes: 'will wake it',
  'does-not-wake': 'will not wake it',
  charges: 'charges it to full',
  'stop-ahead': 'a stop is ahead',
};

export const LIMIT_WORDS: Record<LimitedBy, string> = {
  leads: 'the leads',
  source: 'the source itself',
  casualty: 'the flat battery pulling it down',
  none: 'nothing much',
};

export function unfitWords(unfit: Unfit): string {
  switch (unfit.code) {
    case 'voltage':
      return `gives ${unfit.outputVolts} V, this is ${unfit.systemVolts} V`;
    case 'battery-bar':
      return unfit.bar === 'frozen'
        ? 'battery frozen: warm it through before anything is joined'
        : 'battery reversed: nothing is joined to it';
    case 'sense':
      return `refuses a battery under ${unfit.senseVolts} V, this reads ${unfit.restVolts.toFixed(2)}`;
    case 'unsteady':
      return 'cannot hold a steady 12 V for a wake-up';
    case 'lithium-battery':
      return 'lithium battery without jump points: not from outside';
    case 'other-battery-weak':
      return 'helps only when the other battery is sound';
    case 'batteries-unread':
      return 'measure both batteries first';
    case 'bodies-apart':
      return 'its body is on minus, this one on plus: never joined';
    case 'no-mains':
      return 'no socket within reach';
    case 'house-rule':
      return 'house rule: not offered';
    case 'leads-short':
      return `${metres(unfit.lengthM, 1)} of lead, ${metres(unfit.neededM, 1)} needed as parked`;
    case 'over-current':
      return `would have to give ${unfit.amps.toFixed(0)} A, stands ${unfit.maxAmps.toFixed(0)}`;
  }
}

/** The words of a look, a wait or a setting. */
export interface ConfirmWords {
  readonly title: string;
  readonly detail: string;
  readonly go: string;
}

/** Of the usual machine; `confirmWords` turns them round for one with plus on its body. */
export const CONFIRM_WORDS: Record<Confirmation, ConfirmWords> = {
  'all-off': {
    title: 'Everything off, both sides',
    detail:
      'Keys out, lights and blowers off, brakes on, P or neutral. Vehicles close, not touching. Glasses, gloves, no rings.',
    go: 'All off',
  },
  'machine-secured': {
    title: 'Secure the machine: it may turn',
    detail:
      'Gear out, brake on, wheels or tracks chocked, nobody in front. A clamp on the stud passes by every lock of the starter.',
    go: 'It cannot move off',
  },
  'guard-lamp': {
    title: 'Look at the guard lamp',
    detail: 'A reverse lamp or a fault lamp means stop: take the clamps off and prove polarity again.',
    go: 'Lamp is right',
  },
  wait: {
    title: 'Let it take charge',
    detail: 'Nobody cranks yet. A volt reading that climbs is a good sign.',
    go: 'Waited',
  },
  'charger-set': {
    title: 'Set the charger, unplugged',
    detail:
      'Dry, stable, beside the machine, not on the engine. Chemistry and volts set, switch off, plug out. Air the battery.',
    go: 'Set, unplugged',
  },
  'cells-bagged': {
    title: 'Put the cells in the bag, and watch them',
    detail:
      'Fire-resistant bag, on bare ground, clear of the machine. Soft, warm or swollen cells are not used. Nothing charges them: the moment it runs they are off.',
    go: 'Bagged and watched',
  },
  'cells-read': {
    title: 'Read the cells before they are on',
    detail:
      '11.1 to 12.6 V across the three, none above 4.2 or under 3.6 V. The meter at the clamps reads plus where the red one is: no guard looks for you.',
    go: 'Cells are right',
  },
  'series-sum': {
    title: 'Link the two batteries, read the sum',
    detail:
      'Link lead from + of one to - of the other. The meter across the free posts must read about 25 V.',
    go: 'Sum is right',
  },
  'negative-off': {
    title: 'Take the negative clamp off the battery',
    detail:
      'Key out, doors settled. Tuck the clamp away so that it cannot spring back. Memories may be lost.',
    go: 'Negative is off',
  },
  'negative-on': {
    title: 'Put the negative clamp back on the battery',
    detail: 'Clean, tight, it must not turn. A small spark is usual: air the battery first.',
    go: 'Negative is back',
  },
  'big-consumer-on': {
    title: 'Switch a big consumer on',
    detail: 'Heated screen or blower on the casualty. It takes the spike when the leads come off.',
    go: 'Consumer is on',
  },
};

/** Of the usual machine, with minus on its body; `reasonWords` turns them round for the other. */
export const REASON_WORDS: Record<StepReason, string> = {
  'stud-may-turn': 'A slip from the stud to its neighbour turns the engine, whatever gear is in.',
  'nothing-drawing': 'Nothing draws current, so nothing arcs.',
  'red-first': 'No source is on this lead yet: its free end carries only what the casualty itself has.',
  'red-free-end-weak': 'Keep the free red end off all metal on the way.',
  'wrong-place': 'It is on where it should not be. Off first, then its own place.',
  'start-again': 'Not as planned: still everything, then go on in a safe order.',
  'red-closes': 'Red to red: the free end was guarded until now.',
  'free-end-strong': 'The free red end is live from a strong source now: guard it.',
  'last-at-source': 'Last contact, so it is made at the source, away from the gas at the casualty.',
  'black-not-last': 'No spark here: the loop is still open at the source.',
  'helper-black': 'Now only the last contact can spark.',
  'sum-first': 'A wrong link shows on the meter, not on the casualty.',
  'charger-dead': 'Unplugged, both its ends are dead.',
  'charger-black': 'The charger is still dead, so this contact makes no spark.',
  'plug-last': 'The last contact is at the socket, far from the battery.',
  'battery-charges': 'The battery takes what it can. Watch that it stays cool.',
  'donor-black': 'Body and chassis are negative: now only the last contact can spark.',
  'last-away-from-battery': 'Last contact, so it goes away from the battery.',
  'last-near-battery':
    'Last contact. This is the best black point known, yet near the battery: look for bare metal farther away, and put it in the atlas.',
  'two-ends-live': 'Both ends of the source are on leads now: two free clamps are live. Hold them apart.',
  'last-at-battery-ruled':
    'House rule: the last contact is at the battery, where gas may be. Air it, face away.',
  'last-at-battery':
    'No ground point is known here, so the last contact is at the battery. Air it, face away.',
  'middle-joint-live': 'The middle joint is live: it stands at the volts of the battery below it.',
  'pack-black': 'The pack is still off, so this contact makes no spark.',
  'pack-still-off':
    'The pack is off: both ends are dead. Stand it where it cannot fall or meet the fan, and read its charge.',
  'polarity-guard': 'The guard sees the polarity now, before any current.',
  'pack-arms': 'Current can flow from here on. Crank soon.',
  'cells-burn': 'Bare cells that are shorted, overcharged or crushed burn, and are not put out.',
  'cells-unguarded': 'Nothing in these cells stops a wrong clamp or a full cell.',
  'cells-unplugged':
    'Bare cells have no switch. Unplugged, both ends of the leads are dead: they stay so until both clamps are on.',
  'cells-unplugged-black': 'The cells are still unplugged, so this contact makes no spark.',
  'cells-plugged': 'Plugging in makes the contact. Current can flow from here on: crank soon.',
  'cells-off-first':
    'The engine charges bare cells past their limit within seconds: unplugged before anything else.',
  'donor-lends': 'It charges the low battery and carries the crank.',
  'charger-works': 'Look in on it: volts, amps, the warmth of its case. Nothing is cranked with it on.',
  'charge-first': 'A low battery gains surface charge and pulls less from the leads.',
  'spike-tamed': 'House rule: it tames the volts when the leads come away.',
  'broken-away': 'First contact broken, so it is the one away from the casualty battery.',
  'broken-at-battery': 'First contact broken, and it is near a battery: air it, face away, one clean move.',
  'loop-open': 'The loop is open: nothing flows here now. Keep the free ends off metal all the same.',
  'lends-no-more': 'Donor off: it has lent what it could, and one regulator is left.',
  'no-arc-at-clamps': 'Off first, so that no clamp breaks current.',
  'electronics-apart': 'House rule: the charger then sees the battery alone, not the control units.',
  'body-back': 'The charger is away and dead, so only the body joins again.',
};

export const OUTCOME_WORDS: Record<AttemptOutcome, { readonly name: string; readonly next: string }> = {
  started: { name: 'It runs', next: 'Clear down, then read the charging voltage.' },
  'brisk-no-fire': {
    name: 'Brisk, no fire',
    next: 'Stop. Power is not the fault: fuel, spark, immobiliser.',
  },
  slow: { name: 'Slow', next: 'Its battery is weak, or something drags.' },
  clicks: { name: 'Clicks', next: 'Look at the joints.' },
  nothing: { name: 'Nothing', next: 'Isolator, main fuse, joints, starter. Not a matter of more power.' },
};
/** The same outcomes on a machine that wakes. */
/** The first act after joined help that failed; a try by itself asks for none of it. */
const JOINED_ADVICE: Partial<Record<AttemptOutcome, { readonly donor: string; readonly other: string }>> = {
  slow: {
    donor: 'Set the clamps again, wait longer, raise the donor to 1,500 to 2,000 rpm.',
    other: 'Set the clamps again, look at its charge.',
  },
  clicks: {
    donor: 'Set the clamps again, look at the joints, wait longer.',
    other: 'Set the clamps again, look at the joints.',
  },
};

/** Returns the act after a try, by the help that was joined in it. @param helper the kind that helped; null for a try by itself */
export function adviceAfter(outcome: AttemptOutcome, helper: KitItem['kind'] | null): string {
  const joined = helper === null ? undefined : JOINED_ADVICE[outcome];
  if (!joined) return OUTCOME_WORDS[outcome].next;
  return helper === 'donor' ? joined.donor : joined.other;
}

export const WAKE_OUTCOME_WORDS: Record<AttemptOutcome, { readonly name: string; readonly next: string }> = {
  ...OUTCOME_WORDS,
  started: { name: 'Awake, ready', next: 'Its converter feeds back now: take the leads off.' },
  clicks: { name: 'Lamps only', next: 'Hold the volts steady, foot on the brake, press start again.' },
  nothing: { name: 'Nothing', next: 'Fuse, joints, 12 V battery. Traction flat needs a charge point.' },
};

/** The line that every stage keeps in view once, short. */
export const STANDING_CAUTION =
  "Follow the maker's instructions and local rules. High-voltage work is for qualified people.";

/** Figures a plan counts with: what each is called, and how it is shown. */
export const INPUT_WORDS: Record<
  PlanInputKey,
  { readonly name: string; readonly unit: string; readonly scale: number; readonly places: number }
> = {
  soc: { name: 'charge of the weakest battery', unit: '%', scale: 100, places: 0 },
  tempC: { name: 'temperature', unit: '°C', scale: 1, places: 0 },
  capacityAh: { name: 'its capacity', unit: 'Ah', scale: 1, places: 0 },
  ccaAmps: { name: 'its cold-cranking amps', unit: 'A', scale: 1, places: 0 },
  ageing: { name: 'its resistance against new', unit: 'times', scale: 1, places: 2 },
  displacementL: { name: 'displacement', unit: 'L', scale: 1, places: 2 },
  sectionMm2: { name: 'lead section', unit: 'mm²', scale: 1, places: 0 },
  leadLengthM: { name: 'lead length, one way', unit: 'm', scale: 1, places: 1 },
  clampOhms: { name: 'each clamp', unit: 'mohm', scale: 1000, places: 1 },
  sourceVolts: { name: 'source, open', unit: 'V', scale: 1, places: 2 },
  sourceOhms: { name: 'source, inside', unit: 'mohm', scale: 1000, places: 1 },
  alternatorAmps: { name: 'alternator or charger lends', unit: 'A', scale: 1, places: 0 },
  waitMinutes: { name: 'wait before the crank', unit: 'min', scale: 1, places: 0 },
};

export const ORIGIN_WORDS: Record<Origin, string> = {
  typed: 'typed',
  meter: 'meter',
  atlas: 'atlas',
  kit: 'kit list',
  scene: 'scene',
  rule: 'house rule',
  assumed: 'assumed',
  changed: 'changed here',
};

/** Changes that hands can make, as an order. */
export const helpWords = (help: Help): string =>
  help === 'warm-battery' ? `a battery and engine ${degreesMore(10)} warmer` : HELP_WORDS[help];

const HELP_WORDS: Record<Exclude<Help, 'warm-battery'>, string> = {
  'heavier-leads': 'leads of twice the section',
  'shorter-leads': 'shorter leads',
  'contact-again': 'clamps on bright metal, set again',
  'wait-longer': '5 more minutes of charging',
  'raise-donor': 'the donor at 1,500 to 2,000 rpm',
  'fresh-source': 'a stronger or fuller source',
};

export function waitWords({ shape, kneeMinutes, start }: WaitCurve): string {
  switch (shape) {
    case 'no-supply':
      return 'This source lends no charge: waiting buys nothing.';
    case 'at-once':
      return 'Crank at once. Waiting buys little.';
    case 'knee':
      return `${kneeMinutes} ${kneeMinutes === 1 ? 'minute is' : 'minutes are'} enough, more buys little.`;
    case 'still-rising':
      return `Still climbing at ${start.length - 1} minutes. Wait as long as you can.`;
    case 'no-use':
      return 'Waiting does not save this one. Change the leads or the source.';
  }
}

export const PROMISE_WORDS: Record<CrankComparison['code'], string> = {
  'as-promised': 'as the plan said',
  lower: 'lower than the plan said: look at joints, contacts and starter',
  higher: 'higher than the plan said: it drew less. Look for an open joint',
};

export const ROLLING_BAR_WORDS: Record<RollingStartBar, string> = {
  wakes: 'it wakes, it does not crank',
  'not-manual': 'not a manual gearbox',
  'no-gearbox': 'no gearbox to roll on',
  'onto-road': 'it would roll onto a road',
  'no-control-power': 'too few volts for its control unit',
  'clamps-on': 'clamps are on',
  runs: 'it runs already',
  stopped: 'a stop is in force',
};
export const ROLLING_CAUTION_WORDS: Record<RollingStartCaution, string> = {
  'second-gear': 'second gear, key on',
  'steering-and-brakes': 'steering and brakes are heavy until it runs',
  'needs-push': 'needs a push',
  catalyst: 'a try or two at most, for the catalyst',
};

export const WAKE_OUTCOME_LINES: Record<WakeOutcome, string> = {
  'takes-over': 'Its converter takes over: take the leads off.',
  'stays-on-help': 'Traction flat: it lives on the help. Open, unlock, free the charge flap, then stop.',
  'falls-asleep': 'The volts sag and it falls asleep again.',
  'over-voltage': 'Too many volts for its control units.',
};

export const LATCH_FAULT_WORDS: Record<NonNullable<LatchPoint['fault']>, string> = {
  'too-weak': 'too weak to pull',
  'too-strong': 'too strong, it may burn',
};

export const GAS_WORDS: Record<ReturnType<typeof gasAt>, string> = {
  none: 'no',
  possible: 'may be',
  likely: 'likely',
};

/** The gain of a drive for the battery, which is seldom enough. */
export function driveWords(drive: DriveAdvice | null): string {
  if (!drive) return '';
  const { targetMinutes, needsCharger } = drive;
  if (targetMinutes === 0) return 'The battery is well charged: that puts back what the start took.';
  if (targetMinutes === null) return 'No drive brings it to three quarters: put it on a charger.';
  const hours = targetMinutes / 60;
  const time = hours < 1.5 ? `${Math.ceil(targetMinutes)} min` : `${hours.toFixed(1)} h`;
  return needsCharger
    ? `Three quarters charge would take ${time} of driving: put it on a charger.`
    : `Three quarters charge takes ${time} of driving.`;
}

import type { Machine } from '@voltrek/core/machine';
import type { BatteryCondition, Cause, Found, CheckId, Symptom } from '@voltrek/core/diagnosis';
import type { Doubt } from '@voltrek/core/job';
import type { Ground } from '@voltrek/core/verdict';
import { percent, volts } from './figures';
import { SYMPTOM_WORDS } from './words';

/** How one battery of a string stands. */
export const CONDITION_WORDS: Record<BatteryCondition, string> = {
  sound: 'sound',
  discharged: 'flat, otherwise sound',
  worn: 'worn',
  'dead-cell': 'a dead cell',
  'broken-link': 'a link broken inside',
  reversed: 'reversed',
};

/** Causes, as they are said on screen. */
export const CAUSE_WORDS: Record<Cause, string> = {
  discharged: 'flat, battery sound',
  'left-on': 'something left on',
  drain: 'parked drain',
  charging: 'charging fault',
  worn: 'worn battery',
  sulphated: 'sulphated battery',
  'dead-cell': 'dead cell',
  reversed: 'battery reversed',
  frozen: 'battery frozen',
  'string-weak': 'one weak battery of the string',
  'joint-positive': 'bad joint, positive',
  'joint-negative': 'bad joint, negative',
  'joint-loose': 'loose clamp',
  cable: 'cable or strap',
  'main-fuse': 'main fuse or isolator',
  starter: 'starter or solenoid',
  interlock: 'interlock or switch',
  immobiliser: 'immobiliser',
  fuel: 'fuel or engine',
  'traction-flat': 'traction battery flat',
  converter: 'converter',
  'charge-point': 'charge point or cord',
  'broken-link': 'link broken inside the battery',
  seized: 'engine tight or stuck',
  'guard-open': 'lithium guard open',
  'not-taught': 'new battery, vehicle not told',
  none: 'no fault',
};

/** A check as it is asked of this machine: a motorcycle charges at more revs than a car. */
export const askWords = (check: CheckId, { machineClass }: Pick<Machine, 'machineClass'>): string =>
  machineClass === 'motorcycle' && check === 'charging-loaded'
    ? 'Revved to 3,000 rpm: read the charging volts'
    : CHECK_WORDS[check].ask;

/** Each check as an order, with its outcomes where it is answered by a tap; a unit where it is answered by a figure. */
export const CHECK_WORDS: Record<
  CheckId,
  { readonly ask: string; readonly outcomes?: Readonly<Record<string, string>>; readonly unit?: string }
> = {
  symptom: { ask: 'What does it do?' },
  'ask-left-on': { ask: 'Ask: was anything left on?', outcomes: { yes: 'yes', no: 'no' } },
  'look-switches': {
    ask: 'Look at lamp switch, key, doors, sockets',
    outcomes: { 'one-is-on': 'one is on', 'all-off': 'all off' },
  },
  'ask-use': {
    ask: 'Ask: how is it used?',
    outcomes: { regular: 'every day', 'short-trips': 'short trips', 'stood-weeks': 'stood for weeks' },
  },
  'ask-flats': { ask: 'Ask: was it flat before?', outcomes: { yes: 'yes', no: 'no' } },
  'ask-dims': {
    ask: 'Lamps when the key is turned',
    outcomes: { 'go-out': 'go out', dim: 'dim', 'stay-bright': 'stay bright' },
  },
  'ask-slow-lately': { ask: 'Slow cranks, dips of the radio lately', outcomes: { yes: 'yes', no: 'no' } },
  'ask-warned': { ask: 'Odd warnings, 12 V messages, slow doors lately', outcomes: { yes: 'yes', no: 'no' } },
  'ask-charge-lamp': { ask: 'Charge lamp while driving', outcomes: { 'was-lit': 'was lit', out: 'out' } },
  'ask-noise': {
    ask: 'Noises',
    outcomes: { squeal: 'squeals after a start', grind: 'grinds at the key', none: 'none' },
  },
  'ask-helped': {
    ask: 'Helped before',
    outcomes: { 'flat-again': 'flat again in days', held: 'and it held', 'not-helped': 'never' },
  },
  'look-joints': {
    ask: 'Look at the joints, turn them by hand',
    outcomes: { 'turns-by-hand': 'one turns', deposits: 'deposits', rust: 'rust', clean: 'tight' },
  },
  'look-belt': { ask: 'Look at the drive belt', outcomes: { bad: 'slack or gone', sound: 'sound' } },
  'look-date': {
    ask: 'Read the date on the battery',
    outcomes: { 'under-3': 'under 3 years', '3-to-6': '3 to 6', 'over-6': 'over 6' },
  },
  interlocks: {
    ask: 'Work each interlock, try again',
    outcomes: { fault: 'that was it', clear: 'all clear' },
  },
  'immobiliser-lamp': { ask: 'Look at the immobiliser lamp', outcomes: { lit: 'lit', out: 'out' } },
  'isolator-fuse': {
    ask: 'Check isolator and main fuse',
    outcomes: { fault: 'off or blown', clear: 'whole' },
  },
  'fuel-gauge': { ask: 'Look at the fuel gauge', outcomes: { empty: 'empty', 'has-fuel': 'has fuel' } },
  rest: { ask: 'Read rest volts' },
  'string-balance': { ask: 'Read rest volts of both batteries' },
  'key-on': { ask: 'Read how far it drops at key-on', unit: 'V' },
  'try-alone': {
    ask: 'Turn the key yourself: what does it do?',
    outcomes: {
      started: 'starts',
      'brisk-no-fire': 'brisk, no fire',
      slow: 'slow',
      clicks: 'clicks',
      nothing: 'nothing',
    },
  },
  crank: { ask: 'Read the crank minimum' },
  recovery: { ask: 'Read the volts 10 s after a try', unit: 'V' },
  'joint-plus': { ask: 'Meter from the + post to its cable, cranking', unit: 'V' },
  'joint-minus': { ask: 'Meter from the - post to the engine, cranking', unit: 'V' },
  'starter-stud': { ask: 'Read how far the starter stud lies under the posts', unit: 'V' },
  conductance: { ask: 'Test the battery: share of its rating', unit: '0 to 1' },
  'load-test': { ask: 'Load the battery with half its rating for 15 s', unit: 'V' },
  acceptance: {
    ask: 'Put it on the charger for ten minutes',
    outcomes: { 'full-at-once': 'shows full at once', 'takes-charge': 'takes charge' },
  },
  'specific-gravity': {
    ask: 'Specific gravity of each cell',
    outcomes: { 'even-high': 'even, high', 'even-low': 'even, low', 'one-cell-low': 'one cell low' },
  },
  'with-help': { ask: 'Join help and crank' },
  promise: { ask: 'Crank with help, compare with the plan' },
  charging: { ask: 'Get it running, read the charging volts' },
  'charging-loaded': { ask: 'Five minutes on, at 2,000 rpm: read the charging volts' },
  ripple: { ask: 'Meter on AC volts across the posts, running', unit: 'V' },
  'turn-by-hand': {
    ask: 'Gear out: can the engine be turned by hand?',
    outcomes: { tight: 'tight or stuck', turns: 'turns' },
  },
  'ask-replaced': { ask: 'Ask: is the battery new?', outcomes: { yes: 'yes', no: 'no' } },
  'ask-warm': {
    ask: 'Ask: does it start well on mild days?',
    outcomes: { 'cold-only': 'only the cold stops it', 'any-weather': 'no, or not known' },
  },
  drain: { ask: 'Clamp round the negative cable, all asleep', unit: 'A' },
  'traction-gauge': {
    ask: 'Has the traction battery charge?',
    outcomes: { flat: 'flat', 'has-charge': 'has charge' },
  },
  converter: { ask: 'Wake it, read the volts: do they rise?' },
  'charge-lamp': {
    ask: 'Plug the charge cord in: ready lamp?',
    outcomes: { 'no-lamp': 'no lamp', ready: 'ready' },
  },
  case: { ask: 'Case, vents, leaks, swelling', outcomes: { fault: 'damaged', clear: 'sound' } },
  'high-voltage-ready': {
    ask: 'No crash, no flood, no bare orange',
    outcomes: { fault: 'hurt', clear: 'clear' },
  },
  'selector-park': { ask: 'Selector truly in P or N', outcomes: { fault: 'was not', clear: 'yes' } },
  'brake-switch': { ask: 'Brake pedal switch', outcomes: { fault: 'dead', clear: 'works' } },
  'clutch-switch': { ask: 'Clutch pedal switch', outcomes: { fault: 'dead', clear: 'works' } },
  'kill-switch': { ask: 'Kill switch', outcomes: { fault: 'was off', clear: 'run' } },
  'side-stand': { ask: 'Side stand up', outcomes: { fault: 'was down', clear: 'up' } },
  neutral: { ask: 'Neutral, or clutch in', outcomes: { fault: 'was not', clear: 'yes' } },
  'fuel-tap': { ask: 'Fuel tap and shut-off', outcomes: { fault: 'was shut', clear: 'open' } },
  'main-fuse': { ask: 'Main fuse', outcomes: { fault: 'blown', clear: 'whole' } },
  'seat-switch': { ask: 'Seat switch', outcomes: { fault: 'dead', clear: 'works' } },
  'blade-switch': { ask: 'Blade or broom switch', outcomes: { fault: 'was in', clear: 'out' } },
  'key-position': { ask: 'Key fully at start', outcomes: { fault: 'was not', clear: 'yes' } },
  isolator: { ask: 'Battery isolator', outcomes: { fault: 'was off', clear: 'on' } },
  'emergency-stop': { ask: 'Emergency stop', outcomes: { fault: 'was in', clear: 'out' } },
  pto: { ask: 'PTO and hydraulics', outcomes: { fault: 'were on', clear: 'off' } },
  'both-batteries': { ask: 'Both batteries present and linked', outcomes: { fault: 'no', clear: 'yes' } },
};

/** The outcomes that a check is answered with by a tap, each by its name; none where it is answered by a figure. */
export const outcomesNamed = (check: CheckId): { readonly found: string; readonly name: string }[] =>
  Object.entries(CHECK_WORDS[check].outcomes ?? {}).map(([found, name]) => ({ found, name }));

/** The finding of a check, by name, for a ledger and a sheet. */
export const FINDING_NAMES: Record<CheckId, string> = {
  symptom: 'It does',
  'ask-left-on': 'Something left on',
  'look-switches': 'Switches',
  'ask-use': 'Use',
  'ask-flats': 'Flat before',
  'ask-dims': 'Lamps at the key',
  'ask-slow-lately': 'Slow lately',
  'ask-warned': 'Warned lately',
  'ask-charge-lamp': 'Charge lamp while driving',
  'ask-noise': 'Noises',
  'ask-helped': 'Helped before',
  'look-joints': 'Joints',
  'look-belt': 'Drive belt',
  'look-date': 'Age of the battery',
  interlocks: 'Interlocks',
  'immobiliser-lamp': 'Immobiliser lamp',
  'isolator-fuse': 'Isolator and main fuse',
  'fuel-gauge': 'Fuel gauge',
  rest: 'Rest volts',
  'string-balance': 'Batteries apart by',
  'key-on': 'Drop at key-on',
  'try-alone': 'By itself it',
  crank: 'Crank minimum, against its limit',
  recovery: 'Volts 10 s after a try',
  'joint-plus': 'Lost over the + joint',
  'joint-minus': 'Lost over the - joint',
  'starter-stud': 'Starter stud under the posts by',
  conductance: 'Tested, of its rating',
  'load-test': 'Load test, against its limit',
  acceptance: 'On the charger',
  'specific-gravity': 'Specific gravity of the cells',
  'with-help': 'With help it',
  promise: 'With help, against the plan',
  charging: 'Charging volts',
  'charging-loaded': 'Charging volts at 2,000 rpm',
  ripple: 'AC volts while it charges',
  'turn-by-hand': 'Turned by hand it',
  'ask-replaced': 'Battery just replaced',
  'ask-warm': 'Mild days',
  drain: 'Drain, asleep',
  'traction-gauge': 'Traction battery',
  converter: 'Volts once awake',
  'charge-lamp': 'Ready lamp of the charge cord',
  case: 'Case',
  'high-voltage-ready': 'No crash',
  'selector-park': 'Selector truly in P or N',
  'brake-switch': 'Brake pedal switch',
  'clutch-switch': 'Clutch pedal switch',
  'kill-switch': 'Kill switch',
  'side-stand': 'Side stand',
  neutral: 'Neutral',
  'fuel-tap': 'Fuel tap and shut-off',
  'main-fuse': 'Main fuse',
  'seat-switch': 'Seat switch',
  'blade-switch': 'Blade or broom switch',
  'key-position': 'Key fully at start',
  isolator: 'Battery isolator',
  'emergency-stop': 'Emergency stop',
  pto: 'PTO and hydraulics',
  'both-batteries': 'Both batteries present and linked',
};

const TRY_WORDS: Readonly<Record<string, string>> = {
  started: 'started',
  'brisk-no-fire': 'cranked briskly, no fire',
  slow: 'cranked slowly',
  clicks: 'clicked',
  nothing: 'did nothing',
};

/** A finding as it is said: its outcome, or its figure with a unit. */
export function foundWords(check: CheckId, found: Found): string {
  if (typeof found === 'number') {
    if (check === 'conductance') return percent(found);
    if (check === 'drain') return `${Math.round(found * 1000)} mA`;
    const isDifference = check === 'crank' || check === 'load-test' || check === 'promise';
    return `${isDifference && found > 0 ? '+' : ''}${volts(found)}`;
  }
  if (check === 'symptom') return SYMPTOM_WORDS[found as Symptom].toLowerCase();
  if (check === 'with-help') return TRY_WORDS[found] ?? found;
  return CHECK_WORDS[check].outcomes?.[found] ?? found;
}

export const GROUND_WORDS: Record<Ground, string> = {
  'stop-stands': 'A stop stands.',
  'frozen-likely': 'The battery is most likely frozen.',
  'frozen-by-volts': 'By its volts and the cold it is frozen: no current may go through it.',
  'reversed-by-volts': 'It reads backwards: no current may go through it.',
  'proved-spent': 'A test proves it spent.',
  'proved-worn': 'A test proves it worn.',
  'likely-but-unproved': 'It may well be done, but nothing proves it yet: charge it, then test.',
  'discharged-not-bad': 'Discharged is not bad: nothing here condemns it.',
  'cells-apart': 'One cell reads low: charge it to full, then read the cells again. Still apart, it is bad.',
  'flat-again': 'Flat again within 90 days, and no test shows it sound.',
  'died-in-service': 'A 12 V battery that has died once is near its end.',
  'sound-and-charged': 'It holds its charge and nothing speaks against it.',
  'fault-elsewhere': 'What was found points away from the battery.',
  'mended-here': 'What was at fault is mended, and it starts by itself or charges again.',
  'load-it-now': 'It is charged, so a load tells now: crank it or test it under load.',
  undecided: 'What was found fits more than one fault.',
  'no-evidence': 'Nothing has been found yet.',
};

/** Doublings of the odds from which a finding is said to speak clearly, and strongly. */
const CLEAR_BITS = 1;
const STRONG_BITS = 3;

/** The way a finding speaks, and its strength: in words, so that it cannot be taken for a reading. */
export function pushWords(bits: number): string {
  const size = Math.abs(bits);
  const how = size >= STRONG_BITS ? 'strongly' : size >= CLEAR_BITS ? 'clearly' : 'a little';
  return `speaks ${bits < 0 ? 'against it' : 'for it'}, ${how}`;
}

export const DOUBT_WORDS: Record<Doubt, string> = {
  'charging-but-still': 'Nothing is logged as running. Does it run? Read it again',
  'above-rest': 'Higher than at rest: on the posts? Read it again',
  'rest-moved': 'It moved by itself. Clean the probes, read it again',
  'too-soon': 'Too soon after running: main beam 2 min, wait 1 min, read again',
  'surface-charge': 'Surface charge: main beam 2 min, wait 1 min, read again',
};

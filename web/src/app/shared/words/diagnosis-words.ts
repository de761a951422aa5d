import type { Cause, Doubt, Found, Ground, ProbeId, Symptom } from '@voltrek/core';
import { percent, volts } from './figures';
import { SYMPTOM_WORDS } from './words';

/** What may be wrong, as it is said on screen. */
export const CAUSE_WORDS: Record<Cause, string> = {
  discharged: 'flat, block sound',
  'left-on': 'something left on',
  drain: 'parked drain',
  charging: 'charging fault',
  worn: 'worn block',
  sulphated: 'sulphated block',
  'dead-cell': 'dead cell',
  reversed: 'block reversed',
  frozen: 'block frozen',
  'string-weak': 'one weak block of the string',
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
  none: 'no fault',
};

/** Each check as an order, with its outcomes where it is answered by a tap; a unit where it is answered by a figure. */
export const PROBE_WORDS: Record<
  ProbeId,
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
  'look-joints': {
    ask: 'Look at the joints, turn them by hand',
    outcomes: { 'turns-by-hand': 'one turns', deposits: 'deposits', clean: 'clean, tight' },
  },
  'look-belt': { ask: 'Look at the drive belt', outcomes: { bad: 'slack or gone', sound: 'sound' } },
  'look-date': {
    ask: 'Read the date on the block',
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
  'string-balance': { ask: 'Read rest volts of both blocks' },
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
  conductance: { ask: 'Test the block: share of its rating', unit: '0 to 1' },
  'load-test': { ask: 'Load the block with half its rating for 15 s', unit: 'V' },
  acceptance: {
    ask: 'Put it on the charger for ten minutes',
    outcomes: { 'full-at-once': 'shows full at once', 'takes-charge': 'takes charge' },
  },
  gravity: {
    ask: 'Gravity of each cell',
    outcomes: { 'even-high': 'even, high', 'even-low': 'even, low', 'one-cell-low': 'one cell low' },
  },
  'with-help': { ask: 'Join help and crank' },
  promise: { ask: 'Crank with help, compare with the plan' },
  charging: { ask: 'Get it running, read the charging volts' },
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
};

/** What a check found, by name, for a ledger and a sheet. */
export const FINDING_NAMES: Record<ProbeId, string> = {
  symptom: 'It does',
  'ask-left-on': 'Something left on',
  'look-switches': 'Switches',
  'ask-use': 'Use',
  'ask-flats': 'Flat before',
  'look-joints': 'Joints',
  'look-belt': 'Drive belt',
  'look-date': 'Age of the block',
  interlocks: 'Interlocks',
  'immobiliser-lamp': 'Immobiliser lamp',
  'isolator-fuse': 'Isolator and main fuse',
  'fuel-gauge': 'Fuel gauge',
  rest: 'Rest volts',
  'string-balance': 'Blocks apart by',
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
  gravity: 'Gravity of the cells',
  'with-help': 'With help it',
  promise: 'With help, against the plan',
  charging: 'Charging volts',
  drain: 'Drain, asleep',
  'traction-gauge': 'Traction battery',
  converter: 'Volts once awake',
  'charge-lamp': 'Ready lamp of the charge cord',
};

const TRY_WORDS: Readonly<Record<string, string>> = {
  started: 'started',
  'brisk-no-fire': 'cranked briskly, no fire',
  slow: 'cranked slowly',
  clicks: 'clicked',
  nothing: 'did nothing',
};

/** A finding as it is said: its outcome, or its figure with a unit. */
export function foundWords(probe: ProbeId, found: Found): string {
  if (typeof found === 'number') {
    if (probe === 'conductance') return percent(found);
    if (probe === 'drain') return `${Math.round(found * 1000)} mA`;
    const isDifference = probe === 'crank' || probe === 'load-test' || probe === 'promise';
    return `${isDifference && found > 0 ? '+' : ''}${volts(found)}`;
  }
  if (probe === 'symptom') return SYMPTOM_WORDS[found as Symptom].toLowerCase();
  if (probe === 'with-help') return TRY_WORDS[found] ?? found;
  return PROBE_WORDS[probe].outcomes?.[found] ?? found;
}

export const GROUND_WORDS: Record<Ground, string> = {
  'stop-stands': 'A stop stands.',
  'frozen-likely': 'The block is most likely frozen.',
  'proved-spent': 'A test proves it spent.',
  'proved-worn': 'A test proves it worn.',
  'likely-but-unproved': 'It may well be done, but nothing proves it yet: charge it, then test.',
  'discharged-not-bad': 'Discharged is not bad: nothing here condemns it.',
  'flat-again': 'Flat again within 90 days, and no test shows it sound.',
  'died-in-service': 'A low-voltage block that has died once is near its end.',
  'sound-and-charged': 'It holds its charge and nothing speaks against it.',
  'fault-elsewhere': 'What was found points away from the block.',
  'no-evidence': 'Nothing has been found yet.',
};

/** How far a finding moved the odds: doublings as a factor. */
export function pushWords(bits: number): string {
  const factor = 2 ** Math.abs(bits);
  const said = factor >= 10 ? factor.toFixed(0) : factor.toFixed(1);
  return factor >= 1000 ? 'over 1000 times' : `${said} times`;
}

export const DOUBT_WORDS: Record<Doubt, string> = {
  'charging-but-still': 'Nothing is logged as running. Does it run? Read it again',
  'above-rest': 'Higher than at rest: on the posts? Read it again',
  'rest-moved': 'It moved by itself. Clean the probes, read it again',
  'too-soon': 'Too soon after running: main beam 2 min, wait 1 min, read again',
  'surface-charge': 'Surface charge: main beam 2 min, wait 1 min, read again',
};

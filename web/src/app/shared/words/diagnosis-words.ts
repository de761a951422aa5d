import type { Cause, ProbeId } from '@voltrek/core';

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
  crank: { ask: 'Read the crank minimum' },
  'joint-plus': { ask: 'Meter from the + post to its cable, cranking', unit: 'V' },
  'joint-minus': { ask: 'Meter from the - post to the engine, cranking', unit: 'V' },
  'starter-stud': { ask: 'Read how far the starter stud lies under the posts', unit: 'V' },
  conductance: { ask: 'Test the block: share of its rating', unit: '0 to 1' },
  gravity: {
    ask: 'Gravity of each cell',
    outcomes: { 'even-high': 'even, high', 'even-low': 'even, low', 'one-cell-low': 'one cell low' },
  },
  'with-help': { ask: 'Join help and crank' },
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

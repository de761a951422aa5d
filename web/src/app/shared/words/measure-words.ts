import type { CaptureEnd, Instrument, LinkState } from '@voltrek/contracts';
import {
  type MeasureGroup,
  type MeasureKind,
  type CheckId,
  checkOf,
  type Probing,
} from '@voltrek/core/diagnosis';
import { type Machine, numberOf } from '@voltrek/core/machine';
import type { TraceNote } from '@voltrek/core/trace';
import { tell } from './tell';
import { ofBattery, READING_WORDS } from './words';

export const GROUP_WORDS: Record<MeasureGroup, string> = {
  posts: 'At the posts',
  joints: 'Over joints',
  battery: 'The battery',
  parked: 'Parked draw',
};

/** Figures that are no volts of a reading: what each is called, and how it is taken. */
export const FIGURE_WORDS: Partial<Record<CheckId, { readonly name: string; readonly how: string }>> = {
  'key-on': {
    name: 'Key on',
    how: 'Key on, no crank, only the dash lit. Volts at the posts; rest volts first.',
  },
  recovery: { name: 'After a try', how: 'Volts at the posts 10 s after a try that failed.' },
  'joint-plus': { name: '+ joint', how: 'One probe on the post itself, one on its cable, while it cranks.' },
  'joint-minus': { name: '- joint', how: 'One probe on the - post, one on the engine, while it cranks.' },
  'starter-stud': {
    name: 'Starter stud',
    how: 'How far the stud lies under the posts, while it cranks. Long probe, clear of the fan.',
  },
  conductance: { name: 'Tester', how: 'Tested cold-cranking amps, by the standard printed on the battery.' },
  'load-test': {
    name: 'Load test',
    how: 'Lowest volts after 15 s at half its rated amps. Only from three quarters charge.',
  },
  'specific-gravity': { name: 'Hydrometer', how: 'Caps off, each cell in turn. Goggles and gloves: acid.' },
  acceptance: { name: 'On charger', how: 'Put it on the charger: what does it show after ten minutes?' },
  drain: { name: 'Drain', how: 'Clamp round the negative cable, doors latched, all asleep for 20 min.' },
};

/** The places of the probes, by the numbers of the machine's points. */
export function probingWords(machine: Pick<Machine, 'points'>, probing: Probing): string {
  const no = (id: string): number => numberOf(machine, id);
  if (probing.kind === 'round-cable') return tell`Clamp round the cable at ${no(probing.at)}`;
  const { red, black, onCable } = probing;
  if (onCable === 'black') return tell`Red on ${no(red)}, black on its cable`;
  if (onCable === 'red') return tell`Black on ${no(black)}, red on its cable`;
  return tell`Red on ${no(red)}, black on ${no(black)}`;
}

/** A measurement by its name; of a string also by the battery, where it is taken at one of them. */
export function measureName(kind: MeasureKind, battery: number, batteries: number): string {
  const name = kind.reading ? READING_WORDS[kind.reading].name : (FIGURE_WORDS[kind.check]?.name ?? kind.id);
  return ofBattery(name, checkOf(kind.check).isOfBattery && batteries > 1 ? battery : undefined);
}

/** The meaning of a figure, by the outcome it falls on. */
export const OUTCOME_MEANINGS: Partial<Record<CheckId, Readonly<Record<string, string>>>> = {
  'key-on': {
    holds: 'Holds up',
    sags: 'Sags: weak or very low',
    'sags-far': 'Sags far: flat, or worn',
    collapses: 'Collapses: nearly nothing left',
  },
  recovery: {
    'stays-down': 'Stays down: done, or flat',
    slow: 'Slow to climb',
    'climbs-back': 'Climbs back well',
  },
  'joint-plus': {
    good: 'Good joint',
    'worth-cleaning': 'Clean and tighten it',
    bad: 'Bad joint: this is it',
    'very-bad': 'Hardly a joint at all: this is it',
  },
  'joint-minus': {
    good: 'Good joint',
    'worth-cleaning': 'Clean and tighten it',
    bad: 'Bad joint: this is it',
    'very-bad': 'Hardly a joint at all: this is it',
  },
  'starter-stud': {
    full: 'All of it arrives',
    low: 'Some is lost on the way',
    bad: 'Cable or strap: too much is lost',
    'no-volts': 'Nothing arrives: fuse, isolator, solenoid',
  },
  conductance: {
    spent: 'Spent: under 60 % of its rating',
    worn: 'Worn: under 80 % of its rating',
    tired: 'Tired, still in order',
    sound: 'Sound',
  },
  'load-test': { fails: 'Fails', near: 'Just holds', holds: 'Holds' },
  'specific-gravity': {
    'even-high': 'Even and high: charged',
    'even-low': 'Even and low: charge it',
    'one-cell-low': 'One cell stands out: bad',
  },
  acceptance: {
    'full-at-once': 'Full at once from flat: no capacity left',
    'takes-charge': 'Takes charge as it should',
  },
  drain: {
    asleep: 'Normal for a sleeping vehicle',
    high: 'High: something does not sleep',
    much: 'Far too much',
  },
};

export const LINK_WORDS: Record<LinkState, string> = {
  off: 'not linked',
  connecting: 'connecting',
  ready: 'live',
  slow: 'answers too late',
  lost: 'lost, trying again',
  nonsense: 'talks nonsense',
};

const LOST = 'The meter was lost while it captured. Nothing was taken.';
/** Why a capture ended early. */
export const CAPTURE_END_WORDS: Record<CaptureEnd, string> = {
  off: 'No meter is linked.',
  connecting: 'The meter is not there yet. Try again.',
  ready: LOST,
  slow: 'The meter answers too late to capture. Nothing was taken.',
  lost: LOST,
  nonsense: 'The meter talks nonsense. Nothing was taken.',
  busy: 'Another screen captures from the meter. Wait for it.',
};

export const INSTRUMENT_WORDS: Record<Instrument, string> = {
  meter: 'Meter',
  clamp: 'Clamp',
  tester: 'Tester',
};

export const TRACE_NOTE_WORDS: Record<TraceNote, string> = {
  'too-coarse': 'Too few points a second for speed and inrush.',
  gap: 'The logger missed a stretch.',
  'starts-in-crank': 'It starts in the crank: no rest volts.',
  'ends-in-crank': 'It ends in the crank: no recovery.',
  'no-crank': 'No crank in it.',
  'more-cranks': 'More than one crank: the longest is told.',
  'no-ripple': 'No ripple stands out: no speed.',
  chatters: 'It chatters: the solenoid drops in and out, and nothing turns.',
  clipped: 'The logger reads no lower: the true lowest volts lie deeper.',
  'probes-reversed': 'The probes were the wrong way round: turned.',
  'clamp-reversed': 'The clamp looked the other way: turned.',
  spikes: 'Lone leaps are left out.',
};

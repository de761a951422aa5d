import { convertCca, SPENT_BELOW_SHARE, strengthShare, WORN_BELOW_SHARE } from '../battery/index.js';
import { USUAL_CONVERTER, ATTEMPT_OUTCOMES } from '../crank/index.js';
import { WORN_FROM } from './draw-hidden.js';
import { againstCrankLimit, CHARGES_FROM_VOLTS, crankLimitVolts } from './reading.js';
import type { Cause, DiagnosisProfile } from './causes.js';
import { type StopCondition, SYMPTOMS } from './vocabulary.js';
import {
  type CrankLook,
  crankOf,
  HELP,
  type HiddenMachine,
  type LampsAtKey,
  lampsAtKey,
  lookOf,
  ohmsInside,
  restVoltsOf,
} from './hidden.js';

export const TOOLS = [
  'meter',
  'clamp-meter',
  'tester',
  'load-tester',
  'hydrometer',
  'source',
  'charger',
] as const;
/** An instrument that a check needs beyond eyes and ears. */
export type Tool = (typeof TOOLS)[number];

/** The finding of a check: one of its outcomes, or a figure. */
export type Found = string | number;

/** Everything that is true of one thing that can be asked, looked at or measured. */
interface CheckRow {
  /** Read at one battery of a string by itself; read once for all, it tells of the weakest. */
  readonly isOfBattery?: boolean;
  /** Adds nothing once this one was read battery by battery. */
  readonly toldBy?: string;
  /** Told by the driver unasked, or not at all: it is entered at will and never proposed. */
  readonly isVolunteered?: boolean;
  /** It is read while the engine runs or the converter works, or with everything off; left out: either way. */
  readonly when?: 'running' | 'still';
  /** It turns the key, or puts amps through the battery: in frost they may meet ice, and once they have flowed the rest volts tell less. */
  readonly takesAmps?: boolean;
  /** Minutes it takes with gloves on. */
  readonly minutes: number;
  readonly needs: Tool | null;
  /** Only where it makes sense; left out: everywhere. */
  readonly fits?: (profile: DiagnosisProfile) => boolean;
  /** Outcomes of a look, or the edges between the ranges of a figure. */
  readonly outcomes: readonly string[];
  /** The check that this is one part of: a switch among the interlocks, a fuse of the main circuit. It is weighed as that whole. */
  readonly partOf?: string;
  /** Raised by itself when this is found at fault. */
  readonly stop?: StopCondition;
  readonly edges?: readonly number[];
  /** Chance of each outcome on this machine, for a look. */
  readonly chances?: (hidden: HiddenMachine, profile: DiagnosisProfile) => readonly number[];
  /** The figure of a measurement on this machine; null when it cannot be read. */
  readonly predict?: (hidden: HiddenMachine, profile: DiagnosisProfile) => number | null;
  /** Spread of the instrument, the hand and what the model leaves out; wider on a machine where the figure is not valid. */
  readonly spread?: number | ((hidden: HiddenMachine, profile: DiagnosisProfile) => number);
  /** Why the chances or the spread are what they are. */
  readonly reason: string;
}

/** Of a look that is either right or not. */
const LOOK_OUTCOMES = ['fault', 'clear'] as const;

const yes = (share: number): readonly number[] => [share, 1 - share];
const cranks = ({ engine }: DiagnosisProfile): boolean => engine !== null;
const wakes = ({ engine }: DiagnosisProfile): boolean => engine === null;
const atEach = (of: number, { systemVolts }: DiagnosisProfile): number => (of * 12) / systemVolts;
/**
 * Current of the lit dash, the control units and the fuel pump at key-on, A: at this a warm battery passes the trade's 0.3 V near a tenth of
 * its charge, a cold one near a quarter.
 */
const KEY_ON_AMPS = 20;

/** The driver's words for it: mostly what it truly did, sometimes its neighbour. */
function symptomChances(hidden: HiddenMachine, profile: DiagnosisProfile): readonly number[] {
  if (wakes(profile)) return wakingSymptoms(hidden, profile);
  const look = lookOf(hidden, profile, false);
  const isRecurrent = hidden.holds.includes('charging') || hidden.holds.includes('drain');
  //                              silence click rapid slow  brisk dies  lamps doors
  const row: Record<typeof look, readonly number[]> = {
    silence: [0.86, 0.05, 0.03, 0.01, 0.01, 0.02, 0.01, 0.01],
    'one-click': [0.08, 0.76, 0.1, 0.02, 0.01, 0.01, 0.01, 0.01],
    'rapid-click': [0.06, 0.12, 0.72, 0.05, 0.01, 0.01, 0.02, 0.01],
    slow: [0.01, 0.03, 0.08, 0.82, 0.02, 0.02, 0.01, 0.01],
    'brisk-no-fire': [0.01, 0.01, 0.01, 0.02, 0.92, 0.01, 0.01, 0.01],
    starts: [0.05, 0.05, 0.05, 0.2, 0.1, 0.45, 0.09, 0.01],
  };
  // A fault that empties the battery again and again is also told as such.
  const told = isRecurrent
    ? row[look].map((share, i) => share * 0.75 + (i === 5 ? 0.2 : i === 6 ? 0.05 : 0))
    : row[look];
  return silencesTold(told, lampsAtKey(hidden, profile) !== 'go-out');
}

/** Silence is told with the dash dead or with its lamps bright; one in ten is told the other way round. */
function silencesTold([silence, ...others]: readonly number[], isBright: boolean): readonly number[] {
  const bright = isBright ? 0.9 : 0.1;
  return [silence! * (1 - bright), silence! * bright, ...others];
}

function wakingSymptoms(hidden: HiddenMachine, profile: DiagnosisProfile): readonly number[] {
  const isDead = hidden.open || restVoltsOf(hidden, profile)[0]! < 11.5;
  return silencesTold(wakingRow(hidden, isDead), !isDead);
}

function wakingRow(hidden: HiddenMachine, isDead: boolean): readonly number[] {
  if (isDead) return [0.25, 0.02, 0.03, 0.01, 0.01, 0.02, 0.06, 0.6];
  switch (hidden.cause) {
    case 'traction-flat':
    case 'charge-point':
      return [0.05, 0.01, 0.01, 0.01, 0.01, 0.06, 0.8, 0.05];
    case 'converter':
      return [0.08, 0.01, 0.01, 0.01, 0.01, 0.5, 0.3, 0.08];
    case 'none':
      return [0.1, 0.05, 0.05, 0.05, 0.05, 0.3, 0.3, 0.1];
    default:
      return [0.1, 0.05, 0.1, 0.01, 0.01, 0.08, 0.45, 0.2];
  }
}

/** How a try looks to whoever stands by, by what it truly does. */
const TRY_ROWS: Record<CrankLook, readonly number[]> = {
  starts: [0.95, 0.01, 0.02, 0.01, 0.01],
  'brisk-no-fire': [0.01, 0.96, 0.01, 0.01, 0.01],
  slow: [0.06, 0.01, 0.88, 0.04, 0.01],
  'rapid-click': [0.01, 0.01, 0.08, 0.87, 0.03],
  'one-click': [0.01, 0.01, 0.03, 0.92, 0.03],
  silence: [0.01, 0.01, 0.01, 0.03, 0.94],
};

function helpChances(hidden: HiddenMachine, profile: DiagnosisProfile): readonly number[] {
  if (wakes(profile)) {
    if (hidden.open) return [0.02, 0.01, 0.01, 0.02, 0.94];
    if (hidden.cause === 'traction-flat' || hidden.cause === 'charge-point')
      return [0.03, 0.01, 0.01, 0.9, 0.05];
    if (hidden.plusOhms + hidden.minusOhms > 0.01) return [0.3, 0.01, 0.01, 0.58, 0.1];
    return [0.93, 0.01, 0.01, 0.03, 0.02];
  }
  return TRY_ROWS[lookOf(hidden, profile, true)];
}

/** Volts per 12 V at which a charging figure turns from nothing to weak, from weak to charging, and from charging to too much. */
const CHARGING_EDGES = [CHARGES_FROM_VOLTS, 13.6, 15.1];

/** Running, it shows what charges it; what does not run, with help or without, shows its battery's own volts. */
function runningVolts(hidden: HiddenMachine, profile: DiagnosisProfile, volts: number): number {
  return lookOf(hidden, profile, true) === 'starts' ? volts : Math.min(12.9, ...restVoltsOf(hidden, profile));
}

/** Charge from which a tester's figure is the battery's own. */
const TESTER_SOC = 0.75;
/** Share of its figure that an empty battery loses. */
const FLAT_FIGURE_LOSS = 0.55;
/** How far the emptiest battery is from where a tester's figure counts, 0 to 1. */
function unchargedShare({ batteries }: HiddenMachine): number {
  return Math.max(0, 1 - Math.min(...batteries.map((b) => b.soc)) / TESTER_SOC);
}
/** Spread of a tester's figure of a battery that is broken inside, where testers agree least. */
const BROKEN_FIGURE_SPREAD = 0.15;
/** A mild day, in which everything sound enough starts, degC. */
const WARM_C = 20;
/** Charge above which a charger has next to nothing to do. */
const FULL_AT_ONCE_SOC = 0.85;
const hasDeadCell = (batteries: HiddenMachine['batteries']): boolean =>
  batteries.some(({ deadCells = 0 }) => deadCells > 0);
const wornOf = (batteries: HiddenMachine['batteries']): number => Math.max(...batteries.map((b) => b.ageing));

/** How the lamps at the key are told, by what they truly do. */
const LAMPS_ROWS: Record<LampsAtKey, readonly number[]> = {
  'go-out': [0.84, 0.13, 0.03],
  dim: [0.15, 0.7, 0.15],
  'stay-bright': [0.03, 0.14, 0.83],
};
/** Causes that make a crank slow for weeks before it fails. */
const SLOWS: readonly Cause[] = [
  'joint-positive',
  'joint-negative',
  'joint-loose',
  'cable',
  'charging',
  'sulphated',
];
/** Causes that empty a battery again once somebody has helped. */
const EMPTIES_AGAIN: readonly Cause[] = ['charging', 'drain', 'worn', 'sulphated', 'not-taught'];

/** A look of the walk round that is no check of its own. */
const LOOK = { minutes: 0.2, needs: null, outcomes: LOOK_OUTCOMES } as const;
/** One that is weighed as a part of another check. */
const PART = {
  ...LOOK,
  reason: 'weighed as a part of its whole',
} as const;
/** One that ends the job. */
const ENDS_JOB = {
  ...LOOK,
  reason: 'a hurt case or high-voltage part ends the job whatever else is found',
} as const;

/**
 * Every check the tool can propose: what it costs, what it can find, and how likely that is on a given machine. A row that lacks a part, or
 * names a check that is none, does not compile.
 */
const ROWS = {
  symptom: {
    minutes: 0.2,
    needs: null,
    outcomes: SYMPTOMS,
    chances: symptomChances,
    reason: 'one in five drivers tells a neighbour of what it did',
  },
  'ask-left-on': {
    minutes: 0.3,
    needs: null,
    outcomes: ['yes', 'no'],
    chances: ({ leftOn }) => yes(leftOn ? 0.9 : 0.03),
    reason: 'the switch is still on, or they remember; few own up to what is not so',
  },
  'look-switches': {
    minutes: 0.4,
    needs: null,
    outcomes: ['one-is-on', 'all-off'],
    chances: ({ leftOn }) => yes(leftOn ? 0.88 : 0.02),
    reason: 'lamp switch, key, door, socket: one of them is usually still on',
  },
  'ask-use': {
    minutes: 0.3,
    needs: null,
    outcomes: ['regular', 'short-trips', 'stood-weeks'],
    chances: ({ use }) =>
      use === 'regular' ? [0.9, 0.07, 0.03] : use === 'short-trips' ? [0.1, 0.87, 0.03] : [0.03, 0.04, 0.93],
    reason: 'people know how far they drive, roughly',
  },
  'ask-flats': {
    minutes: 0.3,
    needs: null,
    outcomes: ['yes', 'no'],
    chances: ({ earlierFlat }) => yes(earlierFlat ? 0.93 : 0.03),
    reason: 'a second flat call is remembered, and is in the log',
  },
  'ask-dims': {
    isVolunteered: true,
    minutes: 0.2,
    needs: null,
    fits: cranks,
    outcomes: ['go-out', 'dim', 'stay-bright'],
    chances: (hidden, profile) => LAMPS_ROWS[lampsAtKey(hidden, profile)],
    reason: 'seen through the windscreen or remembered; by day one in six is taken for its neighbour',
  },
  'ask-slow-lately': {
    isVolunteered: true,
    minutes: 0.3,
    needs: null,
    fits: cranks,
    outcomes: ['yes', 'no'],
    chances: ({ batteries, holds, starter }) =>
      yes(
        wornOf(batteries) >= WORN_FROM
          ? 0.65
          : holds.some((cause) => SLOWS.includes(cause)) || starter === 'dragging'
            ? 0.45
            : 0.1,
      ),
    reason: 'what wears or loosens gives notice for weeks; what was left on does not',
  },
  'ask-warned': {
    isVolunteered: true,
    minutes: 0.3,
    needs: null,
    fits: wakes,
    outcomes: ['yes', 'no'],
    chances: ({ batteries, cause }) =>
      yes(cause === 'converter' ? 0.55 : wornOf(batteries) >= WORN_FROM ? 0.6 : 0.08),
    reason:
      'its units watch their own volts: what wears shows in odd warnings for weeks, what was left on does not',
  },
  'ask-charge-lamp': {
    isVolunteered: true,
    minutes: 0.3,
    needs: null,
    fits: cranks,
    outcomes: ['was-lit', 'out'],
    chances: ({ holds, revvedVolts, rippleVolts }) =>
      yes(
        !holds.includes('charging')
          ? 0.03
          : revvedVolts < CHARGES_FROM_VOLTS
            ? 0.72
            : rippleVolts > 0.3
              ? 0.4
              : 0.15,
      ),
    reason: 'the lamp tells of no charging; of weak or too much it often does not, and few drivers look',
  },
  'ask-noise': {
    isVolunteered: true,
    minutes: 0.3,
    needs: null,
    fits: cranks,
    outcomes: ['squeal', 'grind', 'none'],
    chances: ({ beltBad, starter }) => {
      if (beltBad) return [0.5, 0.03, 0.47];
      return starter === 'dragging' ? [0.03, 0.35, 0.62] : [0.04, 0.02, 0.94];
    },
    reason: 'a slack belt squeals after the start, a starter that drags grinds; half do neither',
  },
  'ask-helped': {
    isVolunteered: true,
    minutes: 0.3,
    needs: null,
    outcomes: ['flat-again', 'held', 'not-helped'],
    chances: ({ earlierFlat, holds }) => {
      if (!earlierFlat) return [0.02, 0.04, 0.94];
      return holds.some((cause) => EMPTIES_AGAIN.includes(cause)) ? [0.62, 0.2, 0.18] : [0.25, 0.5, 0.25];
    },
    reason: 'who was helped before remembers whether it was flat again within days',
  },
  'look-joints': {
    minutes: 0.5,
    needs: null,
    outcomes: ['turns-by-hand', 'deposits', 'rust', 'clean'],
    chances: ({ holds }) => {
      if (holds.includes('joint-loose')) return [0.92, 0.025, 0.005, 0.05];
      if (holds.includes('joint-positive') || holds.includes('joint-negative'))
        return [0.03, 0.56, 0.08, 0.33];
      return holds.includes('cable') ? [0.015, 0.08, 0.2, 0.705] : [0.015, 0.07, 0.01, 0.905];
    },
    reason:
      'three bad joints in ten look clean; a loose one turns by hand; a body strap that is eaten shows rust at its lugs',
  },
  'look-belt': {
    minutes: 0.4,
    needs: null,
    fits: (p) => cranks(p) && p.machineClass !== 'motorcycle',
    outcomes: ['bad', 'sound'],
    chances: ({ beltBad }) => yes(beltBad ? 0.92 : 0.03),
    reason: 'slack or glazed shows; a worn one hides',
  },
  'look-date': {
    minutes: 0.3,
    needs: null,
    outcomes: ['under-3', '3-to-6', 'over-6'],
    chances: ({ ageYears }) =>
      ageYears < 3 ? [0.92, 0.06, 0.02] : ageYears < 6 ? [0.05, 0.9, 0.05] : [0.02, 0.08, 0.9],
    reason: 'a date mark, when it can be read',
  },
  interlocks: {
    minutes: 0.5,
    needs: null,
    fits: cranks,
    outcomes: ['fault', 'clear'],
    chances: ({ cause }) => yes(cause === 'interlock' ? 0.96 : 0.01),
    reason: 'moved and tried again, an interlock gives itself away',
  },
  'immobiliser-lamp': {
    takesAmps: true,
    minutes: 0.2,
    needs: null,
    fits: cranks,
    outcomes: ['lit', 'out'],
    chances: ({ cause }) => yes(cause === 'immobiliser' ? 0.95 : 0.01),
    reason: 'it has a lamp of its own',
  },
  'isolator-fuse': {
    minutes: 0.8,
    needs: null,
    outcomes: ['fault', 'clear'],
    chances: ({ open }) => yes(open ? 0.95 : 0.01),
    reason: 'an isolator is seen; a fuse is read through',
  },
  'fuel-gauge': {
    takesAmps: true,
    minutes: 0.3,
    needs: null,
    fits: cranks,
    outcomes: ['empty', 'has-fuel'],
    chances: ({ cause }) => yes(cause === 'fuel' ? 0.55 : 0.02),
    reason: 'half of fuel faults are an empty tank; the rest are waxed or spark',
  },
  rest: {
    when: 'still',
    isOfBattery: true,
    minutes: 1,
    needs: 'meter',
    outcomes: ['backward', 'under-3', 'under-9.5', 'under-10.5', 'flat', 'low', 'part', 'charged'],
    edges: [0, 3, 9.5, 10.85, 11.8, 12.2, 12.45],
    predict: (hidden, profile) => Math.min(...restVoltsOf(hidden, profile)),
    spread: 0.07,
    reason: 'surface charge, the meter and temperature leave some hundredths',
  },
  'string-balance': {
    when: 'still',
    toldBy: 'rest',
    minutes: 0.8,
    needs: 'meter',
    fits: ({ systemVolts }) => systemVolts === 24,
    outcomes: ['alike', 'apart'],
    edges: [0.2],
    predict: (hidden, profile) => {
      const [low = 0, high = 0] = restVoltsOf(hidden, profile);
      return Math.abs(high - low);
    },
    spread: 0.05,
    reason: 'two readings, each as good as a rest reading',
  },
  'key-on': {
    when: 'still',
    takesAmps: true,
    minutes: 0.6,
    needs: 'meter',
    outcomes: ['holds', 'sags', 'sags-far', 'collapses'],
    edges: [0.3, 0.8, 3],
    predict: keyOnDrop,
    spread: 0.06,
    reason: 'lamps differ from one vehicle to the next',
  },
  'try-alone': {
    when: 'still',
    takesAmps: true,
    minutes: 1,
    needs: null,
    fits: cranks,
    outcomes: ATTEMPT_OUTCOMES,
    chances: (hidden, profile) => TRY_ROWS[lookOf(hidden, profile, false)],
    reason: 'seen and heard by the technician, not told; one in twenty is misread',
  },
  crank: {
    when: 'still',
    takesAmps: true,
    minutes: 1,
    needs: 'meter',
    fits: cranks,
    outcomes: ['collapses', 'under', 'near', 'holds', 'nothing-drawn'],
    // Against the least a sound battery may fall to at this temperature, per 12 V.
    edges: [-1.6, 0, 0.9, 2.4],
    predict: (hidden, profile) => {
      const volts = hidden.crank?.postVolts ?? restVoltsOf(hidden, profile).reduce((a, b) => a + b, 0);
      return againstCrankLimit(volts, profile.tempC, profile.systemVolts);
    },
    spread: 0.25,
    reason: 'drag and clamps are known to a few in a hundred',
  },
  recovery: {
    when: 'still',
    takesAmps: true,
    minutes: 0.5,
    needs: 'meter',
    fits: cranks,
    outcomes: ['stays-down', 'slow', 'climbs-back'],
    edges: [11.4, 12.2],
    predict: (hidden, profile) => {
      const rest = Math.min(...restVoltsOf(hidden, profile));
      const worst = Math.max(...hidden.batteries.map((b) => b.ageing));
      return rest - (hidden.crank ? SLOW_RECOVERY_VOLTS * (worst - 1) : 0);
    },
    spread: 0.12,
    reason:
      'ten seconds after a try a sound battery is back near its rest volts; worn plates even out slowly',
  },
  'joint-plus': {
    when: 'still',
    takesAmps: true,
    minutes: 1.2,
    needs: 'meter',
    outcomes: ['good', 'worth-cleaning', 'bad', 'very-bad'],
    edges: [0.2, 0.5, 2],
    predict: (hidden, profile) => jointAmps(hidden, profile) * hidden.plusOhms,
    spread: 0.05,
    reason: 'the meter moves while it cranks, or with every lamp on where nothing cranks',
  },
  'joint-minus': {
    when: 'still',
    takesAmps: true,
    minutes: 1.2,
    needs: 'meter',
    outcomes: ['good', 'worth-cleaning', 'bad', 'very-bad'],
    edges: [0.2, 0.5, 2],
    predict: (hidden, profile) => jointAmps(hidden, profile) * hidden.minusOhms,
    spread: 0.05,
    reason: 'the meter moves while it cranks, or with every lamp on where nothing cranks',
  },
  'starter-stud': {
    when: 'still',
    takesAmps: true,
    minutes: 3,
    needs: 'meter',
    fits: cranks,
    outcomes: ['full', 'low', 'bad', 'no-volts'],
    edges: [0.5, 1.2, 6],
    predict: (hidden, profile) => {
      const lost = hidden.plusOhms + hidden.minusOhms + hidden.cableOhms;
      if (hidden.crank) return hidden.crank.starterAmps * lost;
      // A dead starter takes nothing, so its stud stands at the posts' volts; where nothing is sent there, all of them are missing.
      return hidden.open || hidden.held === 'starter' ? profile.systemVolts : 0;
    },
    spread: 0.1,
    reason: 'reached with a long probe, read while it cranks',
  },
  conductance: {
    when: 'still',
    isOfBattery: true,
    minutes: 1.2,
    needs: 'tester',
    outcomes: ['spent', 'worn', 'tired', 'sound'],
    edges: [SPENT_BELOW_SHARE, WORN_BELOW_SHARE, 0.92],
    predict: (hidden) => {
      const worst = Math.max(...hidden.batteries.map((b) => b.ageing));
      const dead = hasDeadCell(hidden.batteries) ? 0.75 : 1;
      if (hidden.batteries.some((b) => b.reversed)) return 0.25;
      const broken = hidden.linkOhms > 0 ? 0.35 : 1;
      const flat = 1 - FLAT_FIGURE_LOSS * unchargedShare(hidden);
      const deep = hidden.batteries.some((b) => b.overDischargedVolts !== undefined) ? 0.6 : 1;
      return dead * broken * flat * deep * strengthShare(worst);
    },
    spread: (hidden) =>
      hidden.linkOhms > 0 || hasDeadCell(hidden.batteries)
        ? BROKEN_FIGURE_SPREAD
        : 0.06 + 0.2 * unchargedShare(hidden),
    reason:
      'from three quarters charge on it is good to about a twentieth; a flat battery shows a poor figure however sound it is',
  },
  'load-test': {
    when: 'still',
    takesAmps: true,
    isOfBattery: true,
    minutes: 2,
    needs: 'load-tester',
    outcomes: ['fails', 'near', 'holds'],
    // Against the least volts that the table allows at this temperature, after 15 s at half the rated amps.
    edges: [0, 0.5],
    predict: (hidden, profile) => {
      const amps = loadTestAmps(profile.rating);
      const rest = restVoltsOf(hidden, profile);
      const volts = ohmsInside(hidden, profile).map((ohms, i) => rest[i]! - amps * ohms);
      return Math.max(0, Math.min(...volts)) - crankLimitVolts(profile.tempC, 12);
    },
    spread: 0.3,
    reason: 'flat batteries fail it as spent ones do, so it condemns only above three quarters charge',
  },
  acceptance: {
    takesAmps: true,
    isOfBattery: true,
    minutes: 12,
    needs: 'charger',
    outcomes: ['full-at-once', 'takes-charge'],
    chances: ({ cause, linkOhms, batteries }) => {
      if (linkOhms > 0 || cause === 'guard-open') return yes(0.85);
      // A charged battery is full at once, and nothing is wrong with it.
      if (Math.min(...batteries.map((b) => b.soc)) > FULL_AT_ONCE_SOC) return yes(0.75);
      return yes(
        cause === 'sulphated' ? 0.75 : hasDeadCell(batteries) ? 0.1 : wornOf(batteries) > 3 ? 0.4 : 0.03,
      );
    },
    reason: 'from flat, a charger that shows full within minutes has met plates with no capacity left',
  },
  'specific-gravity': {
    isOfBattery: true,
    minutes: 6,
    needs: 'hydrometer',
    fits: ({ rating }) => rating.chemistry === 'flooded',
    outcomes: ['even-high', 'even-low', 'one-cell-low'],
    chances: ({ batteries }) => {
      if (hasDeadCell(batteries)) return [0.02, 0.05, 0.93];
      return Math.min(...batteries.map((b) => b.soc)) > 0.6 ? [0.95, 0.03, 0.02] : [0.03, 0.94, 0.03];
    },
    reason: 'a shorted cell stays low whatever the others do',
  },
  'with-help': {
    when: 'still',
    takesAmps: true,
    minutes: 4,
    needs: 'source',
    outcomes: ATTEMPT_OUTCOMES,
    chances: helpChances,
    reason: 'solved on the circuit with a good source at the posts; one in twenty is misread',
  },
  promise: {
    when: 'still',
    takesAmps: true,
    minutes: 4.2,
    needs: 'source',
    fits: cranks,
    outcomes: ['lower', 'as-promised', 'higher'],
    // Lowest volts with help against the plan's, per 12 V. The lowest of a try holds the dip of the contact too.
    edges: [-1.2, 0.8],
    predict: (hidden, profile) => {
      if (!hidden.promised) return 0;
      // Nothing draws, so the posts stay at the volts of the source.
      const volts = hidden.helped?.postVolts ?? HELP.openVolts * (profile.systemVolts / 12);
      return atEach(volts - hidden.promised.postVolts, profile);
    },
    spread: 0.4,
    reason: 'age, drag and the contact of the clamps, which a plan cannot know',
  },
  charging: {
    when: 'running',
    minutes: 4,
    needs: 'source',
    fits: cranks,
    outcomes: ['none', 'low', 'in-band', 'over'],
    edges: CHARGING_EDGES,
    predict: (hidden, profile) => runningVolts(hidden, profile, hidden.chargingVolts),
    spread: 0.1,
    reason: 'idle speed, a flat battery that holds it down, and a regulator with a mind of its own',
  },
  'charging-loaded': {
    when: 'running',
    minutes: 6,
    needs: 'source',
    fits: cranks,
    outcomes: ['none', 'low', 'in-band', 'over'],
    edges: CHARGING_EDGES,
    predict: (hidden, profile) => runningVolts(hidden, profile, hidden.revvedVolts),
    spread: 0.1,
    reason: 'five minutes on and at 2,000 rpm only an alternator that is weak stays low',
  },
  ripple: {
    when: 'running',
    minutes: 4.5,
    needs: 'source',
    fits: cranks,
    outcomes: ['smooth', 'some', 'ripples'],
    edges: [0.15, 0.3],
    predict: (hidden, profile) => (lookOf(hidden, profile, true) === 'starts' ? hidden.rippleVolts : 0),
    spread: 0.04,
    reason: 'alternating volts at the posts: a diode gone lets a third of each wave through',
  },
  'turn-by-hand': {
    when: 'still',
    minutes: 2.5,
    needs: null,
    fits: cranks,
    outcomes: ['tight', 'turns'],
    chances: ({ cause }) => yes(cause === 'seized' ? 0.93 : 0.02),
    reason: 'with gear out: on the crank bolt, or pushed in gear',
  },
  'ask-replaced': {
    minutes: 0.2,
    needs: null,
    outcomes: ['yes', 'no'],
    chances: ({ replaced }) => yes(replaced ? 0.93 : 0.03),
    reason: 'a new battery is remembered, and paid for',
  },
  'ask-warm': {
    minutes: 0.6,
    needs: null,
    fits: (p) => cranks(p) && p.tempC < WARM_C - 10,
    outcomes: ['cold-only', 'any-weather'],
    chances: (hidden, profile) => {
      const failsNow = lookOf(hidden, profile, false) !== 'starts';
      return yes(failsNow && startsWhenWarm(hidden, profile) ? 0.45 : 0.15);
    },
    reason:
      'what passes warm and fails cold is short of a little: worn plates, a joint, thick oil; half flat does so too, for a day',
  },
  drain: {
    when: 'still',
    minutes: 8,
    needs: 'clamp-meter',
    outcomes: ['asleep', 'high', 'much'],
    edges: [0.05, 0.1],
    predict: ({ drainAmps, leftOn }) => (leftOn ? 0.02 : drainAmps),
    spread: 0.008,
    reason: 'units must fall asleep first; the consumer left on is off by now',
  },
  'traction-gauge': {
    minutes: 0.6,
    needs: null,
    fits: wakes,
    outcomes: ['flat', 'has-charge'],
    chances: ({ cause }) => yes(cause === 'traction-flat' || cause === 'charge-point' ? 0.94 : 0.02),
    reason: 'it shows once anything wakes, or the driver knows',
  },
  converter: {
    when: 'running',
    minutes: 3,
    needs: 'source',
    fits: wakes,
    outcomes: ['no-rise', 'rises'],
    edges: [13],
    predict: ({ cause, open }) =>
      cause === 'converter' || cause === 'traction-flat' || cause === 'charge-point' || open
        ? 12.3
        : USUAL_CONVERTER.volts,
    spread: 0.25,
    reason: 'when the converter takes over the volts jump',
  },
  'charge-lamp': {
    minutes: 1,
    needs: null,
    fits: wakes,
    outcomes: ['no-lamp', 'ready'],
    chances: ({ cause }) => yes(cause === 'charge-point' ? 0.95 : 0.03),
    reason: 'a charge cord that shows no ready lamp has a socket fault',
  },
  case: { ...ENDS_JOB, stop: 'case-damaged' },
  'high-voltage-ready': { ...ENDS_JOB, stop: 'high-voltage-damaged' },
  'selector-park': { ...PART, partOf: 'interlocks' },
  'brake-switch': { ...PART, partOf: 'interlocks' },
  'clutch-switch': { ...PART, partOf: 'interlocks' },
  'kill-switch': { ...PART, partOf: 'interlocks' },
  'side-stand': { ...PART, partOf: 'interlocks' },
  neutral: { ...PART, partOf: 'interlocks' },
  'seat-switch': { ...PART, partOf: 'interlocks' },
  'blade-switch': { ...PART, partOf: 'interlocks' },
  'key-position': { ...PART, partOf: 'interlocks' },
  pto: { ...PART, partOf: 'interlocks' },
  isolator: { ...PART, partOf: 'isolator-fuse' },
  'main-fuse': { ...PART, partOf: 'isolator-fuse' },
  'emergency-stop': { ...PART, partOf: 'isolator-fuse' },
  'both-batteries': { ...PART, partOf: 'isolator-fuse' },
  'fuel-tap': { ...PART, partOf: 'fuel-gauge' },
} as const satisfies Readonly<Record<string, CheckRow>>;

/** Everything that can be asked, looked at, worked or measured. */
export type CheckId = keyof typeof ROWS;
export const CHECK_IDS = Object.keys(ROWS) as CheckId[];

/** One check with its id. */
export interface Check extends CheckRow {
  readonly id: CheckId;
  readonly toldBy?: CheckId;
  readonly partOf?: CheckId;
}

/** All checks, in the order in which they are weighed. */
export const CHECKS: readonly Check[] = CHECK_IDS.map((id): Check => ({ id, ...ROWS[id] }));

/** How far worn plates still lie below their rest volts ten seconds after a try, V per time of growth. */
const SLOW_RECOVERY_VOLTS = 0.12;

/** Amps of a load test: half the rating. */
function loadTestAmps({ ccaAmps, ccaStandard }: DiagnosisProfile['rating']): number {
  return convertCca(ccaAmps, ccaStandard, 'SAE') / 2;
}

/** Amps through the joints while they are read: cranking, or with lamps and units on where nothing cranks. */
function jointAmps(hidden: HiddenMachine, profile: DiagnosisProfile): number {
  if (wakes(profile)) return hidden.open ? 0 : LAMPS_AMPS;
  return hidden.crank?.starterAmps ?? 0;
}
/** Current of lamps and units together, A. */
export const LAMPS_AMPS = 30;

/** Whether this machine, as it stands, would start on a mild day. */
function startsWhenWarm(hidden: HiddenMachine, profile: DiagnosisProfile): boolean {
  const mild = { ...profile, tempC: WARM_C };
  const batteries = hidden.batteries.map((state) => ({ ...state, tempC: WARM_C }));
  const warmed = { ...hidden, batteries };
  return lookOf({ ...warmed, crank: crankOf(warmed, mild, false) }, mild, false) === 'starts';
}

/** Volts that the whole string loses when the key is turned on without cranking; none where the circuit is open. */
export function keyOnDrop(hidden: HiddenMachine, profile: DiagnosisProfile): number {
  if (hidden.open) return 0;
  const ohms = ohmsInside(hidden, profile).reduce((a, b) => a + b, 0);
  // No more can be lost than is there.
  const whole = restVoltsOf(hidden, profile).reduce((sum, volts) => sum + volts, 0);
  return Math.min(KEY_ON_AMPS * ohms, Math.max(0, whole));
}

/** True for a check that tells causes apart by itself; the others are parts of one, or stop the job. */
export function isWeighed({ chances, predict }: Check): boolean {
  return (chances ?? predict) !== undefined;
}

/** Checks that can be given as evidence. */
export const WEIGHED_CHECK_IDS: readonly CheckId[] = CHECKS.filter(isWeighed).map(({ id }) => id);

/** Spread of a figure on this machine. */
export function spreadOf({ spread }: Check, hidden: HiddenMachine, profile: DiagnosisProfile): number {
  return typeof spread === 'function' ? spread(hidden, profile) : spread!;
}

/** Checks that a driver tells unasked. */
export const VOLUNTEERED: readonly CheckId[] = CHECKS.filter((c) => c.isVolunteered).map(({ id }) => id);

/** The check with this id. */
export function checkOf(id: CheckId): Check {
  return CHECKS.find((c) => c.id === id)!;
}

/** Checks that can be weighed here with these tools. */
export function checksFor(profile: DiagnosisProfile, tools: readonly Tool[]): Check[] {
  return CHECKS.filter(
    (c) => isWeighed(c) && (c.fits?.(profile) ?? true) && (c.needs === null || tools.includes(c.needs)),
  );
}

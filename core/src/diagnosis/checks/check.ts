import type { BatteryRating } from '../../battery/index.js';
import type { Range } from '../../quantities/index.js';
import type { DiagnosisProfile } from '../causes.js';
import type { HiddenMachine } from '../hidden.js';
import type { RepairKind, StopCondition } from '../vocabulary.js';

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

/** The values that a figure must be seen against. */
export interface MeasureContext {
  readonly rating: BatteryRating;
  readonly systemVolts: 12 | 24;
  readonly tempC: number;
  /** Of the string, at rest; null when not read. */
  readonly restVolts: number | null;
}

/** Everything that is true of one thing that can be asked, looked at or measured. */
export interface CheckRow {
  /** Read at one battery of a string by itself; read once for all, it tells of the weakest. */
  readonly isOfBattery?: boolean;
  /** Adds nothing once this one was read battery by battery. */
  readonly shownBy?: string;
  /** The driver says it unasked or never: it is entered at will and never proposed. */
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
  /** The range of the instrument, in the unit in which a figure is given; left out: no instrument shows it. */
  readonly shown?: Range;
  /** Returns the finding in figures as they were read, one or one a cell; null where it lacks its measure. Left out: the figure itself. */
  readonly foundFrom?: (figures: readonly number[], context: MeasureContext) => Found | null;
  /** It speaks of the battery only while nothing else feeds its posts. */
  readonly isOfItself?: boolean;
  /** The outcome that shows that a repair held. */
  readonly holdsWhen?: string;
  /** The repair on the spot that its fault asks for. */
  readonly mendedBy?: RepairKind;
  /** Why the chances or the spread are what they are. */
  readonly reason: string;
}

/** A family of checks: a row that lacks a part does not compile. */
export type CheckRows = Readonly<Record<string, CheckRow>>;

/** Chances of a check with two outcomes. */
export const yes = (share: number): readonly number[] => [share, 1 - share];
export const cranks = ({ engine }: DiagnosisProfile): boolean => engine !== null;
export const wakes = ({ engine }: DiagnosisProfile): boolean => engine === null;
export const hasDeadCell = (batteries: HiddenMachine['batteries']): boolean =>
  batteries.some(({ deadCells = 0 }) => deadCells > 0);
export const wornOf = (batteries: HiddenMachine['batteries']): number =>
  Math.max(...batteries.map((b) => b.ageing));

/** A figure to the thousandth, as the edges of its ranges are given. */
export const rounded = (value: number): number => Math.round(value * 1000) / 1000;
/** Volts of the string as volts per 12 V. */
export const perTwelve = (volts: number, { systemVolts }: MeasureContext): number =>
  rounded((volts * 12) / systemVolts);

/** Instruments at the posts of the whole string. */
export const OF_STRING = { min: 0, max: 36, unit: 'V' } as const;
/** Instruments at the posts of one battery, which may be the wrong way round. */
export const OF_BATTERY = { min: -16, max: 18, unit: 'V' } as const;
/** Volts lost over a joint or a cable. */
export const LOST = { min: -1, max: 32, unit: 'V' } as const;

/** Ranges of the instruments of figures that are no volts at the posts. */
export const MEASURE_RANGES = {
  drop: { min: -1, max: 16, unit: 'V' },
  ccaAmps: { min: 10, max: 2500, unit: 'A' },
  milliamps: { min: 0, max: 60_000, unit: 'mA' },
} as const satisfies Record<string, Range>;

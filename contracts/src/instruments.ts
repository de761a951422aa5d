import { CHECK_IDS, type CheckId } from '@voltrek/core/diagnosis';
import { AMPS_AROUND } from '@voltrek/core/practice';
import type { Range } from '@voltrek/core/quantities';
import * as yup from 'yup';
import { record } from './calc/parts.js';
import { practiceActions } from './exam.js';
import { idText, parsed, shortText } from './text.js';

export const INSTRUMENTS = ['meter', 'clamp', 'tester'] as const;
/** An instrument that can be linked. */
export type Instrument = (typeof INSTRUMENTS)[number];

export const LINK_STATES = ['off', 'connecting', 'ready', 'slow', 'lost', 'nonsense'] as const;
/** `off`: no address is set. `slow`: it answers too late. `nonsense`: what it answers is no figure. */
export type LinkState = (typeof LINK_STATES)[number];

/** Between live readings of each, ms: a meter shows what changes as it changes, a tester takes its time over every one. */
export const READ_EVERY_MS: Record<Instrument, number> = { meter: 150, clamp: 400, tester: 2500 };
/** The longest that an instrument may take over one answer, ms. */
export const ANSWER_MS = 1500;

/** A live value older than this is not what the instrument shows now, ms: three readings were missed, or one took longer than it may. */
export function oldAfterMs(instrument: Instrument): number {
  return 3 * READ_EVERY_MS[instrument] + ANSWER_MS;
}

/** An instrument as it stands, sent whenever something of it changes. */
export interface InstrumentNow {
  readonly instrument: Instrument;
  readonly state: LinkState;
  /** The name that it gives itself; null until it has said so. */
  readonly name: string | null;
  /** Volts, amps or cold-cranking amps; null while there is none. */
  readonly value: number | null;
  /** It passed its range. */
  readonly overload: boolean;
  /** ISO 8601. */
  readonly at: string;
}

/** The places of the probes. */
export interface ProbesPlaced {
  readonly jobId: string;
  readonly check: CheckId;
  readonly battery: number;
}

/** Why a capture ended early: the state of the meter, or another screen that captures. */
export type CaptureEnd = LinkState | 'busy';

/** A capture under way: points of the meter's fast buffer, one step apart. */
export interface CapturePart {
  readonly stepSeconds: number;
  readonly volts: readonly number[];
  /** Amps of the clamp beside it; null when none is linked. */
  readonly amps: readonly number[] | null;
  readonly done: boolean;
}

/** One line of a capture as it is sent: points, or why it ended early. */
export type CaptureLine = { readonly part: CapturePart } | { readonly lost: CaptureEnd };

/**
 * The range of an instrument of each kind; a value beyond it is no reading but a fault of the line. A workshop meter ends at 1,000 V and
 * the largest clamp at 3,000 A. The largest starting battery cranks under 3,000 A cold.
 */
export const INSTRUMENT_RANGES: Readonly<Record<Instrument, Range>> = {
  meter: { min: -1000, max: 1000, unit: 'V' },
  clamp: { min: -3000, max: 3000, unit: 'A' },
  tester: { min: 0, max: 3000, unit: 'A' },
};

/** The address at which an instrument of a server listens. */
export interface InstrumentAddress {
  readonly instrument: Instrument;
  /** `host:port`; null where none is set. */
  readonly address: string | null;
  /** The source of the address: the server's own settings, which nobody changes here, a crew lead, or the demo. */
  readonly setBy: 'server' | 'crew-lead' | 'stand-in' | null;
}

/** The addresses of all of them, and the networks that they may be in. */
export interface InstrumentAddresses {
  readonly addresses: readonly InstrumentAddress[];
  /** Networks that an address may be in, as `10.0.0.0/8`. */
  readonly networks: readonly string[];
}

export const ADDRESS_CHANGE = record({
  /** `host:port`; null for none. */
  address: shortText(60).nullable().defined(),
  by: idText(),
}).required();

/** The new address of an instrument, and the person who sets it. */
export type AddressChange = yup.InferType<typeof ADDRESS_CHANGE>;

/** @throws yup.ValidationError */
export const parseAddressChange = (input: unknown): AddressChange => parsed(ADDRESS_CHANGE, input);

export const PROBES_PLACED = yup
  .object({
    jobId: yup.string().uuid().required(),
    check: yup.string().oneOf(CHECK_IDS).required(),
    battery: yup.number().integer().min(0).max(3).required(),
  })
  .noUnknown()
  .strict()
  .required();

/** Characters of the longest address of a case that somebody wrote. */
const CODE_MOST = 8_000;

/** An instrument of a training bench, held to a case, as `CaseReading` of the core has it. */
export const CASE_READING = record({
  code: yup.string().max(CODE_MOST).required(),
  actions: practiceActions(),
  probes: record({ red: idText(), black: idText() }).nullable().defined(),
  around: yup.string().oneOf(AMPS_AROUND).nullable().defined(),
}).required();

/** The weather service's answer for a place. */
export interface Weather {
  readonly place: string;
  readonly at: string;
  readonly tempC: number;
  /** The coldest of the last twelve hours. */
  readonly lowC: number;
  readonly windMs: number;
  readonly sky: 'clear' | 'cloud' | 'snow' | 'sleet';
}

/** A weather observation from outside. @throws yup.ValidationError when it is none */
export const WEATHER = yup
  .object({
    place: yup.string().required(),
    at: yup.string().required(),
    tempC: yup.number().min(-60).max(60).required(),
    /** The coldest of the last twelve hours. */
    lowC: yup.number().min(-60).max(60).required(),
    windMs: yup.number().min(0).max(100).required(),
    sky: yup
      .string()
      .oneOf(['clear', 'cloud', 'snow', 'sleet'] as const)
      .required(),
  })
  .required();

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
import { ofBattery, readingText, type Spoken } from './words';
import { messagesOf } from './messages-of';

export const GROUP_WORDS: Record<MeasureGroup, string> = messagesOf('group');

/** Figures that are no volts of a reading: what each is called, and how it is taken. */
export const FIGURE_WORDS: Partial<Record<CheckId, { readonly name: string; readonly how: string }>> =
  messagesOf('figure');

const PROBING = messagesOf('probing');

/** The places of the probes, by the numbers of the machine's points. */
export function probingWords(machine: Pick<Machine, 'points'>, probing: Probing): string {
  const no = (id: string): number => numberOf(machine, id);
  if (probing.kind === 'round-cable') return PROBING.round({ at: no(probing.at) });
  const { red, black, onCable } = probing;
  if (onCable === 'black') return PROBING.blackOnCable({ red: no(red) });
  if (onCable === 'red') return PROBING.redOnCable({ black: no(black) });
  return PROBING.apart({ red: no(red), black: no(black) });
}

/** A measurement by its name; of a string also by the battery, where it is taken at one of them. */
export function measureName(kind: MeasureKind, battery: number, machine: Spoken): string {
  const name = kind.reading
    ? readingText(kind.reading, machine).name
    : (FIGURE_WORDS[kind.check]?.name ?? kind.id);
  return ofBattery(
    name,
    checkOf(kind.check).isOfBattery && machine.batteries.length > 1 ? battery : undefined,
  );
}

/** The meaning of a figure, by the outcome it falls on. */
export const OUTCOME_MEANINGS: Partial<Record<CheckId, Readonly<Record<string, string>>>> =
  messagesOf('outcomeMeanings');

export const LINK_WORDS: Record<LinkState, string> = messagesOf('link');

/** Why a capture ended early. */
export const CAPTURE_END_WORDS: Record<CaptureEnd, string> = messagesOf('captureEnd');

export const INSTRUMENT_WORDS: Record<Instrument, string> = messagesOf('instrument');

export const TRACE_NOTE_WORDS: Record<TraceNote, string> = messagesOf('traceNote');

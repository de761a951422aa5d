import type { Hazard, HazardCode, Severity, Story } from '@voltrek/core/hookup';
import { volts } from './figures';
import { mirroredWords } from './mirrored-words';
import type { Message } from './message-types';
import { messagesOf } from './messages-of';
import { fixed } from './numbers';

/** The name of a severity: the word stands before any colour. */
export const SEVERITY_WORDS: Record<Severity, string> = messagesOf('severity');

/** A text of a hazard, with its figures where it has places for them. */
type HazardText = string | Message<'amps'> | Message<'volts'> | Message<'amps' | 'volts'>;
const HAZARDS: Record<HazardCode, { readonly why: HazardText; readonly wayOut: string }> =
  messagesOf('hazard');
const STORIES: Record<Story, string> = messagesOf('hazardStory');
const TEXT = messagesOf('hazardText');

/** Hazards whose figure tells something only with, or without, its places. */
const AMPS_PLACES: Partial<Record<HazardCode, number>> = { 'closes-nothing': 1 };
const VOLTS_PLACES: Partial<Record<HazardCode, number>> = { 'wrong-system': 0 };

const turned = ({ isMirrored }: Hazard, words: string): string => (isMirrored ? mirroredWords(words) : words);

/** Why a hazard is one, with its figures and what they rest on. */
export function hazardWhy(hazard: Hazard): string {
  const { why } = HAZARDS[hazard.code];
  const amps = `${fixed(hazard.amps ?? 0, AMPS_PLACES[hazard.code] ?? 0)} A`;
  const figures = { amps, volts: volts(hazard.volts ?? 0, VOLTS_PLACES[hazard.code] ?? 1) };
  const text = typeof why === 'string' ? why : why(figures);
  return turned(hazard, text + (hazard.story ? STORIES[hazard.story] : ''));
}

/** Whether a key of a log names a hazard. */
export const isHazardCode = (key: string): key is HazardCode => key in HAZARDS;

/** The act against a hazard of this kind, whatever way round it is. */
export const hazardWayOutOf = (code: HazardCode): string => HAZARDS[code].wayOut;

/** The act against it. */
export const hazardWayOut = (hazard: Hazard): string => turned(hazard, HAZARDS[hazard.code].wayOut);

/** A hazard in one line. */
export const hazardLine = (hazard: Hazard): string =>
  TEXT.line({
    severity: SEVERITY_WORDS[hazard.severity],
    why: hazardWhy(hazard),
    wayOut: hazardWayOut(hazard),
  });

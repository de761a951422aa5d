import type { ChangeKind, Confidence } from '@voltrek/contracts';
import type { KitNeed, RestReason } from '@voltrek/core/job';
import type { Fuel } from '@voltrek/core/engine';
import type { Gearbox, TerminalLayout, ZoneKind } from '@voltrek/core/machine';
import type { Clue, LikelyPlaceId, PlaceWords } from '@voltrek/core/template';
import type { Arrangement } from '@voltrek/core/reach';
import { messagesOf } from './messages-of';

export const CONFIDENCE_WORDS: Record<Confidence, string> = messagesOf('confidence');
/** The same as a mark, where there is no room for a sentence. */
export const CONFIDENCE_MARKS: Record<Confidence, string> = messagesOf('confidenceMarks');

export const CHANGE_WORDS: Record<ChangeKind, string> = messagesOf('change');

export const ZONE_WORDS: Record<ZoneKind, string> = messagesOf('zone');

export const LAYOUT_WORDS: Record<TerminalLayout, string> = messagesOf('layout');

/** The fuel of an engine. */
export const FUEL_WORDS: Record<Fuel, string> = messagesOf('fuel');

export const GEARBOX_WORDS: Record<Gearbox, string> = messagesOf('gearbox');

export const CLUE_WORDS: Record<Clue, string> = messagesOf('clue');

export const ARRANGEMENT_WORDS: Record<Arrangement, string> = messagesOf('arrangement');

export const NEED_WORDS: Record<KitNeed, string> = messagesOf('need');

export const REST_WORDS: Record<RestReason, string> = messagesOf('rest');

/** The name of each place where a battery may sit, and how to look there. */
export const LIKELY_PLACE_WORDS: Record<LikelyPlaceId, PlaceWords> = messagesOf('likelyPlace');

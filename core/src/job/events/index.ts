import type { EventType } from './event.js';
import type { EventKind, EventKinds } from './event-kind.js';
import { OF_FINDINGS } from './of-findings.js';
import { OF_HANDS } from './of-hands.js';
import { OF_HELP } from './of-help.js';
import { OF_LIFTS } from './of-lifts.js';
import { OF_THE_END } from './of-the-end.js';
import { OF_THE_SCENE } from './of-the-scene.js';
import { OF_TRIES } from './of-tries.js';

/** The two events that are more than a change of a job: one makes it, one takes another back. */
const FRAME = ['job.opened', 'event.undone'] as const satisfies readonly EventType[];
type Frame = (typeof FRAME)[number];

/** Every other kind of event, with all that is true of it. One that is missing does not compile. */
const EVENTS: EventKinds<Exclude<EventType, Frame>> = {
  ...OF_THE_SCENE,
  ...OF_FINDINGS,
  ...OF_HELP,
  ...OF_HANDS,
  ...OF_LIFTS,
  ...OF_TRIES,
  ...OF_THE_END,
};

export const EVENT_TYPES = [...FRAME, ...Object.keys(EVENTS)] as readonly EventType[];

/** The definition of a kind of event; null for the two of the frame. */
export const eventKind = (type: EventType): EventKind<EventType> | null =>
  ((EVENTS as Partial<Record<EventType, unknown>>)[type] as EventKind<EventType> | undefined) ?? null;

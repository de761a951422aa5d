import type { Errand } from '../model/errand';
import { timeOfDay } from '../model/dates';

/** The words on the taps of this device. */
export interface SavedState {
  readonly connected: boolean;
  /** When the server last took one; null where none was taken since the page was opened. */
  readonly savedAt: string | null;
  readonly parked: number;
  readonly backlog: { readonly taps: number; readonly jobs: number; readonly since: string } | null;
  readonly canKeep: boolean;
  /** True once the taps of an earlier page were looked for. */
  readonly isLookedFor: boolean;
  /** The server wants somebody to sign in first. */
  readonly isShut: boolean;
}

const LOOKING = 'looking what waits';

/** The state of the taps of this device, short enough for the bar on top. */
export function savedText(state: SavedState): string {
  const { connected, savedAt, parked, backlog, canKeep, isLookedFor, isShut } = state;
  const none = isLookedFor ? '0 kept here' : LOOKING;
  const kept =
    backlog &&
    `${backlog.taps}${backlog.jobs > 1 ? ` of ${backlog.jobs} jobs` : ''} kept here since ${timeOfDay(backlog.since)}`;
  if (!canKeep) return backlog ? `${backlog.taps} not saved, no place to keep` : 'no place to keep taps';
  if (parked > 0) return `not taken, ${kept ?? 'look'}`;
  if (isShut) return `not signed in, ${kept ?? none}`;
  if (!connected) return `no server, ${kept ?? none}`;
  if (backlog) return `saving ${backlog.taps}`;
  if (!isLookedFor) return LOOKING;
  return savedAt ? `all saved ${timeOfDay(savedAt)}` : 'all saved';
}

/** The data that waits beside the taps, in a few words. */
export function errandWords(errand: Errand): string {
  switch (errand.kind) {
    case 'call':
      return `New call: ${errand.call.title}, ${errand.call.placeName}`;
    case 'entry':
      return `Atlas entry: ${errand.machine.maker} ${errand.machine.model}`;
    case 'exam':
      return `Exam ${errand.exam.number}`;
    case 'photo':
      return 'Photo of a machine';
  }
}

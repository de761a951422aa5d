import type { Errand } from '../model/errand';
import { timeOfDay } from '../model/dates';
import { messagesOf } from './messages-of';
import { withPlace } from './call-words';

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

const T = messagesOf('saved');
const ERRAND = messagesOf('errand');

/** The state of the taps of this device, short enough for the bar on top. */
export function savedText(state: SavedState): string {
  const { connected, savedAt, parked, backlog, canKeep, isLookedFor, isShut } = state;
  const none = isLookedFor ? T.none : T.looking;
  const kept = backlog && keptText(backlog);
  if (!canKeep) return backlog ? T.notSaved({ taps: backlog.taps }) : T.noPlace;
  if (parked > 0) return T.notTaken({ kept: kept ?? T.look });
  if (isShut) return T.notSignedIn({ kept: kept ?? none });
  if (!connected) return T.noServer({ kept: kept ?? none });
  if (backlog) return T.saving({ taps: backlog.taps });
  if (!isLookedFor) return T.looking;
  return savedAt ? T.allSavedAt({ time: timeOfDay(savedAt) }) : T.allSaved;
}

function keptText({ taps, jobs, since }: NonNullable<SavedState['backlog']>): string {
  const values = { taps, since: timeOfDay(since) };
  return jobs > 1 ? T.keptOfJobs({ ...values, jobs }) : T.kept(values);
}

/** The data that waits beside the taps, in a few words. */
export function errandWords(errand: Errand): string {
  switch (errand.kind) {
    case 'call':
      return ERRAND.call({ call: withPlace(errand.call) });
    case 'entry':
      return ERRAND.entry({ maker: errand.machine.maker, model: errand.machine.model });
    case 'exam':
      return ERRAND.exam({ number: errand.exam.number });
    case 'photo':
      return ERRAND.photo;
    case 'job-photo':
      return ERRAND.jobPhoto;
  }
}

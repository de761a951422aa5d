import { randomUUID } from 'node:crypto';
import type { Database } from '../db/database.js';
import { eventById } from '../jobs/repository.js';
import type { StreamHub } from './stream-hub.js';

/** A message of one server to the others: as little as they need to look it up. */
type Word =
  | { readonly from: string; readonly kind: 'logged'; readonly id: string; readonly revision: number }
  | { readonly from: string; readonly kind: 'board' }
  | { readonly from: string; readonly kind: 'over' }
  | { readonly from: string; readonly kind: 'entry'; readonly modelId: string | null };
type WithoutSender<W = Word> = W extends Word ? Omit<W, 'from'> : never;

/** A stream hub for several servers on one database. It passes its own messages to the others, and theirs to its devices. */
export async function shareMessages(desk: StreamHub, { db, others }: Database): Promise<StreamHub> {
  if (!others) return desk;
  const from = randomUUID();
  const tell = (word: WithoutSender): void => others.tell(JSON.stringify({ from, ...word }));
  // One after another: what was logged first is sent first.
  let last = Promise.resolve();
  const pass = async (word: Word): Promise<void> => {
    if (word.kind === 'board') desk.boardChanged();
    else if (word.kind === 'over') desk.startOver();
    else if (word.kind === 'entry') desk.entryChanged(word.modelId);
    else {
      const event = await eventById(db, word.id);
      if (event) desk.tell(event, word.revision);
    }
  };
  await others.listen((text) => {
    // A message may be lost: devices that begin anew ask for what they miss.
    if (text === null) {
      desk.startOver();
      return;
    }
    const word = JSON.parse(text) as Word;
    if (word.from !== from) last = last.then(() => pass(word)).catch(() => desk.startOver());
  });
  return {
    ...desk,
    tell: (event, revision) => {
      desk.tell(event, revision);
      tell({ kind: 'logged', id: event.id, revision });
    },
    startOver: () => {
      desk.startOver();
      tell({ kind: 'over' });
    },
    boardChanged: () => {
      desk.boardChanged();
      tell({ kind: 'board' });
    },
    entryChanged: (modelId) => {
      desk.entryChanged(modelId);
      tell({ kind: 'entry', modelId });
    },
  };
}

import { randomUUID } from 'node:crypto';
import { type AtlasEntry, type EntryChange, parseMachine } from '@voltrek/contracts';
import { isOtherToHands } from '@voltrek/core/machine';
import { isTemplate } from '@voltrek/core/template';
import { requireCrew } from '../crew/repository.js';
import type { Database, Tx } from '../db/database.js';
import type { StreamHub } from '../http/stream-hub.js';
import { HttpProblem, notFound } from '../http/problem.js';
import { identifyAgain } from '../jobs/append.js';
import { changedParts } from './file.js';
import { addPhoto, entryById, noteChange, writeMachines } from './repository.js';
import { photoFrom } from './photo.js';

/** A change in one transaction, on the disk before it is acknowledged; gives the entry as it then stands. */
async function changed(
  database: Database,
  id: string,
  change: (tx: Tx) => Promise<void>,
): Promise<AtlasEntry> {
  const entry = await database.write(async (tx) => {
    await change(tx);
    return entryById(tx, id);
  });
  return entry!;
}

async function requireEntry(tx: Tx, id: string): Promise<AtlasEntry> {
  const entry = await entryById(tx, id);
  if (!entry) throw notFound('machine', id);
  return entry;
}

/** A new entry from one technician's finding; the same sent again changes nothing. @throws HttpProblem 404, 409; ValidationError */
export function addEntry(database: Database, { machine, by, note }: EntryChange): Promise<AtlasEntry> {
  const parsed = parseMachine(machine);
  if (isTemplate(parsed)) throw new HttpProblem(409, 'classEntry');
  return changed(database, parsed.id, async (tx) => {
    await requireCrew(tx, by);
    const known = await entryById(tx, parsed.id);
    // Sent again: its answer was lost on the way.
    if (known && changedParts(known.machine, parsed).length === 0) return;
    if (known) throw new HttpProblem(409, 'machineIsThere', { params: [parsed.id] });
    await writeMachines(tx, [{ machine: parsed, revision: 1 }], 'found-once', {
      kind: 'added',
      by,
      at: new Date(),
      note,
    });
  });
}

/**
 * A corrected entry. It must be made on the newest revision, so that nobody's correction is lost. Open jobs on it hear of it.
 *
 * @throws HttpProblem 404, 409; ValidationError
 */
export async function correctEntry(
  database: Database,
  hub: StreamHub,
  id: string,
  { machine, by, note, basedOn }: EntryChange,
): Promise<AtlasEntry> {
  const parsed = parseMachine(machine);
  if (parsed.id !== id) throw new HttpProblem(409, 'entryIdStays');
  if (isTemplate(parsed)) throw new HttpProblem(409, 'classEntry');
  let reported: Awaited<ReturnType<typeof identifyAgain>> = [];
  const entry = await changed(database, id, async (tx) => {
    await requireCrew(tx, by);
    const { revision, machine: before } = await requireEntry(tx, id);
    if (revision !== basedOn) throw new HttpProblem(409, 'entryChanged');
    await writeMachines(tx, [{ machine: parsed, revision: revision + 1 }], 'found-once', {
      kind: 'corrected',
      by,
      at: new Date(),
      note,
    });
    if (isOtherToHands(before, parsed)) reported = await identifyAgain(tx, [id], by);
  });
  for (const { event, revision } of reported) hub.tell(event, revision);
  hub.entryChanged(id);
  return entry;
}

/** Somebody else found the machine as the entry says. */
export function confirmEntry(database: Database, id: string, by: string, note: string): Promise<AtlasEntry> {
  return changed(database, id, async (tx) => {
    await requireCrew(tx, by);
    const { revision, history, confidence } = await requireEntry(tx, id);
    const content = history.find((c) => c.kind !== 'photo' && c.kind !== 'confirmed');
    if (confidence === 'found-once' && content?.by === by) throw new HttpProblem(409, 'secondEyes');
    const next = confidence === 'found-once' ? 'confirmed' : confidence;
    await noteChange(tx, id, next, revision + 1, { kind: 'confirmed', by, at: new Date(), note });
  });
}

/**
 * Keeps a photo of the machine, turned upright, made smaller and stripped of everything but the picture.
 *
 * @param photoId under which it is kept, once however often it is sent
 */
export async function keepPhoto(
  database: Database,
  id: string,
  by: string,
  upload: Uint8Array,
  photoId: string = randomUUID(),
): Promise<AtlasEntry> {
  const { jpeg, widthPx, heightPx } = await photoFrom(upload);
  return changed(database, id, async (tx) => {
    await requireCrew(tx, by);
    const { revision, confidence, photos } = await requireEntry(tx, id);
    if (photos.some((photo) => photo.id === photoId)) return;
    const at = new Date();
    await addPhoto(tx, { id: photoId, modelId: id, by, at, widthPx, heightPx, jpeg });
    await noteChange(tx, id, confidence, revision + 1, { kind: 'photo', by, at, note: '' });
  });
}

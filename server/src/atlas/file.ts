import { isDeepStrictEqual } from 'node:util';
import { faultAt, type ImportReport, parseMachine, type RowFault, ValidationError } from '@voltrek/contracts';
import type { FaultCode } from '@voltrek/contracts/words';
import { isOtherToHands, type Machine } from '@voltrek/core/machine';
import { isTemplate } from '@voltrek/core/template';
import { requireCrew } from '../crew/repository.js';
import type { Database, Db } from '../db/database.js';
import type { StreamHub } from '../http/stream-hub.js';
import { HttpProblem } from '../http/problem.js';
import { identifyAgain } from '../jobs/append.js';
import { atlasBasis, type ChangedEntry, entriesByIds } from './repository.js';
import { dropStaged, moveStaged, stagingOf } from './staged.js';
import { parseCsv } from './csv-read.js';
import { atFault, FAULTS_MOST, rowFaults, turns } from '../files/found-row.js';
import { batchesOf } from '../files/spool.js';
import { beginsAsJson, type TextWindow } from '../files/text-window.js';
import { parseJson } from './json.js';

/**
 * Checked machines of a file, one by one as it is read, up to the most faults that are listed. Taps have their turn meanwhile.
 *
 * @param faults what is wrong with it, by line, is added to these
 */
export async function* readMachines(window: TextWindow, faults: RowFault[]): AsyncGenerator<Machine> {
  const rows = (await beginsAsJson(window)) ? parseJson(window, faults) : parseCsv(window, faults);
  const seen = new Set<string>();
  const turn = turns();
  for await (const { value, lineOf } of rows) {
    if (faults.length >= FAULTS_MOST) return;
    await turn();
    const addFault = (code: FaultCode, id: string): void => {
      faults.push({ line: lineOf('id'), ...faultAt('id', code, { key: id }) });
    };
    try {
      const machine = parseMachine(value);
      if (seen.has(machine.id)) addFault('twice', machine.id);
      else if (isTemplate(machine)) addFault('ofClass', machine.id);
      seen.add(machine.id);
      yield machine;
    } catch (error) {
      if (!(error instanceof ValidationError)) throw error;
      faults.push(...rowFaults(error, lineOf));
    }
  }
}

const ROWS_AT_ONCE = 100;

/**
 * The changes of a file, and ids of the entries that would be other machines to the hands on them. Taps have their turn meanwhile.
 *
 * @param take is handed the entries as they would be written, some at a time: those that are new or differ
 */
async function compare(
  db: Db,
  window: TextWindow,
  take: (writes: readonly ChangedEntry[]) => Promise<void>,
): Promise<{ readonly report: ImportReport; readonly others: readonly string[] }> {
  const basis = await atlasBasis(db);
  const faults: RowFault[] = [];
  const added: string[] = [];
  const changed: { name: string; parts: string[] }[] = [];
  const others: string[] = [];
  let same = 0;
  const turn = turns();
  for await (const some of batchesOf(readMachines(window, faults), ROWS_AT_ONCE)) {
    const known = await entriesByIds(
      db,
      some.map(({ id }) => id),
    );
    const writes: ChangedEntry[] = [];
    for (const machine of some) {
      await turn();
      const name = `${machine.maker} ${machine.model}`;
      const before = known.get(machine.id);
      const parts = before ? changedParts(before.machine, machine) : [];
      if (!before) added.push(name);
      else if (parts.length > 0) changed.push({ name, parts });
      else {
        same++;
        continue;
      }
      if (before && isOtherToHands(before.machine, machine)) others.push(machine.id);
      writes.push({ machine, revision: (before?.revision ?? 0) + 1 });
    }
    if (faults.length === 0) await take(writes);
  }
  faults.sort((a, b) => a.line - b.line);
  const report = { added, changed, same, faults: faults.slice(0, FAULTS_MOST), basis, applied: false };
  return { report, others };
}

/** Returns the changes that importing this file would make, without making them. */
export const previewImport = async (db: Db, window: TextWindow): Promise<ImportReport> =>
  (await compare(db, window, () => Promise.resolve())).report;

/** Parts of an entry that differ, by name. Compared as JSON holds them, so that a part left out equals one that is undefined. */
export function changedParts(before: Machine, after: Machine): string[] {
  const plain = (value: unknown): unknown =>
    value === undefined ? undefined : JSON.parse(JSON.stringify(value));
  return (Object.keys(after) as (keyof Machine)[]).filter(
    (part) => !isDeepStrictEqual(plain(before[part]), plain(after[part])),
  );
}

/**
 * Imports a file, all of it or nothing. It is read, compared and laid beside the atlas piece by piece first: the transaction, which holds
 * up everybody, only takes it over.
 *
 * @param basis of the preview that was agreed to
 * @throws HttpProblem 422 when any row is at fault. 409 when the atlas changed since the preview, or a corrected machine has clamps on
 */
export async function applyImport(
  { db, write }: Database,
  hub: StreamHub,
  window: TextWindow,
  by: string,
  basis: number,
): Promise<ImportReport> {
  await requireCrew(db, by);
  const at = new Date();
  const stage = await stagingOf(db, at);
  try {
    const { report, others } = await compare(db, window, (writes) => stage.add(writes));
    if (report.faults.length > 0) throw atFault(report.faults);
    const reported = await write(async (tx) => {
      if (report.basis !== basis || (await atlasBasis(tx)) !== basis)
        throw new HttpProblem(409, 'atlasChanged');
      await moveStaged(tx, stage.batch, { kind: 'imported', by, at, note: '' });
      return others.length > 0 ? identifyAgain(tx, others, by) : [];
    });
    for (const { event, revision } of reported) hub.tell(event, revision);
    if (report.changed.length > 0) hub.entryChanged(null);
    return { ...report, applied: true };
  } finally {
    await dropStaged(db, stage.batch);
  }
}

import { isDeepStrictEqual } from 'node:util';
import { type ImportReport, parseMachine, type RowFault, ValidationError } from '@voltrek/contracts';
import type { Machine } from '@voltrek/core/machine';
import { isTemplate } from '@voltrek/core/template';
import { requireCrew } from '../crew/repository.js';
import type { Database } from '../db/database.js';
import { HttpProblem } from '../http/problem.js';
import { atlasBasis, type ChangedEntry, entriesByIds } from './repository.js';
import { dropStaged, moveStaged, stageMachines } from './staged.js';
import { parseCsv } from './csv-read.js';
import { atFault, FAULTS_MOST, rowFaults, textOf, turns } from '../files/found-row.js';
import { parseJson } from './json.js';

/** Checked machines of a file, and what is wrong with it by line, up to the most that are told. Taps have their turn meanwhile. */
export async function readAtlasFile(
  upload: Uint8Array,
): Promise<{ machines: Machine[]; faults: RowFault[] }> {
  const text = textOf(upload);
  const faults: RowFault[] = [];
  const rows = text.trimStart().startsWith('{') ? parseJson(text, faults) : await parseCsv(text, faults);
  const machines: Machine[] = [];
  const seen = new Set<string>();
  const turn = turns();
  for (const { value, lineOf } of rows) {
    if (faults.length >= FAULTS_MOST) break;
    await turn();
    try {
      const machine = parseMachine(value);
      if (seen.has(machine.id))
        faults.push({ line: lineOf(''), path: 'id', message: `${machine.id} stands twice` });
      else if (isTemplate(machine))
        faults.push({
          line: lineOf('id'),
          path: 'id',
          message: `${machine.id} stands for a class and cannot be imported`,
        });
      seen.add(machine.id);
      machines.push(machine);
    } catch (error) {
      if (!(error instanceof ValidationError)) throw error;
      faults.push(...rowFaults(error, lineOf));
    }
  }
  faults.sort((a, b) => a.line - b.line);
  return { machines, faults };
}

interface Compared {
  readonly report: ImportReport;
  /** Entries as they would be written: those that are new or differ. */
  readonly writes: readonly ChangedEntry[];
}

const ROWS_AT_ONCE = 100;

/** What a file would change. Taps have their turn meanwhile. */
async function compare(db: Database['db'], upload: Uint8Array): Promise<Compared> {
  const basis = await atlasBasis(db);
  const { machines, faults } = await readAtlasFile(upload);
  const added: string[] = [];
  const changed: { name: string; parts: string[] }[] = [];
  const writes: ChangedEntry[] = [];
  const turn = turns();
  for (let from = 0; from < machines.length; from += ROWS_AT_ONCE) {
    const some = machines.slice(from, from + ROWS_AT_ONCE);
    const known = await entriesByIds(
      db,
      some.map(({ id }) => id),
    );
    for (const machine of some) {
      await turn();
      const name = `${machine.maker} ${machine.model}`;
      const before = known.get(machine.id);
      const parts = before ? changedParts(before.machine, machine) : [];
      if (!before) added.push(name);
      else if (parts.length > 0) changed.push({ name, parts });
      else continue;
      writes.push({ machine, revision: (before?.revision ?? 0) + 1 });
    }
  }
  return {
    report: {
      added,
      changed,
      same: machines.length - writes.length,
      faults: faults.slice(0, FAULTS_MOST),
      basis,
      applied: false,
    },
    writes,
  };
}

/** What importing this file would change, without changing anything. */
export const previewImport = async (db: Database['db'], upload: Uint8Array): Promise<ImportReport> =>
  (await compare(db, upload)).report;

/** Parts of an entry that differ, by name. Compared as JSON holds them, so that a part left out equals one that is undefined. */
export function changedParts(before: Machine, after: Machine): string[] {
  const plain = (value: unknown): unknown =>
    value === undefined ? undefined : JSON.parse(JSON.stringify(value));
  return (Object.keys(after) as (keyof Machine)[]).filter(
    (part) => !isDeepStrictEqual(plain(before[part]), plain(after[part])),
  );
}

/**
 * Imports a file, all of it or nothing. It is read, compared and laid beside the atlas first: the transaction, which holds up everybody,
 * only takes it over.
 *
 * @param basis of the preview that was agreed to
 * @throws HttpProblem 422 when any row is at fault, 409 when the atlas changed since the preview
 */
export async function applyImport(
  { db }: Database,
  upload: Uint8Array,
  by: string,
  basis: number,
): Promise<ImportReport> {
  await requireCrew(db, by);
  const { report, writes } = await compare(db, upload);
  if (report.faults.length > 0) throw atFault(report.faults);
  const at = new Date();
  const batch = await stageMachines(db, writes, at);
  try {
    await db.transaction(async (tx) => {
      if (report.basis !== basis || (await atlasBasis(tx)) !== basis)
        throw new HttpProblem(409, 'The atlas changed since the preview. Look at the preview again.');
      await moveStaged(tx, batch, { kind: 'imported', by, at, note: '' });
    });
  } finally {
    await dropStaged(db, batch);
  }
  return { ...report, applied: true };
}

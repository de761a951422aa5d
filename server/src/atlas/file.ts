import { isDeepStrictEqual } from 'node:util';
import { type ImportReport, parseMachine, type RowFault, ValidationError } from '@voltrek/contracts';
import type { Machine } from '@voltrek/core/machine';
import { isTemplate } from '@voltrek/core/template';
import { requireCrew } from '../crew/repository.js';
import type { Database, Tx } from '../db/database.js';
import { HttpProblem } from '../http/problem.js';
import { allMachines, atlasBasis, entryById, writeMachine } from './repository.js';
import { parseCsv } from './csv-read.js';
import { atFault, FAULTS_MOST, rowFaults, textOf, turnFor } from '../files/found-row.js';
import { parseJson } from './json.js';

/** Checked machines of a file, and what is wrong with it by line, up to the most that are told. Taps have their turn meanwhile. */
export async function readAtlasFile(
  upload: Uint8Array,
): Promise<{ machines: Machine[]; faults: RowFault[] }> {
  const text = textOf(upload);
  const { rows, faults } = text.trimStart().startsWith('{') ? parseJson(text) : parseCsv(text);
  const machines: Machine[] = [];
  const seen = new Set<string>();
  for (const [i, { value, lineOf }] of rows.entries()) {
    if (faults.length >= FAULTS_MOST) break;
    await turnFor(i);
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

/** What importing this file would change, without changing anything. */
export async function previewImport(db: Database['db'] | Tx, upload: Uint8Array): Promise<ImportReport> {
  const { machines, faults } = await readAtlasFile(upload);
  const known = new Map((await allMachines(db)).map((m) => [m.id, m]));
  const name = (m: Machine): string => `${m.maker} ${m.model}`;
  const changed = machines.flatMap((machine) => {
    const before = known.get(machine.id);
    const parts = before ? changedParts(before, machine) : [];
    return parts.length > 0 ? [{ name: name(machine), parts }] : [];
  });
  const added = machines.filter((m) => !known.has(m.id)).map(name);
  return {
    added,
    changed,
    same: machines.length - added.length - changed.length,
    faults: faults.slice(0, FAULTS_MOST),
    basis: await atlasBasis(db),
    applied: false,
  };
}

/** Parts of an entry that differ, by name. Compared as JSON holds them, so that a part left out equals one that is undefined. */
function changedParts(before: Machine, after: Machine): string[] {
  const plain = (value: unknown): unknown =>
    value === undefined ? undefined : JSON.parse(JSON.stringify(value));
  return (Object.keys(after) as (keyof Machine)[]).filter(
    (part) => !isDeepStrictEqual(plain(before[part]), plain(after[part])),
  );
}

/**
 * Imports a file, all of it or nothing.
 *
 * @param basis of the preview that was agreed to
 * @throws HttpProblem 422 when any row is at fault, 409 when the atlas changed since the preview
 */
export async function applyImport(
  database: Database,
  upload: Uint8Array,
  by: string,
  basis: number,
): Promise<ImportReport> {
  const report = await database.db.transaction(async (tx) => {
    await requireCrew(tx, by);
    const preview = await previewImport(tx, upload);
    if (preview.faults.length > 0) throw atFault(preview.faults);
    if (preview.basis !== basis)
      throw new HttpProblem(409, 'The atlas changed since the preview. Look at the preview again.');
    const at = new Date();
    for (const machine of (await readAtlasFile(upload)).machines) {
      const before = await entryById(tx, machine.id);
      if (before && changedParts(before.machine, machine).length === 0) continue;
      const revision = (before?.revision ?? 0) + 1;
      await writeMachine(tx, machine, 'found-once', revision, { kind: 'imported', by, at, note: '' });
    }
    return { ...preview, applied: true };
  });
  return report;
}

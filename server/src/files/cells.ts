import type { SchemaDescription } from 'yup';

/** The cells of one row, by column; a field of a field is `rating.capacityAh`. */
export type Cells = Record<string, string | number | boolean>;

interface Described {
  readonly type: string;
  readonly nullable?: boolean;
  readonly optional?: boolean;
  readonly fields?: Readonly<Record<string, Described>>;
}

const fieldsOf = (description: SchemaDescription | Described): [string, Described][] =>
  Object.entries((description as Described).fields ?? {});
const isNested = ({ type, fields }: Described): boolean =>
  type === 'object' && Object.keys(fields ?? {}).length > 0;

/** The columns that a row of this description has. */
export function columnsOf(description: SchemaDescription, before = ''): string[] {
  return fieldsOf(description).flatMap(([name, field]) =>
    isNested(field)
      ? columnsOf(field as unknown as SchemaDescription, `${before}${name}.`)
      : [`${before}${name}`],
  );
}

/** A row as cells: what is null or left out is an empty one, lists and loose data are JSON. */
export function cellsOf(description: SchemaDescription, row: unknown, before = ''): Cells {
  const given = (row ?? {}) as Readonly<Record<string, unknown>>;
  const cells: Cells = {};
  for (const [name, field] of fieldsOf(description)) {
    const value = given[name];
    if (isNested(field))
      Object.assign(cells, cellsOf(field as unknown as SchemaDescription, value, `${before}${name}.`));
    else if (value !== null && value !== undefined)
      cells[`${before}${name}`] =
        typeof value === 'object' ? JSON.stringify(value) : (value as string | number | boolean);
  }
  return cells;
}

/** The way back, still to be checked: a cell that does not fit its field is left as it is, so that the check names it. */
export function rowOf(
  description: SchemaDescription,
  cells: Readonly<Record<string, string | undefined>>,
  before = '',
): Record<string, unknown> {
  const row: Record<string, unknown> = {};
  for (const [name, field] of fieldsOf(description)) {
    const column = `${before}${name}`;
    if (isNested(field)) {
      const isThere = Object.keys(cells).some((c) => c.startsWith(`${column}.`) && cells[c] !== '');
      if (isThere) row[name] = rowOf(field as unknown as SchemaDescription, cells, `${column}.`);
      else if (field.nullable) row[name] = null;
      continue;
    }
    const cell = cells[column] ?? '';
    if (cell !== '') row[name] = valueOf(field, cell);
    else if (field.optional) continue;
    else if (field.nullable) row[name] = null;
    else if (field.type === 'string') row[name] = '';
  }
  return row;
}

function valueOf({ type }: Described, cell: string): unknown {
  if (type === 'string') return cell;
  if (type === 'number') return /^\s*-?\d+(\.\d+)?(e-?\d+)?\s*$/i.test(cell) ? Number(cell) : cell;
  if (type === 'boolean') return /^true$/i.test(cell) ? true : /^false$/i.test(cell) ? false : cell;
  try {
    return JSON.parse(cell) as unknown;
  } catch {
    return cell;
  }
}

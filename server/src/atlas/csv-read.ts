import { faultAt, type FaultParams, type RowFault } from '@voltrek/contracts';
import type { FaultCode } from '@voltrek/contracts/words';
import type { Machine } from '@voltrek/core/machine';
import { type Column, COLUMNS, PARTS } from './csv-columns.js';
import { type CsvRow, readCsvRows } from '../files/csv-rows.js';
import type { FoundRow } from '../files/found-row.js';
import type { TextWindow } from '../files/text-window.js';

type Draft = { -readonly [K in keyof Machine]?: unknown } & {
  glass: unknown[];
  wheels: unknown[];
  zones: unknown[];
  batteries: unknown[];
  points: unknown[];
  resets: unknown[];
  cautions: unknown[];
  never: unknown[];
};

interface Collected {
  readonly draft: Draft;
  /** Line of each part, by its path. */
  readonly lines: Map<string, number>;
}

/**
 * Reads what `toCsv` writes, or a spreadsheet saved of it: the rows of a machine stand together, in any order below its machine row. Machines
 * come out, unchecked, each when the next one begins; what a row itself gets wrong carries its line.
 */
export async function* parseCsv(window: TextWindow, faults: RowFault[]): AsyncGenerator<FoundRow> {
  let begun: Collected | null = null;
  for await (const { cells, line } of readCsvRows(window, COLUMNS, ['model_id', 'row'], faults)) {
    const fault: Tell = (path, code, params) => faults.push({ line, ...faultAt(path, code, params) });
    if (cells.row === 'machine') {
      if (begun) yield rowOf(begun);
      const id = cells.model_id ?? '';
      begun = { draft: draftOf(id, reader(cells, fault)), lines: new Map([['', line]]) };
    } else takePart(cells, line, begun, fault);
  }
  if (begun) yield rowOf(begun);
}

const rowOf = ({ draft, lines }: Collected): FoundRow => ({
  value: draft,
  lineOf: (path) => lineFor(lines, path),
});

/** Line of the innermost part that the path names. */
function lineFor(lines: ReadonlyMap<string, number>, path: string): number {
  const part = /^[a-z]+\[\d+\]/i.exec(path)?.[0] ?? path.split('.')[0]!;
  return lines.get(part) ?? lines.get('') ?? 1;
}

type CellTexts = CsvRow<Column>['cells'];

type Tell = (path: string, code: FaultCode, params?: FaultParams) => void;

/** A row that tells of the machine that was begun. */
function takePart(cells: CellTexts, line: number, begun: Collected | null, fault: Tell): void {
  const part = PARTS.find((name) => name === cells.row);
  if (!part || part === 'machine') {
    fault('row', 'oneOf', { values: PARTS.join(', ') });
    return;
  }
  const id = cells.model_id ?? '';
  const read = reader(cells, fault);
  if (begun?.draft.id !== id) {
    fault('model_id', 'noMachineRow', { id });
    return;
  }
  const { draft, lines } = begun;
  const add = (
    list: 'glass' | 'wheels' | 'zones' | 'batteries' | 'points' | 'resets' | 'cautions' | 'never',
    value: unknown,
  ): void => {
    lines.set(`${list}[${draft[list].length}]`, line);
    draft[list].push(value);
  };
  switch (part) {
    case 'glass':
      return add('glass', read.plan());
    case 'wheel':
      return add('wheels', read.rect());
    case 'side':
      lines.set('side', line);
      draft.side = { heightMm: read.number('height_mm'), outline: read.side(), wheels: [] };
      return;
    case 'side-wheel': {
      const side = draft.side as { wheels: unknown[] } | null;
      const radiusMm = (read.number('width_mm') ?? 0) / 2;
      if (!side) fault('row', 'needsAbove', { part: 'side-wheel', whole: 'side' });
      else side.wheels.push({ yMm: read.number('y_mm'), zMm: read.number('height_mm'), radiusMm });
      return;
    }
    case 'zone':
      return add('zones', { kind: cells.kind, label: cells.label, rect: read.rect() });
    case 'battery':
      return add('batteries', read.battery());
    case 'point':
      return add('points', read.point());
    case 'reset':
      return add('resets', cells.text);
    case 'caution':
      return add('cautions', cells.text);
    case 'never':
      return add('never', cells.text);
  }
}

function draftOf(id: string, read: ReturnType<typeof reader>): Draft {
  return {
    id,
    ...read.machine(),
    glass: [],
    wheels: [],
    side: null,
    zones: [],
    batteries: [],
    points: [],
    resets: [],
    cautions: [],
    never: [],
  };
}

/** Reads typed values out of a row's cells; what is missing or no number becomes a fault and is left out. */
function reader(cells: CellTexts, fault: Tell) {
  const number = (column: Column): number | undefined => {
    const cell = (cells[column] ?? '').trim();
    if (/^-?\d+(\.\d+)?$/.test(cell)) return Number(cell);
    if (cell === '') fault(column, 'required');
    else fault(column, 'noNumber', { cell: cell.slice(0, 20) });
    return undefined;
  };
  const maybeNumber = (column: Column): number | undefined => (cells[column] ? number(column) : undefined);
  const flag = (column: Column): boolean | undefined => {
    const cell = (cells[column] ?? '').trim().toLowerCase();
    if (cell === 'true' || cell === 'false') return cell === 'true';
    fault(column, 'noFlag');
    return undefined;
  };
  const pairs = (): [number, number][] => {
    const list = (cells.shape ?? '').split(';').map((pair) => pair.trim().split(/\s+/).map(Number));
    if (list.some((pair) => pair.length !== 2 || pair.some(Number.isNaN))) {
      fault('shape', 'pairs');
      return [];
    }
    return list as [number, number][];
  };
  const lines = (column: Column): string[] => (cells[column] ?? '').split('\n').filter(Boolean);
  const rect = () => ({
    xMm: number('x_mm'),
    yMm: number('y_mm'),
    widthMm: number('width_mm'),
    lengthMm: number('length_mm'),
  });
  return {
    number,
    rect,
    plan: () => pairs().map(([xMm, yMm]) => ({ xMm, yMm })),
    side: () => pairs().map(([yMm, zMm]) => ({ yMm, zMm })),
    machine: () => {
      const systemVolts = number('system_volts');
      return {
        maker: cells.maker,
        model: cells.model,
        machineClass: cells.class,
        gearbox: cells.gearbox,
        systemVolts,
        ...(cells.earth && { earth: cells.earth }),
        lengthMm: number('length_mm'),
        widthMm: number('width_mm'),
        outline: pairs().map(([xMm, yMm]) => ({ xMm, yMm })),
        smartAlternator: flag('smart_alternator'),
        engine: cells.fuel
          ? {
              fuel: cells.fuel,
              displacementL: number('displacement_l'),
              cylinders: number('cylinders'),
              systemVolts,
            }
          : null,
      };
    },
    battery: () => ({
      rating: {
        chemistry: cells.chemistry,
        capacityAh: number('capacity_ah'),
        ccaAmps: number('cca_amps'),
        ccaStandard: cells.cca_standard,
      },
      layout: cells.layout,
      rect: rect(),
      topMm: number('height_mm'),
      place: cells.label,
      closedIn: flag('closed_in'),
      ventHose: flag('vent_hose'),
    }),
    point: () => {
      const heightMm = maybeNumber('height_mm');
      const battery = maybeNumber('battery');
      return {
        id: cells.id,
        kind: cells.kind,
        label: cells.label,
        xMm: number('x_mm'),
        yMm: number('y_mm'),
        steps: lines('text'),
        ...(heightMm !== undefined && { heightMm }),
        ...(cells.cover && { cover: cells.cover }),
        ...(cells.tools && { tools: lines('tools') }),
        ...(battery !== undefined && { battery }),
      };
    },
  };
}

import { type Range, requireInRange } from '../quantities/range.js';

/** Equal cells in series. */
export interface CellBank {
  readonly cells: number;
  readonly cellFarads: number;
  readonly cellVolts: number;
  readonly cellOhms: number;
}

export const BANK_RANGES = {
  cells: { min: 1, max: 100, unit: 'cells' },
  cellFarads: { min: 0.001, max: 100_000, unit: 'F' },
  cellVolts: { min: 0.1, max: 5, unit: 'V' },
  cellOhms: { min: 0, max: 10, unit: 'ohm' },
} as const satisfies Record<string, Range>;

/** A bank as one capacitor: farads divide by the number of cells, volts and ESR multiply. */
export interface Bank {
  readonly farads: number;
  readonly maxVolts: number;
  readonly esrOhms: number;
}

/** @throws RangeError for cells that are not physical */
export function bankOf(cells: CellBank): Bank {
  for (const key of ['cells', 'cellFarads', 'cellVolts', 'cellOhms'] as const) {
    requireInRange(key, cells[key], BANK_RANGES[key]);
  }
  return {
    farads: cells.cellFarads / cells.cells,
    maxVolts: cells.cells * cells.cellVolts,
    esrOhms: cells.cells * cells.cellOhms,
  };
}

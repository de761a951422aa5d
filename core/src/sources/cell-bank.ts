import { type Range, requireInRange, parameter } from '../quantities/index.js';

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

/** A charged bank at rest loses this share of its volts in a day. */
export const BANK_LEAK_A_DAY = parameter(0.02, {
  id: 'kit.bankLeak',
  name: 'volts that a charged bank of capacitors loses',
  low: 0.005,
  high: 0.1,
  unit: 'of them a day',
  reason: 'Leaks through itself and its balancing: alone it runs down in days.',
});

/** ESR of a cell grows by e per this many degC below the 25 degC that it is rated at: its electrolyte thickens. */
export const ESR_E_FOLD_C = parameter(75, {
  id: 'capacitor.coldFold',
  name: 'cold that multiplies its ESR by e',
  low: 50,
  high: 120,
  unit: 'degC',
  reason: 'At -20 degC half again to two and a half times its ESR at 25 degC, by electrolyte.',
});
const RATED_AT_C = 25;

/** ESR at this temperature, ohms; never less than rated. */
function coldEsrOhms(esrOhms: number, tempC: number): number {
  return esrOhms * Math.exp(Math.max(0, RATED_AT_C - tempC) / ESR_E_FOLD_C);
}

/**
 * @throws RangeError for cells that are not physical
 *
 * @example bankOf({ cells: 6, cellFarads: 350, cellVolts: 2.7, cellOhms: 0.0003 }).farads // => 58.3
 */
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

/**
 * A bank as it is in the cold.
 *
 * @throws RangeError for cells that are not physical
 * @example bankAt({ cells: 6, cellFarads: 350, cellVolts: 2.7, cellOhms: 0.0003 }, 25).esrOhms // => 0.0018
 */
export function bankAt(cells: CellBank, tempC: number): Bank {
  const rated = bankOf(cells);
  return { ...rated, esrOhms: coldEsrOhms(rated.esrOhms, tempC) };
}

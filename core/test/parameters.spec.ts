import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { PARAMETERS } from '../src/model/index.js';
import { PLAN_INPUT_KEYS, PLAN_INPUT_RANGES } from '../src/plan/index.js';

const DOC = readFileSync(join(import.meta.dirname, '../../../docs/model.md'), 'utf8');

describe('PARAMETERS', () => {
  it('hold their values inside their plausible ranges, once each, with a reason', () => {
    expect(new Set(PARAMETERS.map((p) => p.id)).size).toBe(PARAMETERS.length);
    for (const { id, value, low, high, reason } of PARAMETERS) {
      expect(low).withContext(id).toBeLessThanOrEqual(high);
      if (value !== null) {
        expect(value).withContext(id).toBeGreaterThanOrEqual(low);
        expect(value).withContext(id).toBeLessThanOrEqual(high);
      }
      expect(reason)
        .withContext(id)
        .toMatch(/^.+\.$/);
    }
  });

  it('have a row for every figure a plan can be asked about, within what may be typed', () => {
    for (const key of PLAN_INPUT_KEYS) {
      const found = PARAMETERS.find((p) => p.id === key);
      expect(found).withContext(key).toBeDefined();
      expect(found!.low).withContext(key).toBeGreaterThanOrEqual(PLAN_INPUT_RANGES[key].min);
      expect(found!.high).withContext(key).toBeLessThanOrEqual(PLAN_INPUT_RANGES[key].max);
    }
  });

  it('are the table of docs/model.md, row by row', () => {
    for (const { id, value, low, high } of PARAMETERS) {
      const line = DOC.split('\n').find((l) => l.startsWith(`| \`${id}\``));
      expect(line).withContext(id).toBeDefined();
      const cells = line!.split('|').map((cell) => cell.trim());
      expect(cells[3])
        .withContext(id)
        .toBe(value === null ? '' : String(value));
      expect(cells[4]).withContext(id).toBe(`${low} to ${high}`);
    }
  });
});

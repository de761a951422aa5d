import { CAR, opened, workOf } from '../../../../testing/fixtures';
import type { TraceRead } from '../../../workers/trace-read';
import { takesOf } from './trace-takes';

const READ: TraceRead = {
  name: 'try.csv',
  rows: 4000,
  findings: {
    durationSeconds: 12,
    stepSeconds: 0.002,
    restVolts: 12.4567,
    keyOnDropVolts: 0.2,
    crank: {
      fromSeconds: 2,
      toSeconds: 5,
      inrushVolts: 8.1,
      minimumVolts: 9.2,
      meanVolts: 9.6,
      meanAmps: null,
      rpm: 180,
      unevenShare: 0.05,
      chatterPerSecond: null,
      ohms: null,
    },
    recovery: { volts: 12.1, afterSeconds: 10 },
    charging: null,
    notes: [],
  },
  strength: { ohms: 0.01, ageing: 1.5, ccaAmps: 430, share: 0.8, low: 0.7, high: 0.9 },
  file: null,
  drawn: [],
};

describe('takesOf', () => {
  it('gives rest, key-on, crank with the strength behind it, and recovery', () => {
    const takes = takesOf(READ, workOf([opened()]), 'trace');
    expect(takes.map(([type]) => type)).toEqual([
      'reading.taken',
      'finding.recorded',
      'reading.taken',
      'finding.recorded',
    ]);
    expect(takes[0]![1]).toEqual(jasmine.objectContaining({ kind: 'rest', volts: 12.457, source: 'trace' }));
    expect(takes[1]![1]).toEqual(jasmine.objectContaining({ check: 'key-on', found: 0.2 }));
    expect(takes[2]![1]).toEqual(
      jasmine.objectContaining({ kind: 'crank-minimum', strength: { share: 0.8, low: 0.7, high: 0.9 } }),
    );
  });

  it('gives no rest volts of a string, and no crank of a machine that wakes', () => {
    const string = { ...CAR, systemVolts: 24 as const, batteries: [CAR.batteries[0]!, CAR.batteries[0]!] };
    expect(
      takesOf(READ, { ...workOf([opened()]), machine: string }, 'meter').map(([, data]) =>
        'kind' in data ? data.kind : data,
      ),
    ).not.toContain('rest');
    const wakes = { ...CAR, engine: null };
    const kinds = takesOf(READ, { ...workOf([opened()]), machine: wakes }, 'meter').flatMap(([type, data]) =>
      type === 'reading.taken' ? [data.kind] : [],
    );
    expect(kinds).toEqual(['rest']);
  });
});

import { readTraceFile, TraceFileError, type TraceFault, traceFileOf } from '../src/index.js';

const ROWS = Array.from({ length: 40 }, (_, i) => [i * 0.01, 12.5 - i * 0.05, i * 2] as const);
const text = (
  mark: string,
  head: string | null,
  { scale = 1, comma = false, amps = true }: { scale?: number; comma?: boolean; amps?: boolean } = {},
): string =>
  [
    ...(head ? [head] : []),
    ...ROWS.map((row) =>
      row
        .slice(0, amps ? 3 : 2)
        .map((x, c) => (c === 0 ? x * scale : x).toFixed(3))
        .map((x) => (comma ? x.replace('.', ',') : x))
        .join(mark),
    ),
    '',
  ].join('\n');

describe('readTraceFile', () => {
  const FORMS: [string, string][] = [
    ['comma, header in seconds', text(',', 'Time (s),Volts,Amps')],
    [
      'semicolon, decimal comma, milliseconds',
      text(';', 'time_ms;volts;current', { scale: 1000, comma: true }),
    ],
    ['tab, no header', text('\t', null)],
    ['no header, milliseconds by their steps', text(',', null, { scale: 1000 })],
    ['quoted header, a byte order mark', `\uFEFF${text(',', '"t","voltage","i"')}`],
    ['windows line ends', text(';', 's;V;A').replace(/\n/g, '\r\n')],
  ];
  for (const [name, file] of FORMS) {
    it(`reads ${name}`, () => {
      const { recording, cutOff } = readTraceFile(file);
      expect(recording.seconds.length).toBe(40);
      expect(recording.seconds[39]).toBeCloseTo(0.39, 6);
      expect(recording.volts[39]).toBeCloseTo(12.5 - 39 * 0.05, 6);
      expect(recording.amps![39]).toBeCloseTo(78, 6);
      expect(cutOff).toBeFalse();
    });
  }

  it('does without amps, and takes columns by their heads, in any order, and millivolts', () => {
    expect(readTraceFile(text(',', 'time_s,volts', { amps: false })).recording.amps).toBeNull();
    const swapped = [
      'no,battery (mV),time (s)',
      ...ROWS.map(([t, v], i) => `${i},${v * 1000},${t}`),
      '',
    ].join('\n');
    const { recording } = readTraceFile(swapped);
    expect(recording.volts[0]).toBeCloseTo(12.5, 9);
    expect(recording.seconds[1]).toBeCloseTo(0.01, 9);
  });

  it('leaves out a last line that was cut off, and says so', () => {
    const whole = text(',', 'time_s,volts,amps');
    const { recording, cutOff } = readTraceFile(whole.slice(0, whole.length - 9));
    expect(cutOff).toBeTrue();
    expect(recording.seconds.length).toBe(39);
  });

  const withLine = (lines: readonly string[], at: number, line: string): string =>
    lines.map((l, i) => (i === at ? line : l)).join('\n');
  const fault = (file: string): [TraceFault, number | null] => {
    try {
      readTraceFile(file);
    } catch (error) {
      if (error instanceof TraceFileError) return [error.fault, error.line];
    }
    throw new Error('it was read');
  };
  it('names what is wrong and where', () => {
    expect(fault('')).toEqual(['empty', null]);
    expect(fault('time_s,volts\n')).toEqual(['empty', null]);
    expect(fault('just text\n1\n')).toEqual(['one-column', 1]);
    expect(fault('volts,amps\n1,2\n')).toEqual(['no-time-column', 1]);
    expect(fault('time,note\n1,2\n')).toEqual(['no-volts-column', 1]);
    expect(fault('0,12\n1,12\n')).toEqual(['too-few', null]);
    const lines = text(',', 'time_s,volts,amps').split('\n');
    expect(fault(withLine(lines, 10, '0.09,NaN,3'))).toEqual(['not-a-number', 11]);
    expect(fault(withLine(lines, 10, '0.09,,3'))).toEqual(['not-a-number', 11]);
    expect(fault(withLine(lines, 10, '0.05,12,3'))).toEqual(['unsorted', 11]);
  });

  it('counts lines rightly beyond the first piece, and tells how far it is', () => {
    const many = Array.from({ length: 120_000 }, (_, i) => `${(i * 0.001).toFixed(3)},12.500`);
    const told: number[] = [];
    const { recording } = readTraceFile(['t,v', ...many, ''].join('\n'), (share) => told.push(share));
    expect(recording.seconds.length).toBe(120_000);
    expect(told.length).toBeGreaterThan(1);
    expect(told.at(-1)).toBe(1);
    expect(fault(withLine(['t,v', ...many, ''], 100_001, 'x,12'))).toEqual(['not-a-number', 100_002]);
  });

  it('reads back what it writes', () => {
    const recording = {
      seconds: Float64Array.from(ROWS, ([t]) => t),
      volts: Float64Array.from(ROWS, ([, v]) => v),
      amps: Float64Array.from(ROWS, ([, , a]) => a),
    };
    const again = readTraceFile(traceFileOf(recording)).recording;
    expect([...again.volts].every((v, i) => Math.abs(v - recording.volts[i]!) < 0.001)).toBeTrue();
    expect([...again.amps!]).toEqual([...recording.amps]);
  });
});

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

  /** The rows of a file as a logger of this shape writes them. */
  const rowsAs = (write: (t: number, v: number, a: number) => string): string =>
    ROWS.map(([t, v, a]) => write(t, v, a)).join('\n');
  const clock = (t: number, from: number, mark = '.'): string => {
    const at = (from + t) % 86_400;
    const two = (n: number): string => String(Math.floor(n)).padStart(2, '0');
    const seconds = (at % 60).toFixed(3).padStart(6, '0').replace('.', mark);
    return `${two(at / 3600)}:${two((at % 3600) / 60)}:${seconds}`;
  };
  const german = (x: number): string => x.toFixed(3).replace('.', ',');
  const SHAPES: [string, string][] = [
    [
      'named channels with units on a second line',
      `Time,Channel A,Channel B\n(ms),(V),(A)\n\n${rowsAs((t, v, a) => `${t * 1000},${v},${a}`)}\n`,
    ],
    [
      'channels told apart by their units alone, in milli and kilo',
      `x [s];Ch1 [mV];Ch2 [kA]\n${rowsAs((t, v, a) => `${t};${v * 1000};${a / 1000}`)}\n`,
    ],
    [
      'titles and remarks above, one in the middle of them, one at the end',
      `Recording of a crank\n# taken in the cold\nSamples,40\n\ntime (s),volts,amps\n${rowsAs((t, v, a) => `${t},${v},${a}`)}\n# end\n`,
    ],
    ['heads in a remark', `# time,voltage,current\n# s,V,A\n${rowsAs((t, v, a) => `${t},${v},${a}`)}\n`],
    [
      'times of day, over midnight',
      `Time,Volts,Amps\n${rowsAs((t, v, a) => `${clock(t, 86_399.8)},${v},${a}`)}\n`,
    ],
    [
      'date and time of day in columns of their own, with a decimal comma',
      `Datum;Uhrzeit;Spannung (V);Strom (A)\n${rowsAs((t, v, a) => `26.11.2026;${clock(t, 7200, ',')};${german(v)};${german(a)}`)}\n`,
    ],
    [
      'date and time of day in one, no heads',
      `${rowsAs((t, v, a) => `2026-11-26T${clock(t, 50_000)}Z,${v},${a}`)}\n`,
    ],
    [
      'heads in another tongue, columns in another order',
      `Corrente [A]\tTensione [V]\tTempo [ms]\n${rowsAs((t, v, a) => `${german(a)}\t${german(v)}\t${german(t * 1000)}`)}\n`,
    ],
    [
      'decimal commas in quotes between commas',
      `"temps (s)","tension (V)","courant (A)"\n${rowsAs((t, v, a) => `"${german(t)}","${german(v)}","${german(a)}"`)}\n`,
    ],
    [
      'points between thousands beside a decimal comma, millionths of a second',
      `Zeit (µs);Spannung (mV);Strom (mA)\n${rowsAs((t, v, a) => [t * 1e6, v * 1000, a * 1000].map((x) => new Intl.NumberFormat('de-DE', { minimumFractionDigits: 2 }).format(x)).join(';'))}\n`,
    ],
    [
      'commas between thousands beside a decimal point',
      `time (ms)|volts|amps (mA)\n${rowsAs((t, v, a) => `${t * 1000}|${v}|${new Intl.NumberFormat('en-GB', { minimumFractionDigits: 1 }).format(a * 1000)}`)}\n`,
    ],
    [
      'a column of words beside the figures',
      `sep=;\nno;state;elapsed s;battery V;starter A\n${rowsAs((t, v, a) => `${t * 100};OK;${t};${v};${a}`)}\n`,
    ],
  ];
  for (const [name, file] of SHAPES) {
    it(`reads ${name}`, () => {
      const { recording } = readTraceFile(file);
      for (const at of [0, 1, 20, 39]) {
        const [t, v, a] = ROWS[at]!;
        expect(recording.seconds[at]).withContext(`${at} s`).toBeCloseTo(t, 6);
        expect(recording.volts[at]).withContext(`${at} V`).toBeCloseTo(v, 6);
        expect(recording.amps![at]).withContext(`${at} A`).toBeCloseTo(a, 3);
      }
      expect(recording.seconds.length).toBe(40);
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
    expect(fault('just text\n1\n')).toEqual(['one-column', 2]);
    expect(fault('volts,amps\n1,2\n')).toEqual(['no-time-column', 1]);
    expect(fault('time,note\n1,2\n')).toEqual(['no-volts-column', 1]);
    expect(fault('0,12\n1,12\n')).toEqual(['too-few', null]);
    // A word that every object answers to is no unit.
    expect(fault('x [constructor],volts\n1,2\n')).toEqual(['no-time-column', 1]);
    expect(fault('time (s),x [constructor]\n1,2\n')).toEqual(['no-volts-column', 1]);
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

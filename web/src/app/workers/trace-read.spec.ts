import { traceFileOf } from '@voltrek/contracts';
import { batteryOhms, batteryOpenVolts } from '@voltrek/core/battery';
import { aloneRescue } from '@voltrek/core/circuit';
import { recordTry } from '@voltrek/core/practice';
import { seededRandom } from '@voltrek/core/quantities';
import { CAR } from '../../testing/fixtures';
import { readTrace, type TraceRead } from './trace-read';

const OF = { systemVolts: 12, engine: CAR.engine!, rating: CAR.batteries[0]!.rating, tempC: 5 } as const;

function logged(ageing: number) {
  const state = { soc: 0.85, tempC: 5, ageing };
  const { rating, engine } = OF;
  const model = { openVolts: batteryOpenVolts(rating, state), ohms: batteryOhms(rating, state) };
  return recordTry(
    {
      crank: { engine, batteries: [{ rating, state }], seconds: 2.5, rescue: aloneRescue([model], 5) },
      restSeconds: 1,
      keyOnAmps: 12,
      keyOnSeconds: 1,
      afterSeconds: 4,
      chargingVolts: 14.2,
      stepSeconds: 0.001,
    },
    { random: seededRandom(2), volts: 0.01, voltsStep: 0.005 },
  );
}

const readable = async (...given: Parameters<typeof readTrace>): Promise<TraceRead> => {
  const read = await readTrace(...given);
  if ('fault' in read) throw new Error(read.fault);
  return read;
};

describe('readTrace', () => {
  it('reads a file as it reads the capture it was made of, and tells how far it is', async () => {
    const recording = logged(1.5);
    const told: number[] = [];
    const file = await readable(new Blob([traceFileOf(recording)]), 'try.csv', OF, (s) => told.push(s));
    const capture = await readable(recording, 'meter', OF, () => undefined);
    expect(file.rows).toBe(recording.seconds.length);
    expect(file.findings.crank!.minimumVolts).toBeCloseTo(capture.findings.crank!.minimumVolts, 2);
    expect(file.findings.charging!.volts).toBeCloseTo(14.2, 1);
    expect(Math.abs(file.strength!.ageing / 1.5 - 1)).toBeLessThan(0.12);
    expect(file.file!.timeUnit).toBe('s');
    expect(capture.file).toBeNull();
    expect(told.at(-1)).toBeGreaterThan(0.8);
  });

  it('draws few points and loses no dip among them', async () => {
    const recording = logged(1.2);
    const { drawn } = await readable(recording, 'meter', OF, () => undefined);
    expect(drawn.length).toBeLessThan(1100);
    expect(Math.min(...drawn.map(([, v]) => v))).toBe(Math.min(...recording.volts));
    expect(drawn.every(([t], i) => i === 0 || t >= drawn[i - 1]![0])).toBeTrue();
  });

  it('names the line of a file that is wrong', async () => {
    const text = traceFileOf(logged(1)).split('\n');
    text[99] = text[99]!.replace(/,[^,]*,/, ',?,');
    const bad = await readTrace(new Blob([text.join('\n')]), 'bad.csv', OF, () => undefined);
    expect(bad).toEqual({ fault: 'not-a-number', line: 100 });
  });
});

import { TestBed } from '@angular/core/testing';
import type { CapturePart, InstrumentNow } from '@voltrek/contracts';
import { Api } from '../../../shared/state/api';
import { LiveStore } from './live-store';

/** A line to the server that the test speaks on. */
class FakeLine extends EventTarget {
  static lines: FakeLine[] = [];
  onmessage: ((event: { data: string }) => void) | null = null;
  onerror: (() => void) | null = null;
  closed = false;

  constructor(readonly url: string) {
    super();
    FakeLine.lines.push(this);
  }

  say(data: unknown): void {
    this.onmessage?.({ data: JSON.stringify(data) });
  }

  close(): void {
    this.closed = true;
  }
}

const meter = (value: number | null, state: InstrumentNow['state'] = 'ready'): InstrumentNow => ({
  instrument: 'meter',
  state,
  name: 'Test meter',
  value,
  overload: false,
  at: '2027-01-15T02:00:00.000Z',
});
const part = (
  volts: readonly number[],
  done = false,
  amps: readonly number[] | null = null,
): CapturePart => ({
  stepSeconds: 0.002,
  volts,
  amps,
  done,
});

describe('LiveStore', () => {
  const real = globalThis.EventSource;
  beforeEach(() => {
    FakeLine.lines = [];
    globalThis.EventSource = FakeLine as unknown as typeof EventSource;
  });
  afterEach(() => {
    globalThis.EventSource = real;
  });

  function listening() {
    TestBed.configureTestingModule({ providers: [LiveStore, { provide: Api, useValue: {} }] });
    const store = TestBed.inject(LiveStore);
    return { store, line: FakeLine.lines[0]! };
  }

  it('hears each instrument, and shows when the line breaks', () => {
    const { store, line } = listening();
    expect(line.url).toBe('/api/instruments/stream');
    line.say(meter(12.4));
    expect(store.byInstrument().meter!.value).toBe(12.4);
    expect(store.connected()).toBeTrue();
    line.onerror!();
    expect(store.connected()).toBeFalse();
  });

  it('holds a value while others come, and lets it go', () => {
    const { store, line } = listening();
    line.say(meter(12.4));
    store.hold('meter');
    line.say(meter(9.9));
    expect(store.held().meter).toBe(12.4);
    store.hold('meter');
    expect(store.held().meter).toBeUndefined();
    line.say(meter(null, 'lost'));
    store.hold('meter');
    expect(store.held().meter).toBeUndefined();
  });

  it('puts the parts of a capture together, with the lowest on the way', async () => {
    const { store } = listening();
    const capture = store.capture('job-1', new AbortController().signal);
    const line = FakeLine.lines[1]!;
    expect(line.url).toContain('job=job-1');
    line.say(part([12.4, 9.8], false, [0, 210]));
    expect(store.captured()).toBe(2);
    expect(store.lowestVolts()).toBe(9.8);
    line.say(part([10.1], true, [180]));
    const recording = (await capture)!;
    expect([...recording.volts]).toEqual([12.4, 9.8, 10.1]);
    expect([...recording.amps!]).toEqual([0, 210, 180]);
    expect(recording.seconds[2]).toBeCloseTo(0.004, 9);
    expect(line.closed).toBeTrue();
    expect(store.captured()).toBeNull();
  });

  it('keeps nothing of a capture that was lost or refused, says why, and keeps what came before a stop', async () => {
    const { store } = listening();
    const lost = store.capture('job-1', new AbortController().signal);
    FakeLine.lines[1]!.say(part([12.4]));
    FakeLine.lines[1]!.dispatchEvent(new MessageEvent('lost', { data: '"busy"' }));
    expect(await lost).toBeNull();
    expect(store.captureProblem()).toContain('Another screen captures');

    const until = new AbortController();
    const stopped = store.capture('job-1', until.signal);
    FakeLine.lines[2]!.say(part([12.4, 9.9]));
    until.abort();
    expect([...(await stopped)!.volts]).toEqual([12.4, 9.9]);
    expect(store.captureProblem()).toBeNull();

    const broken = store.capture('job-1', new AbortController().signal);
    FakeLine.lines[3]!.onerror!();
    expect(await broken).toBeNull();
    expect(store.captureProblem()).toContain('The line to the server broke');
  });
});

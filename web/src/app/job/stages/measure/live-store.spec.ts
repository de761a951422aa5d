import { TestBed } from '@angular/core/testing';
import type { CaptureLine, CapturePart, InstrumentNow } from '@voltrek/contracts';
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

/** A capture that the test feeds. */
interface Capture {
  readonly jobId: string;
  readonly until: AbortSignal;
  readonly hear: (line: CaptureLine) => void;
  readonly breaks: () => void;
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
    const captures: Capture[] = [];
    const api = {
      capture: (jobId: string, until: AbortSignal, hear: Capture['hear']) =>
        new Promise<void>((_done, failed) =>
          captures.push({ jobId, until, hear, breaks: () => failed(new Error()) }),
        ),
    };
    TestBed.configureTestingModule({ providers: [LiveStore, { provide: Api, useValue: api }] });
    const store = TestBed.inject(LiveStore);
    return { store, line: FakeLine.lines[0]!, captures };
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

  it('has no line while nobody sees the page, and a new one when somebody does', () => {
    const { store, line } = listening();
    line.say(meter(12.4));
    const hidden = spyOnProperty(document, 'hidden').and.returnValue(true);
    document.dispatchEvent(new Event('visibilitychange'));
    expect(line.closed).toBeTrue();
    expect(store.connected()).withContext('what it read grows old').toBeFalse();
    hidden.and.returnValue(false);
    document.dispatchEvent(new Event('visibilitychange'));
    document.dispatchEvent(new Event('visibilitychange'));
    expect(FakeLine.lines.length).toBe(2);
    FakeLine.lines[1]!.say(meter(12.6));
    expect(store.byInstrument().meter!.value).toBe(12.6);
    expect(store.connected()).toBeTrue();
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
    const { store, captures } = listening();
    const capture = store.capture('job-1', new AbortController().signal);
    const [{ jobId, hear, until }] = captures as [Capture];
    expect(jobId).toBe('job-1');
    hear({ part: part([12.4, 9.8], false, [0, 210]) });
    expect(store.captured()).toBe(2);
    expect(store.lowestVolts()).toBe(9.8);
    hear({ part: part([10.1], true, [180]) });
    const recording = (await capture)!;
    expect([...recording.volts]).toEqual([12.4, 9.8, 10.1]);
    expect([...recording.amps!]).toEqual([0, 210, 180]);
    expect(recording.seconds[2]).toBeCloseTo(0.004, 9);
    expect(until.aborted).toBeTrue();
    expect(store.captured()).toBeNull();
  });

  it('keeps nothing of a capture that was lost or refused, says why, and keeps what came before a stop', async () => {
    const { store, captures } = listening();
    const lost = store.capture('job-1', new AbortController().signal);
    captures[0]!.hear({ part: part([12.4]) });
    captures[0]!.hear({ lost: 'busy' });
    expect(await lost).toBeNull();
    expect(store.captureProblem()).toContain('Another screen captures');

    const until = new AbortController();
    const stopped = store.capture('job-1', until.signal);
    captures[1]!.hear({ part: part([12.4, 9.9]) });
    until.abort();
    expect([...(await stopped)!.volts]).toEqual([12.4, 9.9]);
    expect(store.captureProblem()).toBeNull();

    const broken = store.capture('job-1', new AbortController().signal);
    captures[2]!.breaks();
    expect(await broken).toBeNull();
    expect(store.captureProblem()).toContain('The line to the server broke');
  });
});

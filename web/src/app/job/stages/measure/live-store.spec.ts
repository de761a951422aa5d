import { TestBed } from '@angular/core/testing';
import type { CaptureLine, CapturePart, InstrumentNow } from '@voltrek/contracts';
import { Subject } from 'rxjs';
import { Api } from '../../../shared/data/api';
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
    let nowMs = 10_000;
    spyOn(performance, 'now').and.callFake(() => nowMs);
    const arrivals: Subject<void>[] = [];
    const api = {
      placeProbes: () => {
        const arrival = new Subject<void>();
        arrivals.push(arrival);
        return arrival;
      },
      capture: (jobId: string, until: AbortSignal, hear: Capture['hear']) =>
        new Promise<void>((_done, failed) =>
          captures.push({ jobId, until, hear, breaks: () => failed(new Error()) }),
        ),
    };
    TestBed.configureTestingModule({ providers: [LiveStore, { provide: Api, useValue: api }] });
    const store = TestBed.inject(LiveStore);
    const pass = (ms: number): void => {
      nowMs += ms;
      store.tick();
    };
    return { store, line: FakeLine.lines[0]!, captures, pass, arrivals };
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
    expect(store.held().meter!.value).toBe(12.4);
    store.hold('meter');
    expect(store.held().meter).toBeUndefined();
    line.say(meter(null, 'lost'));
    store.hold('meter');
    expect(store.held().meter).toBeUndefined();
  });

  const PLACED = { jobId: 'job-1', check: 'rest', battery: 1 } as const;

  it('counts nothing that was heard before the probes arrived, however often they were sent on', () => {
    const { store, line, pass, arrivals } = listening();
    const isFresh = (): boolean => store.isFresh(store.nowOf('meter')!);
    line.say(meter(12.4));
    expect(isFresh()).toBeTrue();
    store.hold('meter');
    expect(store.held().meter).toBeDefined();
    store.place(PLACED);
    expect(isFresh()).withContext('of the place before').toBeFalse();
    expect(store.held().meter).withContext('held of the place before').toBeUndefined();
    pass(50);
    line.say(meter(12.4));
    expect(isFresh()).withContext('on their way').toBeFalse();
    store.place({ ...PLACED, battery: 0 });
    pass(50);
    arrivals[0]!.next();
    line.say(meter(12.4));
    expect(isFresh()).withContext('the first way was given up').toBeFalse();
    pass(10);
    arrivals[1]!.error(new Error('no server'));
    expect(isFresh()).withContext('nothing read there yet').toBeFalse();
    pass(10);
    line.say(meter(11.9));
    expect(isFresh()).toBeTrue();
  });

  it('counts nothing of before a break once the line stands again', () => {
    const { store, line, pass } = listening();
    line.say(meter(12.4));
    pass(100);
    line.onerror!();
    pass(100);
    line.say({ ...meter(40), instrument: 'clamp' });
    expect(store.connected()).toBeTrue();
    expect(store.isFresh(store.nowOf('clamp')!)).toBeTrue();
    expect(store.isFresh(store.nowOf('meter')!)).toBeFalse();
  });

  it('knows how old each value is: three readings missed are too many, a slow instrument has longer', () => {
    const { store, line, pass } = listening();
    line.say(meter(12.4));
    line.say({ ...meter(480), instrument: 'tester' });
    const [now, tested] = [store.nowOf('meter')!, store.nowOf('tester')!];
    pass(1900);
    expect(store.ageMs(now)).toBe(1900);
    expect(store.isFresh(now)).toBeTrue();
    pass(100);
    expect(store.isFresh(now)).toBeFalse();
    store.hold('meter');
    expect(store.held().meter).withContext('nothing old is held for a fresh one').toBeUndefined();
    pass(6000);
    expect(store.isFresh(tested)).toBeTrue();
    pass(2000);
    expect(store.isFresh(tested)).toBeFalse();
    expect(store.nowOf('clamp')).toBeNull();
    line.say(meter(null, 'off'));
    expect(store.nowOf('meter')).toBeNull();
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

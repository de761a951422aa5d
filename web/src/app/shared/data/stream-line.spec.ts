import type { StreamMessage } from '@voltrek/contracts';
import { event } from '../../../testing/fixtures';
import { StreamLine } from './stream-line';

/** A line to the server that opens, sends and breaks on command. */
class FakeLine {
  static readonly CLOSED = 2;
  static all: FakeLine[] = [];
  readyState = 0;
  onopen: () => void = () => undefined;
  onmessage: (message: { data: string }) => void = () => undefined;
  onerror: () => void = () => undefined;
  isClosed = false;
  constructor(readonly url: string) {
    FakeLine.all.push(this);
  }
  close(): void {
    this.isClosed = true;
  }
  tell(message: StreamMessage): void {
    this.onmessage({ data: JSON.stringify(message) });
  }
}

/** Messages between pages of one device: never to the one that says it. */
class FakeChannel {
  static all: FakeChannel[] = [];
  onmessage: ((message: { data: unknown }) => void) | null = null;
  constructor() {
    FakeChannel.all.push(this);
  }
  postMessage(data: unknown): void {
    const others = FakeChannel.all.filter((channel) => channel !== this);
    queueMicrotask(() => {
      for (const { onmessage } of others) onmessage?.({ data });
    });
  }
}

describe('the stream of a device', () => {
  const real = { EventSource: globalThis.EventSource, BroadcastChannel: globalThis.BroadcastChannel };
  let inLine: (() => Promise<unknown>)[];
  const told: StreamMessage = {
    kind: 'logged',
    event: event('symptom.recorded', { symptom: 'silence' }),
    revision: 3,
  };

  beforeEach(() => {
    FakeLine.all = [];
    FakeChannel.all = [];
    inLine = [];
    globalThis.EventSource = FakeLine as unknown as typeof EventSource;
    globalThis.BroadcastChannel = FakeChannel as unknown as typeof BroadcastChannel;
    // The first page has the lock; the next one gets it when that page is closed.
    spyOn(navigator.locks, 'request').and.callFake(((_: string, listen: () => Promise<unknown>) => {
      if (inLine.push(listen) === 1) void listen();
      return Promise.resolve();
    }) as unknown as typeof navigator.locks.request);
  });
  afterEach(() => {
    Object.assign(globalThis, real);
  });

  function page() {
    const line = new StreamLine();
    const heard: StreamMessage[] = [];
    const stood: boolean[] = [];
    let back = 0;
    line.messages.subscribe((message) => heard.push(message));
    line.changes.subscribe((isOpen) => stood.push(isOpen));
    line.cameBack.subscribe(() => back++);
    line.start();
    return { heard, stood, back: () => back };
  }
  const settle = (): Promise<void> => new Promise((done) => setTimeout(done));

  it('is one for all its pages, and each hears everything once', async () => {
    const [first, second, third] = [page(), page(), page()];
    expect(FakeLine.all.map(({ url }) => url)).toEqual(['/api/stream']);
    const [line] = FakeLine.all as [FakeLine];
    line.onopen();
    line.tell({ kind: 'beat' });
    line.tell(told);
    line.tell({ kind: 'board' });
    await settle();
    for (const each of [first, second, third]) {
      expect(each.heard).toEqual([told, { kind: 'board' }]);
      expect(each.stood).toEqual([true]);
    }
  });

  it('is known to stand by a page that opens later', async () => {
    page();
    FakeLine.all[0]!.onopen();
    const later = page();
    await settle();
    expect(later.stood).toEqual([true]);
    expect(FakeLine.all.length).toBe(1);
  });

  it('tells that it broke and that it came back, so that what was missed is fetched', async () => {
    const [first, second] = [page(), page()];
    const [line] = FakeLine.all as [FakeLine];
    line.onopen();
    await settle();
    const before = second.back();
    line.onerror();
    line.onopen();
    await settle();
    expect(first.stood).toEqual([true, false, true]);
    expect(second.stood).toEqual([true, false, true]);
    expect(second.back()).toBe(before + 1);
    expect(FakeLine.all.length).withContext('the browser makes it anew').toBe(1);
  });

  it('is made anew when it was refused, and when it falls silent', () => {
    jasmine.clock().install();
    try {
      const { stood } = page();
      const [line] = FakeLine.all as [FakeLine];
      line.onopen();
      jasmine.clock().tick(39_000);
      line.tell({ kind: 'beat' });
      jasmine.clock().tick(39_000);
      expect(line.isClosed).toBeFalse();
      jasmine.clock().tick(2_000);
      expect(line.isClosed).toBeTrue();
      expect(stood).toEqual([true, false]);
      jasmine.clock().tick(2_000);
      const second = FakeLine.all[1]!;
      second.readyState = FakeLine.CLOSED;
      second.onerror();
      jasmine.clock().tick(2_000);
      expect(FakeLine.all.length).toBe(3);
      FakeLine.all[2]!.onopen();
      expect(stood).toEqual([true, false, true]);
    } finally {
      jasmine.clock().uninstall();
    }
  });

  it('goes over to the next page when the one that listened is closed', async () => {
    const first = page();
    const second = page();
    void inLine[1]!();
    const [, line] = FakeLine.all as [FakeLine, FakeLine];
    line.onopen();
    line.tell(told);
    await settle();
    expect(second.heard).toEqual([told]);
    expect(first.heard).withContext('it is gone').toEqual([]);
  });

  it('that goes over is made anew: what was told in between was heard by nobody, and is fetched', async () => {
    const [, second, third] = [page(), page(), page()];
    FakeLine.all[0]!.onopen();
    await settle();
    const before = [second.back(), third.back()];
    // The first page closes without a word; an event is sent while there is no line.
    void inLine[1]!();
    FakeLine.all[1]!.onopen();
    await settle();
    expect([second.back(), third.back()]).toEqual(before.map((times) => times + 1));
    for (const { stood } of [second, third]) expect(stood).withContext('nobody saw it break').toEqual([true]);
  });
});

import { createServer, type AddressInfo, type Server, type Socket } from 'node:net';
import {
  type CapturePart,
  INSTRUMENT_RANGES,
  type InstrumentAddresses,
  type InstrumentNow,
  PROBLEM_TYPE,
} from '@voltrek/contracts';
import type { ClampId } from '@voltrek/core/circuit';
import {
  act,
  ampsAround,
  type CaseReading,
  codeOfCase,
  optionsOf,
  type PracticeAction,
  type ProbesOn,
  startCase,
  voltsBetween,
} from '@voltrek/core/practice';
import express from 'express';
import { pino } from 'pino';
import supertest from 'supertest';
import { placeOnTruth, startStandIns } from '../src/demo/stand-ins.js';
import { streamHub } from '../src/http/stream-hub.js';
import { problemHandler } from '../src/http/problem.js';
import { type AddressSources, networksOf, openAddressBook } from '../src/instruments/addresses.js';
import { type Addresses, openBench } from '../src/instruments/bench.js';
import { instrumentRoutes } from '../src/instruments/routes.js';
import { LinkError, parseAddress, scpiLink } from '../src/instruments/scpi-link.js';
import { noInstruments } from './no-instruments.js';
import { PATIENCE_MS, until } from './patience.js';
import { sharedServer } from './shared-server.js';

/** An instrument that answers each line as told; null stays silent. */
async function fake(answer: (line: string) => string | null, port = 0) {
  const sockets = new Set<Socket>();
  const server: Server = createServer((socket) => {
    sockets.add(socket);
    socket.on('error', () => socket.destroy());
    socket.on('data', (data) => {
      for (const line of data.toString().split('\n').filter(Boolean)) {
        const said = answer(line);
        if (said !== null) socket.write(`${said}\n`);
      }
    });
  });
  await new Promise<void>((done) => server.listen(port, '127.0.0.1', done));
  const end = (): Promise<void> =>
    new Promise((done) => {
      for (const socket of sockets) socket.destroy();
      server.close(() => done());
    });
  const say = (line: string): void => sockets.forEach((socket) => socket.write(`${line}\n`));
  return { port: (server.address() as AddressInfo).port, end, say };
}

// Instruments may take their time: only one test is of those that take too long.
const patientBench = (addresses: Addresses) => openBench(addresses, PATIENCE_MS);
const patientLink = (port: number) => scpiLink({ host: '127.0.0.1', port }, () => undefined, PATIENCE_MS);
const asMeter = (line: string): string | null =>
  line === '*IDN?' ? 'Maker,Good meter,1,1' : line.endsWith('?') ? '+1.19200000E+01' : null;

describe('scpiLink', () => {
  it('reads figures, and comes back by itself when the instrument does', async () => {
    const first = await fake(asMeter);
    const link = patientLink(first.port);
    await until(() => link.state() === 'ready', 'ready');
    expect(await link.figure('MEAS:VOLT:DC?')).toBeCloseTo(11.92, 6);
    await first.end();
    await until(() => link.state() === 'lost', 'lost');
    await expectAsync(link.ask('MEAS:VOLT:DC?')).toBeRejectedWithError(LinkError);
    const again = await fake(asMeter, first.port);
    await until(() => link.state() === 'ready', 'ready again');
    expect(await link.figure('MEAS:VOLT:DC?')).toBeCloseTo(11.92, 6);
    link.close();
    await again.end();
  });

  it('gives up on silence, and never takes a late answer for the next one', async () => {
    let isSilent = true;
    const slow = await fake((line) => (line === '*IDN?' ? 'M,Slow,1,1' : isSilent ? null : '5'));
    const link = scpiLink({ host: '127.0.0.1', port: slow.port }, () => undefined);
    await until(() => link.state() === 'ready', 'ready');
    await expectAsync(link.figure('MEAS:VOLT:DC?')).toBeRejectedWithError(LinkError);
    isSilent = false;
    await until(() => link.state() === 'ready', 'ready again');
    expect(await link.figure('MEAS:VOLT:DC?')).toBe(5);
    link.close();
    await slow.end();
  });

  it('says nonsense when an answer is no figure', async () => {
    const odd = await fake((line) => (line === '*IDN?' ? 'M,Odd,1,1' : 'about twelve'));
    const link = patientLink(odd.port);
    await until(() => link.state() === 'ready', 'ready');
    await expectAsync(link.figure('MEAS:VOLT:DC?')).toBeRejectedWithError(LinkError);
    expect(link.state()).toBe('nonsense');
    link.close();
    await odd.end();
  });

  it('takes no line for an answer that nobody asked for', async () => {
    let chatter = false;
    const talker = await fake((line) =>
      line === '*IDN?' ? 'M,Talker,1,1' : chatter ? '99.9\n12.1' : '12.1',
    );
    const link = patientLink(talker.port);
    await until(() => link.state() === 'ready', 'ready');
    chatter = true;
    await expectAsync(link.figure('MEAS:VOLT:DC?')).toBeRejectedWithError(LinkError);
    expect(link.state()).toBe('nonsense');
    chatter = false;
    expect(await link.figure('MEAS:VOLT:DC?')).toBe(12.1);
    // A line out of nowhere: what was read just before is no longer sure.
    talker.say('13.7');
    await until(() => link.state() === 'nonsense', 'nonsense');
    expect(await link.figure('MEAS:VOLT:DC?')).toBe(12.1);
    expect(link.state()).toBe('ready');
    link.close();
    await talker.end();
  });

  it('refuses a figure that no instrument of its kind reads, and lets an overload through', async () => {
    let said = '12.4';
    const wild = await fake((line) => (line === '*IDN?' ? 'M,Wild,1,1' : said));
    const link = patientLink(wild.port);
    await until(() => link.state() === 'ready', 'ready');
    for (const text of ['1e9', '-5000', 'Infinity', '1.2e5']) {
      said = text;
      await expectAsync(link.figure('MEAS:VOLT:DC?', INSTRUMENT_RANGES.meter))
        .withContext(text)
        .toBeRejectedWithError(LinkError);
    }
    said = '9.9E+37';
    expect(await link.figure('MEAS:VOLT:DC?', INSTRUMENT_RANGES.meter)).toBe(9.9e37);
    said = '12.4';
    expect(await link.figure('MEAS:VOLT:DC?', INSTRUMENT_RANGES.meter)).toBe(12.4);
    link.close();
    await wild.end();
  });

  it('knows an address from anything else', () => {
    expect(parseAddress('10.0.0.9:5025')).toEqual({ host: '10.0.0.9', port: 5025 });
    for (const text of ['meter', 'meter:', ':5025', 'a:99999'])
      expect(() => parseAddress(text)).toThrowError(RangeError);
  });
});

describe('bench', () => {
  it('reads only while somebody watches, and tells overload from a figure', async () => {
    let asked = 0;
    const over = await fake((line) => {
      if (line === 'MEAS:VOLT:DC?') asked++;
      return line === '*IDN?' ? 'M,Full,1,1' : '+9.90000000E+37';
    });
    const bench = patientBench({ meter: { host: '127.0.0.1', port: over.port } });
    await until(() => bench.now().some((n) => n.instrument === 'meter' && n.state === 'ready'), 'ready');
    expect(asked).toBe(0);
    const seen: InstrumentNow[] = [];
    const stop = bench.watch((now) => seen.push(now));
    await until(() => seen.some((n) => n.overload), 'overload');
    expect(seen.find((n) => n.overload)!.value).toBeNull();
    expect(seen.find((n) => n.instrument === 'clamp')!.state).toBe('off');
    stop();
    bench.close();
    await over.end();
  });

  it('shows nobody a value from before they watched, or from before the probes moved', async () => {
    let volts = 14.2;
    const meter = await fake((line) => {
      if (line.startsWith('SIM:')) volts = 11.9;
      return line === '*IDN?' ? 'M,Meter,1,1' : line.endsWith('?') ? String(volts) : null;
    });
    const bench = patientBench({ meter: { host: '127.0.0.1', port: meter.port, isStandIn: true } });
    await until(() => bench.now().some((n) => n.state === 'ready'), 'ready');
    const first: (number | null)[] = [];
    const valueOf = (now: InstrumentNow): void => {
      if (now.instrument === 'meter') first.push(now.value);
    };
    const stop = bench.watch(valueOf);
    await until(() => first.includes(14.2), 'a reading');
    stop();
    const seen: (number | null)[] = [];
    const stopAgain = bench.watch((now) => now.instrument === 'meter' && seen.push(now.value));
    expect(seen).toEqual([null]);
    await until(() => seen.includes(14.2), 'a fresh reading');
    bench.tellAll('SIM:SET {}');
    const moved = seen.length;
    await until(() => seen.includes(11.9), 'the new place');
    expect(seen.slice(moved)).not.toContain(14.2);
    stopAgain();
    bench.close();
    await meter.end();
  });

  it('has no reading where the probes moved while it was asked for, and none of an address that was changed', async () => {
    let answer: (() => void) | null = null;
    const sockets = new Set<Socket>();
    const server = createServer((socket) => {
      sockets.add(socket);
      socket.on('error', () => socket.destroy());
      socket.on('data', (data) => {
        for (const line of data.toString().split('\n'))
          if (line === '*IDN?') socket.write('M,Held,1,1\n');
          else if (line === 'MEAS:VOLT:DC?') answer = () => socket.write('12.1\n');
      });
    });
    await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
    const { port } = server.address() as AddressInfo;
    const at = { host: '127.0.0.1', port };
    const bench = patientBench({ meter: at });
    for (const move of [
      () => bench.tellAll('SIM:SET {}'),
      () => bench.link('meter', { ...at }),
      () => bench.link('meter', null),
    ]) {
      await until(() => bench.now().some((n) => n.state === 'ready'), 'ready');
      answer = null;
      const reading = bench.read('meter');
      await until(() => answer !== null, 'the question');
      move();
      answer!();
      await expectAsync(reading).withContext(String(move)).toBeRejectedWithError(LinkError);
    }
    expect(bench.now().find((n) => n.instrument === 'meter')).toEqual(
      jasmine.objectContaining({ state: 'off', value: null }),
    );
    bench.close();
    sockets.forEach((socket) => socket.destroy());
    server.close();
  });

  it('tells a stand-in that was started again what it plays, and never a real instrument', async () => {
    const told: string[] = [];
    const asStandIn = (line: string): string | null => {
      if (line.startsWith('SIM:')) told.push(line);
      return asMeter(line);
    };
    const first = await fake(asStandIn);
    const real = await fake(asStandIn);
    const at = (port: number, isStandIn: boolean) => ({ host: '127.0.0.1', port, isStandIn });
    const bench = patientBench({ meter: at(first.port, true), clamp: at(real.port, false) });
    const states = (): string[] => bench.now().map(({ state }) => state);
    await until(() => states().filter((s) => s === 'ready').length === 2, 'both ready');
    bench.tellAll('SIM:SET {"a":1}');
    await until(() => told.length === 1, 'told once');
    await first.end();
    await until(() => states()[0] === 'lost', 'lost');
    const again = await fake(asStandIn, first.port);
    await until(() => told.length === 2, 'told again');
    expect(told).toEqual(['SIM:SET {"a":1}', 'SIM:SET {"a":1}']);
    bench.close();
    await Promise.all([again.end(), real.end()]);
  });

  it('lets go of whoever floods it, and reads the others', async () => {
    let poured = 0;
    const flooding = new Set<Socket>();
    const flood = createServer((socket) => {
      flooding.add(socket);
      socket.on('error', () => socket.destroy());
      const pour = (): void => {
        while (!socket.destroyed && socket.write('1.0\n'.repeat(20_000), () => (poured += 80_000)));
      };
      socket.on('drain', pour);
      pour();
    });
    await new Promise<void>((done) => flood.listen(0, '127.0.0.1', done));
    const good = await fake(asMeter);
    const bench = patientBench({
      meter: { host: '127.0.0.1', port: good.port },
      clamp: { host: '127.0.0.1', port: (flood.address() as AddressInfo).port },
    });
    await until(() => bench.now()[0]!.state === 'ready', 'the good one is ready');
    for (let i = 0; i < 20; i++) {
      expect((await bench.read('meter')).value).toBeCloseTo(11.92, 6);
      await new Promise((done) => setTimeout(done, 50));
    }
    expect(bench.now()[1]!.state).not.toBe('ready');
    // The buffers of a closed line, and no more.
    expect(poured).toBeLessThan(40e6);
    bench.close();
    flooding.forEach((socket) => socket.destroy());
    flood.close();
    await good.end();
  });

  it('captures from the fast buffer part by part', async () => {
    let left = 0;
    const meter = await fake((line) => {
      if (line.startsWith('SAMP:COUN')) left = Number(line.split(' ')[1]);
      if (line === 'DATA:POIN?') return String(Math.min(left, 200));
      if (line.startsWith('DATA:REM?')) {
        const count = Number(line.split(' ')[1]);
        left -= count;
        return Array.from({ length: count }, () => '12.5').join(',');
      }
      return line === '*IDN?' ? 'M,Fast,1,1' : null;
    });
    const bench = patientBench({ meter: { host: '127.0.0.1', port: meter.port } });
    await until(() => bench.now().some((n) => n.state === 'ready'), 'ready');
    const parts: CapturePart[] = [];
    expect(bench.isBusy()).toBeFalse();
    const capturing = bench.capture(
      1,
      (part) => parts.push(part),
      () => true,
    );
    expect(bench.isBusy()).toBeTrue();
    await capturing;
    expect(bench.isBusy()).toBeFalse();
    expect(parts.reduce((sum, p) => sum + p.volts.length, 0)).toBe(500);
    expect(parts.at(-1)!.done).toBeTrue();
    expect(parts[0]!.amps).toBeNull();
    bench.close();
    await meter.end();
  });

  it('refuses a capture without a meter', async () => {
    const bench = openBench({});
    await expectAsync(
      bench.capture(
        1,
        () => undefined,
        () => true,
      ),
    ).toBeRejectedWithError(LinkError);
    bench.close();
  });
});

describe('instrument routes', () => {
  it('tell what is linked, take where probes are, and say when no weather service is', async () => {
    const { api } = await sharedServer();
    const now = (await api.get('/api/instruments').expect(200)).body as InstrumentNow[];
    expect(now.map((n) => n.state)).toEqual(['off', 'off', 'off']);
    await api.put('/api/instruments/probes').send({ jobId: 'x', check: 'rest', battery: 0 }).expect(422);
    await api.get('/api/instruments/weather?place=Quay').expect(404);
    await api.get('/api/instruments/weather').expect(422);
  });
});

describe('addresses of instruments', () => {
  const sources: AddressSources = {
    ...{ server: 'van-a', networks: networksOf('127.0.0.0/8'), fixed: {}, standIns: {} },
  };
  type Page = InstrumentAddresses;
  const settled = ({ addresses }: Page): readonly (string | null)[] =>
    addresses.flatMap(({ address, setBy }) => [address, setBy]);

  /** The routes of one server that begins with these addresses. */
  async function routes(of: Partial<AddressSources> = {}) {
    const { database } = await sharedServer();
    const bench = openBench();
    const addresses = await openAddressBook(database.db, bench, { ...sources, ...of });
    const parts = { bench, addresses, weatherUrl: null, place: null };
    const app = express()
      .use(express.json())
      .use(instrumentRoutes(database, parts))
      .use(problemHandler(pino({ level: 'silent' })));
    const put = (instrument: string, body: object) =>
      supertest(app).put(`/api/instruments/addresses/${instrument}`).send(body);
    return { put, bench, page: addresses.page };
  }

  it('are set by a crew lead alone, in an allowed network alone, and stand after a new start of that server', async () => {
    const meter = await fake(asMeter);
    const address = `127.0.0.1:${meter.port}`;
    const { put, bench, page } = await routes();
    expect(settled(page())).toEqual([null, null, null, null, null, null]);
    await put('meter', { address, by: 'crew-2' }).expect(403);
    await put('meter', { address, by: 'nobody' }).expect(404);
    await put('kettle', { address, by: 'crew-1' }).expect(404);
    for (const bad of [
      ...['8.8.8.8:5025', '10.0.0.1:5025', '[::1]:5025', '[::ffff:9.9.9.9]:5025', '0.0.0.0:5025'],
      ...[
        'localhost:5025',
        'meter.example:5025',
        '127.1:5025',
        '127.0.0.1',
        '127.0.0.1:0',
        '127.0.0.1:99999',
      ],
      ...['http://127.0.0.1:5025', '127.0.0.1:5025/x', '', ' '],
    ])
      await put('meter', { address: bad, by: 'crew-1' })
        .expect(422)
        .then(({ type }) => expect(type).withContext(bad).toBe(PROBLEM_TYPE));
    expect(bench.now()[0]!.state).toBe('off');
    const linked = await put('meter', { address, by: 'crew-1' }).expect(200);
    expect(settled(linked.body as Page).slice(0, 2)).toEqual([address, 'crew-lead']);
    await until(() => bench.now()[0]!.state === 'ready', 'linked');
    bench.close();

    // The same server again, another of the same database, one with closer networks, and one with contrary settings.
    const again = await routes();
    expect(settled(again.page()).slice(0, 2)).toEqual([address, 'crew-lead']);
    await until(() => again.bench.now()[0]!.state === 'ready', 'linked again');
    const other = await routes({ server: 'van-b' });
    expect(settled(other.page())[0]).toBeNull();
    const closer = await routes({ networks: networksOf('192.168.0.0/16') });
    expect(settled(closer.page())[0]).toBeNull();
    const fixed = await routes({ fixed: { meter: { host: '127.0.0.9', port: 9 } } });
    expect(settled(fixed.page()).slice(0, 2)).toEqual(['127.0.0.9:9', 'server']);
    await fixed.put('meter', { address, by: 'crew-1' }).expect(409);
    await fixed.put('meter', { address: null, by: 'crew-1' }).expect(409);

    // Taken away, the demo's stand-in plays again, and the old line is let go.
    const demo = await routes({ standIns: { meter: { host: '127.0.0.1', port: 9, isStandIn: true } } });
    expect(settled(demo.page()).slice(0, 2)).toEqual([address, 'crew-lead']);
    const cleared = await demo.put('meter', { address: null, by: 'crew-1' }).expect(200);
    expect(settled(cleared.body as Page).slice(0, 2)).toEqual(['127.0.0.1:9', 'stand-in']);
    expect(demo.bench.now()[0]!.state).not.toBe('ready');
    for (const { bench: one } of [again, other, closer, fixed, demo]) one.close();
    await meter.end();
  });

  it('know networks from anything else', () => {
    const house = networksOf(undefined);
    for (const inside of ['10.255.0.1', '172.16.0.1', '172.31.9.9', '192.168.4.4', 'fd00::7'])
      expect(house.has(inside)).withContext(inside).toBeTrue();
    for (const outside of [
      ...['127.0.0.1', '::1', '172.32.0.1', '169.254.169.254', '9.9.9.9', 'fe80::1', '::ffff:127.0.0.1'],
      ...['localhost', '', '10.0.0', '010.0.0.1'],
    ])
      expect(house.has(outside)).withContext(outside).toBeFalse();
    for (const none of ['', '10.0.0.0', '10.0.0.0/33', '10.0.0/8', 'house/8', 'fc00::/129', '10.0.0.0/8,'])
      expect(() => networksOf(none))
        .withContext(none)
        .toThrowError(RangeError);
  });
});

describe('stand-ins', () => {
  it('are waited for by nobody: what is missing is told, and tried again where it belongs', async () => {
    const told: string[] = [];
    const began = Date.now();
    const standIns = await startStandIns((text) => told.push(text));
    // The processes have hardly begun.
    expect(Date.now() - began).toBeLessThan(1_500);
    const { ports, pids } = standIns;
    process.kill(pids().meter!, 'SIGKILL');
    await until(() => told.some((text) => text.includes('meter')), 'told');
    const bench = patientBench({ meter: { host: '127.0.0.1', port: ports.meter, isStandIn: true } });
    await until(() => bench.now()[0]!.state === 'ready', 'back at its own port');
    bench.close();
    standIns.stop();
  });

  it('that end are started again where they were, and play on what they played', async () => {
    const { ports, pids, stop } = await startStandIns();
    const bench = patientBench({ meter: { host: '127.0.0.1', port: ports.meter, isStandIn: true } });
    const state = (): string => bench.now()[0]!.state;
    await until(() => state() === 'ready', 'ready');
    const code = codeOfCase('order', 2);
    const { machine } = startCase(code).practice;
    const idOf = (kind: string): string => machine.points.find((p) => p.kind === kind)!.id;
    const probes = { red: idOf('battery-positive'), black: idOf('battery-negative') };
    bench.tellAll(`SIM:SET ${JSON.stringify({ code, actions: [], probes, around: null })}`);
    const before = (await bench.read('meter')).value!;
    expect(Math.abs(before - voltsBetween(startCase(code), probes))).toBeLessThan(0.05);
    for (let i = 0; i < 2; i++) {
      const { meter } = pids();
      process.kill(meter!, 'SIGKILL');
      await until(() => state() === 'lost', 'lost');
      expect(bench.now()[0]!.value).toBeNull();
      await until(() => state() === 'ready', 'back');
      expect(pids().meter).not.toBe(meter);
      expect(Math.abs((await bench.read('meter')).value! - before)).toBeLessThan(0.05);
    }
    bench.close();
    const { meter } = pids();
    stop();
    await until(() => !isAlive(meter!), 'ended for good');
    expect(pids().meter).toBe(meter);
  });
});

const isAlive = (pid: number): boolean => {
  try {
    return process.kill(pid, 0);
  } catch {
    return false;
  }
};

describe('a training bench', () => {
  /** Stand-ins of meter and clamp on their own lines, and the routes that read them. */
  async function bench() {
    const { database } = await sharedServer();
    const { ports, stop } = await startStandIns();
    const at = (port: number) => ({ host: '127.0.0.1', port, isStandIn: true });
    const linked = patientBench({ meter: at(ports.meter), clamp: at(ports.clamp) });
    await until(() => linked.now().filter(({ state }) => state === 'ready').length === 2, 'both ready');
    const place = placeOnTruth(database, streamHub(), linked);
    const app = express()
      .use(express.json())
      .use(instrumentRoutes(database, { ...(await noInstruments(database)), bench: linked, place }))
      .use(problemHandler(pino({ level: 'silent' })));
    const end = (): void => {
      linked.close();
      stop();
    };
    const read = (reading: CaseReading) => supertest(app).post('/api/instruments/readings').send(reading);
    return { read, end };
  }

  it('reads a case as its own instruments would: any two points, a lead, and what was done to it before', async () => {
    const { read, end } = await bench();
    const code = codeOfCase('order', 2);
    const start = startCase(code);
    const { machine, donor } = start.practice;
    const idOf = (of: typeof machine, kind: string): string => of.points.find((p) => p.kind === kind)!.id;
    const across = { red: idOf(machine, 'battery-positive'), black: idOf(machine, 'battery-negative') };
    const volts = async (actions: readonly PracticeAction[], probes: ProbesOn): Promise<number> => {
      const answer = await read({ code, actions, probes, around: null }).expect(200);
      return (answer.body as InstrumentNow).value!;
    };
    const near = (a: number, b: number): void => expect(Math.abs(a - b)).toBeLessThan(0.05);
    near(await volts([], across), voltsBetween(start, across));
    const turned = { red: across.black, black: across.red };
    near(await volts([], turned), -voltsBetween(start, across));
    // A donor that is joined and runs shows at the same two points.
    const option = optionsOf(start).find(({ sourceKind }) => sourceKind === 'donor')!;
    const on = (clamp: ClampId, pointId: string): PracticeAction => ({
      kind: 'hands',
      action: { kind: 'attach', clamp, pointId },
    });
    const joined: PracticeAction[] = [
      { kind: 'fetch', optionId: option.id },
      on('redCasualty', across.red),
      on('redSource', idOf(donor, 'battery-positive')),
      on('blackSource', idOf(donor, 'battery-negative')),
      on('blackCasualty', across.black),
      { kind: 'hands', action: { kind: 'donor-engine', running: true } },
    ];
    const world = joined.reduce(act, start);
    near(await volts(joined, across), voltsBetween(world, across));
    expect(voltsBetween(world, across)).toBeGreaterThan(voltsBetween(start, across) + 0.3);
    const answer = await read({ code, actions: joined, probes: null, around: 'red-lead' }).expect(200);
    const amps = ampsAround(world, 'red-lead');
    expect(amps).toBeGreaterThan(5);
    expect(Math.abs((answer.body as InstrumentNow).value! / amps - 1)).toBeLessThan(0.02);
    // Taken as read, a figure of the bench stands in the run, and means what its own meter's would.
    const after = act(start, { kind: 'probe', ...across, shown: 12.345 });
    expect(after.log.at(-1)!.volts).toBe(12.345);
    expect(after.evidence).toContain({ check: 'rest', found: 12.345 });
    end();
  });

  it('refuses what is no case and what cannot be done in one, and says when nothing answers', async () => {
    const { read, end } = await bench();
    const code = codeOfCase('order', 2);
    const good: CaseReading = { code, actions: [], probes: null, around: 'own-cable' };
    await read({ ...good, code: 'nowhere-2' }).expect(422);
    await read({ ...good, actions: [{ kind: 'fetch', optionId: 'winch' }] }).expect(422);
    await read({ ...good, actions: [{ kind: 'dance' }] as never }).expect(422);
    await read({ ...good, around: 'waist' as never }).expect(422);
    // One instrument is held to one place that is there.
    const probes = { red: 'battery-plus', black: 'battery-minus' };
    await read({ ...good, around: null }).expect(422);
    await read({ ...good, probes }).expect(422);
    await read({ ...good, probes: { ...probes, black: 'moon' }, around: null }).expect(422);
    await read({ ...good, probes, around: null }).expect(200);
    await read(good).expect(200);
    end();
    await read(good).expect(503);
  });
});

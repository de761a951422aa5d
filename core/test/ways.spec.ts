import { type Findings, noSourceStarts, startOdds } from '../src/belief/index.js';
import { aloneRescue, type Rescue } from '../src/circuit/index.js';
import { crankPoint, simulateCrank } from '../src/crank/index.js';
import {
  entryOf,
  findingsOfJob,
  jointsOfJob,
  ordersOfJob,
  planCases,
  planRecord,
  rankForJob,
  vansHere,
  waysInput,
} from '../src/job/index.js';
import type { Machine } from '../src/machine/index.js';
import {
  afterTry,
  afterWait,
  frontier,
  momentOf,
  rankWays,
  surestOf,
  type Way,
  waysOf,
  waysOneByOne,
} from '../src/plan/index.js';
import { DEFAULT_RULES } from '../src/rules/index.js';
import { BATTERY_95, CAR, KIT, TRUCK } from './fixtures.js';
import { Log, START, situationIn } from './job-log.js';
import { populationForTests } from './population.js';

const SEED = 20;
/** A diesel car in the cold: what waits, leads and charging matter for. */
const DIESEL: Machine = {
  ...CAR,
  id: 'diesel',
  engine: { fuel: 'diesel', displacementL: 3, cylinders: 6, systemVolts: 12 },
  batteries: [{ ...CAR.batteries[0]!, rating: BATTERY_95 }],
};
const SCENE = {
  ambientC: -4,
  place: 'yard',
  sloping: false,
  dark: true,
  enclosed: false,
  mainsNear: true,
} as const;

function jobWith(machine: Machine, restVolts: readonly number[], more: (log: Log) => void = () => undefined) {
  const log = new Log(machine);
  log.take('scene.recorded', SCENE);
  restVolts.forEach((volts, battery) =>
    log.take('reading.taken', { kind: 'rest', volts, battery, tempC: -4, source: 'typed' }),
  );
  more(log);
  const { job } = log;
  const ranked = rankForJob(situationIn(job, machine));
  return { job, ranked, cases: planCases(situationIn(job, machine), ranked) };
}

function inputFor(machine: Machine, restVolts: readonly number[], more?: (log: Log) => void, at?: string) {
  const { job, ranked, cases } = jobWith(machine, restVolts, more);
  return waysInput(
    job,
    situationIn(job, machine),
    ranked,
    cases,
    at ?? new Date(START + 86_400_000).toISOString(),
  )!;
}
/** All ways of a job, and how likely no source starts it. */
interface Found {
  readonly ways: readonly Way[];
  readonly elsewhere: number;
}
function findingsFor(machine: Machine, restVolts: readonly number[], more?: (log: Log) => void): Findings {
  const { job } = jobWith(machine, restVolts, more);
  return findingsOfJob(job, situationIn(job, machine));
}
function waysFor(...[machine, restVolts, more, at]: Parameters<typeof inputFor>): Found {
  const findings = findingsFor(machine, restVolts, more);
  const input = inputFor(machine, restVolts, more, at);
  const population = populationForTests(findings);
  const own = momentOf(input.own, input.own.beliefs);
  return {
    ways: waysOf(input, population, SEED),
    elsewhere: noSourceStarts(population, own, input.own.engine).share,
  };
}
const wayOf = ({ ways }: Pick<Found, 'ways'>, id: string): Way => ways.find((w) => w.id === id)!;
const surest = ({ points }: Way): number => Math.max(...points.map((p) => p.start));

describe('waysOf', () => {
  const input = inputFor(DIESEL, [11.75]);
  const population = populationForTests(findingsFor(DIESEL, [11.75]));
  const found = { ways: waysOf(input, population, SEED) };

  it('holds each source that fits, the machine by itself, a spare that goes in, and one source after another', () => {
    const ids = found.ways.map((w) => w.id);
    expect(ids).toEqual(
      jasmine.arrayContaining([
        'own',
        'donor+heavy',
        'lithium@12',
        'charger@12',
        'starter-charger@12',
        'swap:spares',
        'roll',
      ]),
    );
    expect(found.ways.filter((w) => w.kind === 'charge-then-join').length).toBeGreaterThan(3);
    expect(new Set(ids).size).toBe(ids.length);
  });

  it('counts the minutes of its steps, and waits no less than the house holds to', () => {
    for (const { points } of found.ways)
      for (const { minutes, steps, waitMinutes } of points) {
        expect(minutes).toBeCloseTo(
          steps.reduce((sum, s) => sum + s.minutes, 0),
          9,
        );
        const charging = steps.filter((s) => s.kind === 'charge').reduce((sum, s) => sum + s.minutes, 0);
        expect(charging).toBe(waitMinutes);
      }
    const ordinary = wayOf(found, 'charger@12').points;
    expect(Math.min(...ordinary.map((p) => p.waitMinutes))).toBe(DEFAULT_RULES.chargerMinDiesel);
    // Its last step but the crank is that it comes off.
    expect(ordinary.every(({ steps }) => steps.at(-2)!.kind === 'part')).toBeTrue();
  });

  it('is never less sure for a longer charge with the same source', () => {
    for (const { points } of found.ways)
      for (let i = 1; i < points.length; i++)
        expect(points[i]!.start).toBeGreaterThanOrEqual(points[i - 1]!.start - 0.01);
  });

  it('gives each point the odds of the same moment reckoned by itself', () => {
    for (const id of ['donor+heavy', 'donor+light', 'lithium@12']) {
      const { plan } = input.options.find((o) => o.id === id)!;
      for (const { waitMinutes, start } of wayOf(found, id).points) {
        const moment = afterWait({ ...plan, waitMinutes });
        expect(startOdds(moment, plan.engine, population)!.start)
          .withContext(`${id} ${waitMinutes}`)
          .toBeCloseTo(start, 9);
      }
    }
  });

  it('splits the odds over the faults behind them', () => {
    const { plan } = input.options.find((o) => o.id === 'donor+heavy')!;
    const { start, kinds } = startOdds(afterWait(plan), plan.engine, population)!;
    const shares = kinds.map(({ share }) => share);
    expect(shares).toEqual([...shares].sort((a, b) => b - a));
    const [whole, starting] = [
      shares.reduce((a, b) => a + b, 0),
      kinds.reduce((sum, kind) => sum + kind.share * kind.start, 0),
    ];
    // Ten kinds at the most are listed: the lightest may be missing.
    expect(whole).toBeGreaterThan(0.9);
    expect(whole).toBeLessThan(1 + 1e-9);
    expect(starting).toBeLessThanOrEqual(start + 1e-9);
    expect(starting).toBeGreaterThan(start - 0.1);
  });

  it('tells each way as it is done, and the same as in one go', () => {
    const told = [...waysOneByOne(input, population, SEED)];
    const shares = told.map(([, share]) => share);
    expect(shares.at(-1)).toBe(1);
    expect(shares).toEqual([...shares].sort((a, b) => a - b));
    expect(told.map(([way]) => way)).toEqual([...found.ways]);
  });

  it('counts on no charge from a donor whose engine the house keeps off', () => {
    const { job } = jobWith(DIESEL, [11.75]);
    const rules = { ...DEFAULT_RULES, donorEngine: 'off-throughout' } as const;
    const ranked = rankForJob(situationIn(job, DIESEL, KIT, rules));
    const cases = planCases(situationIn(job, DIESEL, KIT, rules), ranked);
    const input = waysInput(job, situationIn(job, DIESEL, KIT, rules), ranked, cases, job.openedAt)!;
    const off = { ways: waysOf(input, population, SEED) };
    expect(wayOf(off, 'donor+heavy').points.map((p) => p.waitMinutes)).toEqual([0]);
    expect(surest(wayOf(off, 'donor+heavy'))).toBeLessThanOrEqual(surest(wayOf(found, 'donor+heavy')));
  });

  it('offers nothing where a battery forbids all current', () => {
    const { job, ranked, cases } = jobWith(CAR, [-3]);
    expect(waysInput(job, situationIn(job, CAR), ranked, cases, job.openedAt)).toBeNull();
  });

  it('puts a donor of 12 V across the battery at the chassis end of a string, and never across the other', () => {
    const across = (rest: readonly number[]) =>
      inputFor(TRUCK, rest)
        .options.filter((o) => o.sourceKind === 'donor')
        .map((o) => o.across);
    expect(across([11.8, 12.6])).toContain({ kind: 'battery', battery: 0 });
    expect(across([12.6, 11.8])).toEqual([]);
  });
});

describe('the frontier and the ranking', () => {
  const { ways } = waysFor(DIESEL, [11.75]);

  it('holds only what no other way beats in minutes and odds', () => {
    const best = frontier(ways);
    const all = ways.flatMap((w) => w.points);
    for (const { point } of best)
      expect(all.some((p) => p.minutes < point.minutes && p.start >= point.start)).toBeFalse();
    for (let i = 1; i < best.length; i++) {
      expect(best[i]!.point.minutes).toBeGreaterThanOrEqual(best[i - 1]!.point.minutes);
      expect(best[i]!.point.start).toBeGreaterThan(best[i - 1]!.point.start);
    }
  });

  it('ranks what is sure enough by minutes, then the rest by odds; surer asks no fewer minutes', () => {
    let before = 0;
    for (const sureness of [0.3, 0.6, 0.9]) {
      const ranked = rankWays(ways, sureness).filter(({ way }) => way.kind !== 'roll');
      const sure = ranked.filter((c) => c.point.start >= sureness);
      expect(ranked.slice(0, sure.length)).toEqual(sure);
      const minutes = sure.map((c) => c.point.minutes);
      expect(minutes).toEqual([...minutes].sort((a, b) => a - b));
      const rest = ranked.slice(sure.length).map((c) => c.point.start);
      expect(rest).toEqual([...rest].sort((a, b) => b - a));
      if (sure.length > 0) expect(minutes[0]!).toBeGreaterThanOrEqual(before);
      before = minutes[0] ?? before;
    }
  });
});

describe('a rolling start', () => {
  const way = (kind: Way['kind'], start: number, minutes: number): Way =>
    ({ id: kind, kind, points: [{ waitMinutes: 0, minutes, start, steps: [] }] }) as unknown as Way;
  const order = (...ways: Way[]): string[] => rankWays(ways, 0.9 * surestOf(ways)).map((c) => c.way.kind);

  it('comes last where a source is likely, and first where nothing else is', () => {
    expect(order(way('roll', 0.84, 5), way('join', 0.7, 3), way('own', 0.1, 1))).toEqual([
      'join',
      'own',
      'roll',
    ]);
    expect(order(way('roll', 0.84, 5), way('join', 0.2, 3), way('own', 0.1, 1))).toEqual([
      'roll',
      'join',
      'own',
    ]);
  });
});

describe('a bad joint', () => {
  const drop = (volts: number) => (log: Log) =>
    log.take('finding.recorded', { check: 'joint-plus', found: volts, source: 'typed', figures: [volts] });

  it('resists what its drop and the amps of the crank say, hand-checked in time', () => {
    const { job } = jobWith(CAR, [12.5], drop(1.4));
    const batteries = situationIn(job, CAR).batteries;
    const { plusOhms, minusOhms } = jointsOfJob(job, CAR, batteries, -4)!;
    expect(minusOhms).toBe(0);
    const rescue: Rescue = { ...aloneRescue(batteries.models, -4), joints: { plusOhms, minusOhms } };
    expect(plusOhms * crankPoint(rescue, CAR.engine!).starterAmps).toBeCloseTo(1.4, 3);
    const { rating } = CAR.batteries[0]!;
    const state = { soc: batteries.socs[0]!, tempC: -4, ageing: 1.3 };
    const crank = { rescue, batteries: [{ rating, state }], engine: CAR.engine!, seconds: 3 };
    const amps = simulateCrank(crank).starterAmps.at(-1)!;
    expect(Math.abs(plusOhms * amps - 1.4)).toBeLessThan(0.25);
  });

  it('lowers what its machine does by itself, and mending it brings that back', () => {
    const sound = waysFor(CAR, [12.5]);
    const bad = waysFor(CAR, [12.5], drop(2.5));
    // It called for help with 12.5 V: by itself it hardly starts, joint or no joint.
    expect(surest(wayOf(sound, 'own'))).toBeLessThan(0.5);
    expect(surest(wayOf(bad, 'own'))).toBeLessThan(0.3);
    expect(surest(wayOf(bad, 'own+mend'))).toBeGreaterThan(0.7);
    expect(wayOf(bad, 'own+mend').points[0]!.steps[0]!.kind).toBe('mend');
    const order = rankWays(bad.ways, 0.9).map((c) => c.way.id);
    expect(order.indexOf('own+mend')).toBeLessThan(order.indexOf('own'));
  });

  it('is sound again once it was read again', () => {
    const { job } = jobWith(CAR, [12.5], (log) => {
      drop(2.5)(log);
      drop(0.1)(log);
    });
    expect(jointsOfJob(job, CAR, situationIn(job, CAR).batteries, -4)).toBeNull();
  });

  it('that was only seen counts as such joints usually do', () => {
    const { job } = jobWith(CAR, [12.5], (log) =>
      log.take('finding.recorded', { check: 'look-joints', found: 'deposits' }),
    );
    expect(jointsOfJob(job, CAR, situationIn(job, CAR).batteries, -4)!.plusOhms).toBeGreaterThan(0.01);
  });
});

describe('what a try teaches', () => {
  const alone = (outcome: 'slow' | 'clicks' | 'brisk-no-fire', lowestVolts: number | null) => (log: Log) => {
    log.take('attempt.started', {});
    log.take('attempt.ended', { outcome, seconds: 4, lowestVolts });
  };

  it('lowers the odds of the same again, and not those of a strong source', () => {
    const before = waysFor(DIESEL, [12.35]);
    const after = waysFor(DIESEL, [12.35], alone('slow', 8.1));
    expect(surest(wayOf(after, 'own'))).toBeLessThan(0.6 * surest(wayOf(before, 'own')));
    expect(surest(wayOf(after, 'donor+heavy'))).toBeGreaterThan(0.75 * surest(wayOf(before, 'donor+heavy')));
  });

  it('hears what the driver told: by itself it hardly starts after clicks or a slow crank', () => {
    const told = (symptom: 'rapid-click' | 'slow-crank') => (log: Log) =>
      log.take('symptom.recorded', { symptom });
    const own = (...args: Parameters<typeof inputFor>): number => surest(wayOf(waysFor(...args), 'own'));
    expect(own(CAR, [12.3], told('rapid-click'))).toBeLessThan(0.3);
    expect(own(CAR, [12.3], told('slow-crank'))).toBeLessThan(0.4);
    // Rapid clicks are a low battery or a bad joint: a source at the posts helps the first.
    expect(waysFor(CAR, [12.3], told('rapid-click')).elsewhere).toBeLessThan(0.5);
  });

  it('finds the battery or its joints behind posts that no sound battery falls to', () => {
    // 12.65 V at rest and no source: a starter that takes 300 A leaves a sound battery at 11 V, never at 5.5.
    const elsewhere = (volts: number | null): number =>
      waysFor(CAR, [12.65], alone('clicks', volts)).elsewhere;
    expect(elsewhere(5.5)).toBeLessThan(0.9 * elsewhere(null));
    expect(elsewhere(12.5)).toBeGreaterThan(elsewhere(null));
  });

  it('takes brisk cranking that does not fire for a fault elsewhere', () => {
    const { elsewhere, ways } = waysFor(CAR, [12.6], alone('brisk-no-fire', 10.6));
    expect(elsewhere).toBeGreaterThan(0.4);
    expect(afterTry({ ways, elsewhere }, null)[0]!.kind).toBe('elsewhere');
  });

  it('proposes a source before the same again when the battery only groans', () => {
    const [best, ...others] = afterTry(waysFor(CAR, [11.7], alone('slow', 7.2)), null);
    expect(best!.kind).toBe('other');
    expect(others.every((o) => o.expected >= best!.expected)).toBeTrue();
    expect(others.some((o) => o.kind === 'again')).toBeTrue();
  });
});

describe('a wait that was cut short', () => {
  const joined = (waitSeconds: number) => (log: Log) => {
    const { ranked } = jobWith(DIESEL, [11.75]);
    const chosen = ranked.find((r) => r.option.id === 'donor+heavy')!;
    log.take('polarity.proved', { signs: ['mark', 'meter'] });
    log.take('plan.chosen', planRecord(chosen)!);
    const { hookup } = ordersOfJob(situationIn(log.job, DIESEL), chosen.option, log.job.plan);
    for (const { action, minutes } of hookup) {
      const [type, data] = entryOf(action);
      log.take(type, data as never, minutes ? waitSeconds : 20);
    }
    log.take('attempt.started', {}, 0);
    log.take('attempt.ended', { outcome: 'slow', seconds: 4, lowestVolts: null }, 4);
  };

  it('counts only the minutes that were waited', () => {
    const { job } = jobWith(DIESEL, [11.75], joined(60));
    expect(job.attempts[0]!.waitedMinutes).toBeCloseTo(1, 6);
    expect(job.attempts[0]!.optionId).toBe('donor+heavy');
    const [short] = findingsFor(DIESEL, [11.75], joined(60)).tries;
    const [long] = findingsFor(DIESEL, [11.75], joined(900)).tries;
    expect(long!.moment.beliefs[0]!.soc).toBeGreaterThan(short!.moment.beliefs[0]!.soc + 0.05);
  });

  it('goes on from there: what is joined is not joined again', () => {
    const { job } = jobWith(DIESEL, [11.75], joined(60));
    const at = new Date(Date.parse(job.attempts[0]!.endedAt!) + 120_000).toISOString();
    const found = waysFor(DIESEL, [11.75], joined(60), at);
    const again = wayOf(found, 'donor+heavy').points;
    expect(again[0]!.steps.map((s) => s.kind)).toEqual(['crank']);
    expect(wayOf(found, 'lithium@12').points[0]!.steps[0]!.kind).toBe('part');
    const kinds = afterTry(found, 'donor+heavy').map((n) => n.kind);
    expect(kinds).toEqual(jasmine.arrayContaining(['again', 'wait', 'other', 'elsewhere']));
  });
});

describe('momentOf', () => {
  it('leaves the joint bad where nothing mended it', () => {
    const { own } = inputFor(CAR, [12.5], (log) =>
      log.take('finding.recorded', { check: 'joint-minus', found: 1, source: 'typed', figures: [1] }),
    );
    expect(momentOf(own, own.beliefs).rescue.joints!.minusOhms).toBeGreaterThan(0);
  });
});

describe('what another van could bring', () => {
  const OWN = KIT.filter(({ kind }) => kind === 'mains-charger' || kind === 'lead-set');
  const THEIRS = KIT.filter(({ kind }) => kind === 'lithium-pack' || kind === 'spare-batteries');
  const at = new Date(START + 3_600_000).toISOString();
  const inputWith = (minutes: number | undefined, more: (log: Log) => void = () => undefined) => {
    const log = new Log(DIESEL);
    log.take('scene.recorded', SCENE);
    log.take('reading.taken', { kind: 'rest', volts: 11.75, battery: 0, tempC: -4, source: 'typed' });
    more(log);
    const { job } = log;
    const rankedOf = (kit: typeof KIT) => {
      const ranked = rankForJob(situationIn(job, DIESEL, kit));
      return { kit, ranked, cases: planCases(situationIn(job, DIESEL), ranked) };
    };
    const own = rankedOf(OWN);
    const other = { vanId: 'van-2', ...rankedOf(THEIRS), ...(minutes !== undefined && { minutes }) };
    return waysInput(job, situationIn(job, DIESEL, OWN), own.ranked, own.cases, at, [other])!;
  };
  const population = populationForTests(findingsFor(DIESEL, [11.75]));
  const fetched = (ways: readonly Way[]): Way[] => ways.filter(({ vanId }) => vanId === 'van-2');

  it('is joined, or fitted, once it is here: its minutes come on top', () => {
    const near = fetched(waysOf(inputWith(10), population, SEED));
    const far = fetched(waysOf(inputWith(40), population, SEED));
    expect(near.map(({ kind }) => kind)).toEqual(
      jasmine.arrayContaining(['join', 'swap', 'charge-then-join']),
    );
    for (const way of near) {
      const same = far.find(({ id }) => id === way.id)!;
      if (way.kind === 'charge-then-join') continue;
      expect(same.points[0]!.minutes - way.points[0]!.minutes)
        .withContext(way.id)
        .toBeCloseTo(30, 6);
      expect(same.points[0]!.start).withContext(way.id).toBeCloseTo(way.points[0]!.start, 9);
    }
  });

  it('leaves the charger on until it comes, so that the battery has more by then', () => {
    const [short, long] = [10, 60].map(
      (minutes) =>
        fetched(waysOf(inputWith(minutes), population, SEED)).find(
          ({ kind }) => kind === 'charge-then-join',
        )!,
    );
    expect(long!.points[0]!.start).toBeGreaterThanOrEqual(short!.points[0]!.start);
    expect(long!.points[0]!.minutes).toBeGreaterThan(60);
    expect(long!.points[0]!.minutes).toBeLessThan(70);
    expect(long!.points[0]!.steps.map(({ kind }) => kind)).toEqual([
      'join',
      'charge',
      'fetch',
      'part',
      'join',
      'crank',
    ]);
  });

  it('is nearer the longer ago it was asked, by what it said itself', () => {
    const asked = inputWith(undefined, (log) => log.take('van.called', { vanId: 'van-2', minutes: 75 }));
    const minutes = asked.options.find(({ fetch }) => fetch)!.fetch!.minutes;
    expect(minutes).toBeGreaterThan(14);
    expect(minutes).toBeLessThan(75 - 50);
  });

  it('is asked once, is here once, and in its own time', () => {
    const log = new Log(DIESEL);
    expect(log.refuses('van.called', { vanId: 'van-2', minutes: 0 })).toBe('value-out-of-range');
    log.take('van.called', { vanId: 'van-2', minutes: 20 });
    expect(log.refuses('van.called', { vanId: 'van-2', minutes: 20 })).toBe('van-already-called');
    expect(vansHere(log.job)).toEqual([]);
    log.take('van.arrived', { vanId: 'van-2' });
    expect(vansHere(log.job)).toEqual(['van-2']);
    expect(log.refuses('van.arrived', { vanId: 'van-2' })).toBe('van-already-here');
    log.take('van.arrived', { vanId: 'van-3' });
    expect(vansHere(log.job)).toEqual(['van-2', 'van-3']);
  });
});

describe('a booster that stands low', () => {
  const LOW = KIT.map((item) => (item.kind === 'capacitor-booster' ? { ...item, volts: 9 } : item));
  const waysAt = (restVolts: number, tempC = -4): Pick<Found, 'ways'> => {
    const log = new Log(CAR);
    log.take('scene.recorded', { ...SCENE, ambientC: tempC });
    log.take('reading.taken', { kind: 'rest', volts: restVolts, battery: 0, tempC, source: 'typed' });
    const ranked = rankForJob(situationIn(log.job, CAR, LOW));
    const cases = planCases(situationIn(log.job, CAR), ranked);
    const at = new Date(START + 3_600_000).toISOString();
    const input = waysInput(log.job, situationIn(log.job, CAR, LOW), ranked, cases, at)!;
    const findings = findingsOfJob(log.job, situationIn(log.job, CAR));
    return { ways: waysOf(input, populationForTests(findings), SEED) };
  };
  const filled = (ways: Pick<Found, 'ways'>): Way | undefined =>
    ways.ways.find(({ id }) => id.endsWith('+fill'));

  it('is filled by its converter from a weak battery, and is surer then', () => {
    const ways = waysAt(11.75);
    const way = filled(ways)!;
    const asItIs = ways.ways.find(({ id }) => id === way.optionId)!;
    expect(way.points[0]!.start).toBeGreaterThan(asItIs.points[0]!.start);
    // 58 F from 9 to 14.4 V at 6 A of 14.4 V: 3.7 kJ at 86 W, three quarters of a minute.
    expect(way.points[0]!.waitMinutes).toBe(1);
    expect(way.points[0]!.steps.map(({ kind }) => kind)).toEqual(['join', 'fill', 'crank']);
  });

  it('is not filled from a battery that cannot feed its converter', () => {
    // Warm, so that no ice bars it.
    expect(filled(waysAt(3.6, 15))).toBeUndefined();
    expect(filled(waysAt(11.75, 15))).toBeDefined();
  });
});

import { judgeCharge } from '../src/charging/index.js';
import {
  actByHand,
  hazardsOf,
  type HookupStep,
  NOTHING_CONNECTED,
  safestOrder,
} from '../src/hookup/index.js';
import {
  chargeChoices,
  chargePlanOfJob,
  chargeRecord,
  chargeSeen,
  hookupScene,
  nextAction,
  plannedOption,
  type Stage,
  underCharge,
} from '../src/job/index.js';
import type { Machine } from '../src/machine/index.js';
import { casualtyBatteries } from '../src/belief/index.js';
import { chargeOptions, sourceOptions } from '../src/plan/index.js';
import { DEFAULT_RULES, type HouseRules } from '../src/rules/index.js';
import type { KitItem } from '../src/sources/index.js';
import { BATTERY_60, CAR, EV, MOTORCYCLE, TRUCK } from './fixtures.js';
import { Log, situationIn } from './job-log.js';
import { EVERY_KIT, EVERY_MACHINE, EVERY_SCHOOL } from './order-proof.js';
import { PROVES } from './proof-share.js';

const LEADS = { sectionMm2: 6, lengthM: 1.8, conductor: 'copper', contact: 'clean' } as const;
const charger = (amps: number, volts: number): KitItem => ({
  kind: 'mains-charger',
  id: `charger-${amps}`,
  name: `Charger, ${amps} A`,
  amps,
  volts,
  startAmps: null,
  leads: LEADS,
});
const SCENE = { place: 'yard', sloping: false, dark: true, enclosed: false, ambientC: 5 } as const;

/** A job of this machine whose batteries were read, beside a socket unless told otherwise. */
function read(
  machine: Machine,
  rest: readonly (number | null)[],
  kit: readonly KitItem[],
  mainsNear = true,
): Log {
  const log = new Log(machine, kit);
  log.take('scene.recorded', { ...SCENE, mainsNear });
  rest.forEach((volts, battery) => {
    if (volts !== null)
      log.take('reading.taken', { kind: 'rest', volts, battery, tempC: 5, source: 'meter' });
  });
  return log;
}
const choicesOf = (log: Log, rules: HouseRules = DEFAULT_RULES) =>
  chargeChoices(situationIn(log.job, log.machine, log.kit, rules));

describe('putting a battery on charge where it is', () => {
  const kit = [charger(8, 14.4)];

  it('takes each battery of a string in turn, and the posts of a machine that wakes', () => {
    expect(choicesOf(read(CAR, [12], kit)).map((c) => [c.option.across.kind, c.unfit])).toEqual([
      ['whole', null],
    ]);
    const truck = choicesOf(read(TRUCK, [12.1, 11.8], kit));
    expect(truck.map((c) => [c.battery, c.option.across, c.unfit])).toEqual([
      [0, { kind: 'battery', battery: 0 }, null],
      [1, { kind: 'battery', battery: 1 }, null],
    ]);
    expect(truck[1]!.hours!).withContext('the emptier takes longer').toBeGreaterThan(truck[0]!.hours!);
    expect(choicesOf(read(EV, [11.9], kit))[0]!.unfit).toBeNull();
  });

  it('says why not', () => {
    const why = (log: Log, rules?: HouseRules) => choicesOf(log, rules)[0]!.unfit;
    expect(why(read(CAR, [null], kit))).toEqual({ code: 'unread' });
    expect(why(read(CAR, [3], kit))).toEqual({ code: 'sense' });
    expect(why(read(CAR, [-11], kit))).toEqual({ code: 'bar', bar: 'reversed' });
    expect(why(read(CAR, [12], kit, false))).toEqual({ code: 'no-mains' });
    expect(why(read(CAR, [12], kit), { ...DEFAULT_RULES, chargeOnVehicle: 'take-out' })).toEqual({
      code: 'take-out',
    });
    const tooHigh = { code: 'charger', why: 'volts-too-high' } as const;
    expect(why(read(EV, [12], [charger(8, 14.8)])))
      .withContext('for its control units')
      .toEqual(tooHigh);
    const icy = new Log(CAR, kit);
    icy.take('scene.recorded', { ...SCENE, mainsNear: true, ambientC: -20 });
    icy.take('reading.taken', { kind: 'rest', volts: 11.2, battery: 0, tempC: -20, source: 'meter' });
    expect(why(icy)).toEqual({ code: 'bar', bar: 'frozen' });
  });

  it('warns of a charger that pushes more than the battery should take', () => {
    expect(choicesOf(read(MOTORCYCLE, [12], [charger(15, 14.4)]))[0]!).toEqual(
      // A tenth of 8 Ah.
      jasmine.objectContaining({ isTooLarge: true, amps: 0.8 }),
    );
    expect(choicesOf(read(CAR, [12], kit))[0]!.isTooLarge).toBeFalse();
  });

  it('is under way from the plug until it is out, and read only then; nothing is cranked with it', () => {
    const log = read(CAR, [12], kit);
    const choice = choicesOf(log)[0]!;
    log.take('polarity.proved', { signs: ['mark', 'meter'] });
    log.take('plan.chosen', chargeRecord(choice)!);
    expect(plannedOption(situationIn(log.job, CAR, kit), log.job.plan)!.chargeOnly).toBeTrue();
    log.take('clamp.attached', { clamp: 'redCasualty', pointId: 'plus' });
    log.take('clamp.attached', { clamp: 'blackCasualty', pointId: 'ground' });
    log.take('plug.moved', { in: true });
    const reading = { volts: 14.3, amps: 8, isWarm: false };
    expect(underCharge(log.job)).withContext('its switch is off').toBeNull();
    expect(log.refuses('charge.read', reading)).toBe('nothing-on-charge');
    const on = log.take('pack.switched', { on: true });
    const { since, dueAt, isToFull } = underCharge(log.job)!;
    expect(since).toBe(on.at);
    expect((Date.parse(dueAt) - Date.parse(since)) / 3_600_000).toBeCloseTo(choice.hours!, 1);
    expect(isToFull).toBeTrue();
    expect(log.refuses('attempt.started', {})).toBe('charger-on');
    log.take('charge.read', reading, 3600);
    expect(log.refuses('charge.read', { ...reading, amps: 400 })).toBe('value-out-of-range');
    expect(log.job.chargeReadings.length).toBe(1);
    const seen = chargeSeen(log.job, situationIn(log.job, CAR), reading, log.job.chargeReadings[0]!.at)!;
    expect(seen.state).toBe('charging');
    expect(seen.hoursLeft!).toBeLessThan(choice.hours!);
    // Switched off, or the plug pulled with its switch still on: it charges no more.
    const unplugged = new Log(CAR, kit);
    unplugged.events.push(...log.events.slice(1), unplugged.make('plug.moved', { in: false }, 9_000));
    expect(underCharge(unplugged.job)).withContext('unplugged').toBeNull();
    log.take('pack.switched', { on: false });
    expect(underCharge(log.job)).toBeNull();
  });

  it('that warms the case is a stop, whoever saw it: nothing is cranked, and what is on comes off without a reason', () => {
    const log = read(CAR, [12], kit);
    log.take('polarity.proved', { signs: ['mark', 'meter'] });
    log.take('plan.chosen', chargeRecord(choicesOf(log)[0]!)!);
    log.take('clamp.attached', { clamp: 'redCasualty', pointId: 'plus' });
    log.take('clamp.attached', { clamp: 'blackCasualty', pointId: 'ground' });
    log.take('plug.moved', { in: true });
    log.take('pack.switched', { on: true });
    expect(situationIn(log.job, CAR, kit).stops).toEqual([]);
    log.take('charge.read', { volts: 14.1, amps: 8, isWarm: true }, 1800);
    const situation = situationIn(log.job, CAR, kit);
    expect(situation.stops).toEqual(['case-warm']);
    const run = { next: null, done: [], later: [] } as never;
    const off = { kind: 'pack', on: false } as const;
    const next = (stage: Stage) =>
      nextAction(
        stage,
        log.job,
        situation,
        { hookup: run, clearing: run, makeSafe: () => [off], hazardsOf: () => [] },
        log.events.at(-1)!.at,
      );
    for (const stage of ['plan', 'hookup', 'crank', 'cleardown'] as const)
      expect(next(stage)).withContext(stage).toEqual({ act: 'take-off', action: off });
    expect(log.refuses('pack.switched', { on: false })).toBeNull();
    expect(log.refuses('attempt.started', {})).not.toBeNull();
  });

  it('is judged against the current that its own plan set: all the charger has for a try, a tenth to full', () => {
    const large = [charger(15, 14.4)];
    const seen = (optionId: string) => {
      const log = read(CAR, [11.9], large);
      const situation = situationIn(log.job, CAR, large);
      const plan = { ...chargeRecord(choicesOf(log)[0]!)!, optionId };
      const since = '2027-01-15T02:00:00.000Z';
      const of = { plan, joinedSince: since };
      return chargeSeen(of, situation, { volts: 14.3, amps: 9, isWarm: false }, since)!.state;
    };
    const toFull = chargeOptions(CAR, large)[0]!.id;
    const forATry = sourceOptions(CAR, large, casualtyBatteries(CAR, [11.9], 5), 5, DEFAULT_RULES).find(
      ({ sourceKind }) => sourceKind === 'mains-charger',
    )!.id;
    expect(forATry).not.toBe(toFull);
    // 9 A is more than the 6 A of a tenth, and less than nine tenths of 15 A.
    expect(seen(toFull)).toBe('charging');
    expect(seen(forATry)).toBe('tapering');
  });

  it('is joined by an order in which nothing is severe: every machine and charger', () => {
    let orders = 0;
    for (const machine of EVERY_MACHINE)
      for (const rules of EVERY_SCHOOL.filter(
        (r, i) => r.donorEngine === 'off-then-run' && r.motorcycleDonor === 'off' && (PROVES || i % 3 === 0),
      ))
        for (const option of chargeOptions(machine, EVERY_KIT)) {
          const battery = option.across.kind === 'battery' ? option.across.battery : 0;
          const log = read(
            machine,
            machine.batteries.map(() => 11.9),
            EVERY_KIT,
          );
          const choice = chargeChoices(situationIn(log.job, machine, EVERY_KIT, rules)).find(
            (c) => c.option.id === option.id,
          )!;
          if (choice.unfit) continue;
          expect(situationIn(log.job, machine).batteries.socs[battery]).toBeLessThan(0.6);
          const scene = hookupScene(situationIn(log.job, machine), option);
          const order = safestOrder(scene, 300, rules);
          let state = NOTHING_CONNECTED;
          for (const { action } of order) {
            const worst = hazardsOf(scene, state, action, rules).filter((h) => h.severity === 'severe');
            expect(worst)
              .withContext(`${machine.id} ${option.id} ${JSON.stringify(action)}`)
              .toEqual([]);
            state = actByHand(state, action, machine);
          }
          const kinds = order.map(({ action }: HookupStep) => action.kind);
          expect(kinds.lastIndexOf('attach')).toBeLessThan(kinds.indexOf('plug'));
          orders++;
        }
    expect(orders).toBeGreaterThan(PROVES ? 100 : 30);
    process.stdout.write(`${orders} orders of a charger, none severe\n`);
  });
});

describe('the current of a charge', () => {
  it('is one figure: in the plan, at each charger, in the circuit, and behind the hours', () => {
    for (const machine of [CAR, MOTORCYCLE, TRUCK, EV]) {
      const situation = situationIn(
        read(
          machine,
          machine.batteries.map(() => 12),
          [charger(3, 14.4), charger(15, 14.4)],
        ).job,
        machine,
        [charger(3, 14.4), charger(15, 14.4)],
      );
      for (const choice of chargeChoices(situation)) {
        const { rating } = machine.batteries[choice.battery]!;
        const plan = chargePlanOfJob(situation, choice.battery);
        const most = choice.charger.includes('15') ? 15 : 3;
        const tenth = Math.min(most, rating.capacityAh / 10);
        expect(choice.amps).toBeCloseTo(tenth, 9);
        expect(choice.option.source.alternator!.maxAmps).toBe(choice.amps);
        expect(plan.chargers.find(({ name }) => name === choice.charger)!.hours).toBe(choice.hours);
        // A bench is warmer than the 5 °C here.
        if (plan.amps === choice.amps) expect(plan.hours!).toBeLessThan(choice.hours!);
      }
    }
  });
});

describe('a look at a charge', () => {
  const soFar = { rating: BATTERY_60, fromSoc: 0.2, toSoc: 0.98, tempC: 15, minutes: 60, setAmps: 6 };
  const look = (more: Partial<typeof soFar>, volts: number, amps: number, isWarm = false) =>
    judgeCharge({ ...soFar, ...more }, { volts, amps, isWarm });

  it('tells the dangerous first', () => {
    expect(look({}, 14.4, 6, true).state).toBe('hot');
    expect(look({}, 15.4, 6).state).toBe('over-volts');
    expect(look({}, 15.4, 6, true).state).toBe('hot');
  });

  it('knows full from full at once, and from nothing taken', () => {
    // A fiftieth of 60 Ah is 1.2 A.
    expect(look({ minutes: 400 }, 14.4, 1.1).state).toBe('full');
    expect(look({ minutes: 400 }, 14.4, 1.3).state).toBe('tapering');
    expect(look({ minutes: 8 }, 14.4, 0.5).state).toBe('full-at-once');
    expect(look({ minutes: 8, fromSoc: 0.8 }, 14.4, 0.5).state)
      .withContext('it was nearly full')
      .toBe('full');
    expect(look({ minutes: 30 }, 12.4, 0).state).toBe('takes-nothing');
  });

  it('tells what is left, by what has gone in', () => {
    // 6 A for an hour are 5 Ah kept of 60: a twelfth. The same hour again takes less than an hour off, since the end tapers.
    const start = look({ minutes: 0 }, 14.2, 6).hoursLeft!;
    const hour = look({ minutes: 60 }, 14.2, 6).hoursLeft!;
    const two = look({ minutes: 120 }, 14.2, 6).hoursLeft!;
    expect(start - hour).toBeCloseTo(1, 1);
    expect(hour - two).toBeCloseTo(1, 1);
    // A charger that gives less than was set, and does not hold the battery yet.
    expect(look({ minutes: 60 }, 13.2, 3).hoursLeft!).toBeGreaterThan(hour);
  });

  it('tells no hours once the current falls', () => {
    expect(look({ minutes: 300 }, 14.4, 5.5)).toEqual(jasmine.objectContaining({ state: 'charging' }));
    expect(look({ minutes: 300 }, 14.4, 5.3)).toEqual({ state: 'tapering', hoursLeft: null });
    expect(look({ minutes: 300, setAmps: 4 }, 14.4, 3.9).state).toBe('charging');
  });
});

import fc from 'fast-check';
import type { BatteryState } from '../src/battery/index.js';
import { type Crowd, restVoltsOf } from '../src/diagnosis/index.js';
import { SURFACE_FACTOR } from '../src/charging/index.js';
import type { CLAMP_IDS } from '../src/circuit/index.js';
import {
  act,
  ampsAround,
  caseFromLog,
  causesOf,
  codeOfCase,
  codeOfMade,
  debriefOf,
  measureOf,
  optionsOf,
  type PracticeAction,
  readCaseCode,
  replay,
  RUNG_IDS,
  startCase,
  toolNext,
  toolRun,
  trueBatteries,
  type World,
} from '../src/practice/index.js';
import { MACHINE_CLASSES } from '../src/machine/index.js';
import type { VerdictRecord } from '../src/verdict/index.js';
import { CAR } from './fixtures.js';
import { Log } from './job-log.js';
import { wandering } from './practice-bots.js';
import { crowdForTests } from './proof-share.js';

const mindOf = ({ practice: { profile } }: World): Crowd => crowdForTests(profile);
const runs = new Map<string, World>();
/** The tool's own run of a case: it costs a second, and several tests ask for the same. */
function runOf(code: string): World {
  const run = runs.get(code) ?? toolRun(code, mindOf(startCase(code)));
  runs.set(code, run);
  return run;
}

describe('a case to practise on', () => {
  it('is the same to whoever has its code, and none where the code is none', () => {
    for (const rung of RUNG_IDS) {
      const code = codeOfCase(rung, 7);
      expect(code).withContext('nobody reads it').not.toContain(rung.slice(0, 4));
      // A mistyped sign makes it none.
      for (let i = 0; i < code.length; i++)
        expect(
          readCaseCode(code.slice(0, i) + (code[i] === 'a' ? 'b' : 'a') + code.slice(i + 1))?.number,
        ).not.toBe(7);
      expect(startCase(code)).toEqual(startCase(` ${code.toUpperCase()} `));
      expect(readCaseCode(code)).toEqual({ rung, made: null, number: 7 });
    }
    expect(startCase('order-1')).not.toEqual(startCase('order-2'));
    for (const none of ['', 'order', 'order-', 'order-x', 'nowhere-3', 'order-1234567'])
      expect(readCaseCode(none)).withContext(none).toBeNull();
    expect(() => startCase('nowhere-3')).toThrowError(RangeError);
  });

  it('is made by hand as well: its machine, its fault and its cold are all in its code', () => {
    const made = { machineClass: 'truck', cause: 'string-weak', tempC: -6 } as const;
    const code = codeOfMade(made, 4);
    expect(readCaseCode(code)).toEqual({ rung: null, made, number: 4 });
    const { practice } = startCase(code);
    expect([practice.machine.machineClass, practice.tempC, practice.hidden.cause]).toEqual([
      'truck',
      -6,
      'string-weak',
    ]);
    expect(startCase(code)).toEqual(startCase(code.toUpperCase()));
    expect(startCase(codeOfMade(made, 5)).hidden).not.toEqual(startCase(code).hidden);
    for (const machineClass of MACHINE_CLASSES)
      for (const cause of causesOf(machineClass))
        expect(readCaseCode(codeOfMade({ machineClass, cause, tempC: 4 }, 1)))
          .withContext(`${machineClass} ${cause}`)
          .not.toBeNull();
    // A fault that such a machine cannot have, a cold that is none, a class that nobody knows.
    for (const none of [
      'made~car~string-weak~4~1',
      'made~car~worn~-60~1',
      'made~sledge~worn~4~1',
      'made~car~worn~4',
      'made~ev~starter~4~1',
    ])
      expect(readCaseCode(none)).withContext(none).toBeNull();
  });

  it('comes out the same however it is wandered through, nothing is forbidden, and its minutes add up', () => {
    fc.assert(
      fc.property(fc.constantFrom(...RUNG_IDS), fc.nat(40), fc.nat(1_000_000), (rung, number, seed) => {
        const code = codeOfCase(rung, number);
        const { world, actions } = wandering(startCase(code), seed, 14);
        expect(replay(code, actions)).toEqual(world);
        const spent = [...world.log, ...world.takenBack].reduce((sum, { minutes }) => sum + minutes, 0);
        expect(world.minutes).toBeCloseTo(spent, 6);
        // Charge is only ever between empty and full.
        for (const { soc } of world.hidden.batteries) {
          expect(soc).toBeGreaterThanOrEqual(0);
          expect(soc).toBeLessThanOrEqual(1);
        }
      }),
      { seed: 15, numRuns: 40 },
    );
  });

  it('has its charge and its heat add up: minutes one by one bring what they bring at once, and no more than the leads carry', () => {
    let throughTheFlatLine = 0;
    for (const cause of ['left-on', 'discharged', 'worn', 'drain'] as const)
      for (const number of [1, 2, 4]) {
        const code = codeOfMade({ machineClass: 'car', cause, tempC: 4 }, number);
        const start = startCase(code);
        const { machine, donor } = start.practice;
        const at = (of: typeof machine, kind: string): string => of.points.find((p) => p.kind === kind)!.id;
        const attach = (clamp: (typeof CLAMP_IDS)[number], pointId: string): PracticeAction => ({
          kind: 'hands',
          action: { kind: 'attach', clamp, pointId },
        });
        const joined = [
          { kind: 'fetch', optionId: optionsOf(start).find((o) => o.sourceKind === 'donor')!.id },
          attach('redCasualty', at(machine, 'battery-positive')),
          attach('redSource', at(donor, 'battery-positive')),
          attach('blackSource', at(donor, 'battery-negative')),
          attach('blackCasualty', at(machine, 'battery-negative')),
          { kind: 'hands', action: { kind: 'donor-engine', running: true } },
        ] as const satisfies readonly PracticeAction[];
        const before = joined.reduce<World>(act, start);
        const batteryOf = (world: World) => world.hidden.batteries[0]!;
        const { capacityAh } = machine.batteries[0]!.rating;
        let world = before;
        let carriedAh = 0;
        for (let minute = 0; minute < 8; minute++) {
          carriedAh += ampsAround(world, 'red-lead') / 60;
          world = act(world, { kind: 'wait', minutes: 1 });
        }
        const atOnce = act(before, { kind: 'wait', minutes: 8 });
        const context = `${code}: ${JSON.stringify([batteryOf(world), batteryOf(atOnce)])}`;
        expect(world.minutes).withContext(context).toBeCloseTo(atOnce.minutes, 6);
        expect(batteryOf(world).soc).withContext(context).toBeCloseTo(batteryOf(atOnce).soc, 2);
        // The drive warms it. A wait goes on as cold as it began, so that many short ones let in a little more.
        const warmed = (after: World): number => batteryOf(after).tempC - batteryOf(before).tempC;
        expect(warmed(world)).withContext(context).toBeGreaterThan(0);
        expect(Math.abs(warmed(world) / warmed(atOnce) - 1))
          .withContext(context)
          .toBeLessThan(0.15);
        expect(batteryOf(world).overDischargedVolts ?? 0)
          .withContext(context)
          .toBeCloseTo(batteryOf(atOnce).overDischargedVolts ?? 0, 0);
        // Nobody has charge above the flat line and owes some below it.
        if (batteryOf(world).soc > 0)
          expect(batteryOf(world).overDischargedVolts).withContext(context).toBeUndefined();
        if (batteryOf(before).soc === 0 && batteryOf(world).soc > 0) throughTheFlatLine++;
        const gained = (batteryOf(world).soc - batteryOf(before).soc) * capacityAh;
        expect(gained)
          .withContext(context)
          .toBeLessThanOrEqual(carriedAh * SURFACE_FACTOR + 1e-9);
      }
    expect(throughTheFlatLine).toBeGreaterThan(0);
  });

  it('remembers what was taken back, its minutes and its risk, and nothing else of it', () => {
    const fetched = act(startCase('not-the-battery-1'), {
      kind: 'fetch',
      optionId: optionsOf(startCase('not-the-battery-1')).find((o) => o.sourceKind === 'donor')!.id,
    });
    const point = (kind: string): string => fetched.practice.machine.points.find((p) => p.kind === kind)!.id;
    const bridged = act(fetched, {
      kind: 'hands',
      action: { kind: 'bridge', pointId: point('battery-positive') },
    });
    const [worst] = bridged.log.at(-1)!.hazards;
    expect(worst?.severity).toBe('severe');
    expect(worst!.amps!).toBeGreaterThan(100);
    const back = act(bridged, { kind: 'back' });
    expect(back.hookup).toEqual(fetched.hookup);
    expect(back.log).toEqual(fetched.log);
    expect(back.minutes).toBe(bridged.minutes);
    const end = act(back, { kind: 'verdict', verdict: 'charge-first', suspect: null });
    const { failings, risks } = debriefOf(end, measureOf(runOf('not-the-battery-1')), mindOf(end));
    expect(failings).toContain('hurt');
    expect(risks.some(({ takenBack }) => takenBack)).toBeTrue();
    expect(() => act(end, { kind: 'key' })).toThrowError(RangeError);
  });

  it('tears off what is on when another source is fetched, with all that this does', () => {
    const start = startCase('not-the-battery-1');
    const point = (kind: string): string => start.practice.machine.points.find((p) => p.kind === kind)!.id;
    const [pack, other] = ['lithium-pack', 'lead-pack'].map(
      (kind) => optionsOf(start).find((o) => o.sourceKind === kind)!.id,
    );
    const fetch = (optionId: string): PracticeAction => ({ kind: 'fetch', optionId });
    const joined = [
      fetch(pack!),
      { kind: 'hands', action: { kind: 'attach', clamp: 'redCasualty', pointId: point('battery-positive') } },
      { kind: 'hands', action: { kind: 'attach', clamp: 'blackCasualty', pointId: point('ground-point') } },
      { kind: 'hands', action: { kind: 'pack', on: true } },
    ] as const satisfies readonly PracticeAction[];
    const torn = act(joined.reduce(act, start), fetch(other!));
    expect(torn.log.at(-1)!.hazards.map(({ code }) => code)).toContain('source-still-on');
    expect(torn.hookup.clamps.redCasualty).toBeNull();
    expect(act(act(start, fetch(pack!)), fetch(other!)).log.at(-1)!.hazards).toEqual([]);
  });

  it('reads volts wherever the probes are: a battery by its posts, a string as a whole, and backwards', () => {
    const start = startCase('string-2');
    const { machine, hidden, profile } = start.practice;
    const own = restVoltsOf(hidden, profile);
    const post = (kind: string, battery: number): string =>
      machine.points.find((p) => p.kind === kind && (p.battery ?? 0) === battery)!.id;
    const read = (red: string, black: string): World => act(start, { kind: 'probe', red, black });
    const shown = (red: string, black: string): number => read(red, black).log.at(-1)!.volts!;
    const [plus1, minus1] = [post('battery-positive', 0), post('battery-negative', 0)];
    expect(shown(plus1, minus1)).toBeCloseTo(own[0]!, 1);
    expect(shown(minus1, plus1)).toBeCloseTo(-own[0]!, 1);
    const ground = machine.points.find((p) => p.kind === 'ground-point')!.id;
    const top = machine.points.find((p) => p.kind === 'battery-positive' && p.battery === 1);
    if (top) expect(shown(top.id, ground)).toBeCloseTo(own[0]! + own[1]!, 1);
    // Across its own posts it is evidence, anywhere else a figure.
    expect(read(plus1, minus1).evidence.at(-1)!.check).toBe('rest');
    expect(read(plus1, ground).evidence).toEqual(start.evidence);
  });

  it('shows what a wrong clamp does: red on minus drives hundreds of amps, and the last clamp on a battery sparks in gas', () => {
    const start = startCase('order-5');
    const { machine, donor } = start.practice;
    const at = (of: typeof machine, kind: string): string => of.points.find((p) => p.kind === kind)!.id;
    const fetched = act(start, {
      kind: 'fetch',
      optionId: optionsOf(start).find((o) => o.sourceKind === 'donor')!.id,
    });
    const clamps = (black: string, red: string): PracticeAction[] => [
      {
        kind: 'hands',
        action: { kind: 'attach', clamp: 'redSource', pointId: at(donor, 'battery-positive') },
      },
      {
        kind: 'hands',
        action: { kind: 'attach', clamp: 'blackSource', pointId: at(donor, 'battery-negative') },
      },
      { kind: 'hands', action: { kind: 'attach', clamp: 'redCasualty', pointId: red } },
      { kind: 'hands', action: { kind: 'attach', clamp: 'blackCasualty', pointId: black } },
    ];
    const crossed = clamps(at(machine, 'battery-positive'), at(machine, 'battery-negative')).reduce(
      act,
      fetched,
    );
    const severe = crossed.log
      .flatMap(({ hazards }) => hazards)
      .filter(({ severity }) => severity === 'severe');
    expect(severe.some(({ amps }) => (amps ?? 0) > 300)).toBeTrue();
    const right = clamps(at(machine, 'ground-point'), at(machine, 'battery-positive')).reduce(act, fetched);
    expect(right.log.at(-1)!.hazards.filter(({ severity }) => severity === 'severe')).toEqual([]);
    const gassy = clamps(at(machine, 'battery-negative'), at(machine, 'battery-positive')).reduce(
      act,
      fetched,
    );
    const worse = (w: World): number => w.log.at(-1)!.hazards.filter((h) => h.severity !== 'note').length;
    expect(worse(gassy)).toBeGreaterThan(worse(right));
  });

  it('is read before help comes off: whether what was woken feeds itself now', () => {
    const world = runOf(codeOfMade({ machineClass: 'ev', cause: 'converter', tempC: 4 }, 2));
    expect(world.practice.hidden.cause).toBe('converter');
    const kinds = world.log.map(({ action }) => (action.kind === 'check' ? action.check : action.kind));
    expect(kinds.indexOf('converter')).toBeGreaterThan(kinds.indexOf('key'));
    expect(kinds.indexOf('converter')).toBeLessThan(kinds.lastIndexOf('hands'));
    expect(world.verdict).toEqual({ verdict: 'not-the-battery', suspect: 'traction-battery' });
  });

  it('is frozen by the charge that its battery truly has, not by the lowest that a reading leaves open', () => {
    const barOf = (soc: number, more: Partial<BatteryState> = {}) => {
      const { practice, ...start } = startCase('leads-1');
      const [battery] = practice.hidden.batteries;
      const hidden = { ...practice.hidden, batteries: [{ ...battery!, soc, ...more }] };
      const profile = { ...practice.profile, tempC: -13 };
      return trueBatteries({ ...start, hidden, practice: { ...practice, hidden, profile } }).beliefs[0]!.bar;
    };
    // Its acid freezes at -15.6 degC; two degrees on either side of that nobody can be sure of.
    expect(barOf(0.23)).toBeUndefined();
    expect(barOf(0.14)).toBe('frozen');
    expect(barOf(0, { overDischargedVolts: 9 })).toBe('frozen');
    expect(barOf(0, { overDischargedVolts: 9, reversed: true })).toBe('reversed');
  });

  it('is advised by what was found and nothing else', () => {
    const start = startCase('joints-4');
    const mind = mindOf(start);
    // Another truth behind the same findings: the advice is the same.
    const other = {
      ...start,
      hidden: startCase('joints-9').hidden,
      practice: { ...start.practice, hidden: startCase('joints-9').hidden },
    };
    expect(toolNext(other, mind)).toEqual(toolNext(start, mind));
  });
});

describe('a case from the log', () => {
  const ended = (verdict: Partial<VerdictRecord>, close = true): Log => {
    const log = new Log(CAR);
    log.take('scene.recorded', {
      ...{ ambientC: -9, place: 'yard', sloping: false, dark: true, enclosed: false, mainsNear: false },
    });
    log.take('verdict.given', {
      ...{ verdict: 'replace-now', suspect: null, certainty: 'sure', followUps: [] },
      ...verdict,
    });
    if (close) log.take('job.closed', { note: '' });
    return log;
  };

  it('has the machine, the cold and the fault of the job that was closed, and nobody’s name', () => {
    const { job } = ended({ causes: [{ cause: 'worn', share: 0.9 }] });
    const code = caseFromLog(job, CAR)!;
    const read = readCaseCode(code)!;
    expect(read.made).toEqual({ machineClass: 'car', cause: 'worn', tempC: -9 });
    expect(code).not.toContain(job.id);
    expect(startCase(code).practice.hidden.holds).toContain('worn');
    expect(caseFromLog(job, CAR)).withContext('the same job is the same case').toBe(code);
  });

  it('is none of a job that is open, or that ended without a fault', () => {
    const causes = [{ cause: 'worn', share: 0.9 }] as const;
    expect(caseFromLog(ended({ causes }, false).job, CAR)).toBeNull();
    expect(
      caseFromLog(ended({ verdict: 'keep', causes: [{ cause: 'none', share: 0.9 }] }).job, CAR),
    ).toBeNull();
  });
});

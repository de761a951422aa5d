import { crowdAfter, drawCrowd, drawHidden, lookOf, repaired, type Crowd } from '../src/diagnosis/index.js';
import { batteryEntries, type Recheck, recheckQuestion, currentVerdict } from '../src/job/index.js';
import type { Machine } from '../src/machine/index.js';
import { seededRandom } from '../src/quantities/index.js';
import { DEFAULT_RULES } from '../src/rules/index.js';
import { type Case, conclude, type VerdictRecord } from '../src/verdict/index.js';
import { BATTERY_60, CAR, TRUCK } from './fixtures.js';
import { crowdForTests, PROVES } from './proof-share.js';
import { Log } from './job-log.js';
import { findingFor, technician } from './truth/technician.js';
import { isSound, isSpent, isUnsafe, KINDS, openVolts, strand, type Stranded } from './truth/world.js';

const FLAT: VerdictRecord = {
  verdict: 'charge-first',
  suspect: null,
  certainty: 'fairly-sure',
  followUps: [
    { kind: 'charge', days: 0 },
    { kind: 'recheck', days: 2 },
  ],
};
const KEEP: VerdictRecord = {
  ...FLAT,
  verdict: 'keep',
  followUps: [{ kind: 'inspect', days: 180 }],
};

/** A car that was flat, closed with a recheck promised. */
function closed(machine: Machine = CAR, ...volts: readonly number[]): Log {
  const log = new Log(machine);
  log.take('symptom.recorded', { symptom: 'rapid-click' });
  machine.batteries.forEach((_, battery) =>
    log.take('reading.taken', {
      kind: 'rest',
      volts: volts[battery] ?? 11.4,
      battery,
      tempC: -4,
      source: 'typed',
    }),
  );
  log.take('verdict.given', FLAT);
  log.take('job.closed', { note: '' });
  return log;
}
const read = (
  restVolts: number,
  tested: number | null = null,
  crankVolts: number | null = null,
): Recheck => ({
  tempC: 12,
  restVolts: [restVolts],
  tested: [tested],
  crankVolts,
});
function verdictOn(log: Log, recheck: Recheck): VerdictRecord {
  const { profile, repairs, evidence, facts } = recheckQuestion(log.job, log.machine, 0, recheck);
  return conclude(crowdAfter(crowdForTests(profile), repairs), evidence, facts, [], DEFAULT_RULES);
}

describe('a recheck', () => {
  it('keeps a battery that was flat, took its charge, held it and tests well', () => {
    expect(verdictOn(closed(), read(12.65, 0.93, 10.3)).verdict).toBe('keep');
  });

  it('condemns one that tests spent, charged; and one that did not hold what it was given', () => {
    expect(verdictOn(closed(), read(12.6, 0.4, 7.9)).verdict).toBe('replace-now');
    expect(verdictOn(closed(CAR, 10.4), read(10.5)).verdict).toBe('replace-now');
  });

  it('condemns one that a full charge and a day left short, and that tests low', () => {
    expect(verdictOn(closed(), read(12.4, 0.52, 9.2)).verdict).toMatch(/^replace/);
  });

  it('by rest volts alone gives a verdict, or names the one reading of the form that decides', () => {
    for (const tools of [['meter', 'tester'], ['meter']] as const)
      for (const flat of [11.4, 10.4, 12.1])
        for (const volts of [11.5, 12.1, 12.4, 12.6, 12.9]) {
          const { profile, repairs, evidence, facts } = recheckQuestion(
            closed(CAR, flat).job,
            CAR,
            0,
            read(volts),
          );
          const crowd = crowdAfter(crowdForTests(profile), repairs);
          const { verdict, deciding } = conclude(crowd, evidence, facts, tools, DEFAULT_RULES);
          if (verdict === 'not-known')
            expect(deciding?.check)
              .withContext(`${flat} V, then ${volts} V`)
              .toBe(tools.length > 1 ? 'conductance' : 'crank');
        }
  });

  it('never judges a battery better for worse figures', () => {
    const rank = ({ verdict }: VerdictRecord): number =>
      ['keep', 'not-known', 'not-the-battery', 'charge-first', 'replace-soon', 'replace-now'].indexOf(
        verdict,
      );
    const log = closed();
    const VOLTS = PROVES ? [12.7, 12.5, 12.4, 12.35, 12.1, 11.7] : [12.7, 12.4];
    const TESTED = PROVES ? [0.95, 0.8, 0.65, 0.52, 0.35] : [0.95, 0.52];
    const LOWEST = PROVES ? [10.6, 9.9, 9.2, 8.4] : [10.2, 9.2];
    const ranks = VOLTS.map((v) => TESTED.map((t) => LOWEST.map((c) => rank(verdictOn(log, read(v, t, c))))));
    const worse: string[] = [];
    VOLTS.forEach((v, i) =>
      TESTED.forEach((t, j) =>
        LOWEST.forEach((c, k) => {
          const here = ranks[i]![j]![k]!;
          const next = [ranks[i + 1]?.[j]?.[k], ranks[i]![j + 1]?.[k], ranks[i]![j]![k + 1]];
          if (next.some((n) => n !== undefined && n < here))
            worse.push(`${v} V, ${t}, ${c} V: ${here} > ${next.join()}`);
        }),
      ),
    );
    expect(worse).toEqual([]);
  });

  it('does not condemn on the low volts of the day it was flat', () => {
    const before = verdictOn(closed(CAR, 10.2), read(12.6, 0.9));
    expect(before.verdict).not.toMatch(/^replace/);
  });

  it('reads every battery of a string by itself', () => {
    const recheck = { tempC: 12, restVolts: [12.65, 10.5], tested: [0.92, 0.35], crankVolts: null };
    const record = verdictOn(closed(TRUCK, 12.3, 10.4), recheck);
    expect(record.batteries!.map((b) => b.condition)[0]).toBe('sound');
    expect(record.batteries!.map((b) => b.condition)[1]).not.toBe('sound');
  });

  it('stands in the log of the closed job: final verdict, promises of its own, and the record of the battery', () => {
    const log = closed();
    log.take('recheck.taken', { ...read(12.6, 0.9), verdict: KEEP });
    expect(currentVerdict(log.job)).toEqual(KEEP);
    expect(log.job.verdict).toEqual(FLAT);
    const entries = batteryEntries(log.job, CAR);
    expect(entries.filter((e) => e.kind === 'rest').map((e) => e.volts)).toEqual([11.4, 12.6]);
    expect(entries.filter((e) => e.kind === 'strength').map((e) => e.share)).toEqual([0.9]);
    // The first verdict's charge is behind it; what the final one promises can be ticked.
    expect(log.refuses('follow-up.done', { kind: 'charge' })).toBe('not-promised');
    expect(log.refuses('follow-up.done', { kind: 'inspect' })).toBeNull();
  });

  it('is refused while the job is open, where none was promised, twice, and with a battery left out', () => {
    const open = new Log();
    const taken = { ...read(12.6), verdict: KEEP };
    expect(open.refuses('recheck.taken', taken)).toBe('not-promised');
    expect(closed().refuses('recheck.taken', { ...taken, restVolts: [] })).toBe('no-such-battery');
    expect(closed().refuses('recheck.taken', { ...taken, restVolts: [90] })).toBe('value-out-of-range');
    const log = closed();
    log.take('recheck.taken', taken);
    expect(log.refuses('recheck.taken', taken)).toBe('not-promised');
  });
});

describe('a charge and a day of rest', () => {
  const PROFILE = {
    machineClass: 'car',
    systemVolts: 12,
    engine: CAR.engine,
    rating: BATTERY_60,
    tempC: 5,
  } as const;
  const charge = { kind: 'battery-charged', tempC: 15 } as const;

  it('fills what was only flat, which then starts; a dead cell stays two volts low, a drain shows', () => {
    const flat = drawHidden('discharged', PROFILE, seededRandom(5));
    const full = repaired(flat, charge, PROFILE);
    expect(full.batteries[0]!.soc).toBeGreaterThan(0.85);
    expect(full.holds).not.toContain('discharged');
    if (full.holds.length === 0) expect(lookOf(full, { ...PROFILE, tempC: 15 }, false)).toBe('starts');
    const dead = repaired(drawHidden('dead-cell', PROFILE, seededRandom(5)), charge, PROFILE);
    expect(dead.batteries[0]!.deadCells).toBeGreaterThan(0);
    const drained = { ...drawHidden('drain', PROFILE, seededRandom(5)), drainAmps: 1 };
    // A day at one ampere is 24 of 60 Ah.
    expect(repaired(drained, charge, PROFILE).batteries[0]!.soc).toBeLessThan(0.62);
  });
});

/** The same machine of the world apart, charged to full and rested. */
function chargedTruth(it: Stranded): Stranded {
  const left = it.faults.includes('drain') ? it.drainAmps * 24 : 0;
  return {
    ...it,
    faults: it.faults.filter((c) => c !== 'discharged' && c !== 'left-on'),
    tempC: 12,
    restedMinutes: 24 * 60,
    cells: it.cells.map((cell) => ({
      ...cell,
      charge: Math.max(0.02, (it.faults.includes('sulphated') ? 0.8 : 0.96) - left / it.rating.capacityAh),
    })),
  };
}

describe('rechecks against a truth made apart', () => {
  it('keep nearly every sound battery that was flat, and nearly none that is spent', () => {
    const random = seededRandom(77);
    const crowds = new Map<string, Crowd>();
    let [sound, condemned, spent, caught] = [0, 0, 0, 0];
    for (let n = 0; n < 420 && (sound < (PROVES ? 60 : 30) || spent < (PROVES ? 40 : 20)); n++) {
      const it = strand(random, KINDS[n % 4]!);
      if (isUnsafe(it)) continue;
      const isFlat = it.cells.some((c) => c.charge < 0.5) || isSpent(it);
      if (!isFlat || (!isSound(it) && !isSpent(it))) continue;
      const who = technician(random);
      const machine = { ...CAR, machineClass: it.machineClass, engine: it.engine };
      const log = new Log({ ...machine, batteries: [{ ...CAR.batteries[0]!, rating: it.rating }] });
      log.take('symptom.recorded', { symptom: 'rapid-click' });
      const flatVolts = openVolts(it.cells[0]!, it.rating.chemistry);
      log.take('reading.taken', {
        kind: 'rest',
        volts: Math.max(0, flatVolts),
        battery: 0,
        tempC: -4,
        source: 'typed',
      });
      const later = chargedTruth(it);
      const [tested, crank] = [
        findingFor('conductance', later, who, random) as number,
        findingFor('crank', later, who, random) as number,
      ];
      const recheck: Recheck = {
        tempC: 12,
        restVolts: [findingFor('rest', later, who, random) as number],
        tested: [tested],
        crankVolts: null,
      };
      const question = recheckQuestion(log.job, log.machine, 0, recheck);
      const key = JSON.stringify(question.profile);
      const crowd = crowds.get(key) ?? drawCrowd(question.profile, seededRandom(7), 60);
      crowds.set(key, crowd);
      const evidence = [...question.evidence, { check: 'crank', found: crank, repaired: 1 } as const];
      const { verdict } = conclude(
        crowdAfter(crowd, question.repairs),
        evidence,
        question.facts,
        [],
        DEFAULT_RULES,
      );
      if (isSpent(it)) {
        spent++;
        if (verdict.startsWith('replace')) caught++;
      } else {
        sound++;
        if (verdict.startsWith('replace')) condemned++;
      }
    }
    expect(sound).toBeGreaterThan(25);
    expect(spent).toBeGreaterThan(15);
    expect(condemned / sound).toBeLessThan(0.05);
    expect(caught / spent).toBeGreaterThan(0.75);
  });
});

describe('cells that stand apart', () => {
  const crowd = drawCrowd({
    machineClass: 'car',
    systemVolts: 12,
    engine: CAR.engine,
    rating: BATTERY_60,
    tempC: 12,
  });
  const verdictFor = (restVolts: number, cellSpread: number): VerdictRecord => {
    const facts: Case = {
      chemistry: 'flooded',
      wakes: false,
      tempC: 12,
      stops: [],
      restVolts: [restVolts],
      earlierFlatCalls: 0,
      diedInService: false,
    };
    const evidence = [
      { check: 'symptom', found: 'slow-crank' },
      { check: 'rest', found: restVolts },
      { check: 'specific-gravity', found: 'one-cell-low', cellSpread },
    ] as const;
    return conclude(crowd, evidence, facts, ['meter', 'hydrometer'], DEFAULT_RULES);
  };

  it('condemn a charged battery by far, and have one charged that may be only uneven', () => {
    expect(verdictFor(12.55, 0.155).verdict).toBe('replace-now');
    expect(verdictFor(12.55, 0.06).verdict).toBe('charge-first');
    // Of a flat battery they say nothing yet: its cells even out on charge.
    expect(verdictFor(11.9, 0.155).verdict).not.toBe('replace-now');
  });
});

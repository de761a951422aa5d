import { repairOrder } from '../src/hookup/index.js';
import {
  type Cause,
  type CheckId,
  type Crowd,
  crowdAfter,
  curesOf,
  diagnose,
  type DiagnosisEvidence,
  drawCrowd,
  drawHidden,
  type Found,
  isWhole,
  JOINT_SIDES,
  lookOf,
  proposals,
  type Repair,
  repaired,
  repairsFor,
  validEvidence,
  weigh,
} from '../src/diagnosis/index.js';
import { evidenceOfJob, mendedOfJob, repairsOfJob } from '../src/job/index.js';
import { seededRandom } from '../src/quantities/index.js';
import { DEFAULT_RULES } from '../src/rules/index.js';
import { conclude, type VerdictRecord } from '../src/verdict/index.js';
import { BATTERY_60, CAR, TRUCK } from './fixtures.js';
import { Log } from './job-log.js';
import { findingFor, technician } from './truth/technician.js';
import { PROVES } from './proof-share.js';
import { isSound, KINDS, strand, type Stranded } from './truth/world.js';

const PROFILE = {
  machineClass: 'car',
  systemVolts: 12,
  engine: CAR.engine,
  rating: BATTERY_60,
  tempC: 4,
} as const;
const CROWD = drawCrowd(PROFILE);
const MINUS: Repair = { kind: 'joint-cleaned', side: 'minus' };
const PLUS: Repair = { kind: 'joint-cleaned', side: 'plus' };
const SWITCH: Repair = { kind: 'switch-set', check: 'kill-switch' };

const before = (check: CheckId, found: Found): DiagnosisEvidence => ({ check, found });
const after = (check: CheckId, found: Found, repairs = 1): DiagnosisEvidence => ({
  check,
  found,
  repaired: repairs,
});

function verdictOf(
  repairs: readonly Repair[],
  evidence: readonly DiagnosisEvidence[],
  restVolts: number | null = 12.6,
): VerdictRecord {
  const facts = {
    chemistry: 'flooded',
    wakes: false,
    tempC: 4,
    stops: [],
    restVolts: [restVolts],
    earlierFlatCalls: 0,
    diedInService: false,
  } as const;
  return conclude(crowdAfter(CROWD, repairs), evidence, facts, ['meter', 'tester'], DEFAULT_RULES);
}

/** A charged car that cranks slowly and loses 1.1 V over its negative joint. */
const BAD_MINUS = [
  before('symptom', 'slow-crank'),
  before('rest', 12.6),
  before('try-alone', 'slow'),
  before('joint-minus', 1.1),
];

describe('a repair', () => {
  it('takes its cause away from a machine, which then cranks as that fault lets it', () => {
    const cases: readonly (readonly [Cause, readonly Repair[]])[] = [
      ['joint-positive', [PLUS]],
      ['joint-negative', [MINUS]],
      [
        'joint-loose',
        [
          { kind: 'clamp-resized', side: 'plus' },
          { kind: 'post-sleeved', side: 'minus' },
        ],
      ],
      ['cable', [{ kind: 'strap-cleaned' }]],
      ['main-fuse', [{ kind: 'fuse-renewed' }]],
      ['interlock', [SWITCH]],
      ['fuel', [{ kind: 'switch-set', check: 'fuel-tap' }]],
    ];
    for (const [cause, repairs] of cases) {
      for (let seed = 1; seed <= 12; seed++) {
        const random = seededRandom(seed);
        const hidden = drawHidden(cause, PROFILE, random);
        const mended = repairs.reduce((it, repair) => repaired(it, repair, PROFILE), hidden);
        expect(mended.holds).withContext(cause).not.toContain(cause);
        const isAlone = hidden.holds.length === 1 && hidden.batteries[0]!.soc > 0.6;
        if (isAlone && hidden.batteries[0]!.ageing < 1.6)
          expect(lookOf(mended, PROFILE, false))
            .withContext(`${cause} ${seed}`)
            .toBe('starts');
      }
    }
  });

  it('leaves a machine as it is that has another fault, or the same one at the other post', () => {
    const hidden = drawHidden('joint-negative', PROFILE, seededRandom(3));
    expect(repaired(hidden, PLUS, PROFILE)).toBe(hidden);
    const loose = drawHidden('joint-loose', PROFILE, seededRandom(3));
    const other = loose.plusOhms > loose.minusOhms ? 'minus' : 'plus';
    expect(repaired(loose, { kind: 'clamp-resized', side: other }, PROFILE)).toBe(loose);
    const noBelt = { ...drawHidden('charging', PROFILE, seededRandom(4)), beltBad: false };
    expect(repaired(noBelt, { kind: 'belt-tightened' }, PROFILE)).toBe(noBelt);
  });

  it('is offered where something it mends was found, and not for what only a workshop mends', () => {
    const kinds = (findings: Partial<Record<CheckId, Found>>): string[] =>
      repairsFor(findings, CAR).map(({ repair: { kind, side } }) => (side ? `${kind} ${side}` : kind));
    expect(kinds({ 'joint-plus': 0.6 })).toEqual(['joint-cleaned plus']);
    expect(kinds({ 'joint-plus': 0.19 })).toEqual([]);
    expect(kinds({ 'joint-minus': 0.6 })).toEqual(['joint-cleaned minus', 'strap-cleaned']);
    // A measurement tells which of two joints with deposits it is.
    expect(kinds({ 'look-joints': 'deposits', 'joint-minus': 0.6 })).toEqual([
      'joint-cleaned minus',
      'strap-cleaned',
    ]);
    expect(kinds({ 'look-joints': 'deposits' })).toEqual(['joint-cleaned plus', 'joint-cleaned minus']);
    expect(kinds({ 'look-joints': 'turns-by-hand' })).toContain('post-sleeved minus');
    expect(kinds({ 'look-joints': 'rust' })).toContain('strap-cleaned');
    expect(kinds({ isolator: 'fault', 'kill-switch': 'fault' })).toEqual(['isolator-on', 'switch-set']);
    expect(kinds({ 'brake-switch': 'fault', 'immobiliser-lamp': 'lit', 'fuel-gauge': 'empty' })).toEqual([]);
    for (const { repair } of repairsFor({ 'look-joints': 'turns-by-hand', 'side-stand': 'fault' }, CAR))
      expect(isWhole(repair)).toBeTrue();
  });

  it('takes minus off before plus is touched and puts it on again last, so that no slip carries anything', () => {
    const models = [{ openVolts: 12.6, ohms: 0.008 }];
    for (const kind of ['joint-cleaned', 'clamp-resized', 'post-sleeved'] as const)
      for (const side of JOINT_SIDES) {
        const order = repairOrder({ kind, side }, CAR, models, 5);
        const steps = order.map(({ step }) => step);
        expect(steps.indexOf('minus-off')).toBe(1);
        expect(steps.includes('plus-off')).toBe(side === 'plus');
        if (side === 'plus') expect(steps.indexOf('plus-on')).toBeLessThan(steps.indexOf('minus-on'));
        for (const { step, slipAmps } of order)
          if (step.startsWith('plus')) expect(slipAmps).withContext(step).toBe(0);
      }
    // 12.6 V behind a quarter of an ohm, a spanner of a thousandth: about fifty amps.
    const fed = repairOrder(PLUS, CAR, models, 5, ['memory-keeper']).find((s) => s.step === 'plus-off')!;
    expect(fed.slipAmps).toBeGreaterThan(40);
    expect(fed.slipAmps).toBeLessThan(52);
  });
});

describe('evidence about a repair', () => {
  it('is weighed against the machine as it stood when it was found', () => {
    const mended = crowdAfter(CROWD, [MINUS]);
    const then = weigh(mended, BAD_MINUS);
    const asItCame = weigh(CROWD, BAD_MINUS);
    // Nothing was found after it, so what is known of the machine as it came is the same.
    expect(Math.max(...then.map((share, i) => Math.abs(share - asItCame[i]!)))).toBeLessThan(1e-12);
    const leads = diagnose(CROWD, BAD_MINUS)[0]!;
    expect(leads.cause).toBe('joint-negative');
    const now = diagnose(mended, [...BAD_MINUS, after('joint-minus', 0.08), after('try-alone', 'started')]);
    expect(now.map((s) => s.cause)).not.toContain('joint-negative');
  });

  it('stands where the repair did not change what was found, and is asked again where it did', () => {
    const pieces = [...BAD_MINUS, before('conductance', 0.9), after('try-alone', 'started')];
    expect(validEvidence(pieces, [MINUS]).map((e) => e.check)).toEqual([
      'symptom',
      'rest',
      'conductance',
      'try-alone',
    ]);
    const asked = proposals(crowdAfter(CROWD, [MINUS]), BAD_MINUS, ['meter']).map((p) => p.check);
    expect(asked).toContain('joint-minus');
    expect(asked).toContain('try-alone');
    expect(asked).not.toContain('rest');
  });

  it('goes on pointing at the joint that was not the one cleaned', () => {
    const [first] = diagnose(crowdAfter(CROWD, [PLUS]), [
      ...BAD_MINUS,
      after('joint-minus', 1.1),
      after('try-alone', 'slow'),
    ]);
    expect(first!.cause).toBe('joint-negative');
  });
});

describe('the verdict after a repair', () => {
  const STARTS = [after('joint-minus', 0.06), after('try-alone', 'started')];

  it('is repaired: no charging for a full battery, no workshop, and what it rests on is the fault that was', () => {
    const record = verdictOf([MINUS], [...BAD_MINUS, ...STARTS]);
    expect(record.verdict).toBe('repaired');
    expect(record.suspect).toBe('joint');
    expect(record.repaired).toEqual([MINUS]);
    expect(record.followUps.map((f) => f.kind)).toEqual(['inspect']);
    expect(record.share).toBeGreaterThan(0.7);
    expect(record.ledger!.some((l) => l.check === 'joint-minus' && l.bits > 0)).toBeTrue();
  });

  it('is the same for a switch that stood wrong', () => {
    const record = verdictOf(
      [SWITCH],
      [
        before('symptom', 'silence'),
        before('rest', 12.6),
        before('interlocks', 'fault'),
        after('interlocks', 'clear'),
        after('try-alone', 'started'),
      ],
    );
    expect(record.verdict).toBe('repaired');
    expect(record.suspect).toBe('interlock');
    expect(record.followUps.map((f) => f.kind)).not.toContain('workshop');
  });

  it('is not given before the machine has shown that it held, nor where it shows that it did not', () => {
    expect(verdictOf([MINUS], BAD_MINUS).verdict).not.toBe('repaired');
    const failed = [after('joint-minus', 1), after('try-alone', 'slow')];
    const record = verdictOf([MINUS], [...BAD_MINUS, ...failed]);
    expect(record.verdict).not.toBe('repaired');
    expect(verdictOf([PLUS], [...BAD_MINUS, after('try-alone', 'slow')]).verdict).toBe('not-the-battery');
  });

  it('still condemns a battery that is proved spent, and charges one that is flat, beside what was mended', () => {
    const spent = verdictOf(
      [MINUS],
      [...BAD_MINUS, ...STARTS, after('conductance', 0.3), after('crank', -2.2), after('load-test', -3)],
    );
    expect(spent.verdict).toMatch(/^replace/);
    expect(spent.repaired).toEqual([MINUS]);
    const flat = verdictOf(
      [MINUS],
      [
        before('symptom', 'rapid-click'),
        before('rest', 11.8),
        before('joint-minus', 1.2),
        after('joint-minus', 0.05),
        after('try-alone', 'clicks'),
        after('with-help', 'started'),
      ],
      11.8,
    );
    expect(flat.verdict).toBe('charge-first');
    expect(flat.suspect).toBeNull();
  });
});

describe('a repair in the log', () => {
  const logged = (): Log => {
    const log = new Log();
    log.take('symptom.recorded', { symptom: 'slow-crank' });
    log.take('reading.taken', { kind: 'rest', volts: 12.6, battery: 0, tempC: -4, source: 'typed' });
    log.take('finding.recorded', { check: 'joint-minus', found: 1.1, source: 'typed', figures: [1.1] });
    log.take('finding.recorded', { check: 'look-joints', found: 'deposits' });
    return log;
  };

  it('takes what showed the fault out of what stands, keeps it as found before, and has it read again', () => {
    const log = logged();
    expect(repairsOfJob(log.job, CAR).map((o) => o.repair.kind)).toContain('joint-cleaned');
    log.take('repair.made', MINUS);
    expect(log.job.findings).toEqual({});
    expect(repairsOfJob(log.job, CAR)).toEqual([]);
    expect(mendedOfJob(log.job)).toEqual([
      jasmine.objectContaining({
        kind: 'joint-cleaned',
        before: { check: 'joint-minus', found: 1.1 },
        after: null,
      }),
    ]);
    log.take('finding.recorded', { check: 'joint-minus', found: 0.06, source: 'typed', figures: [0.06] });
    log.take('finding.recorded', { check: 'try-alone', found: 'started' });
    expect(mendedOfJob(log.job)[0]!.after).toEqual({ check: 'joint-minus', found: 0.06 });
    const evidence = evidenceOfJob(log.job, CAR, 0);
    expect(evidence.filter((e) => e.check === 'joint-minus')).toEqual([
      { check: 'joint-minus', found: 1.1 },
      { check: 'joint-minus', found: 0.06, repaired: 1 },
    ]);
    expect(evidence.filter((e) => e.check === 'rest')).toEqual([{ check: 'rest', found: 12.6 }]);
    expect(evidence).toContain({ check: 'try-alone', found: 'started', repaired: 1 });
  });

  it('counts a battery figure once that was read before and after', () => {
    const log = logged();
    log.take('repair.made', MINUS);
    log.take('reading.taken', { kind: 'rest', volts: 12.58, battery: 0, tempC: -4, source: 'typed' });
    expect(evidenceOfJob(log.job, CAR, 0).filter((e) => e.check === 'rest')).toEqual([
      { check: 'rest', found: 12.58, repaired: 1 },
    ]);
  });

  it('is undone like any other, and stands for nothing then', () => {
    const log = logged();
    const made = log.take('repair.made', MINUS);
    log.take('event.undone', { eventId: made.id });
    expect(log.job.repairs).toEqual([]);
    expect(log.job.findings['joint-minus']).toBe(1.1);
  });

  it('is refused while clamps are on, without its side, or of a switch that no hand sets', () => {
    const log = logged();
    expect(log.refuses('repair.made', { kind: 'joint-cleaned' })).toBe('value-out-of-range');
    expect(log.refuses('repair.made', { kind: 'switch-set', check: 'brake-switch' })).toBe(
      'value-out-of-range',
    );
    expect(log.refuses('repair.made', SWITCH)).toBeNull();
    log.take('stop.raised', { stop: 'fuel-smell' });
    expect(log.refuses('repair.made', MINUS)).toBe('stop-active');
    expect(repairsOfJob(log.job, CAR)).toEqual([]);
  });
});

/** The repair of a technician of the world apart on a fault that is there. */
function mendedTruth(it: Stranded, repair: Repair): Stranded {
  const gone = curesOf(repair).filter((c) => it.faults.includes(c));
  if (gone.length === 0) return it;
  return {
    ...it,
    faults: it.faults.filter((c) => !gone.includes(c)),
    ...(repair.side === 'plus' && { plusOhms: 0.0004 }),
    ...(repair.side === 'minus' && { minusOhms: 0.0004 }),
    ...(repair.kind === 'strap-cleaned' && { cableOhms: 0.0008 }),
  };
}

describe('repairs against a truth made apart', () => {
  const LOOKS: readonly CheckId[] = [
    'symptom',
    'rest',
    'try-alone',
    'look-joints',
    'joint-plus',
    'joint-minus',
  ];
  const SWITCHES: readonly CheckId[] = ['interlocks', 'isolator-fuse'];

  it('names a repair as the cure only where it was, and nearly always where it was the whole fault @long', () => {
    const random = seededRandom(41);
    const crowds = new Map<string, Crowd>();
    let [said, right, whole, told] = [0, 0, 0, 0];
    for (let n = 0; n < (PROVES ? 260 : 60); n++) {
      const it = strand(random, KINDS[n % 5]!);
      if (it.tempC < -12 || it.faults.includes('frozen')) continue;
      const who = technician(random);
      const profile = {
        machineClass: it.machineClass,
        systemVolts: it.systemVolts,
        engine: it.engine,
        rating: it.rating,
        tempC: 5 * Math.round(it.tempC / 5),
      };
      const key = JSON.stringify(profile);
      const crowd = crowds.get(key) ?? drawCrowd(profile, seededRandom(7), 60);
      crowds.set(key, crowd);
      const find = (of: Stranded, checks: readonly CheckId[], repairs: number): DiagnosisEvidence[] =>
        checks.flatMap((check) => {
          const found = findingFor(check, of, who, random);
          return found === null ? [] : [{ check, found, ...(repairs > 0 && { repaired: repairs }) }];
        });
      const evidence = find(it, [...LOOKS, ...SWITCHES], 0);
      const findings = Object.fromEntries(evidence.map((e) => [e.check, e.found]));
      const [offer] = repairsFor(
        { ...findings, ...(findings['isolator-fuse'] === 'fault' && { isolator: 'fault' }) },
        CAR,
      ).sort((a, b) => Number(b.check.startsWith('joint')) - Number(a.check.startsWith('joint')));
      if (!offer) continue;
      const made = mendedTruth(it, offer.repair);
      const again = find(made, ['try-alone', 'look-joints', 'joint-plus', 'joint-minus', ...SWITCHES], 1);
      const rests = evidence.filter((e) => e.check === 'rest').map((e) => e.found as number);
      const { verdict } = conclude(
        crowdAfter(crowd, [offer.repair]),
        [...evidence, ...again],
        {
          chemistry: it.rating.chemistry,
          wakes: false,
          tempC: it.tempC,
          stops: [],
          restVolts: rests,
          earlierFlatCalls: 0,
          diedInService: false,
        },
        ['meter'],
        DEFAULT_RULES,
      );
      const wasIt = made !== it;
      if (verdict === 'repaired') {
        said++;
        if (wasIt) right++;
      }
      if (wasIt && made.faults.length === 0 && isSound(it) && it.cells.every((c) => c.charge > 0.7)) {
        whole++;
        if (verdict === 'repaired' || verdict === 'keep') told++;
      }
    }
    expect(said).toBeGreaterThan(PROVES ? 8 : 4);
    expect(right / said).toBeGreaterThan(0.9);
    expect(whole).toBeGreaterThan(PROVES ? 8 : 4);
    expect(told / whole).toBeGreaterThan(0.8);
  });

  it('orders every repair of a string with minus first and last', () => {
    const models = [
      { openVolts: 12.6, ohms: 0.006 },
      { openVolts: 12.6, ohms: 0.006 },
    ];
    const steps = repairOrder(PLUS, TRUCK, models, 0).map((s) => s.step);
    expect(steps.slice(0, 3)).toEqual(['all-off', 'minus-off', 'plus-off']);
    expect(steps.indexOf('minus-on')).toBeGreaterThan(steps.indexOf('plus-on'));
  });
});

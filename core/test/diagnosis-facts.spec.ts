import {
  type Cause,
  CAUSES,
  changes,
  chargingMeaning,
  CHECKS,
  checksFor,
  crankOf,
  curesOf,
  type DiagnosisProfile,
  drawHidden,
  findingOf,
  foundFromMeter,
  HELP,
  type HiddenMachine,
  joinedWithHelp,
  lampsAtKey,
  lookOf,
  measuresFor,
  needsStandstill,
  oneBattery,
  outcomeChances,
  ownVolts,
  type Repair,
  repaired,
  restVoltsOf,
  shownBy,
  soundCharging,
  TOOLS,
  SOUND_OHMS,
  usualBadJointOhms,
  WORN_FROM,
} from '../src/diagnosis/index.js';
import { defaultStarter } from '../src/engine/index.js';
import { seededRandom } from '../src/quantities/index.js';
import { DEFAULT_RULES } from '../src/rules/index.js';
import { BATTERY_60, BATTERY_95, CAR as MACHINE, EV as WAKING, TRUCK as HEAVY } from './fixtures.js';

const CAR: DiagnosisProfile = {
  machineClass: 'car',
  systemVolts: 12,
  engine: MACHINE.engine,
  rating: BATTERY_60,
  tempC: -4,
};
const TRUCK: DiagnosisProfile = {
  machineClass: 'truck',
  systemVolts: 24,
  engine: HEAVY.engine,
  rating: BATTERY_95,
  tempC: -4,
};
const EV: DiagnosisProfile = { ...CAR, machineClass: 'ev', engine: WAKING.engine };

/** The same fault drawn many times over. */
const draws = (cause: Cause, profile = CAR, count = 120): HiddenMachine[] => {
  const random = seededRandom(CAUSES.indexOf(cause) + 1);
  return Array.from({ length: count }, () => drawHidden(cause, profile, random));
};
const shareOf = (list: readonly HiddenMachine[], is: (h: HiddenMachine) => boolean): number =>
  list.filter(is).length / list.length;
const each = (cause: Cause, is: (h: HiddenMachine) => boolean, profile = CAR): boolean =>
  draws(cause, profile).every(is);
const soundJoint = (ohms: number): boolean => ohms >= SOUND_OHMS[0] && ohms <= SOUND_OHMS[1];
/** Nothing came along that could hide what is looked at. */
const alone = (cause: Cause, profile = CAR): HiddenMachine[] =>
  draws(cause, profile).filter((h) => h.holds.length === 1);

describe('what a hidden fault is made of', () => {
  it('is what keeps it from starting, and says so', () => {
    for (const cause of CAUSES) {
      const drawn = draws(cause, cause === 'string-weak' ? TRUCK : CAR, 30);
      expect(drawn.every((h) => h.cause === cause && h.holds[0] === cause))
        .withContext(cause)
        .toBeTrue();
      expect(shareOf(drawn, (h) => h.holds.length > 1))
        .withContext(cause)
        .toBeLessThan(0.95);
    }
    expect(
      shareOf(draws('fuel', CAR, 400), (h) =>
        ['drain', 'charging', 'joint-positive', 'joint-negative', 'left-on'].some((c) =>
          h.holds.includes(c as Cause),
        ),
      ),
    ).toBeCloseTo(0.2, 1);
    expect(
      shareOf(draws('none', CAR, 100), (h) => h.holds.includes('drain') || h.holds.includes('charging')),
    ).toBe(0);
    expect(draws('joint-positive').some((h) => h.holds.includes('joint-negative'))).toBeFalse();
    expect(draws('fuel', EV).some((h) => h.holds.includes('charging'))).toBeFalse();
  });

  it('opens the circuit, holds the starter, or holds the firing', () => {
    expect(
      each(
        'main-fuse',
        (h) => h.open && h.held === 'no' && h.crank === null && lookOf(h, CAR, true) === 'silence',
      ),
    ).toBeTrue();
    expect(
      each(
        'interlock',
        (h) =>
          h.held === 'starter' &&
          !h.open &&
          h.crank === null &&
          h.helped === null &&
          lookOf(h, CAR, true) === 'silence',
      ),
    ).toBeTrue();
    for (const cause of ['immobiliser', 'fuel'] as const)
      expect(each(cause, (h) => h.held === 'firing' && lookOf(h, CAR, true) !== 'starts'))
        .withContext(cause)
        .toBeTrue();
    expect(shareOf(alone('fuel'), (h) => lookOf(h, CAR, true) === 'brisk-no-fire')).toBeGreaterThan(0.9);
    for (const cause of ['discharged', 'starter', 'worn'] as const)
      expect(each(cause, (h) => h.held === 'no')).toBeTrue();
  });

  it('takes the starter dead, dragging, or fast in an engine that is tight', () => {
    const starters = draws('starter', CAR, 300);
    expect(shareOf(starters, (h) => h.starter === 'dead')).toBeCloseTo(0.5, 1);
    expect(
      starters.every((h) =>
        h.starter === 'dead'
          ? h.torqueShare === 0 && h.crank === null
          : h.starter === 'dragging' && h.torqueShare >= 0.15 && h.torqueShare <= 0.6,
      ),
    ).toBeTrue();
    expect(
      shareOf(
        starters.filter((h) => h.starter === 'dead'),
        (h) => lookOf(h, CAR, false) === 'one-click',
      ),
    ).toBeGreaterThan(0.9);
    expect(
      each('seized', (h) => h.starter === 'held-fast' && h.torqueShare >= 0.04 && h.torqueShare <= 0.25),
    ).toBeTrue();
    expect(shareOf(draws('seized'), (h) => lookOf(h, CAR, true) === 'starts')).toBeLessThan(0.15);
    expect(
      each('fuel', (h) => h.starter === 'sound' && h.torqueShare >= 0.85 && h.torqueShare <= 1.15),
    ).toBeTrue();
  });

  it('sits in one joint, one clamp at its stop, or the cable, as bad as keeps this starter from turning', () => {
    const stall = 12 / defaultStarter(CAR.engine!).ohms;
    const [least, most] = [(0.012 * 700) / stall, (0.14 * 700) / stall];
    const isBad = (ohms: number): boolean => ohms >= least - 1e-12 && ohms <= most + 1e-12;
    expect(usualBadJointOhms(CAR)).toBeCloseTo(Math.sqrt(least * most), 9);
    expect(alone('joint-positive').every((h) => isBad(h.plusOhms) && soundJoint(h.minusOhms))).toBeTrue();
    expect(alone('joint-negative').every((h) => isBad(h.minusOhms) && soundJoint(h.plusOhms))).toBeTrue();
    const loose = alone('joint-loose');
    expect(loose.every((h) => isBad(h.plusOhms) !== isBad(h.minusOhms))).toBeTrue();
    expect(shareOf(loose, (h) => isBad(h.plusOhms))).toBeCloseTo(0.5, 0);
    expect(draws('cable').every((h) => isBad(h.cableOhms))).toBeTrue();
    expect(
      alone('discharged').every(
        (h) => soundJoint(h.plusOhms) && soundJoint(h.minusOhms) && h.cableOhms <= 2 * SOUND_OHMS[1],
      ),
    ).toBeTrue();
  });

  it('wears, sulphates or breaks a battery', () => {
    const worst = (h: HiddenMachine): number => Math.max(...h.batteries.map((b) => b.ageing));
    expect(
      each(
        'worn',
        (h) =>
          worst(h) >= Math.exp(Math.log(WORN_FROM * 0.95)) - 1e-9 &&
          worst(h) <= 8 &&
          h.ageYears >= 3 &&
          h.ageYears <= 11,
      ),
    ).toBeTrue();
    // Down to a hair under where wear begins: there is no gap between sound and worn.
    expect(draws('worn', CAR, 600).some((h) => worst(h) < WORN_FROM)).toBeTrue();
    expect(each('sulphated', (h) => worst(h) >= 1.9 && h.use === 'stood-weeks')).toBeTrue();
    const cells = draws('dead-cell', CAR, 400);
    expect(cells.every((h) => [1, 2].includes(h.batteries[0]!.deadCells ?? 0))).toBeTrue();
    expect(shareOf(cells, (h) => h.batteries[0]!.deadCells === 1)).toBeCloseTo(0.9, 1);
    expect(
      each(
        'dead-cell',
        (h) =>
          h.batteries.filter((b) => b.deadCells).length === 1 && (h.batteries[h.hurt]!.deadCells ?? 0) > 0,
        TRUCK,
      ),
    ).toBeTrue();
    expect(each('reversed', (h) => h.batteries.filter((b) => b.reversed).length === 1, TRUCK)).toBeTrue();
    expect(each('broken-link', (h) => h.linkOhms >= 0.1 && h.linkOhms <= 4)).toBeTrue();
    expect(each('broken-link', (h) => h.linkOhms >= 0.05 && h.linkOhms <= 2, TRUCK)).toBeTrue();
    expect(each('worn', (h) => h.linkOhms === 0)).toBeTrue();
    for (const h of draws('discharged', CAR, 300))
      expect(h.holds.includes('worn')).toBe(worst(h) >= WORN_FROM);
  });

  it('leaves one battery of a string down and the others up', () => {
    const strings = draws('string-weak', TRUCK, 200);
    const socs = (h: HiddenMachine): number[] =>
      h.batteries.map((b) => (b.overDischargedVolts === undefined ? b.soc : 0));
    expect(
      strings.every(
        (h) => h.batteries.length === 2 && socs(h)[h.hurt]! <= 0.32 && socs(h)[1 - h.hurt]! >= 0.7,
      ),
    ).toBeTrue();
    expect(shareOf(strings, (h) => h.hurt === 0)).toBeCloseTo(0.5, 0);
    // Any other fault leaves them near each other.
    for (const h of draws('left-on', TRUCK)) {
      const [one, other] = h.batteries;
      if (one!.overDischargedVolts === undefined && other!.overDischargedVolts === undefined)
        expect(Math.abs(one!.soc - other!.soc)).toBeLessThan(0.041);
      else
        expect(Math.abs((one!.overDischargedVolts ?? 11) - (other!.overDischargedVolts ?? 11))).toBeLessThan(
          3,
        );
    }
  });

  it('charges not at all, weakly, or too much', () => {
    const faults = draws('charging', CAR, 500);
    const kinds = faults.map((h) =>
      h.revvedVolts <= 12.9 && h.chargingVolts === h.revvedVolts
        ? 'none'
        : h.revvedVolts < 14
          ? 'weak'
          : 'over',
    );
    const share = (kind: string): number => kinds.filter((k) => k === kind).length / kinds.length;
    expect(share('none')).toBeCloseTo(0.65, 1);
    expect(share('weak')).toBeCloseTo(0.22, 1);
    faults.forEach((h, i) => {
      if (kinds[i] === 'none') expect(h.revvedVolts).toBeGreaterThanOrEqual(11.4);
      if (kinds[i] === 'weak') expect(h.chargingVolts).toBeLessThanOrEqual(h.revvedVolts);
      if (kinds[i] !== 'over') return;
      expect(h.revvedVolts).toBeGreaterThanOrEqual(15.2);
      expect(h.revvedVolts).toBeLessThanOrEqual(17);
      expect(h.revvedVolts - h.chargingVolts).toBeGreaterThanOrEqual(0);
      expect(h.revvedVolts - h.chargingVolts).toBeLessThanOrEqual(0.4);
    });
    expect(shareOf(faults, (h) => h.beltBad)).toBeCloseTo(0.4, 1);
    expect(
      shareOf(
        draws('fuel', CAR, 400).filter((h) => !h.holds.includes('charging')),
        (h) => h.beltBad,
      ),
    ).toBeLessThan(0.07);
    expect(soundCharging(CAR)).toEqual({ chargingVolts: 14.3, revvedVolts: 14.35, rippleVolts: 0.055 });
    expect(soundCharging({ ...CAR, machineClass: 'motorcycle' }).chargingVolts).toBe(13.3);
    expect(soundCharging({ ...CAR, machineClass: 'ride-on' }).chargingVolts).toBe(13.5);
    for (const machineClass of ['truck', 'plant', 'genset', 'boat'] as const)
      expect(soundCharging({ ...CAR, machineClass }).chargingVolts).toBe(14.1);
  });

  it('drains, was left on, or was never taught', () => {
    expect(each('drain', (h) => h.drainAmps >= 0.07 && h.drainAmps <= 2)).toBeTrue();
    expect(
      draws('fuel')
        .filter((h) => !h.holds.includes('drain'))
        .every((h) => h.drainAmps >= 0.006 && h.drainAmps <= 0.038),
    ).toBeTrue();
    expect(each('left-on', (h) => h.leftOn)).toBeTrue();
    expect(
      draws('worn')
        .filter((h) => !h.holds.includes('left-on'))
        .some((h) => h.leftOn),
    ).toBeFalse();
    expect(each('not-taught', (h) => h.replaced && h.ageYears <= 0.4)).toBeTrue();
    expect(draws('worn').some((h) => h.replaced)).toBeFalse();
    expect(shareOf(draws('drain', CAR, 400), (h) => h.earlierFlat)).toBeGreaterThan(0.45);
    expect(shareOf(alone('interlock', CAR), (h) => h.earlierFlat)).toBeLessThan(0.2);
  });
});

describe('how a machine looks at the key', () => {
  const [sound] = draws('starter').filter((h) => h.starter === 'dead' && restVoltsOf(h, CAR)[0]! > 12.2);
  const heavy = draws('starter', TRUCK).find(
    (h) => h.starter === 'dead' && restVoltsOf(h, TRUCK).every((v) => v > 12.2),
  )!;

  it('has lamps of each battery’s volts where nothing cranks, of a string as of one', () => {
    expect(lampsAtKey(sound!, CAR)).toBe('stay-bright');
    expect(lampsAtKey(heavy, TRUCK)).toBe('stay-bright');
    const empty = (h: HiddenMachine): HiddenMachine => ({
      ...h,
      batteries: h.batteries.map((b) => ({ ...b, soc: 0, overDischargedVolts: 8 })),
    });
    expect(lampsAtKey(empty(sound!), CAR)).toBe('dim');
    expect(lampsAtKey(empty(heavy), TRUCK)).toBe('dim');
    const [one, other] = heavy.batteries;
    const half = { ...heavy, batteries: [{ ...one!, soc: 0, overDischargedVolts: 5 }, other!] };
    // 5 V and nearly 12.7 V share the lamps: under 10.2 V each, above 6.5 V.
    expect(lampsAtKey(half, TRUCK)).toBe('dim');
    expect(lampsAtKey({ ...sound!, open: true }, CAR)).toBe('go-out');
  });

  it('clicks once where the starter is dead, and is dark where the battery is', () => {
    expect(lookOf(sound!, CAR, false)).toBe('one-click');
    const dark = { ...sound!, batteries: [{ ...sound!.batteries[0]!, soc: 0, overDischargedVolts: 4 }] };
    expect(lookOf(dark, CAR, false)).toBe('silence');
    expect(lookOf(dark, CAR, true)).toBe('one-click');
  });

  it('shows one battery of a string by itself, its link with it', () => {
    const broken = draws('broken-link', TRUCK)[0]!;
    const own = oneBattery(broken, broken.hurt);
    expect([own.batteries.length, own.hurt, own.linkOhms]).toEqual([1, 0, broken.linkOhms]);
    expect(oneBattery(broken, 1 - broken.hurt).linkOhms).toBe(0);
  });

  it('joins a good source as two in parallel: halfway in volts at equal ohms, and half the ohms', () => {
    const joined = joinedWithHelp({ openVolts: 10.7, ohms: HELP.ohms });
    expect(joined.openVolts).toBeCloseTo((10.7 + HELP.openVolts) / 2, 9);
    expect(joined.ohms).toBeCloseTo(HELP.ohms / 2, 12);
  });
});

describe('what a check finds', () => {
  const rowOf = (check: string, h: HiddenMachine, profile = CAR): readonly number[] =>
    CHECKS.find(({ id }) => id === check)!.chances!(h, profile);
  const [base] = alone('fuel');

  it('is one of its outcomes, however the machine is', () => {
    for (const profile of [CAR, TRUCK, EV])
      for (const cause of CAUSES)
        for (const h of draws(cause, profile, 3))
          for (const check of checksFor(profile, TOOLS)) {
            const chances = outcomeChances(check, h, profile);
            const whole = chances.reduce((sum, c) => sum + c, 0);
            expect(Math.abs(whole - 1))
              .withContext(`${check.id} ${cause}`)
              .toBeLessThan(1e-6);
            expect(Math.min(...chances))
              .withContext(`${check.id} ${cause}`)
              .toBeGreaterThanOrEqual(0);
          }
  });

  it('of one helped before: flat again where something empties it, held where not, neither where it never was flat', () => {
    const flatBefore = { ...base!, earlierFlat: true };
    expect(rowOf('ask-helped', { ...flatBefore, holds: ['fuel'] })).toEqual([0.25, 0.5, 0.25]);
    for (const cause of ['charging', 'drain', 'worn', 'sulphated', 'not-taught'] as const) {
      expect(rowOf('ask-helped', { ...flatBefore, holds: ['fuel', cause] }))
        .withContext(cause)
        .toEqual([0.62, 0.2, 0.18]);
      expect(rowOf('ask-helped', { ...base!, earlierFlat: false, holds: ['fuel', cause] })).toEqual([
        0.02, 0.04, 0.94,
      ]);
    }
  });

  it('of joints: loose turns, deposits show, sound is clean, and rust speaks for the body strap', () => {
    const best = (cause: Cause): number => {
      const row = rowOf('look-joints', { ...base!, holds: [cause] });
      return row.indexOf(Math.max(...row));
    };
    expect([best('joint-loose'), best('joint-positive'), best('joint-negative'), best('fuel')]).toEqual([
      0, 1, 1, 3,
    ]);
    const rust = (cause: Cause): number => rowOf('look-joints', { ...base!, holds: [cause] })[2]!;
    expect(rust('cable')).toBeGreaterThan(10 * rust('fuel'));
  });

  it('of what slowed it for weeks, what squealed, and the charge lamp', () => {
    const slow = (h: HiddenMachine): number => rowOf('ask-slow-lately', h)[0]!;
    const fresh = { ...base!, batteries: [{ ...base!.batteries[0]!, ageing: 1 }] };
    expect(slow(fresh)).toBe(0.1);
    expect(slow({ ...fresh, batteries: [{ ...fresh.batteries[0]!, ageing: WORN_FROM }] })).toBe(0.65);
    for (const cause of [
      'joint-positive',
      'joint-negative',
      'joint-loose',
      'cable',
      'charging',
      'sulphated',
    ] as const)
      expect(slow({ ...fresh, holds: ['fuel', cause] }))
        .withContext(cause)
        .toBe(0.45);
    expect(slow({ ...fresh, starter: 'dragging' })).toBe(0.45);
    const noise = (h: Partial<HiddenMachine>): number[] => [
      ...rowOf('ask-noise', { ...base!, beltBad: false, ...h }),
    ];
    expect(noise({ beltBad: true })).toEqual([0.5, 0.03, 0.47]);
    expect(noise({ starter: 'dragging' })).toEqual([0.03, 0.35, 0.62]);
    expect(noise({})).toEqual([0.04, 0.02, 0.94]);
    const lamp = (h: Partial<HiddenMachine>): number =>
      rowOf('ask-charge-lamp', { ...base!, holds: ['charging'], ...h })[0]!;
    expect([
      lamp({ holds: [] }),
      lamp({ revvedVolts: 12.5 }),
      lamp({ revvedVolts: 13.2, rippleVolts: 0.5 }),
      lamp({ revvedVolts: 15.6, rippleVolts: 0.05 }),
    ]).toEqual([0.03, 0.72, 0.4, 0.15]);
  });

  it('of a machine that wakes is never one of the starter', () => {
    const ids = checksFor(EV, TOOLS).map(({ id }) => id as string);
    for (const id of [
      'ask-dims',
      'ask-slow-lately',
      'ask-noise',
      'look-belt',
      'interlocks',
      'immobiliser-lamp',
      'crank',
    ])
      expect(ids).not.toContain(id);
    // Woken by a good source unless a fuse, a joint or its own traction battery keeps it from that.
    const best = (h: HiddenMachine): number => {
      const row = rowOf('with-help', h, EV);
      return row.indexOf(Math.max(...row));
    };
    expect(best({ ...base!, cause: 'discharged' })).toBe(0);
    expect(best({ ...base!, open: true })).toBe(4);
    expect(best({ ...base!, cause: 'traction-flat' })).toBe(3);
    expect(best({ ...base!, cause: 'charge-point' })).toBe(3);
    expect(best({ ...base!, cause: 'joint-positive', plusOhms: 0.05 })).toBe(3);
  });
});

describe('what a repair mends', () => {
  const joint: Repair = { kind: 'joint-cleaned', side: 'plus' };
  const sound = (SOUND_OHMS[0] + SOUND_OHMS[1]) / 2;

  it('makes the joint of its side sound, and no other', () => {
    const h = alone('joint-positive')[0]!;
    const mended = repaired(h, joint, CAR);
    expect([mended.plusOhms, mended.minusOhms]).toEqual([sound, h.minusOhms]);
    expect(mended.holds).toEqual([]);
    expect(repaired(h, { ...joint, side: 'minus' }, CAR)).toBe(h);
    const black = alone('joint-negative')[0]!;
    expect(repaired(black, { kind: 'joint-cleaned', side: 'minus' }, CAR).minusOhms).toBe(sound);
    const cable = alone('cable')[0]!;
    expect(repaired(cable, { kind: 'strap-cleaned' }, CAR).cableOhms).toBe(2 * sound);
    // The clamp at its stop may be the one on the other post.
    const loose = alone('joint-loose').find(({ plusOhms }) => plusOhms > SOUND_OHMS[1])!;
    expect(repaired(loose, { kind: 'clamp-resized', side: 'plus' }, CAR).plusOhms).toBe(sound);
    expect(repaired(loose, { kind: 'clamp-resized', side: 'minus' }, CAR)).toBe(loose);
  });

  it('closes, frees, or lets it charge again', () => {
    const fuse = alone('main-fuse')[0]!;
    for (const kind of ['fuse-renewed', 'isolator-on', 'stop-released'] as const)
      expect(repaired(fuse, { kind }, CAR).open).toBeFalse();
    expect(repaired(alone('interlock')[0]!, { kind: 'switch-set', check: 'kill-switch' }, CAR).held).toBe(
      'no',
    );
    expect(repaired(alone('fuel')[0]!, { kind: 'switch-set', check: 'fuel-tap' }, CAR).held).toBe('no');
    expect(repaired(alone('fuel')[0]!, { kind: 'switch-set', check: 'kill-switch' }, CAR).held).toBe(
      'firing',
    );
    const [slack] = alone('charging').filter((h) => h.beltBad);
    const [diodes] = alone('charging').filter((h) => !h.beltBad);
    const tight = repaired(slack!, { kind: 'belt-tightened' }, CAR);
    expect([tight.chargingVolts, tight.beltBad]).toEqual([14.3, false]);
    expect(repaired(diodes!, { kind: 'belt-tightened' }, CAR)).toBe(diodes!);
  });

  it('leaves a battery that was charged to full for a day with what wear and drain took', () => {
    const charge = { kind: 'battery-charged', tempC: 15 } as const;
    const [worn] = alone('worn');
    const { ageing } = worn!.batteries[0]!;
    const after = repaired(worn!, charge, CAR);
    expect(after.batteries[0]).toEqual({ soc: Math.max(0, 0.97 - (ageing - 1) * 0.02), tempC: 15, ageing });
    const [sulphated] = draws('sulphated').filter((h) => !h.holds.includes('drain'));
    const grown = sulphated!.batteries[0]!.ageing;
    expect(repaired(sulphated!, charge, CAR).batteries[0]!.soc).toBeCloseTo(
      Math.max(0, 0.97 - (grown - 1) * 0.1),
      9,
    );
    const [drained] = draws('drain').filter((h) => !h.holds.includes('sulphated'));
    const lost = (drained!.drainAmps * 24) / 60 + (drained!.batteries[0]!.ageing - 1) * 0.02;
    expect(repaired(drained!, charge, CAR).batteries[0]!.soc).toBeCloseTo(Math.max(0, 0.97 - lost), 9);
    const [flat] = alone('discharged');
    expect(repaired(flat!, charge, CAR).holds).toEqual([]);
    expect(repaired(flat!, charge, CAR).batteries[0]!.overDischargedVolts).toBeUndefined();
  });

  it('is seen by the checks that showed it, and through the starter’s amps', () => {
    expect(shownBy(joint)).toEqual(['look-joints', 'joint-plus', 'starter-stud']);
    expect(shownBy({ kind: 'post-sleeved', side: 'minus' })).toContain('joint-minus');
    expect(shownBy({ kind: 'strap-cleaned' })).toEqual(['joint-minus', 'starter-stud']);
    expect(shownBy({ kind: 'fuse-renewed' })).toEqual(['main-fuse', 'isolator-fuse']);
    expect(shownBy({ kind: 'isolator-on' })).toEqual(['isolator', 'isolator-fuse']);
    expect(shownBy({ kind: 'stop-released' })).toEqual(['emergency-stop', 'isolator-fuse']);
    expect(shownBy({ kind: 'belt-tightened' })).toEqual(['look-belt', 'charging', 'charging-loaded']);
    expect(shownBy({ kind: 'switch-set' })).toEqual([]);
    expect(changes(joint, 'crank')).toBeTrue();
    expect(changes({ kind: 'belt-tightened' }, 'crank')).toBeFalse();
    expect(changes({ kind: 'belt-tightened' }, 'charging')).toBeTrue();
    expect(changes(joint, 'ask-left-on')).toBeFalse();
    expect(changes({ kind: 'battery-charged', tempC: 5 }, 'rest')).toBeTrue();
    expect(changes({ kind: 'battery-charged', tempC: 5 }, 'joint-plus')).toBeFalse();
  });

  it('cures what it is for, and is done at a standstill where a spanner or a belt is', () => {
    expect(curesOf({ kind: 'battery-charged', tempC: 5 })).toEqual(['discharged', 'left-on', 'frozen']);
    expect(curesOf({ kind: 'post-sleeved', side: 'minus' })).toEqual(['joint-loose', 'joint-negative']);
    expect(curesOf({ kind: 'switch-set', check: 'fuel-tap' })).toEqual(['fuel']);
    expect(curesOf({ kind: 'switch-set', check: 'neutral' })).toEqual(['interlock']);
    const circumstances = [
      'joint-cleaned',
      'clamp-resized',
      'post-sleeved',
      'strap-cleaned',
      'fuse-renewed',
      'belt-tightened',
    ] as const;
    for (const kind of circumstances) expect(needsStandstill({ kind })).withContext(kind).toBeTrue();
    for (const kind of ['isolator-on', 'stop-released', 'switch-set'] as const)
      expect(needsStandstill({ kind })).withContext(kind).toBeFalse();
  });
});

describe('what a figure finds', () => {
  const at = { rating: BATTERY_60, systemVolts: 12, tempC: 20, restVolts: 12.5 } as const;

  it('is held against what it must be seen against', () => {
    expect(foundFromMeter('key-on', 12.1, at)).toBeCloseTo(0.4, 9);
    expect(() => foundFromMeter('key-on', 12.1, { ...at, restVolts: null })).toThrowError(/rest/);
    expect(findingOf({ check: 'key-on' }, [12.1], { ...at, restVolts: null })).toBeNull();
    expect(findingOf({ check: 'charging' }, [28.4], { ...at, systemVolts: 24 })).toBe(14.2);
    expect(findingOf({ check: 'conductance' }, [270], at)).toBeCloseTo(270 / BATTERY_60.ccaAmps, 3);
    expect(findingOf({ check: 'drain' }, [350], at)).toBe(0.35);
    expect(findingOf({ check: 'rest' }, [12.34], at)).toBe(12.34);
    expect(() => foundFromMeter('look-joints', 1, at)).toThrowError(/words/);
    expect(() => foundFromMeter('rest', 30, at)).toThrowError(RangeError);
  });

  it('can be taken where the machine and the battery have it', () => {
    const ids = (cranks: boolean, chemistry: typeof BATTERY_60.chemistry): string[] =>
      measuresFor({ ...BATTERY_60, chemistry }, cranks).map(({ id }) => id);
    for (const id of ['crank-minimum', 'recovery', 'starter-stud']) {
      expect(ids(true, 'agm')).toContain(id);
      expect(ids(false, 'agm')).not.toContain(id);
    }
    expect(ids(true, 'flooded')).toContain('specific-gravity');
    expect(ids(true, 'agm')).not.toContain('specific-gravity');
    expect(ids(true, 'agm')).toContain('acceptance');
    expect(ids(true, 'lfp')).not.toContain('acceptance');
  });

  it('of a battery of a string is its own, wherever the meter was', () => {
    expect(ownVolts(12.4, [12.6])).toBe(12.4);
    expect(ownVolts(16, [12.6])).toBe(16);
    expect(ownVolts(24.9, [12.6])).toBeCloseTo(12.3, 9);
    expect(ownVolts(24.9, [null])).toBeNull();
    expect(ownVolts(17, [])).toBe(17);
  });

  it('of charging is higher by intent on AGM and below 5 degC, at 5 degC no longer', () => {
    const high = (tempC: number, chemistry: 'flooded' | 'agm' = 'flooded'): number =>
      chargingMeaning(14.2, chemistry, tempC, 12, DEFAULT_RULES).bandVolts[1];
    expect(high(4.9)).toBe(DEFAULT_RULES.chargingMaxVoltsAgmOrCold);
    expect(high(5)).toBe(DEFAULT_RULES.chargingMaxVolts);
    expect(high(20, 'agm')).toBe(DEFAULT_RULES.chargingMaxVoltsAgmOrCold);
    expect(chargingMeaning(28.4, 'flooded', 20, 24, DEFAULT_RULES).bandVolts[1]).toBe(
      2 * DEFAULT_RULES.chargingMaxVolts,
    );
  });
});

describe('a joint in the way of the crank', () => {
  it('takes its volts between the posts and the starter, for one battery and for a string', () => {
    for (const profile of [CAR, TRUCK]) {
      const [sound] = draws('none', profile, 1);
      const free = { ...sound!, plusOhms: 0, minusOhms: 0, cableOhms: 0 };
      const bad = { ...free, plusOhms: 0.02 };
      const [without, through] = [crankOf(free, profile, false)!, crankOf(bad, profile, false)!];
      // By Ohm's law: between posts and starter there is what the machine's own cables resist, and the joint.
      const between = (p: typeof through): number => (p.postVolts - p.starterVolts) / p.starterAmps;
      expect(between(through) - between(without))
        .withContext(profile.machineClass)
        .toBeCloseTo(0.02, 5);
      expect(through.starterAmps).toBeLessThan(without.starterAmps);
      expect(through.postVolts).toBeGreaterThan(without.postVolts);
      expect(through.rpm).toBeLessThan(without.rpm);
    }
  });
});

describe('charging volts of a string', () => {
  it('are judged by battery: 28.2 V charge two of 12 V, 26.6 are weak, 25 nothing, 31 too much', () => {
    const code = (volts: number): string => chargingMeaning(volts, 'flooded', 20, 24, DEFAULT_RULES).code;
    expect([28.2, 26.6, 25, 31.5].map(code)).toEqual(['charging', 'weak', 'not-charging', 'over-voltage']);
    expect(chargingMeaning(14.1, 'flooded', 20, 12, DEFAULT_RULES).code).toBe('charging');
    expect(chargingMeaning(28.2, 'flooded', 20, 12, DEFAULT_RULES).code).toBe('over-voltage');
  });
});

import { acceptanceAmps } from '../src/charging/index.js';
import {
  type Attempt,
  chargedTo,
  chargeOf,
  capacityAhOf,
  kitUses,
  planRecord,
  rankForJob,
  withCharge,
} from '../src/job/index.js';
import { isCharged, type KitItem, kitNow, type LithiumPackKit, lithiumSource } from '../src/sources/index.js';
import { BATTERY_60, CAR } from './fixtures.js';
import { Log, situationIn } from './job-log.js';

const LEADS = { sectionMm2: 16, lengthM: 0.6, conductor: 'copper', contact: 'clean' } as const;
const AGM = { chemistry: 'agm', capacityAh: 70, ccaAmps: 760, ccaStandard: 'EN' } as const;
const CHARGED_AT = '2026-01-01T00:00:00.000Z';
const later = (days: number): Date => new Date(Date.parse(CHARGED_AT) + days * 86_400_000);

const lithium = {
  kind: 'lithium-pack',
  id: 'l',
  name: 'L',
  peakAmps: 800,
  peakSeconds: 3,
  charge: 0.9,
  leads: LEADS,
} as const;
const lead = {
  kind: 'lead-pack',
  id: 'p',
  name: 'P',
  outputs: [12],
  battery: AGM,
  soc: 0.9,
  leads: LEADS,
} as const;
const spares = { kind: 'spare-batteries', id: 's', name: 'S', count: 2, battery: AGM, soc: 0.9 } as const;
const bank = {
  kind: 'capacitor-booster',
  id: 'c',
  name: 'C',
  cells: 6,
  cellFarads: 350,
  cellVolts: 2.7,
  cellOhms: 0.0003,
  volts: 14,
  converterAmps: 6,
  leads: LEADS,
} as const;
const hobby = {
  kind: 'hobby-lithium',
  id: 'h',
  name: 'H',
  capacityAh: 5,
  cRate: 20,
  charge: 0.9,
  leads: LEADS,
} as const;
const CHARGED = [lithium, lead, spares, bank, hobby] as const satisfies readonly KitItem[];

describe('kit at rest and with age', () => {
  it('loses charge by the month, a bank of capacitors by the day', () => {
    // By hand: AGM 2.5 % a month, two months: 0.9 x 0.975^2.
    expect(kitNow({ ...lead, chargedAt: CHARGED_AT }, later(60)).soc).toBeCloseTo(0.9 * 0.975 ** 2, 9);
    expect(kitNow({ ...spares, chargedAt: CHARGED_AT }, later(60)).soc).toBeCloseTo(0.855563, 6);
    expect(kitNow({ ...lithium, chargedAt: CHARGED_AT }, later(30)).charge).toBeCloseTo(0.882, 9);
    // Two per cent of its volts a day: after five weeks alone about half is left.
    expect(kitNow({ ...bank, chargedAt: CHARGED_AT }, later(35)).volts / 14).toBeCloseTo(0.493, 3);
    const flooded = { ...lead, battery: { ...AGM, chemistry: 'flooded' as const }, chargedAt: CHARGED_AT };
    expect(kitNow(flooded, later(60)).soc).toBeLessThan(
      kitNow({ ...lead, chargedAt: CHARGED_AT }, later(60)).soc,
    );
  });

  it('stays as it is where nobody said when, on the same day, and for a clock that was set back', () => {
    for (const item of CHARGED) {
      expect(kitNow(item, later(300)))
        .withContext(item.kind)
        .toEqual(item);
      const known = { ...item, chargedAt: CHARGED_AT };
      expect(kitNow(known, later(0.9)))
        .withContext(item.kind)
        .toEqual(known);
      expect(kitNow(known, later(-400)))
        .withContext(item.kind)
        .toEqual(known);
    }
  });

  it('only ever falls with time, and never below nothing', () => {
    for (const item of CHARGED) {
      let before = chargeOf(item);
      for (const days of [1, 10, 100, 1000, 10_000]) {
        const now = kitNow({ ...item, chargedAt: CHARGED_AT }, later(days));
        expect(isCharged(now)).toBeTrue();
        expect(chargeOf(now)).withContext(`${item.kind} ${days}`).toBeLessThan(before);
        expect(chargeOf(now)).toBeGreaterThan(0);
        before = chargeOf(now);
      }
    }
  });

  it('gives less with age: amps, ampere hours and farads fall, ohms grow', () => {
    const at = new Date('2026-07-01T00:00:00.000Z');
    const old = kitNow({ ...lithium, madeIn: 2021 }, at);
    // Five years at 3 %.
    expect(old.peakAmps / 800).toBeCloseTo(0.97 ** 5, 3);
    expect(lithiumSource(old, -5).ohms).toBeGreaterThan(lithiumSource(lithium, -5).ohms);
    expect(kitNow({ ...lead, madeIn: 2021 }, at).battery.ccaAmps / 760).toBeCloseTo(0.774, 3);
    const oldBank = kitNow({ ...bank, madeIn: 2016 }, at);
    expect(oldBank.cellFarads).toBeLessThan(350 * 0.83);
    expect(oldBank.cellOhms).toBeGreaterThan(0.0003 * 1.4);
    // However old: age alone leaves something, and a year that is yet to come takes nothing.
    expect(kitNow({ ...lithium, madeIn: 1990 }, at).peakAmps).toBeCloseTo(320, 6);
    expect(kitNow({ ...lithium, madeIn: 2027 }, at).peakAmps).toBe(800);
  });

  it('an older pack is emptied further by the same crank', () => {
    const attempt = { sourceId: 'l', starterAmps: 180, seconds: 5 };
    const uses = (item: KitItem): number =>
      kitUses(
        { ...new Log().job, attempts: [attempt as Attempt] },
        situationIn({ ...new Log().job, attempts: [attempt as Attempt] }, CAR, [item]),
      )[0]!.share;
    const young = uses(lithium);
    // By hand: 180 A for 5 s is 0.25 Ah, of 800 / 130 Ah.
    expect(young).toBeCloseTo(0.25 / (800 / 130), 9);
    expect(uses(kitNow({ ...lithium, madeIn: 2016 }, new Date('2026-07-01T00:00:00.000Z')))).toBeGreaterThan(
      young * 1.3,
    );
  });

  describe('joined to a flat battery', () => {
    const joinedFor = (minutes: number, restVolts: number, outcome?: 'started' | 'slow', soc = 1) => {
      const rated = { ...lead, soc };
      const log = new Log(CAR, [rated]);
      log.take('reading.taken', { kind: 'rest', volts: restVolts, battery: 0, tempC: -4, source: 'meter' });
      const option = rankForJob(situationIn(log.job, CAR, [rated]))[0]!;
      log.take('polarity.proved', { signs: ['mark', 'meter'] });
      log.take('plan.chosen', planRecord(option)!);
      log.take('clamp.attached', { clamp: 'redCasualty', pointId: 'plus' });
      log.take('clamp.attached', { clamp: 'blackCasualty', pointId: 'ground' });
      log.take('pack.switched', { on: true });
      if (outcome) {
        log.take('attempt.started', {});
        log.take('attempt.ended', { outcome, seconds: 4, lowestVolts: 9 }, 0);
      }
      log.take('pack.switched', { on: false }, minutes * 60);
      const [use] = kitUses(
        { ...log.job, attempts: [] },
        situationIn({ ...log.job, attempts: [] }, CAR, [rated]),
      );
      return { joins: log.job.joins, ah: (use?.share ?? 0) * AGM.capacityAh };
    };

    it('gives what the battery can take for as long as it is joined, whether a try came or not', () => {
      const { joins, ah } = joinedFor(10, 11.4);
      expect(joins.map(({ minutes }) => minutes)).toEqual([10]);
      // No more than the flat battery's acceptance for ten minutes, and not nothing.
      const socs = Array.from({ length: 21 }, (_, i) => i / 20);
      const most = Math.max(...socs.map((soc) => acceptanceAmps(BATTERY_60, soc, -4))) * (10 / 60);
      expect(ah).toBeGreaterThan(0.3 * most);
      expect(ah).toBeLessThanOrEqual(most);
      expect(joinedFor(20, 11.4).ah).toBeGreaterThan(1.7 * ah);
      expect(joinedFor(10, 11.4, 'slow').ah).toBeGreaterThan(ah);
    });

    it('gives nothing to a battery that stands above it, and no more once the machine runs', () => {
      expect(joinedFor(10, 13.1, undefined, 0.3).ah).toBe(0);
      const { joins } = joinedFor(30, 11.4, 'started');
      expect(joins.map(({ minutes }) => minutes)).toEqual([1]);
    });
  });

  it('of a booster with a converter rises on the weak battery that it is joined to, to full and no further', () => {
    const low: KitItem = { ...bank, volts: 9, converterAmps: 6 };
    const log = new Log(CAR, [low]);
    log.take('reading.taken', { kind: 'rest', volts: 11.8, battery: 0, tempC: -4, source: 'meter' });
    const optionId = rankForJob(situationIn(log.job, CAR, [low]))[0]!.option.id;
    const gained = (minutes: number): number => {
      const joins = [{ optionId, minutes }];
      const [use] = kitUses({ ...log.job, attempts: [], joins }, situationIn(log.job, CAR, [low]));
      return -use!.share * capacityAhOf(low) * 3600;
    };
    // All of it: farads of the bank times the volts it rose by.
    const coulombs = (350 / 6) * (14.4 - 9);
    expect(gained(10)).toBeCloseTo(coulombs, 6);
    expect(gained(60)).toBeCloseTo(coulombs, 6);
    expect(gained(0.2)).toBeGreaterThan(0);
    expect(gained(0.2)).toBeLessThan(coulombs / 2);
  });

  it('is of now when it is charged: nothing of the time before counts again', () => {
    const at = later(90);
    const worn: LithiumPackKit = { ...lithium, chargedAt: CHARGED_AT };
    const full = chargedTo(worn, 1, at);
    expect(full.charge).toBe(1);
    expect(kitNow(full, at)).toEqual(full);
    expect(withCharge(bank, 2).volts).toBeCloseTo(6 * 2.7 * 0.9, 9);
  });
});

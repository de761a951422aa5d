import type { StandingVehicle } from '../../src/belief/index.js';
import { socFromRestVolts } from '../../src/battery/index.js';
import type { Cause } from '../../src/diagnosis/index.js';
import type { Random } from '../../src/quantities/index.js';
import { CAR } from '../fixtures.js';
import { type Temper, temperOf, turnKey } from './rescue.js';
import { between, bump, KINDS, odds, oneOf, openVolts, type Stranded, type TrueBattery } from './world.js';
import { SETTINGS } from './tables.js';

/**
 * Vehicles of customers that live through a winter day by day: driven, parked, cooled, stranded, visited. No function and no figure of the
 * tool decides it. The tool is told what jobs of such visits leave in the record.
 */
export interface WinterVehicle {
  /** The record on the Friday. */
  readonly known: StandingVehicle;
  /** It strands within the week after. */
  readonly strands: boolean;
  /** It would start on each morning of that week, driven or not. */
  readonly starts: readonly boolean[];
}

/** The things that a visit leaves in the record. */
interface VisitRecord {
  readonly day: number;
  strength: number | null;
  years: number | null;
  readonly isUseTold: boolean;
  readonly causes: readonly { readonly cause: Cause; readonly share: number }[];
}

/** Days before the Friday on which the winter begins, and the week after it. */
const DAYS_BEFORE = 150;
const WEEK = 7;

/** Lows of every night: a winter with cold spells. The last seven are those of the week after the Friday: a frost. */
export function lowsOf(random: Random): number[] {
  let spell = 0;
  return Array.from({ length: DAYS_BEFORE + WEEK }, (_, day) => {
    spell = 0.8 * spell + bump(random, -4, 4);
    const frost = day < DAYS_BEFORE ? 0 : 7;
    return -1 - 6 * Math.sin((Math.PI * day) / (DAYS_BEFORE + 60)) + spell - frost;
  });
}

const PART_FAULTS: readonly (readonly [Cause, number])[] = [
  ['drain', 0.03],
  ['charging', 0.02],
  ['joint-positive', 0.02],
  ['joint-negative', 0.02],
  ['starter', 0.01],
];

/** Lives one vehicle through the winter. */
export function liveWinter(lows: readonly number[], random: Random): WinterVehicle {
  // Its truck strands at -14 degC with a full battery as new: no fleet keeps one so.
  const kind = oneOf(random, KINDS.slice(0, 4));
  const [machineClass, engine, rating] = kind;
  const systemVolts = engine!.systemVolts;
  const use = odds(random, 0.66) ? 'regular' : odds(random, 0.6) ? 'short-trips' : 'stood-weeks';
  let temper: Temper = temperOf(random);
  const bad = (): number => Math.exp(bump(random, Math.log(0.008), Math.log(0.12)));
  const faults = new Set<Cause>();
  // A fault comes on some day of the last ten months, or not before the week is over.
  const comes = PART_FAULTS.flatMap(([cause, share]) =>
    odds(random, share) ? [{ cause, day: Math.floor(between(random, -150, lows.length)) }] : [],
  );
  const goes: { readonly cause: Cause; readonly day: number }[] = [];
  let years = bump(random, 0, 13);
  let strength = Math.max(0.25, 1 - years * between(random, 0.012, 0.055));
  let charge = between(random, 0.7, 0.95);
  const ohms = { plus: bad(), minus: bad() };
  const sleepAmps = between(random, 0.01, 0.04);
  const faultAmps = Math.exp(bump(random, -2.6, 0.6));
  let parkedUntil = 0;
  const calls: number[] = [];
  let foundAs: StandingVehicle['found'] = null;
  let record: VisitRecord | null = null;
  let left: { soc: number; day: number } | null = null;

  const machineAt = (tempC: number): Stranded => {
    const cell: TrueBattery = { charge, strength, years, shorted: 0, linkOhms: 0, backwards: false };
    return {
      setting: SETTINGS[0]!,
      machineClass,
      engine,
      systemVolts,
      rating,
      tempC,
      faults: [...faults],
      cells: Array.from({ length: systemVolts / 12 }, () => cell),
      plusOhms: faults.has('joint-positive') ? ohms.plus : 0.0004,
      minusOhms: faults.has('joint-negative') ? ohms.minus : 0.0004,
      // Over half a milliohm: its starter is tight and not dead.
      cableOhms: 0.0007,
      driver: { use, earlierFlat: false, justReplaced: false },
      drainAmps: sleepAmps,
      chargingIdle: 14.2,
      chargingRevved: 14.2,
      ripple: 0.03,
      beltBad: false,
      restedMinutes: 600,
    };
  };
  /** A driver tries twice before calling anybody. */
  const startsAt = (low: number): boolean =>
    [0, 1].some(() => turnKey(machineAt(low + between(random, -1, 3)), temper, null, 0, random).started);

  /** A technician comes. The tester, the meter and the driver's word go into the record, and some things are put right. */
  const visit = (day: number, low: number, isStranded: boolean): void => {
    const tested = odds(random, 0.6) ? strength * Math.exp(bump(random, -0.12, 0.12)) : null;
    const volts = openVolts(machineAt(low).cells[0]!, rating.chemistry) + bump(random, -0.06, 0.06);
    left = { soc: socFromRestVolts(rating.chemistry, volts, low).soc, day };
    foundAs = { started: !isStranded, soc: left.soc, tempC: low };
    const found = [...faults].filter(() => odds(random, 0.8));
    const mended = found.filter((cause) => odds(random, cause.startsWith('joint') ? 0.8 : 0.25));
    for (const cause of mended) faults.delete(cause);
    const named = found
      .filter((cause) => !mended.includes(cause))
      .map((cause) => ({ cause, share: between(random, 0.5, 0.95) }));
    record = {
      day,
      strength: tested,
      causes: named,
      isUseTold: odds(random, 0.5),
      years: odds(random, 0.7) ? years : null,
    };
    if (strength < 0.62 && odds(random, 0.6)) {
      strength = between(random, 0.95, 1);
      years = 0;
      charge = between(random, 0.8, 0.95);
      record.strength = 1;
      record.years = 0;
      foundAs = null;
      left = { soc: 0.9, day };
    } else if (isStranded) {
      charge = odds(random, 0.4)
        ? between(random, 0.85, 0.98)
        : Math.min(0.95, Math.max(charge, 0) + between(random, 0.1, 0.3));
      left = { soc: Math.min(0.98, charge + between(random, -0.1, 0.1)), day };
    }
    calls.push(day);
    // Nobody calls for ever: after the third time in six weeks a workshop puts it right, and tells nobody.
    if (isStranded && calls.filter((one) => day - one < 42).length >= 3) {
      faults.clear();
      temper = temperOf(random);
      if (strength < 0.85) [strength, years] = [between(random, 0.95, 1), 0];
      charge = 0.95;
      calls.length = 0;
    }
    // Owners see to a named part within some weeks, and tell nobody.
    for (const { cause } of named)
      if (odds(random, 0.5)) goes.push({ cause, day: Math.floor(day + between(random, 2, 60)) });
  };

  const liveDay = (day: number): boolean => {
    const low = lows[day]!;
    for (const one of comes) if (one.day === day) faults.add(one.cause);
    for (const one of goes) if (one.day === day) faults.delete(one.cause);
    strength = Math.max(0.2, strength - 0.05 / 365);
    const hours = odds(random, 0.2) ? between(random, 30, 64) : between(random, 9, 18);
    const drainAmps = faults.has('drain') ? faultAmps : sleepAmps;
    charge -= ((drainAmps * hours) / rating.capacityAh + 0.0015) / Math.max(0.5, strength);
    // Now and then lamps stay on over night.
    if (odds(random, 0.0008)) charge -= between(random, 0.4, 1.2);
    charge = Math.max(-0.3, charge);
    if (day < parkedUntil) return false;
    const isStarted = startsAt(low);
    if (!isStarted) visit(day, low, true);
    const fills = use === 'short-trips' ? between(random, 0.02, 0.12) : between(random, 0.08, 0.3);
    const top = use === 'short-trips' ? 0.85 : 0.95;
    charge = faults.has('charging')
      ? charge - between(random, 0, 0.15)
      : charge + Math.max(0, top - charge) * fills;
    if (use === 'stood-weeks') {
      charge = faults.has('charging') ? charge : Math.max(charge, between(random, 0.8, 0.95));
      parkedUntil = day + Math.floor(between(random, 7, 45));
    }
    return !isStarted;
  };

  for (const { cause, day } of comes) if (day < 0) faults.add(cause);
  // The house knows a vehicle by a job of its own, this winter or before it.
  const seen = Math.floor(between(random, 0, DAYS_BEFORE - 3));
  for (let day = 0; day < DAYS_BEFORE; day++) {
    liveDay(day);
    if (day === seen) visit(day, lows[day]!, false);
  }
  const known = { ...knownOf(kind, record, left, use), found: foundAs };
  const week = Array.from({ length: WEEK }, (_, ahead) => {
    const starts = startsAt(lows[DAYS_BEFORE + ahead]!);
    return { starts, strands: liveDay(DAYS_BEFORE + ahead) };
  });
  return {
    known,
    strands: week.some(({ strands }) => strands),
    starts: week.map(({ starts }) => starts),
  };
}

function knownOf(
  [machineClass, engine, rating]: (typeof KINDS)[number],
  record: VisitRecord | null,
  left: { soc: number; day: number } | null,
  use: Stranded['driver']['use'],
): Omit<StandingVehicle, 'found'> {
  const systemVolts = engine!.systemVolts;
  const machine = {
    machineClass,
    systemVolts,
    engine,
    batteries: Array.from({ length: systemVolts / 12 }, () => ({ ...CAR.batteries[0]!, rating })),
  };
  if (!record) return { machine, earlier: null, years: [], use: null, left: null };
  const { day, strength: share, causes, isUseTold, years } = record;
  return {
    machine,
    earlier: {
      closedAt: null,
      days: DAYS_BEFORE - day,
      causes,
      strengths: machine.batteries.map(() => (share === null ? null : { share, spread: 0.06 })),
    },
    years: machine.batteries.map(() => years),
    use: isUseTold ? use : null,
    left: left && { soc: left.soc, days: DAYS_BEFORE - left.day },
  };
}

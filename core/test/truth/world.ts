import type { BatteryRating, Chemistry } from '../../src/battery/index.js';
import type { BatteryCondition, Cause } from '../../src/diagnosis/index.js';
import type { Engine } from '../../src/engine/index.js';
import type { MachineClass } from '../../src/machine/index.js';
import { drawWeighted, type Random } from '../../src/quantities/index.js';
import { motor, ratedEn } from '../fixtures.js';
import {
  ONE_OF_STRING,
  OF_CLASS,
  SECOND,
  SECOND_SHARE,
  SETTINGS,
  type Setting,
  type Shares,
} from './tables.js';

/**
 * A stranded machine with its history, made without anything of the tool's own diagnosis: other tables, other spreads, faults in pairs. The
 * battery's state follows from hours left on, weeks stood and winters of age. Its electricity is a few lines of its own.
 */
export interface Stranded {
  readonly setting: Setting;
  readonly machineClass: MachineClass;
  readonly engine: Engine | null;
  readonly systemVolts: 12 | 24;
  readonly rating: BatteryRating;
  readonly tempC: number;
  /** The faults, the reason of the call first. */
  readonly faults: readonly Cause[];
  readonly cells: readonly TrueBattery[];
  readonly plusOhms: number;
  readonly minusOhms: number;
  readonly cableOhms: number;
  readonly driver: {
    readonly use: 'regular' | 'short-trips' | 'stood-weeks';
    readonly earlierFlat: boolean;
    readonly justReplaced: boolean;
  };
  readonly drainAmps: number;
  readonly chargingIdle: number;
  readonly chargingRevved: number;
  readonly ripple: number;
  readonly beltBad: boolean;
  /** Minutes since its engine last ran. */
  readonly restedMinutes: number;
}

export interface TrueBattery {
  /** Below zero once over-discharged. */
  readonly charge: number;
  /** Cold-cranking strength left, of its rating. */
  readonly strength: number;
  readonly years: number;
  readonly shorted: number;
  readonly linkOhms: number;
  readonly backwards: boolean;
}

export const between = (random: Random, low: number, high: number): number => low + (high - low) * random();
export const oneOf = <T>(random: Random, list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
export const odds = (random: Random, share: number): boolean => random() < share;
/** A bump between two ends. */
export const bump = (random: Random, low: number, high: number): number =>
  low + ((high - low) * (random() + random() + random() + random())) / 4;

const weighted = (random: Random, shares: Shares): Cause =>
  drawWeighted(random, Object.entries(shares) as [Cause, number][]);

type Kind = readonly [MachineClass, Engine | null, BatteryRating];
export const KINDS: readonly Kind[] = [
  ['car', motor('petrol', 1.3, 4), ratedEn('flooded', 52, 480)],
  ['car', motor('petrol', 3, 6), ratedEn('agm', 80, 800)],
  ['car', motor('diesel', 2, 4), ratedEn('agm', 70, 740)],
  ['van', motor('diesel', 2.3, 4), ratedEn('efb', 85, 800)],
  ['truck', motor('diesel', 9, 6, 24), ratedEn('flooded', 180, 1050)],
  ['plant', motor('diesel', 3.6, 4), ratedEn('flooded', 110, 900)],
  ['motorcycle', motor('petrol', 0.65, 2), ratedEn('agm', 11, 180)],
  ['ride-on', motor('petrol', 0.6, 2), ratedEn('flooded', 24, 260)],
  ['genset', motor('diesel', 2.5, 4), ratedEn('flooded', 90, 760)],
  ['boat', motor('petrol', 1.8, 4), ratedEn('flooded', 85, 720)],
  ['hybrid', null, ratedEn('agm', 45, 390)],
  ['ev', null, ratedEn('agm', 48, 420)],
];

/** Draws a stranded machine of this kind. */
export function strand(random: Random, kind: Kind): Stranded {
  // A machine that starts by itself calls nobody out, except a few that are called in vain again and again.
  for (let attempt = 0; ; attempt++) {
    const made = attemptOne(random, kind);
    const [first] = made.faults;
    if (made.engine === null || attempt > 60) return made;
    const { look } = crankOf(made, null);
    // A machine with nothing of the crank at fault cranks, in this cold too.
    if (made.faults.length === 1 && ['none', 'fuel', 'immobiliser'].includes(first!)) {
      if (look === (first === 'none' ? 'starts' : 'brisk-no-fire')) return made;
    } else if (look !== 'starts' || ['charging', 'drain'].includes(first!)) return made;
  }
}

function attemptOne(random: Random, [machineClass, engine, rated]: Kind): Stranded {
  const setting = oneOf(random, SETTINGS);
  const tempC = Math.round(between(random, ...setting.tempC));
  const systemVolts = engine?.systemVolts ?? 12;
  const first = firstFault(random, setting, machineClass, engine, systemVolts);
  const along = odds(random, SECOND_SHARE) ? weighted(random, SECOND) : null;
  const faults = along && along !== first && fitsAlong(along, first, engine) ? [first, along] : [first];
  const has = (cause: Cause): boolean => faults.includes(cause);

  const use = has('sulphated')
    ? 'stood-weeks'
    : first === 'discharged'
      ? oneOf(random, ['short-trips', 'stood-weeks'] as const)
      : oneOf(random, ['regular', 'regular', 'regular', 'regular', 'short-trips', 'stood-weeks'] as const);
  const cells = batteriesOf(random, faults, first, rated, systemVolts / 12, use);
  const lowest = Math.min(...cells.map((b) => b.charge));
  const scale = engine ? 150 / ampsAt20(engine) : 1;
  const bad = (): number => Math.exp(bump(random, Math.log(0.012), Math.log(0.16))) * scale;
  const good = (): number => between(random, 0.0001, 0.0009);
  const looseAtPlus = odds(random, 0.45);
  const spoiled = (at: 'plus' | 'minus'): boolean =>
    has(at === 'plus' ? 'joint-positive' : 'joint-negative') ||
    (has('joint-loose') && looseAtPlus === (at === 'plus'));
  return {
    setting,
    machineClass,
    engine,
    systemVolts,
    rating: rated,
    tempC,
    faults,
    cells,
    plusOhms: spoiled('plus') ? bad() : good(),
    minusOhms: spoiled('minus') ? bad() : good(),
    cableOhms: has('cable') ? bad() : good(),
    driver: {
      use,
      earlierFlat: odds(random, ['charging', 'drain', 'worn', 'sulphated'].includes(first) ? 0.42 : 0.09),
      justReplaced: odds(random, 0.05),
    },
    drainAmps: has('drain')
      ? Math.exp(bump(random, Math.log(0.07), Math.log(2)))
      : between(random, 0.005, 0.04),
    ...chargingOf(random, has('charging'), machineClass, lowest),
    beltBad: has('charging') ? odds(random, 0.45) : odds(random, 0.03),
    restedMinutes: odds(random, 0.15) ? between(random, 2, 50) : between(random, 120, 3000),
  };
}

function firstFault(
  random: Random,
  setting: Setting,
  machineClass: MachineClass,
  engine: Engine | null,
  systemVolts: number,
): Cause {
  if (systemVolts === 24 && odds(random, ONE_OF_STRING)) return 'string-weak';
  const base = engine ? setting.cranking : setting.waking;
  const factors = OF_CLASS[machineClass] ?? {};
  const shares = Object.fromEntries(
    (Object.entries(base) as [Cause, number][]).map(([cause, share]) => [
      cause,
      share * (factors[cause] ?? 1),
    ]),
  ) as Shares;
  return weighted(random, shares);
}

function fitsAlong(along: Cause, first: Cause, engine: Engine | null): boolean {
  if (along === 'charging' && !engine) return false;
  if (along === 'worn' && ['sulphated', 'dead-cell', 'broken-link', 'reversed'].includes(first)) return false;
  return !(first.startsWith('joint') && along.startsWith('joint')) && first !== 'none';
}

function batteriesOf(
  random: Random,
  faults: readonly Cause[],
  first: Cause,
  { capacityAh }: BatteryRating,
  count: number,
  use: Stranded['driver']['use'],
): TrueBattery[] {
  const has = (cause: Cause): boolean => faults.includes(cause);
  const years = has('worn') ? bump(random, 3, 12) : bump(random, 0.2, 9);
  const faded = 1 - years * between(random, 0.008, 0.045);
  const strength = has('sulphated')
    ? between(random, 0.22, 0.6)
    : has('worn')
      ? between(random, 0.28, 0.66)
      : Math.max(0.67, faded);
  const fresh = use === 'regular' ? between(random, 0.75, 1) : between(random, 0.55, 0.9);
  const gone = (): number => {
    let ah = 0;
    if (has('left-on')) ah += between(random, 3, 10) * between(random, 4, 20) * Math.min(1, capacityAh / 60);
    if (has('drain')) ah += capacityAh * bump(random, 0.2, 1.5);
    if (first === 'discharged') ah += capacityAh * between(random, 0.35, 1.15);
    if (has('charging')) ah += capacityAh * between(random, 0.45, 1.02);
    if (has('sulphated')) ah += capacityAh * between(random, 0.6, 1.4);
    if (has('traction-flat') || has('converter')) ah += capacityAh * between(random, 0, 1.2);
    if (has('joint-loose') || has('joint-positive') || has('joint-negative'))
      ah += capacityAh * (odds(random, 0.4) ? between(random, 0.1, 0.6) : 0);
    if (has('worn')) ah += capacityAh * between(random, 0, 0.4);
    if (has('dead-cell')) ah += capacityAh * between(random, 0, 0.5);
    if (has('frozen')) ah += capacityAh;
    return ah;
  };
  const charge = (): number => {
    const left = fresh - gone() / (capacityAh * Math.max(0.5, strength));
    // A load that pulls a battery below flat fades with its volts: lamps dim, units give up.
    return left >= 0 ? left : Math.max(-0.35, left * 0.35);
  };
  const one: TrueBattery = {
    charge: charge(),
    strength,
    years,
    shorted: has('dead-cell') ? (odds(random, 0.9) ? 1 : 2) : 0,
    linkOhms: has('broken-link') ? between(random, 0.15, 4) : 0,
    backwards: has('reversed'),
  };
  if (first === 'string-weak') {
    const low = { ...one, charge: between(random, -0.1, 0.3) };
    const well = { ...one, charge: between(random, 0.75, 0.97), strength: Math.max(0.8, faded) };
    return odds(random, 0.5) ? [low, well] : [well, low];
  }
  // A break inside is in one of them; now and then somebody has changed one and not the other.
  const broken = Math.floor(count * random());
  const isFellowNew = odds(random, 0.25);
  return Array.from({ length: count }, (_, i) => {
    if (i === broken) return one;
    const charge = Math.min(1, one.charge + between(random, -0.03, 0.03));
    const fellow = { ...one, charge, shorted: 0, linkOhms: 0, backwards: false };
    return isFellowNew
      ? { ...fellow, strength: between(random, 0.85, 1), years: between(random, 0, 2) }
      : fellow;
  });
}

/** How one battery stands, by the worst of it. */
export function standingOf({
  backwards,
  shorted,
  linkOhms,
  strength,
  charge,
}: TrueBattery): BatteryCondition {
  if (backwards) return 'reversed';
  if (shorted > 0) return 'dead-cell';
  if (linkOhms > 0) return 'broken-link';
  if (strength < 0.67) return 'worn';
  return charge < 0.5 ? 'discharged' : 'sound';
}

function chargingOf(
  random: Random,
  isFault: boolean,
  machineClass: MachineClass,
  lowest: number,
): Pick<Stranded, 'chargingIdle' | 'chargingRevved' | 'ripple'> {
  const ripple = between(random, 0.01, 0.09);
  if (isFault) {
    const which = random();
    if (which < 0.62) {
      const none = between(random, 11.4, 12.8);
      return { chargingIdle: none, chargingRevved: none, ripple };
    }
    if (which < 0.85) {
      const weak = between(random, 12.8, 13.35);
      return {
        chargingIdle: weak,
        chargingRevved: weak + between(random, 0, 0.2),
        ripple: odds(random, 0.7) ? between(random, 0.35, 1.2) : ripple,
      };
    }
    const over = between(random, 15.3, 17);
    return { chargingIdle: over - between(random, 0, 0.5), chargingRevved: over, ripple };
  }
  const isSmall = machineClass === 'motorcycle' || machineClass === 'ride-on';
  const top =
    machineClass === 'motorcycle' || machineClass === 'ride-on'
      ? bump(random, 13.8, 14.6)
      : bump(random, 13.9, 14.7);
  const smart = ['car', 'van'].includes(machineClass) && lowest > 0.85 && odds(random, 0.3);
  const held = lowest < 0.35 ? between(random, 0, 1.1) * (1 - lowest / 0.35) : 0;
  const idle = smart ? between(random, 12.6, 13.1) : top - held - (isSmall ? between(random, 0.3, 1.3) : 0);
  return { chargingIdle: Math.max(12.9, idle), chargingRevved: smart ? idle : top - held * 0.25, ripple };
}

/** Open volts of one battery: a straight line of its own, and down towards nothing once over-discharged. */
export function openVolts({ charge, shorted, backwards }: TrueBattery, chemistry: Chemistry): number {
  const top = chemistry === 'flooded' || chemistry === 'efb' ? 12.72 : 12.88;
  const flat = chemistry === 'flooded' || chemistry === 'efb' ? 11.68 : 11.75;
  const whole = charge >= 0 ? flat + (top - flat) * charge : Math.max(0.6, flat + charge * 33);
  return (whole * (6 - shorted) * (backwards ? -1 : 1)) / 6;
}

/** Resistance of one battery, ohms, from its cold-cranking test. */
export function ohmsOf(
  { charge, strength, linkOhms }: TrueBattery,
  { ccaAmps }: BatteryRating,
  tempC: number,
): number {
  const asNew = (5.5 / (ccaAmps * 1.03)) * Math.exp(-0.0137 * (tempC + 18));
  const starved = charge >= 0 ? (1 + 0.32 / (charge + 0.035)) / 1.31 : 8 * (1 - charge * 12);
  return asNew * starved * strength ** -1.75 + linkOhms;
}

/** Amps that a sound engine draws at 20 degC, by size: the field's figures. */
export function ampsAt20({ fuel, displacementL, systemVolts }: Engine): number {
  const amps = fuel === 'petrol' ? 105 * displacementL ** 0.45 : 150 * displacementL ** 0.62;
  return systemVolts === 24 ? amps * 0.75 : amps;
}

export type Look = 'starts' | 'brisk-no-fire' | 'slow' | 'rapid-click' | 'one-click' | 'silence';

/** A key turned: what it looks like, and the least volts at the posts. */
export interface TrueCrank {
  readonly look: Look;
  readonly postVolts: number;
  readonly amps: number;
}

/** A good source across each battery, as volts behind ohms; null: alone. */
export interface TrueHelp {
  readonly volts: number;
  readonly ohms: number;
}

/** One loop, by Ohm and Kirchhoff: battery, joints, cable, starter. */
export function crankOf(it: Stranded, help: TrueHelp | null): TrueCrank {
  const { engine, faults, systemVolts } = it;
  const has = (cause: Cause): boolean => faults.includes(cause);
  const own = it.cells.map((cell) => ({
    volts: openVolts(cell, it.rating.chemistry),
    ohms: ohmsOf(cell, it.rating, it.tempC),
  }));
  const joined = own.map((b) => {
    if (!help) return b;
    const siemens = 1 / b.ohms + 1 / help.ohms;
    return { volts: (b.volts / b.ohms + help.volts / help.ohms) / siemens, ohms: 1 / siemens };
  });
  const volts = joined.reduce((sum, b) => sum + b.volts, 0);
  const ohms = joined.reduce((sum, b) => sum + b.ohms, 0);
  const scale = systemVolts / 12;
  if (!engine || has('main-fuse') || has('interlock')) return { look: 'silence', postVolts: volts, amps: 0 };
  if (has('starter') && it.cableOhms < 0.0005) {
    return { look: volts / scale < 6 ? 'silence' : 'one-click', postVolts: volts, amps: 0 };
  }
  const lost = it.plusOhms + it.minusOhms + it.cableOhms + 0.002 * scale;
  const cold = 1 + 0.021 * (20 - it.tempC);
  const tight = has('seized') ? 6 : has('starter') ? 2.4 : 1;
  const need = ampsAt20(engine) * cold * tight;
  const coil = (1.7 * scale) / ampsAt20(engine);
  const locked = volts / (ohms + lost + coil);
  const atPosts = (amps: number): number => volts - amps * ohms;
  if (locked < need * 1.55) {
    const posts = atPosts(locked) / scale;
    const look = posts < 3.2 ? 'silence' : posts < 7.6 ? 'rapid-click' : 'one-click';
    return { look, postVolts: atPosts(locked), amps: locked };
  }
  const starter = volts - need * (ohms + lost);
  const share = (starter - need * coil) / (11.6 * scale - ampsAt20(engine) * coil);
  const isSlow = share < (engine.fuel === 'diesel' ? 0.45 : 0.36) || starter / scale < 6.9;
  const look = isSlow
    ? atPosts(need) / scale < 7
      ? 'rapid-click'
      : 'slow'
    : has('fuel') || has('immobiliser')
      ? 'brisk-no-fire'
      : 'starts';
  return { look, postVolts: atPosts(need), amps: need };
}

/** The truth of the battery, by the buyer of the next one. */
export function isSpent({ cells }: Stranded): boolean {
  return cells.some((b) => b.strength < 0.6 || b.shorted > 0 || b.linkOhms > 0 || b.backwards);
}
export function isSound({ cells }: Stranded): boolean {
  return cells.every((b) => b.strength >= 0.8 && b.shorted === 0 && b.linkOhms === 0 && !b.backwards);
}
/** No current may go through it: it points backwards, or its acid is ice. */
export function isUnsafe({ cells, rating: { chemistry }, tempC, restedMinutes }: Stranded): boolean {
  // A battery that carried current within the hour has not frozen since.
  const mayFreeze = chemistry !== 'lfp' && restedMinutes > 60;
  return cells.some((b) => b.backwards || (mayFreeze && tempC <= iceAt(b.charge)));
}
/** Freezing point of acid by charge, read off a common chart. */
function iceAt(charge: number): number {
  if (charge < 0) return Math.min(-1, -10 - charge * 90);
  return charge < 0.25 ? -10 - charge * 24 : -16 - (charge - 0.25) * 34;
}

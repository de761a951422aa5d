import type { AttemptOutcome } from '../../src/crank/index.js';
import type { Random } from '../../src/quantities/index.js';
import { ampsAt20, bump, odds, ohmsOf, oneOf, openVolts, type Stranded } from './world.js';

/**
 * A stranded machine under the key with help joined: a loop worked out here, with brushes, drag, flukes, and clamps that hands set well or
 * badly. No function and no figure of it comes from the tool.
 */

/** Help as it truly is. A pack or a donor, its leads, and how many minutes it charges first. */
export interface Help {
  readonly name: string;
  /** Per 12 V of the system. */
  readonly volts: number;
  readonly ohms: number;
  readonly sectionMm2: number;
  readonly lengthM: number;
}

/** The parts of a machine that its faults do not say: they stay as they are from try to try. */
export interface Temper {
  readonly drag: number;
  readonly brushVolts: number;
  /** Speed that it asks for, against the usual. */
  readonly hardness: number;
  readonly helpVolts: number;
  readonly helpOhms: number;
}

export const temperOf = (random: Random): Temper => ({
  drag: bump(random, 0.7, 1.35),
  brushVolts: bump(random, 0.8, 1),
  hardness: bump(random, 0.82, 1.2),
  helpVolts: bump(random, -0.2, 0.2),
  helpOhms: Math.exp(bump(random, -0.35, 0.45)),
});

/** Clamps as hands set them: one hook-up in sixteen bites paint or rust. Ohms of all four together. */
export const clampsSet = (random: Random): number =>
  bump(random, 0.0008, 0.005) + (odds(random, 0.06) ? Math.exp(bump(random, -4.8, -2.2)) : 0);

/** How a try ended, and the least volts at the posts. */
export interface TrueTry {
  readonly started: boolean;
  readonly outcome: AttemptOutcome;
  readonly lowestVolts: number;
}

/**
 * Drag that each degree of cold adds, of that at 20 degC. Set so that a sound machine at 70 % charge starts by itself at -15 degC, as nearly
 * all do.
 */
const COLD_DRAG = 0.011;

/** Turns the key once. */
export function turnKey(
  it: Stranded,
  temper: Temper,
  help: Help | null,
  clampOhms: number,
  random: Random,
): TrueTry {
  const { engine, faults, systemVolts, tempC } = it;
  if (!engine) throw new RangeError('it has no starter');
  const scale = systemVolts / 12;
  const has = (...causes: readonly string[]): boolean => causes.some((c) => faults.includes(c as never));
  const own = it.cells.map((cell) => ({
    volts: openVolts(cell, it.rating.chemistry),
    ohms: ohmsOf(cell, it.rating, tempC),
  }));
  const ownVolts = own.reduce((sum, b) => sum + b.volts, 0);
  const ownOhms = own.reduce((sum, b) => sum + b.ohms, 0);
  // Copper there and back; the black clamp is on metal of the engine, beyond the joint at minus.
  const copper = help ? (0.0178 * 2 * help.lengthM) / help.sectionMm2 : 0;
  const joined = help
    ? {
        volts: help.volts * scale + temper.helpVolts,
        ohms: help.ohms * temper.helpOhms * scale + copper + clampOhms,
      }
    : null;
  const branch = { volts: ownVolts, ohms: ownOhms + it.minusOhms };
  const feed = joined
    ? {
        volts: (branch.volts * joined.ohms + joined.volts * branch.ohms) / (branch.ohms + joined.ohms),
        ohms: (branch.ohms * joined.ohms) / (branch.ohms + joined.ohms),
      }
    : branch;
  const beyond = it.plusOhms + it.cableOhms + 0.0018 * scale;
  const postsAt = (amps: number): number => {
    const across = feed.volts - amps * feed.ohms;
    return ownVolts - ((ownVolts - across) / branch.ohms) * ownOhms;
  };
  const end = (outcome: AttemptOutcome, amps: number): TrueTry => ({
    started: outcome === 'started',
    outcome: outcome === 'started' ? outcome : misheard(outcome, random),
    lowestVolts: Math.max(0, postsAt(amps)) + bump(random, -0.25, 0.15) * scale,
  });
  if (has('main-fuse', 'interlock')) return end('nothing', 0);
  // Half of the bad starters are dead; strand() decides it by the cable, and so does this.
  if (has('starter') && it.cableOhms < 0.0005) return end(postsAt(0) / scale < 6 ? 'nothing' : 'clicks', 0);
  const tight = has('seized') ? 6 : has('starter') ? 2.4 : 1;
  const need = ampsAt20(engine) * (1 + COLD_DRAG * (20 - tempC)) * tight * temper.drag;
  const coil = (1.6 * scale) / ampsAt20(engine);
  const brush = temper.brushVolts;
  const locked = (feed.volts - brush) / (feed.ohms + beyond + coil);
  if (locked < need * 1.2)
    return end(postsAt(Math.max(0, locked)) / scale < 3 ? 'nothing' : 'clicks', Math.max(0, locked));
  const terminal = feed.volts - need * (feed.ohms + beyond);
  const share = (terminal - brush - need * coil) / (11.6 * scale - brush - ampsAt20(engine) * coil);
  const enough = (engine.fuel === 'diesel' ? 0.4 : 0.36) * temper.hardness;
  if (share < enough || terminal / scale < 6.6)
    return end(odds(random, 0.03) ? 'started' : share < 0.12 ? 'clicks' : 'slow', need);
  if (has('fuel', 'immobiliser')) return end('brisk-no-fire', need);
  // Flooded, waxed, or the key let go: it may well catch at the next turn.
  return end(odds(random, 0.03) ? 'brisk-no-fire' : 'started', need);
}

/** One failed try in sixteen is told wrong. */
const misheard = (outcome: AttemptOutcome, random: Random): AttemptOutcome =>
  odds(random, 0.06) ? oneOf(random, ['nothing', 'clicks', 'slow', 'brisk-no-fire'] as const) : outcome;

/** Help of an ordinary night: a healthy donor or a good pack through stout leads. */
export const GOOD_HELP: readonly Help[] = [
  { name: 'donor', volts: 12.7, ohms: 0.006, sectionMm2: 25, lengthM: 3.5 },
  { name: 'big pack', volts: 12.9, ohms: 0.007, sectionMm2: 25, lengthM: 1.2 },
];
/** Help of a bad night: a small pack, a tired donor, thin leads. */
export const POOR_HELP: readonly Help[] = [
  { name: 'small pack', volts: 12.4, ohms: 0.022, sectionMm2: 10, lengthM: 1 },
  { name: 'tired donor', volts: 12.3, ohms: 0.014, sectionMm2: 10, lengthM: 3 },
  { name: 'thin leads', volts: 12.7, ohms: 0.006, sectionMm2: 6, lengthM: 3.5 },
];

/** Volts that the alternator of a running donor holds, per 12 V. */
const HELD_VOLTS = 14.1;

/**
 * The machine after so many minutes on a running donor whose engine is then stopped: amps by what the leads and the battery let through, and
 * no more than plates take. Half its capacity an hour when empty and warm, a fifth of that in deep cold.
 */
export function charged(it: Stranded, help: Help, minutes: number, random: Random): Stranded {
  const takes = bump(random, 0.5, 1.6) * (it.faults.includes('sulphated') ? 0.3 : 1);
  const cold = Math.min(1, Math.max(0.2, 0.2 + (0.8 * (it.tempC + 20)) / 45));
  const leadOhms = (0.0178 * 2 * help.lengthM) / help.sectionMm2 + 0.004;
  const cells = it.cells.map((cell) => {
    let { charge } = cell;
    for (let s = 0; s < minutes * 60; s += 30) {
      const push = HELD_VOLTS - openVolts({ ...cell, charge }, it.rating.chemistry);
      const through = push / (ohmsOf({ ...cell, charge }, it.rating, it.tempC) + leadOhms);
      const most = 0.5 * it.rating.capacityAh * (1 - Math.max(0, charge)) * cold * takes;
      charge = Math.min(
        1,
        charge + (Math.max(0, Math.min(30, through, most)) * 30) / 3600 / it.rating.capacityAh,
      );
    }
    // Charge that went in within minutes lies at the face of the plates, where a crank takes it first.
    const gained = charge - cell.charge;
    return { ...cell, charge: Math.min(1, charge + Math.min(1.2 * gained, 0.1)) };
  });
  return { ...it, cells };
}

/** The same help in the size that a crew brings to a machine of this size: a truck is not jumped by a small car. */
export function sizedFor(it: Stranded, help: Help): Help {
  const size = Math.max(1, ampsAt20(it.engine!) / 150);
  return { ...help, ohms: help.ohms / size, sectionMm2: help.sectionMm2 * size };
}

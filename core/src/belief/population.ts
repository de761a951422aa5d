import {
  bankFarads,
  batteryOhms,
  batteryOpenVolts,
  type BatteryState,
  BATTERY_RANGES,
  FIRING_SECOND_SHARE,
} from '../battery/index.js';
import { withGain } from '../charging/index.js';
import { type ModelBattery, type Rescue, STARTER_CABLE_OHMS } from '../circuit/index.js';
import { compileCrank, type CrankPoint, wakePoint } from '../crank/index.js';
import {
  type CrankLook,
  type Cranks,
  type HiddenMachine,
  lookOfPoint,
  SOUND_OHMS,
} from '../diagnosis/index.js';
import type { Engine } from '../engine/index.js';
import type { Random } from '../quantities/index.js';
import type { BatteryBelief, Gained } from './casualty-batteries.js';
import {
  AGEING_LOG_DEVIATION,
  AGEING_MEDIAN,
  CONTROL_DEVIATION,
  type Draw,
  drawUnknowns,
  KNOWN_AGEING_LOG_DEVIATION,
  MOST_LIKELY,
  NEEDED_DEVIATION,
} from './unknowns.js';

/** The moment of the crank: batteries with what they took in meanwhile, and the source still joined or already away. */
export interface CrankMoment {
  readonly rescue: Rescue;
  readonly beliefs: readonly BatteryBelief[];
  /** Its joints have been mended. */
  readonly isMended?: boolean;
}

/** A machine with its faults, whose cranks are solved anew in each moment. */
export type HiddenParts = Omit<HiddenMachine, keyof Cranks>;

/** One machine that this may be: the faults that it holds, and what no finding tells of it. */
export interface PossibleMachine {
  /** Null: a machine with nothing at fault, whose batteries are what is believed of them. */
  readonly hidden: HiddenParts | null;
  readonly draw: Draw;
}

/** Machines that this may be, of equal weight. Every odds of a plan are read from one of these. */
export interface Population {
  readonly machines: readonly PossibleMachine[];
  /** As many that know nothing of each other would tell as much. */
  readonly effectiveNumber: number;
}

/** The effective number of draws whose weights add up to one: as many of equal weight would tell as much. */
export const effectiveNumber = (weights: Float64Array): number =>
  1 / weights.reduce((sum, w) => sum + w ** 2, 0);

/** Draws the population of a machine with nothing at fault but its charge. Use it where the circuit is given by hand. */
export function drawSound(count: number, random: Random): Population {
  const machines = Array.from({ length: count }, () => ({ hidden: null, draw: drawUnknowns(random) }));
  return { machines, effectiveNumber: count };
}

/** The first so many of a population. */
export const firstOf = ({ machines, effectiveNumber }: Population, count: number): Population => ({
  machines: machines.slice(0, count),
  effectiveNumber: Math.min(count, effectiveNumber),
});

/** A joint that is sound, ohms: the circuit has a place for it in every machine. */
const SOUND_JOINT_OHMS = SOUND_OHMS[0];

/** Solves the cranks of many machines in one moment: its circuit is compiled once. */
export function cranksIn(
  moment: CrankMoment,
  engine: Engine,
): (machine: PossibleMachine) => CrankPoint | null {
  const { rescue } = moment;
  const joints = rescue.joints ?? { plusOhms: 0, minusOhms: 0 };
  const withJoints = { ...joints, plusOhms: Math.max(joints.plusOhms, SOUND_JOINT_OHMS) };
  const casualty = batteriesIn(moment, { hidden: null, draw: MOST_LIKELY });
  const solve = compileCrank({ ...rescue, casualty, joints: withJoints }, engine);
  return (machine) => {
    const { hidden, draw } = machine;
    if (hidden && !isDriven(hidden)) return null;
    const tempC = rescue.tempC + draw.temperature;
    const { source } = rescue;
    return solve({
      tempC,
      casualty: batteriesIn(moment, machine),
      ...(source && { sourceOhms: source.ohms * draw.source * (source.polarises ? FIRING_SECOND_SHARE : 1) }),
      clampWear: (rescue.clampWear ?? 1) * draw.clamps,
      ...jointsIn(moment, machine),
      // Torque against drag is all that counts, so heavier drag is a weaker starter.
      torqueShare: (hidden ? hidden.torqueShare : draw.starter) / draw.drag,
      breakawayShare: draw.breakaway,
      brushVolts: (draw.brushes * engine.systemVolts) / 12,
    });
  };
}

/** Its starter is asked and takes amps. */
const isDriven = ({ open, held, starter }: HiddenParts): boolean =>
  !open && held !== 'starter' && starter !== 'dead';

/** The joints and the cable of a machine in this moment. */
function jointsIn(
  { rescue, isMended = false }: CrankMoment,
  { hidden, draw }: PossibleMachine,
): {
  readonly joints: { readonly plusOhms: number; readonly minusOhms: number };
  readonly cableOhms: number;
} {
  if (hidden) {
    const { plusOhms, minusOhms, cableOhms } = hidden;
    const sound = { plusOhms: SOUND_JOINT_OHMS, minusOhms: SOUND_JOINT_OHMS };
    return {
      joints: isMended ? sound : { plusOhms, minusOhms },
      cableOhms: STARTER_CABLE_OHMS + cableOhms,
    };
  }
  const { plusOhms = 0, minusOhms = 0 } = rescue.joints ?? {};
  // How bad a joint is is known no better than how well a clamp bites.
  const joints = {
    plusOhms: Math.max(SOUND_JOINT_OHMS, plusOhms * draw.clamps),
    minusOhms: minusOhms * draw.clamps,
  };
  return { joints, cableOhms: STARTER_CABLE_OHMS };
}

/** The batteries of a machine in this moment, their plates polarised as in the second in which it fires. */
export function batteriesIn({ rescue, beliefs }: CrankMoment, machine: PossibleMachine): ModelBattery[] {
  const { hidden, draw } = machine;
  const tempC = rescue.tempC + draw.temperature;
  return beliefs.map((belief, i) => {
    const { rating } = belief;
    const own = belief.isFitted ? undefined : hidden?.batteries[i];
    const state = own ? stateOfHidden(own, belief, machine) : stateOfBelief(belief, draw);
    const linkOhms = own && i === hidden?.hurt ? hidden.linkOhms : 0;
    const openVolts = batteryOpenVolts(rating, { ...state, tempC });
    const ohms = batteryOhms(rating, { ...state, tempC }) + linkOhms;
    const farads = bankFarads(rating);
    return farads === null ? { openVolts, ohms: FIRING_SECOND_SHARE * ohms } : { openVolts, ohms, farads };
  });
}

/** Resistance growth that a battery may have. */
export const clampedAgeing = (ageing: number): number =>
  Math.min(BATTERY_RANGES.ageing.max, Math.max(BATTERY_RANGES.ageing.min, ageing));

/** The battery of a machine of the crowd, with what it has taken in since it was read. */
function stateOfHidden(
  state: BatteryState,
  { rating, gained, isGiven, soc, ageing }: BatteryBelief,
  { hidden, draw }: PossibleMachine,
): Omit<BatteryState, 'tempC'> {
  const takes = hidden!.holds.includes('sulphated') ? SULPHATED_TAKES : 1;
  const aged = { ...state, ageing: clampedAgeing(ageing ?? state.ageing) };
  if (isGiven) {
    const { overDischargedVolts: _deep, ...upright } = aged;
    return { ...upright, soc };
  }
  return gained ? withGain(rating.chemistry, aged, takes * gainOf(gained, draw)) : aged;
}
/** Charge that sulphated plates take, against sound ones. */
const SULPHATED_TAKES = 0.3;

/** Returns the charge that this machine took in: the dullest and the keenest are two deviations from the usual. */
const gainOf = ({ low, likely, high }: Gained, { charge }: Draw): number =>
  Math.max(0, likely + (charge / 2) * (charge < 0 ? likely - low : high - likely));

/** A battery of which the findings say nothing: within its own band. */
function stateOfBelief(belief: BatteryBelief, draw: Draw): Omit<BatteryState, 'tempC'> {
  const { soc, socLow, socHigh, overDischargedVolts, ageing } = belief;
  // The band is two deviations either way.
  const side = draw.charge < 0 ? soc - socLow : socHigh - soc;
  const spread = ageing === undefined ? AGEING_LOG_DEVIATION : KNOWN_AGEING_LOG_DEVIATION;
  return {
    soc: Math.min(1, Math.max(0, soc + (draw.charge * side) / 2)),
    ageing: clampedAgeing((ageing ?? AGEING_MEDIAN) * Math.exp(draw.ageing * spread)),
    ...(overDischargedVolts !== undefined && { overDischargedVolts }),
  };
}

/** Volts at the posts of a machine while nothing is drawn, of the whole string. */
export function stillVoltsIn(moment: CrankMoment, machine: PossibleMachine): number {
  const casualty = batteriesIn(moment, machine);
  return wakePoint({ ...moment.rescue, casualty }, 0).postVolts;
}

/** How a try of this machine looks and sounds. */
export function lookIn(
  moment: CrankMoment,
  machine: PossibleMachine,
  point: CrankPoint | null,
  engine: Engine,
): CrankLook {
  const { rescue } = moment;
  const { hidden, draw } = machine;
  // Speed and volts are asked for together: an engine hard to fire is as a rule one whose electronics want more.
  const asked = point && {
    ...point,
    neededRpm: point.neededRpm * draw.firing,
    controlMinVolts: point.controlMinVolts * (1 + ((draw.firing - 1) * CONTROL_DEVIATION) / NEEDED_DEVIATION),
  };
  const { systemVolts } = engine;
  const batteries = systemVolts / 12;
  // Only a starter that takes nothing leaves the posts at rest.
  const restVolts =
    hidden?.starter === 'dead'
      ? Math.max(rescue.source?.openVolts ?? 0, sum(batteriesIn(moment, machine)))
      : 0;
  return lookOfPoint(hidden ?? SOUND, asked, systemVolts, restVolts / batteries);
}

const SOUND = { open: false, held: 'no', starter: 'sound' } as const;
const sum = (batteries: readonly ModelBattery[]): number =>
  batteries.reduce((all, b) => all + b.openVolts, 0);

import {
  CLAMP_IDS,
  CompiledDc,
  contactName,
  midCrank,
  type ModelBattery,
  type Rescue,
  rescueCircuit,
  terminalNode,
  BODY_STRAP_OHMS,
  STARTER_CABLE_OHMS,
  type BadJoints,
} from '../circuit/index.js';
import { POLARISATION } from '../battery/index.js';
import { clampOhms, conductorOhms } from '../leads/index.js';
import { bisect } from '../quantities/index.js';
import {
  defaultStarter,
  dragTerms,
  type Engine,
  neededRpm,
  rpmFromRadS,
  type Starter,
} from '../engine/index.js';

/** The steady point of a crank. */
export interface CrankPoint {
  readonly turns: boolean;
  readonly rpm: number;
  readonly neededRpm: number;
  readonly starterVolts: number;
  readonly starterAmps: number;
  /** At the posts of the casualty's string while cranking. */
  readonly postVolts: number;
  readonly sourceAmps: number;
  /** Lost in both conductors and all clamps. */
  readonly leadLossVolts: number;
  readonly controlMinVolts: number;
}

/** Whether an engine fires at this point: it turns, fast enough, and its control units keep their volts. */
export const firesAt = ({ turns, rpm, neededRpm, starterVolts, controlMinVolts }: CrankPoint): boolean =>
  turns && rpm >= neededRpm && starterVolts >= controlMinVolts;

/** A crank that would settle at less than this is caught by the next piston on compression, and stands, rad/s. */
const ROLLS_FROM_RAD_S = 5;
const TOP_RAD_S = 100;
/** A supply that changes state on the way moves the answer; after so many rounds the answer is looked for step by step. */
const ROUNDS_MOST = 6;

/** The same rescue with a starter that turns steadily, so that its volts and amps can be solved. */
export function whileCranking(rescue: Rescue, engine: Engine): Rescue {
  const starter = defaultStarter(engine);
  const { starterVolts, starterAmps } = crankPoint(rescue, engine, starter);
  const backEmfVolts = starterVolts - starterAmps * starter.ohms;
  return { ...rescue, load: { kind: 'starter', backEmfVolts, ohms: starter.ohms } };
}

/** The values of one machine in a rescue whose clamps stay where they are. */
export interface CrankValues {
  readonly tempC: number;
  readonly casualty: readonly ModelBattery[];
  /** Resistance inside the source, ohms; left out: as the rescue has it. */
  readonly sourceOhms?: number;
  /** How much worse the clamps bite than their kind usually does; left out: as the rescue has it. */
  readonly clampWear?: number;
  /** Of a rescue that has joints; left out: as the rescue has them. */
  readonly joints?: BadJoints;
  /** Main cable to the starter, ohms; left out: a sound one. */
  readonly cableOhms?: number;
  /** Torque of its starter against what such an engine usually asks; left out: as usual. */
  readonly torqueShare?: number;
  /** First movement against what such an engine usually asks; left out: as usual. */
  readonly breakawayShare?: number;
  /** Volts that the brushes of its starter lose at any current; left out: they are within its resistance. */
  readonly brushVolts?: number;
}

/**
 * Quasi-steady crank: the speed at which the starter's torque equals the engine's drag, with the whole rescue circuit solved. Current falls
 * in a straight line with speed while no supply changes state. Drag rises with speed and its root. So the crossing has a closed form. Where
 * a supply does change state the crossing, still unique, is found by bisection.
 *
 * @param rescue the circuit; the starter replaces its load. A capacitor bank in a battery's place is taken in the middle of the crank
 * @param breakawayShare the first movement against what such an engine usually asks
 * @returns the steady point, or the locked-starter point with `turns: false` when torque cannot break the engine away
 */
export function crankPoint(
  rescue: Rescue,
  engine: Engine,
  starter: Starter = defaultStarter(engine),
  breakawayShare = 1,
): CrankPoint {
  return compileCrank(rescue, engine, starter)({ ...rescue, breakawayShare });
}

/**
 * The crank of one rescue, compiled. Use it for thousands of machines that differ in values alone.
 *
 * @returns a function that solves `crankPoint` for the values of one machine
 */
export function compileCrank(
  given: Rescue,
  engine: Engine,
  starter: Starter = defaultStarter(engine),
): (values: CrankValues) => CrankPoint {
  const circuit = rescueCircuit({
    ...midCrank(given),
    load: { kind: 'starter', backEmfVolts: 0, ohms: starter.ohms },
  });
  const dc = new CompiledDc(circuit, 'starter');
  const place = (name: string): number => dc.placeOf(name);
  const starterAt = place('starter');
  const batteriesAt = given.casualty.map((_, i) => place(`casualty.battery${i}`));
  const [sourceAt, cableAt] = [place('source'), place('casualty.starterCable')];
  const [plusAt, strapAt] = [place('casualty.plusJoint'), place('casualty.strap')];
  const leadsAt = [place('lead.red'), place('lead.black')].filter((at) => at >= 0);
  const contactsAt = CLAMP_IDS.map((clamp) => place(contactName(clamp))).filter((at) => at >= 0);
  const { source, leads } = given;
  const polarises = source?.polarises === true;

  const putCasualty = (casualty: readonly ModelBattery[], share: number): void =>
    batteriesAt.forEach((at, i) => {
      const { openVolts, ohms, farads } = casualty[i]!;
      dc.putVolts(at, openVolts);
      dc.putOhms(at, ohms * (farads === undefined ? share : 1));
    });

  return (values) => {
    const { tempC, torqueShare = 1, breakawayShare = 1, brushVolts = 0, joints = given.joints } = values;
    const { casualty } = midCrank({ ...given, casualty: values.casualty });
    const sourceOhms = values.sourceOhms ?? source?.ohms;
    putCasualty(casualty, 1);
    if (leads) {
      const leadOhms = conductorOhms(leads, tempC);
      for (const at of leadsAt) dc.putOhms(at, leadOhms);
      const contactOhms = clampOhms(leads) * (values.clampWear ?? given.clampWear ?? 1);
      for (const at of contactsAt) dc.putOhms(at, contactOhms);
    }
    if (sourceAt >= 0) dc.putOhms(sourceAt, sourceOhms!);
    dc.putOhms(cableAt, values.cableOhms ?? STARTER_CABLE_OHMS);
    if (joints && plusAt >= 0) dc.putOhms(plusAt, joints.plusOhms);
    if (joints && strapAt >= 0) dc.putOhms(strapAt, BODY_STRAP_OHMS + joints.minusOhms);

    const k = starter.kVoltSeconds;
    const torquePerAmp = torqueShare * starter.efficiency * k;
    // A source's current counts outwards; a starter's is the current into it.
    const torqueNow = (): number => -torquePerAmp * dc.amps(starterAt);
    /** Volts that the starter holds against the circuit at this speed. */
    const against = (radS: number): number => brushVolts + k * radS;
    const torqueAt = (radS: number): number => {
      dc.settle(against(radS));
      return torqueNow();
    };
    const describe = (radS: number, turns: boolean): CrankPoint => {
      dc.settle(against(radS));
      return {
        turns,
        rpm: rpmFromRadS(radS),
        neededRpm: neededRpm(engine, tempC),
        starterVolts: dc.volts('casualty.starter'),
        starterAmps: -dc.amps(starterAt),
        ...atPosts(dc, given),
        controlMinVolts: starter.controlMinVolts,
      };
    };

    const { still, oil, grip } = dragTerms(engine, tempC);
    const locked = torqueAt(0);
    const breakaway = breakawayShare * (still + grip);
    // A starter that turns it with its plates polarised turns it before that too.
    if (locked <= breakaway) {
      const fresh = 1 - POLARISATION.share;
      putCasualty(casualty, fresh);
      if (sourceAt >= 0 && polarises) dc.putOhms(sourceAt, sourceOhms! * fresh);
      const atOnce = torqueAt(0);
      putCasualty(casualty, 1);
      if (sourceAt >= 0) dc.putOhms(sourceAt, sourceOhms!);
      if (atOnce <= breakaway) return describe(0, false);
    }
    if (locked <= still) return describe(0, false);
    dc.settle(against(0));
    for (let round = 0; round < ROUNDS_MOST; round++) {
      // Along the line that was solved last: torque at rest, and its fall with speed.
      dc.moveTo(against(0));
      const atRest = torqueNow();
      dc.moveTo(against(1));
      const fall = atRest - torqueNow();
      if (atRest <= still) break;
      const root = (Math.sqrt(oil ** 2 + 4 * fall * (atRest - still)) - oil) / (2 * fall);
      const radS = root ** 2;
      if (!dc.settle(against(radS))) continue;
      return radS < ROLLS_FROM_RAD_S ? describe(0, false) : describe(radS, true);
    }
    const outdoes = (radS: number): boolean => torqueAt(radS) > still + oil * Math.sqrt(radS);
    const radS = bisect(outdoes, 0, TOP_RAD_S).low;
    return radS < ROLLS_FROM_RAD_S ? describe(0, false) : describe(radS, true);
  };
}

/** The steady point of a wake-up: no crank, only a load that must be fed between two limits. */
export interface WakePoint {
  readonly postVolts: number;
  readonly sourceAmps: number;
  readonly leadLossVolts: number;
}

/** Volts at the casualty's posts while its control units draw `amps` to wake. */
export function wakePoint(rescue: Rescue, amps: number): WakePoint {
  const dc = new CompiledDc(rescueCircuit({ ...rescue, load: { kind: 'wake', amps } }));
  dc.settle();
  return atPosts(dc, rescue);
}

/** Returns the figures at the casualty's posts and along the leads of a rescue that is solved. */
function atPosts(dc: CompiledDc, { casualty, clamps }: Pick<Rescue, 'casualty' | 'clamps'>): WakePoint {
  const { redCasualty, blackCasualty } = clamps;
  const redAt = dc.placeOf(contactName('redCasualty'));
  // Source volts less the volts between the two places of its casualty clamps: the share that the lead set itself takes.
  const leadLossVolts =
    redCasualty && blackCasualty
      ? dc.volts('source.plus') -
        dc.volts('source.minus') -
        (dc.volts(terminalNode(redCasualty)) - dc.volts(terminalNode(blackCasualty)))
      : 0;
  return {
    postVolts: dc.volts(`casualty.battery${casualty.length - 1}+`) - dc.volts('casualty.battery0-'),
    // Out of the red lead into the casualty; none where the lead is not in the circuit.
    sourceAmps: redAt < 0 ? 0 : dc.amps(redAt),
    leadLossVolts,
  };
}

import {
  contactName,
  type Element,
  midCrank,
  prepareDc,
  type PreparedDc,
  type Rescue,
  rescueCircuit,
  type Solution,
  solveDc,
  terminalNode,
  voltsAcross,
  type VoltSource,
} from '../circuit/index.js';
import { POLARISATION } from '../battery/index.js';
import { bisect } from '../quantities/index.js';
import {
  breakawayNm,
  defaultStarter,
  dragTerms,
  type Engine,
  engineDragNm,
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

/** Second speed the network is solved at to find how current falls with speed, rad/s. */
const PROBE_RAD_S = 10;
/** Torque and drag may differ by this share at the answer before it is looked for step by step. */
const CLOSE_SHARE = 1e-9;
/** A crank that would settle at less than this is caught by the next piston on compression, and stands, rad/s. */
const ROLLS_FROM_RAD_S = 5;
const TOP_RAD_S = 100;

/** The same rescue with a starter that turns steadily, so that its volts and amps can be solved. */
export function whileCranking(rescue: Rescue, engine: Engine): Rescue {
  const starter = defaultStarter(engine);
  const { starterVolts, starterAmps } = crankPoint(rescue, engine, starter);
  const backEmfVolts = starterVolts - starterAmps * starter.ohms;
  return { ...rescue, load: { kind: 'starter', backEmfVolts, ohms: starter.ohms } };
}

/**
 * Quasi-steady crank: the speed at which the starter's torque equals the engine's drag, with the whole rescue circuit solved. Current falls
 * in a straight line with speed while no supply changes state. Drag rises with speed and its root. So the crossing has a closed form. Where
 * a supply does change state the crossing, still unique, is found by bisection.
 *
 * @param given the circuit; the starter replaces its load. A capacitor bank in a battery's place is taken in the middle of the crank
 * @param prepared this rescue's circuit made ready by `prepareCrank`, when many like it are to be solved
 * @param breakawayShare the first movement against what such an engine usually asks
 * @returns the steady point, or the locked-starter point with `turns: false` when torque cannot break the engine away
 */
export function crankPoint(
  given: Rescue,
  engine: Engine,
  starter: Starter = defaultStarter(engine),
  prepared?: PreparedDc,
  breakawayShare = 1,
): CrankPoint {
  const rescue = midCrank(given);
  const { tempC } = rescue;
  const circuit = rescueCircuit({
    ...rescue,
    load: { kind: 'starter', backEmfVolts: 0, ohms: starter.ohms },
  });
  const dc = prepared ?? prepareDc(circuit);
  const elements = [...circuit.elements];
  const starterAt = elements.findIndex((e) => e.name === 'starter');
  const elementsAt = (radS: number): readonly Element[] => {
    elements[starterAt] = {
      ...circuit.elements[starterAt]!,
      volts: starter.kVoltSeconds * radS,
    } as VoltSource;
    return elements;
  };
  const torquePerAmp = starter.efficiency * starter.kVoltSeconds;
  // A source's current counts outwards; a starter's is the current into it.
  const torqueAt = (radS: number): number => -torquePerAmp * dc.ampsAt(elementsAt(radS), starterAt);

  const locked = torqueAt(0);
  const breakaway = breakawayShare * breakawayNm(engine, tempC);
  // A starter that turns it with its plates polarised turns it before that too.
  if (locked <= breakaway) {
    const fresh = elements.map((e) => beforePolarising(e, rescue));
    if (-torquePerAmp * dc.ampsAt(fresh, starterAt) <= breakaway) return describe(0, false);
  }

  const torqueFall = (locked - torqueAt(PROBE_RAD_S)) / PROBE_RAD_S;
  const { still, oil } = dragTerms(engine, tempC);
  if (locked <= still) return describe(0, false);
  const root = (Math.sqrt(oil ** 2 + 4 * torqueFall * (locked - still)) - oil) / (2 * torqueFall);
  const radS = root ** 2;
  if (radS < ROLLS_FROM_RAD_S) return describe(0, false);
  const off = Math.abs(torqueAt(radS) - engineDragNm(engine, radS, tempC));
  if (off <= CLOSE_SHARE * locked) return describe(radS, true);

  const outdoes = (at: number): boolean => torqueAt(at) > engineDragNm(engine, at, tempC);
  return describe(bisect(outdoes, 0, TOP_RAD_S).low, true);

  function describe(radS: number, turns: boolean): CrankPoint {
    const solution = dc.solve(elementsAt(radS));
    return {
      turns,
      rpm: rpmFromRadS(radS),
      neededRpm: neededRpm(engine, rescue.tempC),
      starterVolts: voltsAcross(solution, 'casualty.starter', 'casualty.body'),
      starterAmps: -solution.amps.get('starter')!,
      postVolts: postVolts(solution, rescue.casualty.length),
      sourceAmps: sourceAmps(solution),
      leadLossVolts: leadLossVolts(solution, rescue),
      controlMinVolts: starter.controlMinVolts,
    };
  }
}

/** An element of the circuit in the moment the starter closes, before any plates have polarised: what breaks the engine away. */
function beforePolarising(element: Element, { source, casualty }: Rescue): Element {
  if (element.kind !== 'source') return element;
  const polarises =
    casualty.some(({ farads }, i) => farads === undefined && element.name === `casualty.battery${i}`) ||
    (element.name === 'source' && source?.polarises === true);
  return polarises ? { ...element, ohms: element.ohms * (1 - POLARISATION.share) } : element;
}

/** A rescue's cranking circuit made ready for many solutions with other values but the same clamps. */
export function prepareCrank(rescue: Rescue): PreparedDc {
  return prepareDc(rescueCircuit({ ...rescue, load: { kind: 'starter', backEmfVolts: 0, ohms: 1 } }));
}

/** The steady point of a wake-up: no crank, only a load that must be fed between two limits. */
export interface WakePoint {
  readonly postVolts: number;
  readonly sourceAmps: number;
  readonly leadLossVolts: number;
}

/** Volts at the casualty's posts while its control units draw `amps` to wake. */
export function wakePoint(rescue: Rescue, amps: number): WakePoint {
  const solution = solveDc(rescueCircuit({ ...rescue, load: { kind: 'wake', amps } }));
  return {
    postVolts: postVolts(solution, rescue.casualty.length),
    sourceAmps: sourceAmps(solution),
    leadLossVolts: leadLossVolts(solution, rescue),
  };
}

function postVolts(solution: Solution, batteries: number): number {
  return voltsAcross(solution, `casualty.battery${batteries - 1}+`, 'casualty.battery0-');
}

/** Amps out of the red lead into the casualty; zero when the lead is not in the circuit. */
function sourceAmps(solution: Solution): number {
  return solution.amps.get(contactName('redCasualty')) ?? 0;
}

/** Source volts less the volts between the two places its casualty clamps contact: what the lead set itself takes. */
function leadLossVolts(solution: Solution, rescue: Rescue): number {
  const { redCasualty, blackCasualty } = rescue.clamps;
  if (!redCasualty || !blackCasualty) return 0;
  const given = voltsAcross(solution, 'source.plus', 'source.minus');
  const arrived = voltsAcross(solution, terminalNode(redCasualty), terminalNode(blackCasualty));
  return given - arrived;
}

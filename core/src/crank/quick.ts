import { biteName, type Rescue, rescueCircuit, terminalNode } from '../circuit/rescue.js';
import { solveDc, voltsAcross } from '../circuit/solve-dc.js';
import type { Solution } from '../circuit/circuit.js';
import {
  breakawayNm,
  defaultStarter,
  type Engine,
  engineDragNm,
  neededRpm,
  rpmFromRadS,
  type Starter,
} from '../engine/engine.js';

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

/** Bisection steps: halves a 100 rad/s span to under a thousandth of an rpm. */
const BISECTIONS = 32;
const TOP_RAD_S = 100;

/**
 * Quasi-steady crank: the speed at which the starter's torque equals the engine's drag, with the whole rescue circuit solved at
 * each trial speed. Torque falls and drag rises with speed, so the crossing is unique.
 *
 * @param rescue the circuit; its load is replaced by the starter
 * @returns the steady point, or the locked-starter point with `turns: false` when torque cannot break the engine away
 */
export function crankPoint(
  rescue: Rescue,
  engine: Engine,
  starter: Starter = defaultStarter(engine),
): CrankPoint {
  const solveAt = (radS: number): Solution =>
    solveDc(
      rescueCircuit({
        ...rescue,
        load: { kind: 'starter', backEmfVolts: starter.kVoltSeconds * radS, ohms: starter.ohms },
      }),
    );
  // A source's current counts outwards; a starter's is the current into it.
  const ampsIn = (solution: Solution): number => -solution.amps.get('starter')!;
  const torque = (solution: Solution): number => starter.efficiency * starter.kVoltSeconds * ampsIn(solution);

  const locked = solveAt(0);
  if (torque(locked) <= breakawayNm(engine, rescue.tempC)) return describe(locked, 0, false);

  let low = 0;
  let high = TOP_RAD_S;
  for (let i = 0; i < BISECTIONS; i++) {
    const mid = (low + high) / 2;
    if (torque(solveAt(mid)) > engineDragNm(engine, mid, rescue.tempC)) low = mid;
    else high = mid;
  }
  return describe(solveAt(low), low, true);

  function describe(solution: Solution, radS: number, turns: boolean): CrankPoint {
    return {
      turns,
      rpm: rpmFromRadS(radS),
      neededRpm: neededRpm(engine, rescue.tempC),
      starterVolts: voltsAcross(solution, 'casualty.starter', 'casualty.body'),
      starterAmps: ampsIn(solution),
      postVolts: postVolts(solution, rescue.casualty.length),
      sourceAmps: sourceAmps(solution),
      leadLossVolts: leadLossVolts(solution, rescue),
      controlMinVolts: starter.controlMinVolts,
    };
  }
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

function postVolts(solution: Solution, blocks: number): number {
  return voltsAcross(solution, `casualty.block${blocks - 1}+`, 'casualty.block0-');
}

/** Amps out of the red lead into the casualty; zero when the lead is not in the circuit. */
function sourceAmps(solution: Solution): number {
  return solution.amps.get(biteName('redCasualty')) ?? 0;
}

/** Source volts less the volts between the two places its casualty clamps bite: what the lead set itself takes. */
function leadLossVolts(solution: Solution, rescue: Rescue): number {
  const { redCasualty, blackCasualty } = rescue.clamps;
  if (!redCasualty || !blackCasualty) return 0;
  const given = voltsAcross(solution, 'source.plus', 'source.minus');
  const arrived = voltsAcross(solution, terminalNode(redCasualty), terminalNode(blackCasualty));
  return given - arrived;
}

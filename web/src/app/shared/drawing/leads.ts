import {
  CLAMP_IDS,
  type ClampId,
  isRedClamp,
  isSourceClamp,
  rescueCircuit,
  solveDc,
  voltsAcross,
} from '@voltrek/core/circuit';
import { fixed } from '@words/numbers';
import {
  anyClampOn,
  clampsInHand,
  crankingRescueOf,
  type HookupScene,
  type HookupState,
  PACK_END,
  rescueOf,
} from '@voltrek/core/hookup';
import { pointOf } from '@voltrek/core/machine';
import { GRID_TRY_SECONDS, hasLooseLeads, hasSwitch, leadRiseC } from '@voltrek/core/plan';
import {
  AMPS_TAG,
  type DrawnLead,
  type DrawnVolts,
  type CircuitDrawing,
  CIRCUIT_HEIGHT,
  CIRCUIT_WIDTH,
  SHOWN_AMPS,
  type XY,
} from './drawing';
import { type Placed, pointPlace, poleOfPack } from './placing';
import { tagPlace, underNose } from './vehicle';
import { LEADS as T } from '@words/screens/drawing';

/** The input of the circuit part of the drawing. */
export interface CircuitInput {
  readonly scene: HookupScene | null;
  readonly hookup: HookupState;
  /** The starter turns: volts and amps are those of the crank. */
  readonly isCranking: boolean;
}

export type Ends = Record<ClampId, { readonly at: XY; readonly isOn: boolean }>;

/** The place of each drawn clamp: on its point, or hanging free on the way there. */
export function clampEnds(
  { hookup, scene }: CircuitInput,
  casualty: Placed,
  donor: Placed | null,
  pack: XY | null,
): Ends {
  const middle = { x: CIRCUIT_WIDTH * 0.44, y: CIRCUIT_HEIGHT * 0.42 };
  const end = (clamp: ClampId): { at: XY; isOn: boolean } => {
    const isRed = isRedClamp(clamp);
    const isSource = isSourceClamp(clamp);
    const pointId = hookup.clamps[clamp];
    const isFixed = scene !== null && !hasLooseLeads(scene.option);
    if (isSource && pack && (isFixed || pointId !== null)) {
      return {
        at: poleOfPack(pack, isRed),
        isOn: true,
      };
    }
    const on = isSource ? donor : casualty;
    if (pointId !== null && on && pointId !== PACK_END)
      return { at: pointPlace(on, pointOf(on.machine, pointId)), isOn: true };
    return {
      at: {
        x: middle.x + (isRed ? -44 : 20) + (isSource ? -30 : 0),
        y: middle.y + (isSource ? -46 : 34) + (isRed ? 0 : 26),
      },
      isOn: false,
    };
  };
  return Object.fromEntries(CLAMP_IDS.map((clamp) => [clamp, end(clamp)])) as Ends;
}

export function drawCircuit(
  { scene, hookup, isCranking }: CircuitInput,
  ends: Ends,
  casualty: Placed,
  donor: Placed | null,
  pack: XY | null,
): Pick<CircuitDrawing, 'leads' | 'clamps' | 'volts'> {
  if (!scene) return { leads: [], clamps: [], volts: [] };
  const rescue = isCranking ? crankingRescueOf(scene, hookup) : rescueOf(scene, hookup);
  const solution = solveDc(rescueCircuit(rescue));
  const lead = (isRed: boolean, from: ClampId, to: ClampId, element: string): DrawnLead[] => {
    if (!ends[from].isOn && !ends[to].isOn) return [];
    const { path, middle } = leadPath(ends[from].at, ends[to].at, isRed);
    // Of a black lead the circuit counts what comes back from the casualty.
    const signed = solution.amps.get(element) ?? 0;
    const amps = Math.abs(signed);
    const warmsK = isCranking ? leadRiseC(scene.option.leads, amps, GRID_TRY_SECONDS, scene.tempC) : 0;
    const tag =
      amps < SHOWN_AMPS ? null : { x: middle.x - AMPS_TAG.width / 2, y: middle.y - (isRed ? 17 : 6) };
    return [{ isRed, path, amps, isForth: isRed === signed >= 0, warmsK, tag }];
  };
  const inHand = new Set(clampsInHand(scene.option));
  const drawn = CLAMP_IDS.filter((c) => inHand.has(c) && (ends[c].isOn || ends[otherEnd(c)].isOn));
  const top = casualty.machine.batteries.length - 1;
  const isConnected = anyClampOn(hookup);
  return {
    leads: [
      ...lead(true, 'redSource', 'redCasualty', 'lead.red'),
      ...lead(false, 'blackSource', 'blackCasualty', 'lead.black'),
    ],
    clamps: drawn.map((clamp) => ({
      clamp,
      at: ends[clamp].at,
      isRed: isRedClamp(clamp),
      isFree: !ends[clamp].isOn,
      label: ends[clamp].isOn ? T.on : T.free,
    })),
    volts: [
      voltsTag(tagPlace(casualty), voltsAcross(solution, `casualty.battery${top}+`, 'casualty.battery0-')),
      ...(donor ? [voltsTag(underNose(donor), voltsAcross(solution, 'source.plus', 'source.minus'))] : []),
      ...(pack && (hookup.packOn || isConnected)
        ? [
            voltsTag(
              { x: pack.x, y: pack.y - 34 },
              hookup.packOn || !hasSwitch(scene.option)
                ? voltsAcross(solution, 'source.plus', 'source.minus')
                : 0,
            ),
          ]
        : []),
    ],
  };
}

function otherEnd(clamp: ClampId): ClampId {
  const pairs: Record<ClampId, ClampId> = {
    redCasualty: 'redSource',
    redSource: 'redCasualty',
    blackCasualty: 'blackSource',
    blackSource: 'blackCasualty',
  };
  return pairs[clamp];
}

function voltsTag(at: XY, value: number): DrawnVolts {
  return { at, text: `${fixed(value, 2)} V` };
}

/** A lead hangs in a curve between its ends; red bows one way and black the other, so that they never lie on one another. */
function leadPath(from: XY, to: XY, isRed: boolean): { path: string; middle: XY } {
  const dx = to.x - from.x;
  const dy = to.y - from.y;
  const span = Math.hypot(dx, dy) || 1;
  const bow = Math.min(58, span * 0.28) * (isRed ? -1 : 1);
  const nx = (-dy / span) * bow;
  const ny = (dx / span) * bow;
  const c1 = { x: from.x + dx * 0.25 + nx, y: from.y + dy * 0.25 + ny + 16 };
  const c2 = { x: from.x + dx * 0.75 + nx, y: from.y + dy * 0.75 + ny + 16 };
  const f = (n: number): string => n.toFixed(1);
  return {
    path: `M${f(from.x)} ${f(from.y)}C${f(c1.x)} ${f(c1.y)} ${f(c2.x)} ${f(c2.y)} ${f(to.x)} ${f(to.y)}`,
    middle: { x: (from.x + to.x) / 2 + nx * 0.75, y: (from.y + to.y) / 2 + ny * 0.75 + 12 },
  };
}

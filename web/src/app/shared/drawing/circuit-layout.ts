import type { Probing } from '@voltrek/core/diagnosis';
import type { HookupScene, HookupState, HookupStep } from '@voltrek/core/hookup';
import type { Machine } from '@voltrek/core/machine';
import { hasSwitch } from '@voltrek/core/plan';
import type { SourceKind } from '@voltrek/core/sources';
import { CIRCUIT_HEIGHT, CIRCUIT_WIDTH, type CircuitDrawing, type XY } from './drawing';
import { clampEnds, drawCircuit } from './leads';
import { pinsOf, polePins } from './pins';
import { probesAt } from './probes';
import { packPlace, type Placed, placeCasualty, placeDonor } from './placing';
import { targetOf } from './target';
import { drawVehicle, takenBatteries } from './vehicle';
import { messagesOf } from '@words/messages-of';
import { CIRCUIT_LAYOUT as T } from '@words/screens/drawing';

export interface CircuitInput {
  readonly machine: Machine;
  readonly donor: Machine | null;
  readonly scene: HookupScene | null;
  readonly hookup: HookupState;
  readonly step: HookupStep | null;
  readonly isCranking: boolean;
  /** Numbers on the points, for finding them. */
  readonly showPins: boolean;
  /** Numbers on some points of one side, to choose among; the poles of spare batteries are points of the source's side. */
  readonly pinsFor?: { readonly isDonor: boolean; readonly pointIds: readonly string[] } | null;
  /** The place of an instrument on the machine; it stands over the numbers of its points. */
  readonly probing?: Probing | null;
  /** The name of the drawn machine here. */
  readonly machineName: string;
}

/** The source beside the casualty when no donor stands there. */
const PACK_NAMES: Readonly<Partial<Record<SourceKind, string>>> = messagesOf('packName');

/** The drawing of a rescue as its clamps stand now. */
export function layoutCircuit(input: CircuitInput): CircuitDrawing {
  const lender = input.scene?.option.sourceKind === 'donor' ? input.donor : null;
  const casualty = placeCasualty(input.machine, lender, input.scene !== null);
  const donor = lender ? placeDonor(lender, casualty) : null;
  const pack = input.scene && !lender ? packPlace() : null;
  const ends = clampEnds(input, casualty, donor, pack);
  const hookup = input.hookup.clamps;
  const vehicles = [
    ...(donor
      ? [drawVehicle(donor, T.donor, takenBatteries(donor, [hookup.redSource, hookup.blackSource]))]
      : []),
    drawVehicle(
      casualty,
      input.machineName,
      takenBatteries(casualty, [hookup.redCasualty, hookup.blackCasualty]),
      input.showPins,
    ),
  ];
  const pins = pinsFor(input, casualty, donor, pack);
  const circuit = drawCircuit(input, ends, casualty, donor, pack);
  return {
    width: CIRCUIT_WIDTH,
    height: CIRCUIT_HEIGHT,
    vehicles,
    pack:
      pack && input.scene
        ? {
            at: pack,
            name: PACK_NAMES[input.scene.option.sourceKind] ?? '',
            isOn: hasSwitch(input.scene.option) ? input.hookup.packOn : null,
          }
        : null,
    pins,
    ...circuit,
    probes: probesAt(input.probing ?? null, pins),
    target: targetOf(input.step, casualty, donor, ends, circuit),
  };
}

function pinsFor(
  { showPins, pinsFor: some }: CircuitInput,
  casualty: Placed,
  donor: Placed | null,
  pack: XY | null,
): CircuitDrawing['pins'] {
  if (showPins) return pinsOf(casualty);
  if (some?.isDonor && pack) return polePins(pack).filter(({ pointId }) => some.pointIds.includes(pointId));
  const on = some?.isDonor ? donor : casualty;
  return some && on ? pinsOf(on, some.pointIds) : [];
}

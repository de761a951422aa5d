import {
  anyClampOn,
  CLAMP_IDS,
  type ClampId,
  clampsInHand,
  type HookupScene,
  type HookupState,
  type HookupStep,
  type Machine,
  type PlanPoint,
  PACK_END,
  pointOf,
  rescueCircuit,
  rescueOf,
  solveDc,
  voltsAcross,
} from '@voltrek/core';

/** A place on the drawing, in its own units. */
export interface XY {
  readonly x: number;
  readonly y: number;
}

export interface DrawnVehicle {
  readonly name: string;
  readonly namePlace: XY;
  readonly outline: string;
  readonly glass: readonly string[];
  readonly wheels: readonly string[];
  readonly blocks: readonly { readonly path: string; readonly label: XY; readonly text: string }[];
  /** A torn edge where the drawing leaves the rest of the vehicle out. */
  readonly tear: string | null;
}

export interface DrawnPin {
  readonly number: number;
  readonly pointId: string;
  readonly label: string;
  readonly at: XY;
  readonly isPositive: boolean;
}

export interface DrawnClamp {
  readonly clamp: ClampId;
  readonly at: XY;
  readonly isRed: boolean;
  readonly isFree: boolean;
  readonly label: string;
}

export interface DrawnLead {
  readonly isRed: boolean;
  readonly path: string;
  readonly amps: number;
  readonly label: XY;
}

export interface DrawnVolts {
  readonly at: XY;
  readonly text: string;
}

/** Everything the Loop shows, computed from geometry and circuit. */
export interface LoopDrawing {
  readonly width: number;
  readonly height: number;
  readonly vehicles: readonly DrawnVehicle[];
  readonly pack: { readonly at: XY; readonly name: string; readonly isOn: boolean } | null;
  readonly pins: readonly DrawnPin[];
  readonly leads: readonly DrawnLead[];
  readonly clamps: readonly DrawnClamp[];
  readonly volts: readonly DrawnVolts[];
  readonly target: { readonly at: XY; readonly isRemoval: boolean } | null;
}

export const LOOP_WIDTH = 440;
export const LOOP_HEIGHT = 560;
const MARGIN = 16;
/** Largest scale, drawing units per millimetre, so that a motorcycle is not drawn as large as a truck. */
const MAX_SCALE = 0.15;
/** How much of the donor is drawn: its front, where the block is. */
const DONOR_SHOWN_MM = 2300;
/** Gap between the two vehicles: close, not touching. */
const GAP_MM = 600;
const PACK_SIZE = { width: 74, height: 56 } as const;

interface Placed {
  readonly machine: Machine;
  readonly at: (point: PlanPoint) => XY;
  readonly scale: number;
}

export interface LoopInput {
  readonly machine: Machine;
  readonly donor: Machine | null;
  readonly scene: HookupScene | null;
  readonly hookup: HookupState;
  readonly step: HookupStep | null;
  /** Numbers on the points, for finding them. */
  readonly showPins: boolean;
}

/** The drawing of a rescue as its clamps stand now. */
export function layoutLoop(input: LoopInput): LoopDrawing {
  const withDonor = input.scene?.option.sourceKind === 'donor' && input.donor !== null;
  const casualty = placeCasualty(input.machine, withDonor, input.scene !== null);
  const donor = withDonor && input.donor ? placeDonor(input.donor, casualty) : null;
  const pack = input.scene && !withDonor ? packPlace() : null;
  const ends = clampEnds(input, casualty, donor, pack);
  const vehicles = [
    ...(donor ? [drawDonor(donor)] : []),
    drawVehicle(casualty, 'casualty'),
  ];
  return {
    width: LOOP_WIDTH,
    height: LOOP_HEIGHT,
    vehicles,
    pack: pack && input.scene ? { at: pack, name: 'pack', isOn: input.hookup.packOn } : null,
    pins: input.showPins ? pinsOf(casualty) : [],
    ...drawCircuit(input, ends, casualty, donor, pack),
    target: targetOf(input.step, casualty, donor, ends),
  };
}

function placeCasualty(machine: Machine, withDonor: boolean, withSource: boolean): Placed {
  const { widthMm, lengthMm } = machine;
  const nameRoom = 18;
  const tall = LOOP_HEIGHT - 2 * MARGIN - nameRoom;
  const wide = LOOP_WIDTH - 2 * MARGIN - (withSource && !withDonor ? PACK_SIZE.width + 90 : 0);
  const spanMm = withDonor ? lengthMm + GAP_MM + DONOR_SHOWN_MM : lengthMm;
  const scale = Math.min(tall / spanMm, (withDonor ? wide * 0.62 : wide) / widthMm, MAX_SCALE);
  const left = withSource ? LOOP_WIDTH - MARGIN - widthMm * scale : (LOOP_WIDTH - widthMm * scale) / 2;
  const top = withDonor
    ? LOOP_HEIGHT - MARGIN - nameRoom - lengthMm * scale
    : MARGIN + Math.max(0, (tall - lengthMm * scale) / 2);
  return { machine, scale, at: ({ xMm, yMm }) => ({ x: left + xMm * scale, y: top + yMm * scale }) };
}

/** The donor stands nose to nose, to the left, turned half round. */
function placeDonor(machine: Machine, casualty: Placed): Placed {
  const { scale } = casualty;
  const noseY = casualty.at({ xMm: 0, yMm: 0 }).y - GAP_MM * scale * 0.55;
  const right = MARGIN + 26 + machine.widthMm * scale;
  return { machine, scale, at: ({ xMm, yMm }) => ({ x: right - xMm * scale, y: noseY - yMm * scale }) };
}

function packPlace(): XY {
  return { x: MARGIN + 8, y: LOOP_HEIGHT * 0.3 };
}

function polygon(points: readonly XY[]): string {
  return `M${points.map(({ x, y }) => `${x.toFixed(1)} ${y.toFixed(1)}`).join('L')}Z`;
}

function rectPath({ at }: Placed, rect: { xMm: number; yMm: number; widthMm: number; lengthMm: number }): string {
  const { xMm, yMm, widthMm, lengthMm } = rect;
  return polygon([
    at({ xMm, yMm }),
    at({ xMm: xMm + widthMm, yMm }),
    at({ xMm: xMm + widthMm, yMm: yMm + lengthMm }),
    at({ xMm, yMm: yMm + lengthMm }),
  ]);
}

function drawVehicle(placed: Placed, name: string): DrawnVehicle {
  const { machine, at } = placed;
  const foot = at({ xMm: machine.widthMm / 2, yMm: machine.lengthMm });
  return {
    name,
    namePlace: { x: foot.x, y: foot.y + 15 },
    outline: polygon(machine.outline.map(at)),
    glass: machine.glass.map((g) => polygon(g.map(at))),
    wheels: machine.wheels.map((w) => rectPath(placed, w)),
    blocks: machine.blocks.map((block, i) => {
      const { xMm, yMm, widthMm, lengthMm } = block.rect;
      return {
        path: rectPath(placed, block.rect),
        label: at({ xMm: xMm + widthMm / 2, yMm: yMm + lengthMm / 2 }),
        text: machine.blocks.length > 1 ? (i === 0 ? 'lower' : 'upper') : 'block',
      };
    }),
    tear: null,
  };
}

/** Only the donor's front is drawn, ending in a torn edge. */
function drawDonor(placed: Placed): DrawnVehicle {
  const { machine, at } = placed;
  const whole = drawVehicle(placed, 'donor');
  const inside = machine.outline.filter((p) => p.yMm <= DONOR_SHOWN_MM);
  const left = { xMm: 0, yMm: DONOR_SHOWN_MM };
  const right = { xMm: machine.widthMm, yMm: DONOR_SHOWN_MM };
  const teeth = Array.from({ length: 7 }, (_, i) => ({
    xMm: (machine.widthMm * (6 - i)) / 6,
    yMm: DONOR_SHOWN_MM + (i % 2 === 0 ? 0 : 110),
  }));
  const front = [...inside.slice(0, splitIndex(inside)), right, ...teeth.slice(1, -1), left, ...inside.slice(splitIndex(inside))];
  const nose = at({ xMm: machine.widthMm / 2, yMm: DONOR_SHOWN_MM * 0.86 });
  return {
    ...whole,
    outline: polygon(front.map(at)),
    wheels: machine.wheels.filter((w) => w.yMm < DONOR_SHOWN_MM).map((w) => rectPath(placed, w)),
    glass: machine.glass.filter((g) => g.every((p) => p.yMm < DONOR_SHOWN_MM)).map((g) => polygon(g.map(at))),
    namePlace: nose,
    tear: polygon(teeth.map(at)),
  };
}

/** Where the outline crosses from the right side to the left once its tail is cut away. */
function splitIndex(points: readonly PlanPoint[]): number {
  const deepest = Math.max(...points.map((p) => p.yMm));
  return points.findIndex((p) => p.yMm === deepest) + 1;
}

function pinsOf({ machine, at }: Placed): DrawnPin[] {
  return machine.points.map((point, i) => ({
    number: i + 1,
    pointId: point.id,
    label: point.label,
    at: at(point),
    isPositive: point.kind === 'red-post' || point.kind === 'block-positive' || point.kind === 'latch-wire-positive',
  }));
}

type Ends = Record<ClampId, { readonly at: XY; readonly isOn: boolean }>;

/** Where each clamp is drawn: on its point, or hanging free on the way there. */
function clampEnds({ hookup, scene }: LoopInput, casualty: Placed, donor: Placed | null, pack: XY | null): Ends {
  const middle = { x: LOOP_WIDTH * 0.44, y: LOOP_HEIGHT * 0.42 };
  const end = (clamp: ClampId): { at: XY; isOn: boolean } => {
    const isRed = clamp === 'redCasualty' || clamp === 'redSource';
    const isSource = clamp === 'redSource' || clamp === 'blackSource';
    if (isSource && pack && scene) {
      return { at: { x: pack.x + PACK_SIZE.width * (isRed ? 0.28 : 0.72), y: pack.y + PACK_SIZE.height }, isOn: true };
    }
    const pointId = hookup.clamps[clamp];
    const on = isSource ? donor : casualty;
    if (pointId !== null && on && pointId !== PACK_END) return { at: on.at(pointOf(on.machine, pointId)), isOn: true };
    return {
      at: { x: middle.x + (isRed ? -44 : 20) + (isSource ? -30 : 0), y: middle.y + (isSource ? -46 : 34) + (isRed ? 0 : 26) },
      isOn: false,
    };
  };
  return Object.fromEntries(CLAMP_IDS.map((clamp) => [clamp, end(clamp)])) as Ends;
}

function drawCircuit(
  { scene, hookup }: LoopInput,
  ends: Ends,
  casualty: Placed,
  donor: Placed | null,
  pack: XY | null,
): Pick<LoopDrawing, 'leads' | 'clamps' | 'volts'> {
  if (!scene) return { leads: [], clamps: [], volts: [] };
  const solution = solveDc(rescueCircuit(rescueOf(scene, hookup)));
  const lead = (isRed: boolean, from: ClampId, to: ClampId, element: string): DrawnLead[] => {
    if (!ends[from].isOn && !ends[to].isOn) return [];
    const { path, middle } = leadPath(ends[from].at, ends[to].at, isRed);
    return [{ isRed, path, amps: Math.abs(solution.amps.get(element) ?? 0), label: middle }];
  };
  const inHand = new Set(clampsInHand(scene.option));
  const drawn = CLAMP_IDS.filter((c) => inHand.has(c) && (ends[c].isOn || ends[otherEnd(c)].isOn));
  const top = casualty.machine.blocks.length - 1;
  const isConnected = anyClampOn(hookup);
  return {
    leads: [
      ...lead(true, 'redSource', 'redCasualty', 'lead.red'),
      ...lead(false, 'blackSource', 'blackCasualty', 'lead.black'),
    ],
    clamps: drawn.map((clamp) => ({
      clamp,
      at: ends[clamp].at,
      isRed: clamp === 'redCasualty' || clamp === 'redSource',
      isFree: !ends[clamp].isOn,
      label: ends[clamp].isOn ? 'on' : 'free',
    })),
    volts: [
      voltsTag(casualtyTagPlace(casualty), voltsAcross(solution, `casualty.block${top}+`, 'casualty.block0-')),
      ...(donor ? [voltsTag(donorTagPlace(donor), voltsAcross(solution, 'source.plus', 'source.minus'))] : []),
      ...(pack && (hookup.packOn || isConnected)
        ? [voltsTag({ x: pack.x, y: pack.y - 34 }, hookup.packOn ? voltsAcross(solution, 'source.plus', 'source.minus') : 0)]
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
  return { at, text: `${value.toFixed(2)} V` };
}

function casualtyTagPlace({ machine, at }: Placed): XY {
  const nose = at({ xMm: machine.widthMm / 2, yMm: 0 });
  return { x: Math.min(nose.x - 10, LOOP_WIDTH - MARGIN - 96), y: Math.max(nose.y - 30, 4) };
}

function donorTagPlace({ machine, at }: Placed): XY {
  const flank = at({ xMm: 0, yMm: machine.blocks[0]!.rect.yMm });
  return { x: flank.x + 10, y: flank.y - 16 };
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

function targetOf(
  step: HookupStep | null,
  casualty: Placed,
  donor: Placed | null,
  ends: Ends,
): LoopDrawing['target'] {
  if (!step) return null;
  const { action } = step;
  if (action.kind === 'detach') return ends[action.clamp].isOn ? { at: ends[action.clamp].at, isRemoval: true } : null;
  if (action.kind !== 'attach') return null;
  const isSource = action.clamp === 'redSource' || action.clamp === 'blackSource';
  const on = isSource ? donor : casualty;
  return on ? { at: on.at(pointOf(on.machine, action.pointId)), isRemoval: false } : null;
}

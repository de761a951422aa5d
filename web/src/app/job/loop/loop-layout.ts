import {
  anyClampOn,
  CLAMP_IDS,
  type ClampId,
  clampsInHand,
  type HookupScene,
  type HookupState,
  type HookupStep,
  type Machine,
  type MachinePoint,
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
}

export interface DrawnPin {
  readonly number: number;
  readonly pointId: string;
  readonly label: string;
  /** Where the point truly is, and where its number stands. */
  readonly point: XY;
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
  readonly target: DrawnTarget | null;
}

/** Where hands go next: a ring on the point, and a flag on whichever side is free. */
export interface DrawnTarget {
  readonly at: XY;
  readonly flag: XY;
  readonly pole: string;
  readonly isRemoval: boolean;
}

export const LOOP_WIDTH = 440;
export const LOOP_HEIGHT = 560;
const MARGIN = 16;
/** Largest scale, drawing units per millimetre, so that a motorcycle is not drawn as large as a truck. */
const MAX_SCALE = 0.15;
/** A vehicle is drawn this far past its last point, and cut off with a torn edge there, mm. */
const PAST_POINTS_MM = 650;
/** Smallest size a block is drawn at, so that two clamps side by side stay apart, drawing units. */
const BLOCK_LEAST = { width: 74, height: 34 } as const;
/** Rounding of bodywork corners, drawing units. */
const CORNER = 16;
/** Pins nearer than this are pushed apart, drawing units. */
const PIN_APART = 30;
/** Gap between the two vehicles: close, not touching. */
const GAP_MM = 600;
const PACK_SIZE = { width: 74, height: 56 } as const;

interface Placed {
  readonly machine: Machine;
  readonly at: (point: PlanPoint) => XY;
  readonly scale: number;
  /** How far back it is drawn, mm; its whole length when nothing is cut. */
  readonly shownMm: number;
}

export interface LoopInput {
  readonly machine: Machine;
  readonly donor: Machine | null;
  readonly scene: HookupScene | null;
  readonly hookup: HookupState;
  readonly step: HookupStep | null;
  /** Numbers on the points, for finding them. */
  readonly showPins: boolean;
  /** What the drawn machine is called here. */
  readonly machineName: string;
}

/** The drawing of a rescue as its clamps stand now. */
export function layoutLoop(input: LoopInput): LoopDrawing {
  const lender = input.scene?.option.sourceKind === 'donor' ? input.donor : null;
  const casualty = placeCasualty(input.machine, lender, input.scene !== null);
  const donor = lender ? placeDonor(lender, casualty) : null;
  const pack = input.scene && !lender ? packPlace() : null;
  const ends = clampEnds(input, casualty, donor, pack);
  const hookup = input.hookup.clamps;
  const vehicles = [
    ...(donor
      ? [drawVehicle(donor, 'donor', takenBlocks(donor, [hookup.redSource, hookup.blackSource]))]
      : []),
    drawVehicle(
      casualty,
      input.machineName,
      takenBlocks(casualty, [hookup.redCasualty, hookup.blackCasualty]),
    ),
  ];
  const circuit = drawCircuit(input, ends, casualty, donor, pack);
  return {
    width: LOOP_WIDTH,
    height: LOOP_HEIGHT,
    vehicles,
    pack: pack && input.scene ? { at: pack, name: 'pack', isOn: input.hookup.packOn } : null,
    pins: input.showPins ? pinsOf(casualty) : [],
    ...circuit,
    target: targetOf(input.step, casualty, donor, ends, circuit),
  };
}

/** Front part that holds every point, or the whole when cutting would gain little. */
function neededMm({ points, blocks, lengthMm }: Machine, onlyKinds?: readonly string[]): number {
  const used = points.filter((p) => !onlyKinds || onlyKinds.includes(p.kind));
  const last = Math.max(...used.map((p) => p.yMm), ...blocks.map((b) => b.rect.yMm + b.rect.lengthMm));
  const cut = last + PAST_POINTS_MM;
  return cut < lengthMm * 0.75 ? cut : lengthMm;
}

function placeCasualty(machine: Machine, donor: Machine | null, withSource: boolean): Placed {
  const { widthMm, lengthMm } = machine;
  const nameRoom = 18;
  const tall = LOOP_HEIGHT - 2 * MARGIN - nameRoom;
  const wide = LOOP_WIDTH - 2 * MARGIN - (withSource && !donor ? PACK_SIZE.width + 90 : 0);
  const shownMm = donor ? neededMm(machine) : lengthMm;
  const spanMm = donor ? shownMm + GAP_MM + neededMm(donor) : lengthMm;
  const scale = Math.min(tall / spanMm, (donor ? wide * 0.6 : wide) / widthMm, MAX_SCALE);
  const left = withSource ? LOOP_WIDTH - MARGIN - widthMm * scale : (LOOP_WIDTH - widthMm * scale) / 2;
  const slack = Math.max(0, (tall - spanMm * scale) / 2);
  const top = donor ? LOOP_HEIGHT - MARGIN - nameRoom - slack - shownMm * scale : MARGIN + slack;
  return { machine, scale, shownMm, at: ({ xMm, yMm }) => ({ x: left + xMm * scale, y: top + yMm * scale }) };
}

/** The donor stands nose to nose, to the left, turned half round. */
function placeDonor(machine: Machine, casualty: Placed): Placed {
  const { scale } = casualty;
  const noseY = casualty.at({ xMm: 0, yMm: 0 }).y - GAP_MM * scale;
  const right = MARGIN + machine.widthMm * scale;
  const shownMm = neededMm(machine);
  return {
    machine,
    scale,
    shownMm,
    at: ({ xMm, yMm }) => ({ x: right - xMm * scale, y: noseY - yMm * scale }),
  };
}

function packPlace(): XY {
  return { x: MARGIN + 8, y: LOOP_HEIGHT * 0.3 };
}

function polygon(points: readonly XY[]): string {
  return `M${points.map(xy).join('L')}Z`;
}

function xy({ x, y }: XY): string {
  return `${x.toFixed(1)} ${y.toFixed(1)}`;
}

/** A closed outline with its corners rounded: each vertex becomes a curve between points on its two edges. */
function rounded(points: readonly XY[], isSharp: (index: number) => boolean = () => false): string {
  const toward = (from: XY, to: XY): XY => {
    const span = Math.hypot(to.x - from.x, to.y - from.y) || 1;
    const reach = Math.min(CORNER, span / 2) / span;
    return { x: from.x + (to.x - from.x) * reach, y: from.y + (to.y - from.y) * reach };
  };
  const corners = points.map((p, i) => {
    const before = points[(i + points.length - 1) % points.length]!;
    const after = points[(i + 1) % points.length]!;
    if (isSharp(i)) return { enter: p, p, leave: p };
    return { enter: toward(p, before), p, leave: toward(p, after) };
  });
  return `M${xy(corners[0]!.enter)}${corners.map((c) => `L${xy(c.enter)}Q${xy(c.p)} ${xy(c.leave)}`).join('')}Z`;
}

function rectPath(
  { at }: Placed,
  rect: { xMm: number; yMm: number; widthMm: number; lengthMm: number },
): string {
  const { xMm, yMm, widthMm, lengthMm } = rect;
  return polygon([
    at({ xMm, yMm }),
    at({ xMm: xMm + widthMm, yMm }),
    at({ xMm: xMm + widthMm, yMm: yMm + lengthMm }),
    at({ xMm, yMm: yMm + lengthMm }),
  ]);
}

/** Blocks of a vehicle that one of these clamps bites. */
function takenBlocks({ machine }: Placed, pointIds: readonly (string | null)[]): ReadonlySet<number> {
  return new Set(machine.points.filter((p) => pointIds.includes(p.id)).map((p) => p.block ?? -1));
}

function drawVehicle(placed: Placed, name: string, takenBlocks: ReadonlySet<number>): DrawnVehicle {
  const { machine, at, shownMm } = placed;
  const isCut = shownMm < machine.lengthMm;
  const inside = (yMm: number): boolean => yMm <= shownMm;
  const foot = at({ xMm: machine.widthMm / 2, yMm: shownMm });
  const isTurned = at({ xMm: 0, yMm: 1 }).y < at({ xMm: 0, yMm: 0 }).y;
  return {
    name,
    // A turned donor has its name under its nose, beside its volts, where the leads do not run.
    namePlace: isTurned
      ? { x: underNose(placed).x + TAG.width / 2, y: underNose(placed).y + TAG.height + 17 }
      : { x: foot.x, y: foot.y + 15 },
    outline: isCut ? cutOutline(placed) : rounded(machine.outline.map(at)),
    glass: machine.glass.filter((g) => g.every((p) => inside(p.yMm))).map((g) => polygon(g.map(at))),
    wheels: machine.wheels.filter((w) => inside(w.yMm + w.lengthMm)).map((w) => rectPath(placed, w)),
    blocks: machine.blocks.map((_, i) => {
      const box = blockBox(placed, i);
      return {
        path: polygon([
          { x: box.x, y: box.y },
          { x: box.x + box.width, y: box.y },
          { x: box.x + box.width, y: box.y + box.height },
          { x: box.x, y: box.y + box.height },
        ]),
        label: { x: box.x + box.width / 2, y: box.y + box.height / 2 + 5 },
        // A clamp on the block takes the place of its name.
        text: takenBlocks.has(i) ? '' : machine.blocks.length > 1 ? (i === 0 ? 'lower' : 'upper') : 'block',
      };
    }),
  };
}

/** The outline of the part that is drawn, ending in a torn edge. The outline runs clockwise from the nose. */
function cutOutline({ machine, at, shownMm }: Placed): string {
  const { outline, widthMm } = machine;
  const rightSide = outline.filter((p) => p.yMm < shownMm && p.xMm >= widthMm / 2);
  const leftSide = outline.filter((p) => p.yMm < shownMm && p.xMm < widthMm / 2);
  const rightX = Math.max(...rightSide.map((p) => p.xMm));
  const leftX = Math.min(...leftSide.map((p) => p.xMm));
  const teeth = Array.from({ length: 9 }, (_, i) => ({
    xMm: rightX - ((rightX - leftX) * i) / 8,
    yMm: shownMm - (i % 2 === 0 ? 0 : 110),
  }));
  const first = leftSide.findIndex((p) => p.yMm === Math.min(...leftSide.map((q) => q.yMm)));
  const left = [...leftSide.slice(first + 1), ...leftSide.slice(0, first + 1)];
  const isTooth = (i: number): boolean => i >= rightSide.length && i < rightSide.length + teeth.length;
  return rounded([...rightSide, ...teeth, ...left].map(at), isTooth);
}

interface Box extends XY {
  readonly width: number;
  readonly height: number;
}

/** A block as drawn: never smaller than two clamps need, and kept inside the body. */
function blockBox({ machine, at, scale }: Placed, index: number): Box {
  const { rect } = machine.blocks[index]!;
  const width = Math.max(rect.widthMm * scale, BLOCK_LEAST.width);
  const height = Math.max(rect.lengthMm * scale, BLOCK_LEAST.height);
  const middle = at({ xMm: rect.xMm + rect.widthMm / 2, yMm: rect.yMm + rect.lengthMm / 2 });
  const sides = [at({ xMm: 0, yMm: 0 }).x, at({ xMm: machine.widthMm, yMm: 0 }).x];
  const left = Math.min(...sides) + 5;
  const right = Math.max(...sides) - 5 - width;
  // Blocks of a string are pushed apart by as much as they were enlarged.
  const grown =
    machine.blocks.length > 1 ? (index - 0.5) * Math.max(0, height + 22 - rect.lengthMm * scale) : 0;
  return {
    x: Math.min(Math.max(middle.x - width / 2, left), Math.max(left, right)),
    y: middle.y - height / 2 + grown,
    width,
    height,
  };
}

/** Where a point is drawn: a terminal on its drawn block, anything else where it truly is. */
function pointPlace(placed: Placed, point: MachinePoint): XY {
  if (point.block === undefined) return placed.at(point);
  const box = blockBox(placed, point.block);
  const onLeft =
    (point.kind === 'block-positive') === placed.at({ xMm: 0, yMm: 0 }).x < placed.at({ xMm: 1, yMm: 0 }).x;
  return { x: box.x + box.width * (onLeft ? 0.2 : 0.8), y: box.y + box.height / 2 };
}

function pinsOf(placed: Placed): DrawnPin[] {
  const { machine } = placed;
  const points = machine.points.map((point) => pointPlace(placed, point));
  const apart = pushedApart(points);
  return machine.points.map((point, i) => ({
    number: i + 1,
    pointId: point.id,
    label: point.label,
    point: points[i]!,
    at: apart[i]!,
    isPositive:
      point.kind === 'red-post' || point.kind === 'block-positive' || point.kind === 'latch-wire-positive',
  }));
}

/** The same places, moved as little as it takes to stand clear of one another and inside the drawing. */
function pushedApart(points: readonly XY[]): XY[] {
  const places = points.map((p) => ({ ...p }));
  for (let round = 0; round < 30; round++) {
    for (let i = 0; i < places.length; i++) {
      for (let j = i + 1; j < places.length; j++) {
        const a = places[i]!;
        const b = places[j]!;
        const dx = b.x - a.x || 0.01;
        const dy = b.y - a.y;
        const span = Math.hypot(dx, dy);
        if (span >= PIN_APART) continue;
        const push = (PIN_APART - span) / 2 / span;
        a.x -= dx * push;
        a.y -= dy * push;
        b.x += dx * push;
        b.y += dy * push;
      }
    }
    for (const p of places) {
      p.x = Math.min(Math.max(p.x, MARGIN), LOOP_WIDTH - MARGIN);
      p.y = Math.min(Math.max(p.y, MARGIN), LOOP_HEIGHT - MARGIN);
    }
  }
  return places;
}

type Ends = Record<ClampId, { readonly at: XY; readonly isOn: boolean }>;

/** Where each clamp is drawn: on its point, or hanging free on the way there. */
function clampEnds(
  { hookup, scene }: LoopInput,
  casualty: Placed,
  donor: Placed | null,
  pack: XY | null,
): Ends {
  const middle = { x: LOOP_WIDTH * 0.44, y: LOOP_HEIGHT * 0.42 };
  const end = (clamp: ClampId): { at: XY; isOn: boolean } => {
    const isRed = clamp === 'redCasualty' || clamp === 'redSource';
    const isSource = clamp === 'redSource' || clamp === 'blackSource';
    if (isSource && pack && scene) {
      return {
        at: { x: pack.x + PACK_SIZE.width, y: pack.y + PACK_SIZE.height * (isRed ? 0.28 : 0.72) },
        isOn: true,
      };
    }
    const pointId = hookup.clamps[clamp];
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
      voltsTag(tagPlace(casualty), voltsAcross(solution, `casualty.block${top}+`, 'casualty.block0-')),
      ...(donor ? [voltsTag(underNose(donor), voltsAcross(solution, 'source.plus', 'source.minus'))] : []),
      ...(pack && (hookup.packOn || isConnected)
        ? [
            voltsTag(
              { x: pack.x, y: pack.y - 34 },
              hookup.packOn ? voltsAcross(solution, 'source.plus', 'source.minus') : 0,
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
  return { at, text: `${value.toFixed(2)} V` };
}

const TAG = { width: 92, height: 28 } as const;

/** Beside the nose of a turned donor. */
function underNose({ machine, at }: Placed): XY {
  const nose = at({ xMm: machine.widthMm, yMm: 0 });
  return { x: nose.x + 6, y: nose.y + 12 };
}

/** Volts stand inside the body, behind whatever is there: leads and flags stay outside. */
function tagPlace(placed: Placed): XY {
  const { machine, at, shownMm } = placed;
  const glassMm = Math.max(
    0,
    ...machine.glass
      .flat()
      .filter((p) => p.yMm < shownMm * 0.7)
      .map((p) => p.yMm),
  );
  const places = [0.45, 0.65, 0.25, 0.85].map((share) => {
    const middle = at({ xMm: machine.widthMm / 2, yMm: glassMm + (shownMm - glassMm) * share });
    return { x: middle.x - TAG.width / 2, y: middle.y - TAG.height / 2 };
  });
  const isClear = (place: XY): boolean =>
    machine.blocks.every((_, i) => {
      const box = blockBox(placed, i);
      return !overlaps(place, TAG, box, box);
    });
  return places.find(isClear) ?? places[0]!;
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

const FLAG = { width: 106, height: 32 } as const;
const RING = 21;
const POLE = 24;

function targetOf(
  step: HookupStep | null,
  casualty: Placed,
  donor: Placed | null,
  ends: Ends,
  circuit: Pick<LoopDrawing, 'clamps' | 'volts'>,
): DrawnTarget | null {
  const action = step?.action;
  if (action?.kind === 'detach' && ends[action.clamp].isOn)
    return flagged(ends[action.clamp].at, true, circuit);
  if (action?.kind !== 'attach') return null;
  const isSource = action.clamp === 'redSource' || action.clamp === 'blackSource';
  const on = isSource ? donor : casualty;
  return on ? flagged(pointPlace(on, pointOf(on.machine, action.pointId)), false, circuit) : null;
}

/** Tries the flag on each side and takes the one that covers least. */
function flagged(
  at: XY,
  isRemoval: boolean,
  { clamps, volts }: Pick<LoopDrawing, 'clamps' | 'volts'>,
): DrawnTarget {
  const reach = RING + POLE;
  const middleY = at.y - FLAG.height / 2;
  const middleX = Math.min(Math.max(at.x - FLAG.width / 2, 0), LOOP_WIDTH - FLAG.width);
  const sides = [
    { flag: { x: at.x - reach - FLAG.width, y: middleY }, pole: `M${-RING} 0H${-reach}` },
    { flag: { x: at.x + reach, y: middleY }, pole: `M${RING} 0H${reach}` },
    { flag: { x: middleX, y: at.y + reach }, pole: `M0 ${RING}V${reach}` },
    { flag: { x: middleX, y: at.y - reach - FLAG.height }, pole: `M0 ${-RING}V${-reach}` },
  ];
  const covers = ({ flag }: (typeof sides)[number]): number => {
    const isOut =
      flag.x < 0 || flag.y < 0 || flag.x + FLAG.width > LOOP_WIDTH || flag.y + FLAG.height > LOOP_HEIGHT;
    const hitsClamp = clamps.filter((c) =>
      overlaps(flag, FLAG, { x: c.at.x - 18, y: c.at.y - 18 }, { width: 36, height: 36 }),
    );
    const hitsVolts = volts.filter((v) => overlaps(flag, FLAG, v.at, TAG));
    return (isOut ? 10 : 0) + hitsClamp.length * 3 + hitsVolts.length * 2;
  };
  const best = sides.reduce((a, b) => (covers(b) < covers(a) ? b : a));
  return { at, isRemoval, ...best };
}

interface Size {
  readonly width: number;
  readonly height: number;
}

function overlaps(a: XY, aSize: Size, b: XY, bSize: Size): boolean {
  return (
    a.x < b.x + bSize.width && b.x < a.x + aSize.width && a.y < b.y + bSize.height && b.y < a.y + aSize.height
  );
}

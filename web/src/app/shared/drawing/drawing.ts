import type { ClampId } from '@voltrek/core/circuit';
import type { ZoneKind } from '@voltrek/core/machine';

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
  readonly batteries: readonly { readonly path: string; readonly label: XY; readonly text: string }[];
  /** Hot and moving parts, where points are being found. */
  readonly zones: readonly { readonly path: string; readonly kind: ZoneKind }[];
}

export interface DrawnPin {
  readonly number: number;
  readonly pointId: string;
  readonly label: string;
  /** The true place of the point, and the place of its number. */
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

/** A probe, or the jaws of a clamp meter: its tip, and the handle that it is held by. */
export interface DrawnProbe {
  readonly part: 'red' | 'black' | 'jaws';
  readonly tip: XY;
  readonly handle: XY;
}

export interface DrawnLead {
  readonly isRed: boolean;
  readonly path: string;
  readonly amps: number;
  /** The current goes from the source's end to the casualty's. */
  readonly isForth: boolean;
  /** The warmth that a try at these amps gives the lead, K; 0 while nothing cranks. */
  readonly warmsK: number;
  /** The place of its amps; null while it carries nothing worth a figure. */
  readonly tag: XY | null;
}

export interface DrawnVolts {
  readonly at: XY;
  readonly text: string;
}

/** Everything the Circuit shows, computed from geometry and circuit. */
export interface CircuitDrawing {
  readonly width: number;
  readonly height: number;
  readonly vehicles: readonly DrawnVehicle[];
  /** `isOn` is null for what has no switch. */
  readonly pack: { readonly at: XY; readonly name: string; readonly isOn: boolean | null } | null;
  readonly pins: readonly DrawnPin[];
  readonly leads: readonly DrawnLead[];
  readonly clamps: readonly DrawnClamp[];
  readonly volts: readonly DrawnVolts[];
  readonly target: DrawnTarget | null;
  /** The places of an instrument; empty where there is none. */
  readonly probes: readonly DrawnProbe[];
}

/** The next point of the hands: a ring on the point, and a flag on whichever side is free. */
export interface DrawnTarget {
  readonly at: XY;
  readonly flag: XY;
  readonly pole: string;
  readonly isRemoval: boolean;
}

/** Below this a lead carries nothing worth a figure, amps. */
export const SHOWN_AMPS = 0.5;
/** The tag with the amps of a lead, in the drawing's units. */
export const AMPS_TAG: Size = { width: 62, height: 26 };

/** Size of the drawing, in its own units. */
export const CIRCUIT_WIDTH = 440;
export const CIRCUIT_HEIGHT = 560;
export const MARGIN = 16;

export interface Size {
  readonly width: number;
  readonly height: number;
}

/** True when two boxes share any ground. */
export function overlaps(a: XY, aSize: Size, b: XY, bSize: Size): boolean {
  return (
    a.x < b.x + bSize.width && b.x < a.x + aSize.width && a.y < b.y + bSize.height && b.y < a.y + aSize.height
  );
}

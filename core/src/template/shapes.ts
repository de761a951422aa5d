import type { Machine, PlanPoint, PlanRect, SideView } from '../machine/index.js';

/** The measures that a machine's body is drawn from. */
export type Shape = Pick<Machine, 'widthMm' | 'lengthMm' | 'outline' | 'glass' | 'wheels' | 'side'>;

/** A side view from fractions of length and height, wheels resting on the ground. */
function sideOf(
  lengthMm: number,
  heightMm: number,
  points: readonly (readonly [along: number, up: number])[],
  wheelsAt: readonly number[],
  radiusMm: number,
): SideView {
  return {
    heightMm,
    outline: points.map(([y, z]) => ({ yMm: Math.round(y * lengthMm), zMm: Math.round(z * heightMm) })),
    wheels: wheelsAt.map((y) => ({ yMm: Math.round(y * lengthMm), zMm: radiusMm, radiusMm })),
  };
}

/** Fractions of width and length, scaled to millimetres. */
function scaled(
  widthMm: number,
  lengthMm: number,
  points: readonly (readonly [number, number])[],
): PlanPoint[] {
  return points.map(([x, y]) => ({ xMm: Math.round(x * widthMm), yMm: Math.round(y * lengthMm) }));
}

function axle(widthMm: number, yMm: number, tyreMm: { width: number; length: number }): PlanRect[] {
  const rect = (xMm: number): PlanRect => ({
    xMm: Math.round(xMm),
    yMm: Math.round(yMm - tyreMm.length / 2),
    widthMm: Math.round(tyreMm.width),
    lengthMm: Math.round(tyreMm.length),
  });
  return [rect(-20), rect(widthMm - tyreMm.width + 20)];
}

/**
 * A passenger car: tapered nose, raked screens.
 *
 * @example carShape(1800, 4400).lengthMm // => 4400
 */
export function carShape(widthMm: number, lengthMm: number): Shape {
  const tyre = { width: 210, length: 620 };
  return {
    widthMm,
    lengthMm,
    outline: scaled(widthMm, lengthMm, [
      [0.2, 0],
      [0.8, 0],
      [0.94, 0.03],
      [1, 0.11],
      [1, 0.91],
      [0.96, 0.98],
      [0.84, 1],
      [0.16, 1],
      [0.04, 0.98],
      [0, 0.91],
      [0, 0.11],
      [0.06, 0.03],
    ]),
    glass: [
      scaled(widthMm, lengthMm, [
        [0.08, 0.38],
        [0.18, 0.29],
        [0.5, 0.275],
        [0.82, 0.29],
        [0.92, 0.38],
        [0.5, 0.36],
      ]),
      scaled(widthMm, lengthMm, [
        [0.14, 0.86],
        [0.86, 0.86],
        [0.8, 0.92],
        [0.2, 0.92],
      ]),
    ],
    wheels: [...axle(widthMm, lengthMm * 0.19, tyre), ...axle(widthMm, lengthMm * 0.81, tyre)],
    side: sideOf(
      lengthMm,
      1470,
      [
        [0, 0.2],
        [0.01, 0.44],
        [0.27, 0.62],
        [0.41, 0.97],
        [0.5, 1],
        [0.7, 0.98],
        [0.88, 0.68],
        [0.99, 0.62],
        [1, 0.22],
        [0.96, 0.15],
        [0.05, 0.14],
      ],
      [0.19, 0.81],
      310,
    ),
  };
}

/**
 * A van: short bonnet, steep screen, square tail.
 *
 * @example vanShape(1800, 4400).lengthMm // => 4400
 */
export function vanShape(widthMm: number, lengthMm: number): Shape {
  const tyre = { width: 230, length: 680 };
  return {
    widthMm,
    lengthMm,
    outline: scaled(widthMm, lengthMm, [
      [0.16, 0],
      [0.84, 0],
      [0.97, 0.03],
      [1, 0.1],
      [1, 0.985],
      [0.97, 1],
      [0.03, 1],
      [0, 0.985],
      [0, 0.1],
      [0.03, 0.03],
    ]),
    glass: [
      scaled(widthMm, lengthMm, [
        [0.06, 0.26],
        [0.14, 0.18],
        [0.5, 0.165],
        [0.86, 0.18],
        [0.94, 0.26],
        [0.5, 0.245],
      ]),
    ],
    wheels: [...axle(widthMm, lengthMm * 0.15, tyre), ...axle(widthMm, lengthMm * 0.78, tyre)],
    side: sideOf(
      lengthMm,
      2100,
      [
        [0, 0.16],
        [0.01, 0.36],
        [0.15, 0.5],
        [0.27, 0.93],
        [0.34, 1],
        [1, 1],
        [1, 0.16],
        [0.95, 0.12],
        [0.04, 0.12],
      ],
      [0.15, 0.78],
      340,
    ),
  };
}

/**
 * A truck with its cab over the front axle, and a box behind.
 *
 * @example truckShape(1800, 4400).lengthMm // => 4400
 */
export function truckShape(widthMm: number, lengthMm: number): Shape {
  const tyre = { width: 300, length: 1000 };
  return {
    widthMm,
    lengthMm,
    outline: scaled(widthMm, lengthMm, [
      [0.06, 0],
      [0.94, 0],
      [1, 0.015],
      [1, 1],
      [0, 1],
      [0, 0.015],
    ]),
    glass: [
      scaled(widthMm, lengthMm, [
        [0.06, 0.012],
        [0.94, 0.012],
        [0.9, 0.05],
        [0.1, 0.05],
      ]),
    ],
    wheels: [...axle(widthMm, lengthMm * 0.12, tyre), ...axle(widthMm, lengthMm * 0.8, tyre)],
    side: sideOf(
      lengthMm,
      3500,
      [
        [0, 0.1],
        [0.01, 0.4],
        [0.03, 0.78],
        [0.2, 0.8],
        [0.22, 1],
        [1, 1],
        [1, 0.32],
        [0.9, 0.2],
        [0.3, 0.2],
        [0.2, 0.1],
      ],
      [0.12, 0.8],
      500,
    ),
  };
}

/**
 * A motorcycle: bars, tank, saddle.
 *
 * @example motorcycleShape(1800, 4400).lengthMm // => 4400
 */
export function motorcycleShape(widthMm: number, lengthMm: number): Shape {
  const middle = widthMm / 2;
  return {
    widthMm,
    lengthMm,
    outline: scaled(widthMm, lengthMm, [
      [0.44, 0.1],
      [0.56, 0.1],
      [0.58, 0.25],
      [0.98, 0.29],
      [0.98, 0.33],
      [0.64, 0.33],
      [0.7, 0.45],
      [0.62, 0.58],
      [0.66, 0.86],
      [0.6, 0.94],
      [0.4, 0.94],
      [0.34, 0.86],
      [0.38, 0.58],
      [0.3, 0.45],
      [0.36, 0.33],
      [0.02, 0.33],
      [0.02, 0.29],
      [0.42, 0.25],
    ]),
    glass: [],
    wheels: [
      { xMm: middle - 55, yMm: 0, widthMm: 110, lengthMm: lengthMm * 0.28 },
      { xMm: middle - 70, yMm: lengthMm * 0.72, widthMm: 140, lengthMm: lengthMm * 0.28 },
    ],
    side: sideOf(
      lengthMm,
      1180,
      [
        [0.2, 0.5],
        [0.24, 0.98],
        [0.3, 1],
        [0.36, 0.78],
        [0.52, 0.76],
        [0.6, 0.66],
        [0.92, 0.72],
        [0.96, 0.62],
        [0.8, 0.5],
        [0.66, 0.2],
        [0.38, 0.18],
      ],
      [0.14, 0.86],
      305,
    ),
  };
}

/**
 * A small or stationary machine: a plain deck with chamfered corners, wheels if any.
 *
 * @example deckShape(1800, 4400, 900, true).lengthMm // => 4400
 */
export function deckShape(widthMm: number, lengthMm: number, heightMm: number, wheeled: boolean): Shape {
  const tyre = { width: widthMm * 0.16, length: lengthMm * 0.22 };
  return {
    widthMm,
    lengthMm,
    outline: scaled(widthMm, lengthMm, [
      [0.1, 0],
      [0.9, 0],
      [1, 0.08],
      [1, 0.94],
      [0.92, 1],
      [0.08, 1],
      [0, 0.94],
      [0, 0.08],
    ]),
    glass: [],
    wheels: wheeled ? [...axle(widthMm, lengthMm * 0.2, tyre), ...axle(widthMm, lengthMm * 0.78, tyre)] : [],
    side: sideOf(
      lengthMm,
      heightMm,
      wheeled
        ? [
            [0, 0.3],
            [0.04, 0.72],
            [0.42, 0.74],
            [0.46, 0.6],
            [0.6, 0.58],
            [0.66, 1],
            [0.78, 0.98],
            [0.8, 0.62],
            [1, 0.56],
            [1, 0.26],
            [0.9, 0.2],
            [0.08, 0.2],
          ]
        : [
            [0, 0.06],
            [0, 1],
            [1, 1],
            [1, 0.06],
          ],
      wheeled ? [0.2, 0.78] : [],
      wheeled ? lengthMm * 0.11 : 0,
    ),
  };
}

/**
 * A small open boat, bow forward.
 *
 * @example boatShape(1800, 4400).lengthMm // => 4400
 */
export function boatShape(widthMm: number, lengthMm: number): Shape {
  return {
    widthMm,
    lengthMm,
    outline: scaled(widthMm, lengthMm, [
      [0.5, 0],
      [0.74, 0.12],
      [0.92, 0.32],
      [1, 0.6],
      [0.94, 1],
      [0.06, 1],
      [0, 0.6],
      [0.08, 0.32],
      [0.26, 0.12],
    ]),
    glass: [],
    wheels: [],
    side: sideOf(
      lengthMm,
      1100,
      [
        [0, 0.9],
        [0.1, 1],
        [0.3, 0.8],
        [1, 0.74],
        [1, 0.08],
        [0.35, 0],
        [0.12, 0.3],
      ],
      [],
      0,
    ),
  };
}

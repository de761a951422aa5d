import { isSourceClamp } from '@voltrek/core/circuit';
import type { HookupStep } from '@voltrek/core/hookup';
import { pointOf } from '@voltrek/core/machine';
import {
  AMPS_TAG,
  type DrawnTarget,
  type CircuitDrawing,
  CIRCUIT_HEIGHT,
  CIRCUIT_WIDTH,
  overlaps,
  type XY,
} from './drawing';
import type { Ends } from './leads';
import { type Placed, pointPlace } from './placing';
import { TAG } from './vehicle';

/** The parts that the flag may not cover. */
type Drawn = Pick<CircuitDrawing, 'clamps' | 'leads' | 'volts'>;

const FLAG = { width: 106, height: 32 } as const;
const RING = 21;
/** Its pole, and a longer one for where every side close by is taken. */
const POLES = [24, 60];

/** The ring and flag of the step to do now; null for a step that is not a clamp. */
export function targetOf(
  step: HookupStep | null,
  casualty: Placed,
  donor: Placed | null,
  ends: Ends,
  circuit: Drawn,
): DrawnTarget | null {
  const action = step?.action;
  if (action?.kind === 'detach' && ends[action.clamp].isOn)
    return flagged(ends[action.clamp].at, true, circuit);
  if (action?.kind !== 'attach') return null;
  const isSource = isSourceClamp(action.clamp);
  const on = isSource ? donor : casualty;
  return on ? flagged(pointPlace(on, pointOf(on.machine, action.pointId)), false, circuit) : null;
}

/** Tries the flag on each side and takes the one that covers least, close by before far off. */
function flagged(at: XY, isRemoval: boolean, { clamps, leads, volts }: Drawn): DrawnTarget {
  const middleY = at.y - FLAG.height / 2;
  const middleX = Math.min(Math.max(at.x - FLAG.width / 2, 0), CIRCUIT_WIDTH - FLAG.width);
  const sides = POLES.map((pole) => RING + pole).flatMap((reach) => [
    { flag: { x: at.x - reach - FLAG.width, y: middleY }, pole: `M${-RING} 0H${-reach}` },
    { flag: { x: at.x + reach, y: middleY }, pole: `M${RING} 0H${reach}` },
    { flag: { x: middleX, y: at.y + reach }, pole: `M0 ${RING}V${reach}` },
    { flag: { x: middleX, y: at.y - reach - FLAG.height }, pole: `M0 ${-RING}V${-reach}` },
  ]);
  const covers = ({ flag }: (typeof sides)[number]): number => {
    const isOut =
      flag.x < 0 ||
      flag.y < 0 ||
      flag.x + FLAG.width > CIRCUIT_WIDTH ||
      flag.y + FLAG.height > CIRCUIT_HEIGHT;
    const hitsClamp = clamps.filter((c) =>
      overlaps(flag, FLAG, { x: c.at.x - 18, y: c.at.y - 18 }, { width: 36, height: 36 }),
    );
    const hitsTag = [
      ...volts.filter((v) => overlaps(flag, FLAG, v.at, TAG)),
      ...leads.filter(({ tag }) => tag && overlaps(flag, FLAG, tag, AMPS_TAG)),
    ];
    return (isOut ? 10 : 0) + hitsClamp.length * 3 + hitsTag.length * 2;
  };
  const best = sides.reduce((a, b) => (covers(b) < covers(a) ? b : a));
  return { at, isRemoval, ...best };
}

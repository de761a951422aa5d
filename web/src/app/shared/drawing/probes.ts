import type { Probing } from '@voltrek/core/diagnosis';
import { CIRCUIT_WIDTH, type DrawnPin, type DrawnProbe, MARGIN, type XY } from './drawing';

/** From a point's number to the tip of what touches it, and on to the handle, drawing units. */
const TIP = 15;
const HANDLE = 46;
/** Both at one point: the one on the cable stands off it by so much. */
const CABLE_OFF = 9;
/** Leaning outwards so much of the way up, so that neither covers the other. */
const LEAN = 0.7;

/** The probes over the numbers of their points: the one farther left leans left, the other right, and both stay inside the drawing. */
export function probesAt(probing: Probing | null, pins: readonly DrawnPin[]): DrawnProbe[] {
  const placeOf = (id: string): XY | undefined => pins.find(({ pointId }) => pointId === id)?.at;
  if (probing?.kind === 'round-cable') {
    const at = placeOf(probing.at);
    return at ? [probe('jaws', at, 1, 0)] : [];
  }
  const red = probing && placeOf(probing.red);
  const black = probing && placeOf(probing.black);
  if (!red || !black) return [];
  const redLeans = red.x <= black.x ? -1 : 1;
  const off = (part: 'red' | 'black'): number => (probing.onCable === part ? CABLE_OFF : 0);
  return [probe('red', red, redLeans, off('red')), probe('black', black, -redLeans, off('black'))];
}

/** @param leans -1 to the left, 1 to the right */
function probe(part: DrawnProbe['part'], at: XY, leans: number, off: number): DrawnProbe {
  const along = Math.hypot(LEAN, 1);
  const out = (reach: number): XY => ({
    x: at.x + (leans * LEAN * reach) / along,
    y: at.y - reach / along,
  });
  const inside = ({ x, y }: XY): XY => ({
    x: Math.min(Math.max(x, MARGIN), CIRCUIT_WIDTH - MARGIN),
    y: Math.max(y, MARGIN),
  });
  return { part, tip: out(TIP + off), handle: inside(out(HANDLE + off)) };
}

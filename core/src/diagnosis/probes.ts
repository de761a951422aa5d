import { isPositiveEarth, type Machine, type PointKind, pointOn } from '../machine/index.js';
import { checkOf, type CheckId } from './checks/index.js';

/** The places of an instrument, by points of the machine. */
export type Probing =
  /** Red and black; the one that is `onCable` touches the cable's end at its point, not the point itself. */
  | {
      readonly kind: 'probes';
      readonly red: string;
      readonly black: string;
      readonly onCable: 'red' | 'black' | null;
    }
  /** A clamp meter round the cable of this point. */
  | { readonly kind: 'round-cable'; readonly at: string };

/**
 * Returns the points of a check's probes, so that its reading has the sign that the check gives it. A reading of one battery is taken at its
 * own posts; what is read of the machine at the two ends of its string. A machine whose posts cannot be reached is read at its red post
 * and its ground point.
 *
 * @param battery from the chassis side up; for checks of the whole machine it says nothing
 * @returns null for a check without an instrument on the machine, and where the machine has no such points
 */
export function probingOf(machine: Machine, check: CheckId, battery: number): Probing | null {
  const on = (kind: PointKind, of?: number): string | undefined => pointOn(machine, kind, of)?.id;
  const top = machine.batteries.length - 1;
  const [highest, lowest] = isPositiveEarth(machine) ? [0, top] : [top, 0];
  const isOfOne = checkOf(check).isOfBattery === true;
  const plus = on('battery-positive', isOfOne ? battery : highest);
  const minus = on('battery-negative', isOfOne ? battery : lowest);
  const pair = (
    red: string | undefined,
    black: string | undefined,
    onCable: 'red' | 'black' | null = null,
  ): Probing | null => (red && black ? { kind: 'probes', red, black, onCable } : null);
  switch (check) {
    case 'rest':
    case 'key-on':
    case 'crank':
    case 'recovery':
    case 'charging':
    case 'charging-loaded':
    case 'conductance':
    case 'load-test':
      return (
        pair(plus, minus) ?? (top === 0 ? pair(on('red-post') ?? plus, on('ground-point') ?? minus) : null)
      );
    case 'joint-plus':
      return pair(plus, plus, 'black');
    case 'joint-minus': {
      // The body is the way back only where minus is joined to it.
      const engine = isPositiveEarth(machine) ? undefined : on('ground-point');
      return engine ? pair(engine, minus) : pair(minus, minus, 'red');
    }
    case 'starter-stud':
      return pair(plus, on('starter-stud'));
    case 'drain':
      return minus ? { kind: 'round-cable', at: minus } : null;
    default:
      return null;
  }
}

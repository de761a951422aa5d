import type { Way, WayPoint } from './ways.js';

/** A way at one of its waits. */
export interface Chosen {
  readonly way: Way;
  readonly point: WayPoint;
}

/** Least gain in odds for a longer way to be worth drawing. */
const WORTH_DRAWING = 0.005;
/** How sure one wants to be, unless one says otherwise: nine in ten. */
export const USUAL_SURENESS = 0.9;
/** Under this a way is not likely: it is never proposed as if it were. */
export const LIKELY_ODDS = 0.5;
/** Surest of a way: an earlier point within this of its best is as good. */
const AS_SURE = 0.01;

/** The best that can be had by each minute: no other way is as sure as soon. */
export function frontier(ways: readonly Way[]): Chosen[] {
  const all = ways.flatMap((way) => way.points.map((point) => ({ way, point })));
  all.sort((a, b) => a.point.minutes - b.point.minutes || b.point.start - a.point.start);
  const best: Chosen[] = [];
  for (const chosen of all) {
    const before = best.at(-1)?.point.start ?? 0;
    if (chosen.point.start > before + WORTH_DRAWING) best.push(chosen);
  }
  return best;
}

/** The odds of the surest point of all; 0 of none. To roll it counts only where nothing else is likely. */
export const surestOf = (ways: readonly Way[]): number => {
  const surest = (of: readonly Way[]): number =>
    Math.max(0, ...of.flatMap(({ points }) => points.map(({ start }) => start)));
  const joined = surest(ways.filter(({ kind }) => kind !== 'roll'));
  return joined >= LIKELY_ODDS ? joined : surest(ways);
};

/**
 * Each way at its soonest point that is as sure as wanted, or else at its surest; those that are sure enough first, soonest first, then by
 * odds. To roll it comes last where anything else is likely: nobody stands behind a machine without need.
 */
export function rankWays(ways: readonly Way[], sureness: number): Chosen[] {
  const chosen = ways.map((way) => ({ way, point: pointFor(way, sureness) }));
  const isSure = ({ point }: Chosen): boolean => point.start >= sureness;
  const isAnyLikely = chosen.some(({ way, point }) => way.kind !== 'roll' && point.start >= LIKELY_ODDS);
  const isLast = ({ way }: Chosen): boolean => isAnyLikely && way.kind === 'roll';
  return chosen.sort(
    (a, b) =>
      Number(isLast(a)) - Number(isLast(b)) ||
      Number(isSure(b)) - Number(isSure(a)) ||
      (isSure(a) ? a.point.minutes - b.point.minutes : b.point.start - a.point.start) ||
      a.point.minutes - b.point.minutes,
  );
}

/** The soonest point of a way that is as sure as wanted, or else the soonest of its surest. */
export function pointFor({ points }: Way, sureness: number): WayPoint {
  const best = Math.max(...points.map((p) => p.start));
  return points.find((p) => p.start >= sureness) ?? points.find((p) => p.start >= best - AS_SURE)!;
}

/** Cost of giving up: the wait for a lorry, minutes. */
export const GIVE_UP_MINUTES = 60;
/** A look at joints, locks, starter and fuel, minutes. */
export const LOOK_MINUTES = 4;
/** Of faults that lie elsewhere, so many are found by such a look and put right on the spot. */
export const FOUND_ON_THE_SPOT = 0.5;

/** Minutes until it runs or is given up, to be expected of this. */
export const expectedMinutes = (minutes: number, start: number): number =>
  minutes + (1 - start) * GIVE_UP_MINUTES;

/** An act after a try that failed: a way at one of its waits, or a look elsewhere, with the minutes to be expected of it. */
export type NextTry =
  | (Chosen & { readonly kind: 'again' | 'wait' | 'other'; readonly expected: number })
  | { readonly kind: 'elsewhere'; readonly share: number; readonly expected: number };

/**
 * Returns the acts after a try that failed, the fewest expected minutes first: again with the joined source, wait first, something else, or look
 * where no source helps.
 *
 * @param joinedOptionId what is joined now; null for nothing
 */
export function afterTry(
  { ways, elsewhere }: { readonly ways: readonly Way[]; readonly elsewhere: number },
  joinedOptionId: string | null,
): NextTry[] {
  const asNow = (way: Way): boolean =>
    joinedOptionId === null
      ? way.kind === 'own' && !way.mends
      : way.optionId === joinedOptionId && way.kind === 'join' && !way.mends;
  const least = (points: readonly WayPoint[]): WayPoint =>
    points.reduce((a, b) => (expectedOf(b) < expectedOf(a) ? b : a));
  const next = ways.flatMap((way): NextTry[] => {
    const made = (kind: 'again' | 'wait' | 'other', point: WayPoint): NextTry => ({
      kind,
      way,
      point,
      expected: expectedOf(point),
    });
    if (!asNow(way)) return [made('other', least(way.points))];
    const [now, ...later] = way.points;
    return [made('again', now!), ...(later.length > 0 ? [made('wait', least(later))] : [])];
  });
  const looked = expectedMinutes(LOOK_MINUTES, elsewhere * FOUND_ON_THE_SPOT);
  return [...next, { kind: 'elsewhere' as const, share: elsewhere, expected: looked }].sort(
    (a, b) => a.expected - b.expected,
  );
}

const expectedOf = ({ minutes, start }: WayPoint): number => expectedMinutes(minutes, start);

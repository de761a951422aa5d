import type { BoardCall } from '@voltrek/contracts';
import { MINUTE_MS } from '@voltrek/core/quantities';

/** Nobody has begun this call, and nobody called it off. */
export const isWaiting = ({ job, state }: BoardCall): boolean => job === null && state !== 'called-off';

/** Minutes past its promise, for a call that nobody has begun; 0 where it is in time, or nothing was promised. */
export function minutesLate(call: BoardCall, nowMs: number): number {
  if (call.promisedAt === null || !isWaiting(call)) return 0;
  return Math.max(0, Math.floor((nowMs - Date.parse(call.promisedAt)) / MINUTE_MS));
}

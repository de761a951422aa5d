import type { Range } from '@voltrek/core/quantities';
import { messagesOf } from './messages-of';

const T = messagesOf('figures');

/** Why a typed figure cannot be so; null when it can. */
export function outOfRange(name: string, value: number, { min, max, unit }: Range): string | null {
  if (!Number.isFinite(value)) return T.mustBeNumber({ name });
  return value < min || value > max ? T.mustBeBetween({ name, min, max, unit }) : null;
}

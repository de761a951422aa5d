import type { Range } from '@voltrek/core/quantities';
import { tell } from './tell';

/** Why a typed figure cannot be so; null when it can. */
export function outOfRange(name: string, value: number, { min, max, unit }: Range): string | null {
  if (!Number.isFinite(value)) return tell`${name} must be a number`;
  return value < min || value > max ? tell`${name} must be between ${min} and ${max} ${unit}` : null;
}

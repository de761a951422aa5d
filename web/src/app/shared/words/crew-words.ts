import type { BatteryMoveKind, BatteryState, CREW_ROLES } from '@voltrek/contracts';
import { messagesOf } from './messages-of';

export const ROLE_WORDS: Record<(typeof CREW_ROLES)[number], string> = messagesOf('role');

/** The place of a battery. */
export const BATTERY_STATE_WORDS: Record<BatteryState, string> = messagesOf('batteryState');

/** Acts on a battery. */
export const MOVE_WORDS: Record<BatteryMoveKind, string> = messagesOf('move');

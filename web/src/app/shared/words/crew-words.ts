import type { BatteryMoveKind, BatteryState, CREW_ROLES } from '@voltrek/contracts';

export const ROLE_WORDS: Record<(typeof CREW_ROLES)[number], string> = {
  'crew-lead': 'crew lead',
  technician: 'technician',
  apprentice: 'apprentice',
  viewer: 'viewer',
};

/** The place of a battery. */
export const BATTERY_STATE_WORDS: Record<BatteryState, string> = {
  fitted: 'fitted',
  'on-van': 'on a van',
  depot: 'at the depot',
  scrapped: 'scrapped',
};

/** Acts on a battery. */
export const MOVE_WORDS: Record<BatteryMoveKind, string> = {
  met: 'was in when the vehicle first came',
  fitted: 'fitted',
  'taken-out': 'taken out',
  charged: 'charged',
  'to-van': 'put on a van',
  scrapped: 'scrapped',
};

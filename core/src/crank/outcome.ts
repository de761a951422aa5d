export const ATTEMPT_OUTCOMES = ['started', 'brisk-no-fire', 'slow', 'clicks', 'nothing'] as const;
/** How a try ended; for a machine that wakes, `started` means awake and ready. */
export type AttemptOutcome = (typeof ATTEMPT_OUTCOMES)[number];

/** Returns the error under one that somebody wrapped. */
export const causeOf = (error: unknown): unknown =>
  error instanceof Error && error.cause instanceof Error ? error.cause : error;

/** The code of what the database or the network said, whoever wrapped it: an SQLSTATE for one; empty where there is none. */
export function codeOf(error: unknown): string {
  const cause = causeOf(error);
  return cause instanceof Error && 'code' in cause ? String(cause.code) : '';
}

/** Whether an error is the database's absence: it does not answer, or ended the line. A device waits and keeps its taps. */
export function isDatabaseAway(error: unknown): boolean {
  const cause = causeOf(error);
  return cause instanceof Error && (AWAY_CODES.test(codeOf(cause)) || AWAY_WORDS.test(cause.message));
}
/** Of the network, and of PostgreSQL: connection lost, shut down, too many, no room. */
const AWAY_CODES = /^(ECONN|ENOTFOUND|ETIMEDOUT|EPIPE|EAI_AGAIN|08|57P0|53)/;
const AWAY_WORDS =
  /^(Connection terminated|timeout exceeded when trying to connect|Client has encountered a connection error)/;

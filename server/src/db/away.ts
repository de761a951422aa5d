/** Whether an error is the database's absence: it does not answer, or ended the line. A device waits and keeps its taps. */
export function isDatabaseAway(error: unknown): boolean {
  const cause = error instanceof Error && error.cause instanceof Error ? error.cause : error;
  if (!(cause instanceof Error)) return false;
  const code = 'code' in cause ? String(cause.code) : '';
  return AWAY_CODES.test(code) || AWAY_WORDS.test(cause.message);
}
/** Of the network, and of PostgreSQL: connection lost, shut down, too many, no room. */
const AWAY_CODES = /^(ECONN|ENOTFOUND|ETIMEDOUT|EPIPE|EAI_AGAIN|08|57P0|53)/;
const AWAY_WORDS =
  /^(Connection terminated|timeout exceeded when trying to connect|Client has encountered a connection error)/;

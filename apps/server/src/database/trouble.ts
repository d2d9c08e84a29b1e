/** What the database says when it can't do its work, as answers. */
import { type ProblemError, databaseAway, diskFull, tooSlow } from '../problem';

/** PostgreSQL's own codes (appendix A of its manual), and those of connections. */
const FULL = /^53100$/;
const STOPPED = /^57014$/;
const AWAY = /^(08\w{3}|57P0[1-5]|53300|53200|58\w{3}|XX00\w|ECONNREFUSED|ECONNRESET|EPIPE|ETIMEDOUT|ENOTFOUND|EAI_AGAIN|EHOSTUNREACH)$/;
const AWAY_WORDS =
  /connection terminated|connection ended|not queryable|transaction query already complete|timeout acquiring a connection|timeout exceeded when trying to connect|unable to acquire a connection/i;

/** s for which a full disk is told after it was last met, unless something was written since. */
const TOLD_MS = 60_000;
let fullAt = -Infinity;

/** Something was written: there is room. */
export function written(): void {
  fullAt = -Infinity;
}

export const isFull = (): boolean => Date.now() - fullAt < TOLD_MS;

/** Undefined where an error is not the database's. */
export function databaseProblem(error: unknown, changing: boolean): ProblemError | undefined {
  for (let cause = error as { code?: unknown; message?: string; cause?: unknown; previous?: unknown } | undefined; cause;) {
    const code = typeof cause.code === 'string' ? cause.code : '';
    if (FULL.test(code) || /No space left on device/.test(cause.message ?? '')) {
      fullAt = Date.now();
      return diskFull();
    }
    if (STOPPED.test(code)) return tooSlow();
    if (AWAY.test(code) || AWAY_WORDS.test(cause.message ?? '')) return databaseAway(changing);
    const next = (cause.previous ?? cause.cause) as typeof cause | undefined;
    if (next === cause) return undefined;
    cause = next;
  }
  return undefined;
}

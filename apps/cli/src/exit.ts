/** How the program ends. */

/** Exit codes; documented in docs/command-line.md. */
export const EXIT = { ok: 0, findings: 1, usage: 2, invalid: 3, unreadable: 4 } as const;

/** An end of the program with a message for standard error. */
export class Exit extends Error {
  constructor(
    readonly code: number,
    message: string,
  ) {
    super(message);
  }
}

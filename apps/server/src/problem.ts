/** Problem details (RFC 9457): every error the server answers with, from named factories. */
import { type Problem as DocumentProblem, type InvalidDocument, type Project, sentence } from '@insidia/core';
import { HttpException } from '@nestjs/common';

export interface ProblemBody {
  type: string;
  title: string;
  status: number;
  detail: string;
  [more: string]: unknown;
}

export class ProblemError extends HttpException {
  constructor(readonly body: ProblemBody) {
    super(body, body.status);
  }
}

/** Of what was sent no more is said back than this many characters. */
const MOST_ECHOED = 200;
/** A value as a refusal tells it. */
export const echo = (value: unknown): string => cut(JSON.stringify(value) ?? 'undefined');

const cut = (text: string) => (text.length > MOST_ECHOED ? `${text.slice(0, MOST_ECHOED - 2)} …` : text);

function problem(name: string, status: number, title: string, detail: string, more: object = {}): ProblemError {
  return new ProblemError({ type: `/api/problems/${name}`, title, status, detail, ...more });
}

export const notFound = (what: string, id: string) => problem('not-found', 404, 'Not found', `there is no ${what} "${cut(id)}"`);

/** Breaches of a document that one refusal names. */
const MOST_NAMED = 100;
/** A value that is said back, where it is not too long for it. */
const short = (value: unknown) => ((JSON.stringify(value) ?? '').length > MOST_ECHOED ? echo(value) : (value ?? null));

/** What is wrong with a document: each with its pointer, the rule, and the value that breaks it. */
export const invalidDocument = (error: InvalidDocument) =>
  problem('invalid-document', 422, 'The document is not valid', error.message, {
    errors: error.problems.slice(0, MOST_NAMED).map((each: DocumentProblem) => ({
      pointer: cut(each.path),
      rule: each.rule,
      value: short(each.value),
      detail: sentence(each),
    })),
  });

export const badPatch = (detail: string) => problem('bad-patch', 422, 'The patch does not fit the document', detail);
export const badRequest = (detail: string) => problem('bad-request', 400, 'The request is not valid', detail);
export const preconditionRequired = () =>
  problem(
    'precondition-required',
    428,
    'A write must say what it changes',
    'send If-Match with the ETag of the revision that the change was made to',
  );

/** Somebody else has written since: both versions, so that nothing has to be guessed or lost. */
export const staleWrite = (current: { revision: number; document: Project }, yours: { revision: number; document?: unknown }) =>
  problem(
    'stale-write',
    409,
    'The project has changed since',
    `the change was made to revision ${yours.revision}; the project is at revision ${current.revision} by now`,
    {
      current,
      yours,
    },
  );

export const exists = (id: string, deleted: boolean) =>
  problem(
    'exists',
    409,
    'There is such a project already',
    deleted
      ? `a project "${id}" was deleted and can be brought back still; bring it back, or change the id`
      : `a project "${id}" exists; change its id to keep both`,
  );
export const idIsFixed = (id: string, given: unknown) =>
  problem('id-is-fixed', 422, 'A project keeps its id', `the document's id must stay "${id}": it is ${echo(given)}`, {
    errors: [{ pointer: '/id', rule: 'fixed', value: short(given), detail: `/id must stay "${id}"` }],
  });
export const unknownHost = (host: string | undefined) =>
  problem(
    'unknown-host',
    421,
    'Not the name of this server',
    `this server does not answer to ${host === undefined ? 'no name' : `"${cut(host)}"`}; INSIDIA_HOSTS tells it further names`,
  );
export const foreignOrigin = (origin: string) =>
  problem(
    'foreign-origin',
    403,
    'Not from its own page',
    `only Insidia’s own page may change anything here: this came from ${cut(origin)}`,
  );
export const signInFirst = () => problem('sign-in-first', 401, 'Sign in first', 'this Insidia has a password: sign in at /sign-in');
export const wrongPassword = () => problem('wrong-password', 401, 'Not signed in', 'that is not the password');
export const tooManyTries = () =>
  problem('too-many-tries', 429, 'Too many wrong passwords', 'too many wrong passwords: wait a minute and try again');
export const tooManyAtOnce = (detail: string) => problem('too-many-at-once', 429, 'Too much at once', detail);
/** What was asked for would take too long, however it is cut. */
export const tooMuchWork = (detail: string) => problem('too-much-work', 422, 'That is too much to run', detail);
export const tooManyStreams = (detail: string) => problem('too-many-streams', 429, 'Too many streams of events', detail);
export const tooLarge = (limit: number) =>
  problem('too-large', 413, 'The request is too large', `a request may hold at most ${limit / 1024 / 1024} MB`);
export const tooIntricate = (detail: string) => problem('too-intricate', 400, 'The body is more than is read', detail);
export const unreadable = (status: number, detail: string) => problem('unreadable', status, 'The request can’t be read', detail);
/** The database can't do its work now. */
export const databaseAway = (changing: boolean) =>
  problem(
    'database-away',
    503,
    'The database does not answer',
    changing
      ? 'the connection to the database was lost: what was sent may or may not have been saved; the revision tells'
      : 'the connection to the database was lost: try again in a moment',
  );
export const tooSlow = () =>
  problem('too-slow', 503, 'The database took too long', 'the database took too long and was stopped: nothing was changed; try again');
export const diskFull = () =>
  problem('disk-full', 507, 'The disk is full', 'the database has no room left on its disk: nothing was changed; make room and try again');
export const notJson = (detail: string) => problem('not-json', 400, 'The request is not JSON', detail);

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

function problem(name: string, status: number, title: string, detail: string, more: object = {}): ProblemError {
  return new ProblemError({ type: `/api/problems/${name}`, title, status, detail, ...more });
}

export const notFound = (what: string, id: string) => problem('not-found', 404, 'Not found', `there is no ${what} "${id}"`);

/** What is wrong with a document: each with its pointer, the rule, and the value that breaks it. */
export const invalidDocument = (error: InvalidDocument) =>
  problem('invalid-document', 422, 'The document is not valid', error.message, {
    errors: error.problems.map((each: DocumentProblem) => ({
      pointer: each.path,
      rule: each.rule,
      value: each.value ?? null,
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

export const exists = (id: string) =>
  problem('exists', 409, 'There is such a project already', `a project "${id}" exists; change its id to keep both`);
export const idIsFixed = (id: string, given: unknown) =>
  problem('id-is-fixed', 422, 'A project keeps its id', `the document's id must stay "${id}": it is ${JSON.stringify(given)}`, {
    errors: [{ pointer: '/id', rule: 'fixed', value: given ?? null, detail: `/id must stay "${id}"` }],
  });
export const tooLarge = (limit: number) =>
  problem('too-large', 413, 'The request is too large', `a request may hold at most ${limit / 1024 / 1024} MB`);
export const notJson = (detail: string) => problem('not-json', 400, 'The request is not JSON', detail);

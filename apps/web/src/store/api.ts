/** The server's projects over HTTP. Every error becomes one of three: away, stale, refused. */
import type { PatchOperation, Project } from '@insidia/core';

export interface Saved {
  revision: number;
  document: Project;
}

/** The server can't be reached, or can't do its work now. What was to be saved stays here. */
export class Away extends Error {}

/** Somebody else has written since. */
export class Stale extends Error {
  constructor(readonly current: Saved) {
    super('the project has changed since');
  }
}

/** The server will not take it: what is wrong, in its words. */
export class Refused extends Error {
  constructor(
    readonly status: number,
    message: string,
  ) {
    super(message);
  }
}

async function request(path: string, init: RequestInit = {}): Promise<Response> {
  let response: Response;
  try {
    response = await fetch(`/api/projects${path}`, init);
  } catch {
    throw new Away('the server does not answer');
  }
  if (response.ok) return response;
  if (response.status >= 500) throw new Away(`the server answers with an error (${response.status})`);
  const problem = (await response.json().catch(() => ({}))) as { detail?: string; current?: Saved; title?: string };
  if (response.status === 409 && problem.current) throw new Stale(problem.current);
  throw new Refused(response.status, problem.detail ?? problem.title ?? `the server answers ${response.status}`);
}

async function saved(response: Response): Promise<Saved> {
  const revision = Number(/"(\d+)"/.exec(response.headers.get('ETag') ?? '')?.[1]);
  return { revision, document: (await response.json()) as Project };
}

export interface Listed {
  id: string;
  name: string;
  revision: number;
  updatedAt: string;
}

export const api = {
  list: async () => (await (await request('')).json()) as Listed[],
  load: async (id: string) => saved(await request(`/${encodeURIComponent(id)}`)),
  create: async (document: unknown) =>
    saved(await request('', { method: 'POST', headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(document) })),
  patch: async (id: string, revision: number, operations: PatchOperation[], label: string, keepalive = false) =>
    saved(
      await request(`/${encodeURIComponent(id)}?label=${encodeURIComponent(label)}`, {
        method: 'PATCH',
        headers: { 'Content-Type': 'application/json-patch+json', 'If-Match': `"${revision}"` },
        body: JSON.stringify(operations),
        keepalive,
      }),
    ),
};

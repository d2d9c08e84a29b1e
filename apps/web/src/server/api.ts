/** The server's projects over HTTP. Every error becomes one of three: away, stale, refused. */
import type { Cause, Curve, CurveName, PatchOperation, Project, Statistic } from '@insidia/core';

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

/** Why the server is away where nobody is signed in any more. */
export const SIGNED_OUT = 'signed out';

async function request(path: string, init: RequestInit = {}): Promise<Response> {
  let response: Response;
  try {
    response = await fetch(`/api/projects${path}`, init);
  } catch {
    throw new Away('the server does not answer');
  }
  if (response.ok) return response;
  if (response.status === 401) throw new Away(SIGNED_OUT);
  // Too much at once is over in a moment, like a server that is away.
  if (response.status >= 500 || response.status === 429) throw new Away(`the server answers with an error (${response.status})`);
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
  /** What was last done, and by whom where people sign in. */
  label: string;
  author?: string;
  holds: { enemies: number; members: number; encounters: number; goals: number };
}

/** One acknowledged write, as the history lists it. */
export interface Revision {
  number: number;
  at: string;
  label: string;
  /** What somebody calls it: a baseline. */
  name?: string;
  /** Who made it, where people sign in. */
  author?: string;
}

/** What has been run of a cell of the board: one value a run in each column. */
export interface CellRead {
  cell: string;
  batch?: string;
  runs: number;
  values: Record<string, number[]>;
  /** As it was before an edit, where it has not been run as it is. */
  stale?: { batch: string; runs: number; at: string; revision: number; values: Record<string, number[]> };
  /** Why it can't be run. */
  trouble?: string;
}

/** Goes on past its runs until a measure is clear. */
export interface Until {
  column: string;
  statistic: Statistic;
  /** The interval's width as a share of the value. */
  narrower?: number;
  band?: { low?: number; high?: number };
  cap: number;
}

/** How far a batch is that is not finished. */
export interface CellProgress {
  cell: string;
  done: number;
  wanted: number;
}

/** JSON has no infinity: survivors come as text, what a run does not have as null. */
const numbers = (values: (number | string | null)[]) => values.map((value) => (value === null ? NaN : Number(value)));
const columns = (values: Record<string, (number | string | null)[]>) =>
  Object.fromEntries(Object.entries(values).map(([name, own]) => [name, numbers(own)]));

const json = (method: string, body: unknown): RequestInit => ({
  method,
  headers: { 'Content-Type': 'application/json' },
  body: JSON.stringify(body),
});

export const api = {
  readCells: async (id: string, cells: { cell: string; columns: string[] }[]): Promise<CellRead[]> => {
    const read = (await (await request(`/${encodeURIComponent(id)}/cells/read`, json('POST', { cells }))).json()) as CellRead[];
    return read.map((one) => ({
      ...one,
      values: columns(one.values),
      ...(one.stale && { stale: { ...one.stale, values: columns(one.stale.values) } }),
    }));
  },
  cellHistory: async (id: string, cell: string, column: string) => {
    const query = new URLSearchParams({ cell, column });
    const list = (await (await request(`/${encodeURIComponent(id)}/cells/history?${query}`)).json()) as {
      batch: string;
      at: string;
      revision: number;
      runs: number;
      values: (number | string | null)[];
    }[];
    return list.map((one) => ({ ...one, values: numbers(one.values) }));
  },
  cellCurve: async (id: string, cell: string, of: CurveName): Promise<{ runs: number; curve?: Curve }> => {
    const read = (await (await request(`/${encodeURIComponent(id)}/cells/curve?${new URLSearchParams({ cell, of })}`)).json()) as {
      runs: number;
      curve?: Curve;
    };
    if (!read.curve) return read;
    // Where fewer than half of the runs still go there is nothing: JSON has null for it.
    const known = (values: (number | null | undefined)[]) => values.map((value) => value ?? undefined);
    const { p10, p25, median, p75, p90 } = read.curve;
    const curve = { ...read.curve, p10: known(p10), p25: known(p25), median: known(median), p75: known(p75), p90: known(p90) };
    return { runs: read.runs, curve };
  },
  causes: async (id: string, asked: { cell: string; from: number; to: number; without: string[] }) =>
    (await (await request(`/${encodeURIComponent(id)}/cells/causes`, json('POST', asked))).json()) as Cause[],
  runCells: async (id: string, cells: { cell: string; runs: number; until?: Until }[]) =>
    void (await request(`/${encodeURIComponent(id)}/batches`, json('POST', { cells }))),
  /** s that so many runs of these cells may take on the server. */
  estimateCells: async (id: string, cells: { cell: string; runs: number }[]) =>
    ((await (await request(`/${encodeURIComponent(id)}/batches/estimate`, json('POST', { cells }))).json()) as { seconds: number }).seconds,
  cancelCells: async (id: string, cell?: string) =>
    void (await request(`/${encodeURIComponent(id)}/batches${cell ? `?${new URLSearchParams({ cell })}` : ''}`, { method: 'DELETE' })),
  /** Address of the page to print. */
  reportOf: (id: string, lens: { skill?: string; style?: string; players?: number }) => {
    const query = new URLSearchParams(
      Object.entries(lens).flatMap(([name, value]) => (value === undefined ? [] : [[name, String(value)]])),
    );
    return `/api/projects/${encodeURIComponent(id)}/report?${query}`;
  },
  progressOf: (id: string) => new EventSource(`/api/projects/${encodeURIComponent(id)}/batches/events`),
  /** The newest ones, or those older than one; with where the next page begins. */
  revisions: async (id: string, before?: number) =>
    (await (await request(`/${encodeURIComponent(id)}/revisions${before === undefined ? '' : `?before=${before}`}`)).json()) as {
      revisions: Revision[];
      older?: number;
    },
  revision: async (id: string, number: number) => saved(await request(`/${encodeURIComponent(id)}/revisions/${number}`)),
  nameRevision: async (id: string, number: number, name: string) =>
    void (await request(`/${encodeURIComponent(id)}/revisions/${number}/name`, {
      method: 'PUT',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ name }),
    })),
  /** Who is signed in; no name where there is no password. */
  session: async () => (await (await fetch('/api/session')).json()) as { name?: string },
  remove: async (id: string, revision: number) =>
    void (await request(`/${encodeURIComponent(id)}`, { method: 'DELETE', headers: { 'If-Match': `"${revision}"` } })),
  deleted: async () => (await (await fetch('/api/deleted-projects')).json()) as { id: string; name: string; until: string }[],
  bringBack: async (id: string) => void (await fetch(`/api/deleted-projects/${encodeURIComponent(id)}/bring-back`, { method: 'POST' })),
  list: async () => (await (await request('')).json()) as Listed[],
  load: async (id: string) => saved(await request(`/${encodeURIComponent(id)}`)),
  /** A demo once more, beside whatever has become of it: the station’s fights go by seconds, its archive’s by turns. */
  demo: async (of: 'station' | 'archive') => {
    const response = await fetch(`/api/demo?of=${of}`, { method: 'POST' });
    if (!response.ok) throw new Away(`the server answers with an error (${response.status})`);
    return saved(response);
  },
  replace: async (id: string, revision: number, document: unknown, label: string) =>
    saved(
      await request(`/${encodeURIComponent(id)}?label=${encodeURIComponent(label)}`, {
        method: 'PUT',
        headers: { 'Content-Type': 'application/json', 'If-Match': `"${revision}"` },
        body: JSON.stringify(document),
      }),
    ),
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

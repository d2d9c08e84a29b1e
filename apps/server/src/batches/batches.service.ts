import {
  type BandMeasure,
  type Cause,
  type CellRuns,
  type ReportCurves,
  type Curve,
  type CurveName,
  type Project,
  batchIdentity,
  causesOf,
  cellKey,
  cellOf,
  compileCell,
  report,
  reportCells,
  reportCurves,
  curveOf,
  curveTimes,
} from '@insidia/core';
import { Inject, Injectable } from '@nestjs/common';
import { setImmediate } from 'node:timers/promises';
import { badRequest } from '../problem';
import { ProjectsService } from '../projects/projects.service';
import { jsonNumbers } from './packing';
import { ShardQueue } from './queue';
import type { CausesRequest, ReadRequest, Until } from './request';
import { SHARD_RUNS, Shards } from './shards';

/** What has been run of a cell. Values: one a run; null where the run has none, "Infinity" for a survivor. */
export interface CellRead {
  cell: string;
  /** Of what it would be run now. */
  batch?: string;
  runs: number;
  values: Record<string, (number | string | null)[]>;
  /** The newest batch of the cell as it was before an edit, where there is none of it as it is. */
  stale?: { batch: string; runs: number; at: Date; revision: number; values: Record<string, (number | string | null)[]> };
  /** Why it can't be run. */
  trouble?: string;
}

/** Identities kept by revision; compiling a board anew for every look would be slow. */
const KEPT_IDENTITIES = 20_000;

/** Batches of a project's cells. What is known is never run again: a batch goes by what it is of, not by who asked. */
@Injectable()
export class BatchesService {
  private readonly identities = new Map<string, string>();

  constructor(
    @Inject(ProjectsService) private readonly projects: ProjectsService,
    @Inject(Shards) private readonly shards: Shards,
    @Inject(ShardQueue) private readonly queue: ShardQueue,
  ) {}

  /** Asks for so many runs of each cell of the newest revision; the batches that they are. */
  async ask(project: string, cells: readonly { cell: string; runs: number; until?: Until }[]): Promise<{ cell: string; batch: string }[]> {
    const { document, revision } = await this.projects.get(project);
    const asked: { cell: string; batch: string; runs: number; until?: Until }[] = [];
    for (const { cell, runs, until } of cells) asked.push({ cell, runs, until, batch: await this.known(document, revision, cell) });
    await this.shards.want(asked.map(({ cell, batch, runs, until }) => ({ batch, runs, until, source: { project, revision, cell } })));
    // Of what is known already nobody will finish a shard: it is looked at here.
    for (const { batch, until } of asked) if (until) await this.shards.lookAt(batch);
    await this.queue.sweep();
    return asked.map(({ cell, batch }) => ({ cell, batch }));
  }

  async read(project: string, { cells }: ReadRequest): Promise<CellRead[]> {
    const { document, revision } = await this.projects.get(project);
    const identities: { cell: string; columns: string[]; batch?: string; trouble?: string }[] = [];
    for (const { cell, columns } of cells) {
      try {
        identities.push({ cell, columns, batch: await this.identity(document, revision, cell) });
      } catch (error) {
        identities.push({ cell, columns, trouble: (error as Error).message });
      }
    }
    const known = await this.shards.columns(columnsByBatch(identities));
    const lacking = identities.filter(({ batch, trouble }) => trouble === undefined && !known.get(batch as string)?.runs);
    const last = await this.shards.lastOf(
      document.id,
      lacking.map(({ cell }) => cell),
    );
    const old = await this.shards.columns(columnsByBatch(lacking.map(({ cell, columns }) => ({ columns, batch: last.get(cell)?.batch }))));
    return identities.map(({ cell, batch, trouble }): CellRead => {
      if (batch === undefined) return { cell, runs: 0, values: {}, trouble };
      const now = known.get(batch);
      if (now?.runs) return { cell, batch, runs: now.runs, values: valuesOf(now.columns) };
      const before = last.get(cell);
      const was = before && old.get(before.batch);
      const { at, revision: of } = before ?? {};
      return {
        cell,
        batch,
        runs: 0,
        values: {},
        ...(was && {
          stale: { batch: before.batch, runs: was.runs, at: at as Date, revision: of as number, values: valuesOf(was.columns) },
        }),
      };
    });
  }

  /** What a cell has been run as, the newest first, with the values of one column. */
  async history(project: string, cell: string, column: string) {
    const batches = (await this.shards.history(project, cell)).slice(0, 6);
    const found = await this.shards.columns(new Map(batches.map(({ batch }) => [batch, [column]])));
    return batches.map((one) => ({ ...one, values: jsonNumbers(found.get(one.batch)?.columns[column] ?? []) }));
  }

  /** What a cell is over its clock, as it is now, over the runs that still go. */
  async curve(project: string, cell: string, name: CurveName): Promise<{ runs: number; curve?: Curve }> {
    const { document, revision } = await this.projects.get(project);
    const batch = await this.known(document, revision, cell);
    const [known, rows] = await Promise.all([this.shards.columns(new Map([[batch, ['length']]])), this.shards.curve(batch, name)]);
    const lengths = known.get(batch)?.columns.length ?? [];
    // A shard may have been finished between the two.
    const runs = Math.min(lengths.length, rows.length);
    if (!runs) return { runs };
    const times = curveTimes(compileCell(document, cellOf(cell)));
    return { runs, curve: curveOf(times, rows.slice(0, runs), lengths.slice(0, runs)) };
  }

  /** What leaving out each of some parts does to a stretch of an encounter's pressure, as far as it has been run without it. */
  async causes(project: string, { cell, from, to, without }: CausesRequest): Promise<Cause[]> {
    const { document, revision } = await this.projects.get(project);
    const rowsOf = async (key: string) => this.shards.curve(await this.known(document, revision, key), 'pressure');
    const all = await rowsOf(cell);
    const others: { without: string; rows: Float32Array[] }[] = [];
    for (const each of without) others.push({ without: each, rows: await rowsOf(cellKey({ ...cellOf(cell), without: each })) });
    return causesOf(curveTimes(compileCell(document, cellOf(cell))), all, others, { from, to });
  }

  /** The batch of a cell as it is now. @throws a bad request for what can't be run */
  private async known(document: Project, revision: number, cell: string): Promise<string> {
    try {
      return await this.identity(document, revision, cell);
    } catch (error) {
      throw badRequest(`cell ${cell}: ${(error as Error).message}`);
    }
  }

  /** One page of all that is known of a project, as it is now. */
  async report(
    project: string,
    lens: { skill?: string; style?: string; players?: number },
    measures: readonly BandMeasure[],
  ): Promise<string> {
    const { document } = await this.projects.get(project);
    for (const [name, list] of [
      ['skill', document.skills],
      ['style', document.styles],
    ] as const)
      if (lens[name] !== undefined && !list.some(({ id }) => id === lens[name])) throw badRequest(`there is no ${name} "${lens[name]}"`);
    const cells = await this.read(project, { cells: reportCells(document, lens, measures) });
    const read = new Map(cells.map(({ cell, runs, values }): [string, CellRuns] => [cell, { runs, values: numbersIn(values) }]));
    const curves = new Map<string, ReportCurves>();
    for (const cell of reportCurves(document, lens)) {
      if (!read.get(cell)?.runs) continue;
      const [pressure, quiet] = [await this.curve(project, cell, 'pressure'), await this.curve(project, cell, 'quiet')];
      if (pressure.curve && quiet.curve) curves.set(cell, { pressure: pressure.curve, quiet: quiet.curve });
    }
    return report({ project: document, lens, read, curves, at: new Date().toISOString().slice(0, 10), measures });
  }

  progress(project: string) {
    return this.shards.progress(project);
  }

  cancel(project: string, cell?: string): Promise<void> {
    return this.shards.cancel(project, cell);
  }

  /** Everything that makes the runs of a cell what they are, in sixteen digits. */
  private async identity(document: Project, revision: number, cell: string): Promise<string> {
    const key = `${document.id} ${revision} ${cell}`;
    let found = this.identities.get(key);
    if (found === undefined) {
      await setImmediate(); // a board has hundreds of cells: others get their answers in between
      found = batchIdentity(compileCell(document, cellOf(cell)), 1, SHARD_RUNS);
      this.identities.set(key, found);
      if (this.identities.size > KEPT_IDENTITIES) this.identities.delete(this.identities.keys().next().value as string);
    }
    return found;
  }
}

/** Values as they were before they were written as JSON. */
function numbersIn(values: CellRead['values']): CellRuns['values'] {
  const number = (value: number | string | null) => (value === null ? NaN : Number(value));
  return Object.fromEntries(Object.entries(values).map(([name, list]) => [name, list.map(number)]));
}

function valuesOf(columns: Readonly<Record<string, ArrayLike<number>>>): CellRead['values'] {
  return Object.fromEntries(Object.entries(columns).map(([name, values]) => [name, jsonNumbers(values)]));
}

/** What is asked of each batch; two cells may be the same batch. */
function columnsByBatch(asked: readonly { batch?: string; columns: readonly string[] }[]): Map<string, string[]> {
  const found = new Map<string, string[]>();
  for (const { batch, columns } of asked)
    if (batch !== undefined) found.set(batch, [...new Set([...(found.get(batch) ?? []), ...columns])]);
  return found;
}

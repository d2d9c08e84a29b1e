import {
  type BandMeasure,
  type Cause,
  type CellRuns,
  type ReportCurves,
  type Curve,
  type CurveName,
  type Project,
  type Sample,
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
    const reads: CellRead[] = [];
    for (const { cell, columns } of cells) reads.push(await this.readOne(document, revision, cell, columns));
    return reads;
  }

  private async readOne(document: Project, revision: number, cell: string, columns: readonly string[]): Promise<CellRead> {
    let batch: string;
    try {
      batch = await this.identity(document, revision, cell);
    } catch (error) {
      return { cell, runs: 0, values: {}, trouble: (error as Error).message };
    }
    const sample = await this.shards.sample(batch);
    if (sample) return { cell, batch, runs: sample.runs, values: valuesOf(sample, columns) };
    const [last] = await this.shards.history(document.id, cell);
    const old = last && (await this.shards.sample(last.batch));
    return {
      cell,
      batch,
      runs: 0,
      values: {},
      ...(old && { stale: { batch: last.batch, runs: old.runs, at: last.at, revision: last.revision, values: valuesOf(old, columns) } }),
    };
  }

  /** What a cell has been run as, the newest first, with the values of one column. */
  async history(project: string, cell: string, column: string) {
    const batches = await this.shards.history(project, cell);
    return Promise.all(
      batches.slice(0, 6).map(async (batch) => {
        const sample = await this.shards.sample(batch.batch);
        return { ...batch, values: sample ? jsonNumbers(sample.columns[column] ?? []) : [] };
      }),
    );
  }

  /** What a cell is over its clock, as it is now, over the runs that still go. */
  async curve(project: string, cell: string, name: CurveName): Promise<{ runs: number; curve?: Curve }> {
    const { document, revision } = await this.projects.get(project);
    const batch = await this.known(document, revision, cell);
    const [sample, rows] = await Promise.all([this.shards.sample(batch), this.shards.curve(batch, name)]);
    if (!sample) return { runs: 0 };
    // A shard may have been finished between the two.
    const runs = Math.min(sample.runs, rows.length);
    const times = curveTimes(compileCell(document, cellOf(cell)));
    return { runs, curve: curveOf(times, rows.slice(0, runs), sample.columns.length.subarray(0, runs)) };
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

function valuesOf({ columns }: Sample, names: readonly string[]): CellRead['values'] {
  return Object.fromEntries(names.filter((name) => columns[name]).map((name) => [name, jsonNumbers(columns[name])]));
}

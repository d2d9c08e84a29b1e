import { readFileSync } from 'node:fs';
import {
  type BandMeasure,
  type Cause,
  type CellRuns,
  type ReportCurves,
  type Curve,
  type CurveName,
  type Project,
  causesOf,
  scenarioKey,
  scenarioOf,
  report,
  reportCells,
  reportCurves,
  curveOf,
  curveTimes,
} from '@insidia/core';
import { Inject, Injectable } from '@nestjs/common';
import { badRequest, tooMuchWork } from '../problem';
import { Workers } from '../threads/workers';
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

/** Steps of units that one request may ask for, and that a project may have waiting: days of a machine. */
export const MOST_BATCH_WORK = 100_000_000_000;
export const MOST_PROJECT_WORK = 200_000_000_000;

/** What a cell is run as, and what one run may cost in steps of units. */
interface Identity {
  batch: string;
  work: number;
}

/** Identities kept by revision; compiling a board anew for every look would be slow. */
const KEPT_IDENTITIES = 20_000;

const font = (file: string) => readFileSync(require.resolve(file)).toString('base64');

/** Batches of a project's cells. What is known is never run again: a batch goes by what it is of, not by who asked. */
@Injectable()
export class BatchesService {
  private readonly kept = new Map<string, Identity>();

  constructor(
    @Inject(ProjectsService) private readonly projects: ProjectsService,
    @Inject(Shards) private readonly shards: Shards,
    @Inject(ShardQueue) private readonly queue: ShardQueue,
    @Inject(Workers) private readonly workers: Workers,
  ) {}

  /** Asks for so many runs of each cell of the newest revision; the batches that they are. */
  async ask(
    project: string,
    cells: readonly { cell: string; runs: number; until?: Until }[],
    client: string,
  ): Promise<{ cell: string; batch: string }[]> {
    const { document, revision } = await this.projects.get(project);
    const known = await this.known(
      document,
      revision,
      cells.map(({ cell }) => cell),
      client,
    );
    const asked = cells.map(({ cell, runs, until }, i) => ({ cell, runs, until, ...known[i] }));
    const all = asked.reduce((sum, { runs, work }) => sum + runs * work, 0);
    if (all > MOST_BATCH_WORK)
      throw tooMuchWork(
        `these runs may come to ${all} steps of units, and one request may ask for ${MOST_BATCH_WORK}: ask for fewer runs, or fewer cells`,
      );
    const waiting = await this.shards.waitingWork(project);
    if (waiting + all > MOST_PROJECT_WORK)
      throw tooMuchWork(
        `these runs may come to ${all} steps of units, ${waiting} wait already, and a project may have ${MOST_PROJECT_WORK} waiting: wait, or cancel what waits`,
      );
    await this.shards.want(
      asked.map(({ cell, batch, work, runs, until }) => ({ batch, work, runs, until, source: { project, revision, cell } })),
    );
    // Of what is known already nobody will finish a shard: it is looked at here.
    for (const { batch, until } of asked) if (until) await this.shards.lookAt(batch);
    await this.queue.sweep();
    return asked.map(({ cell, batch }) => ({ cell, batch }));
  }

  /** What so many runs of these cells may cost: steps of units, and s on this machine. */
  async estimate(
    project: string,
    cells: readonly { cell: string; runs: number }[],
    client: string,
  ): Promise<{ work: number; seconds: number }> {
    const { document, revision } = await this.projects.get(project);
    const known = await this.known(
      document,
      revision,
      cells.map(({ cell }) => cell),
      client,
    );
    const work = cells.reduce((sum, { runs }, i) => sum + runs * known[i].work, 0);
    return { work, seconds: await this.workers.seconds(work) };
  }

  async read(project: string, { cells }: ReadRequest, client: string): Promise<CellRead[]> {
    const { document, revision } = await this.projects.get(project);
    const found = await this.identities(
      document,
      revision,
      cells.map(({ cell }) => cell),
      client,
    );
    const identities = cells.map(({ cell, columns }, i): { cell: string; columns: string[]; batch?: string; trouble?: string } => ({
      cell,
      columns,
      ...found[i],
    }));
    const known = await this.shards.columns(columnsByBatch(identities));
    const lacking = identities.filter(({ batch, trouble }) => trouble === undefined && !known.get(batch as string)?.runs);
    const last = await this.shards.lastOf(
      document.id,
      lacking.map(({ cell }) => cell),
    );
    const troubles = await this.shards.troubles(identities.flatMap(({ batch }) => batch ?? []));
    const old = await this.shards.columns(columnsByBatch(lacking.map(({ cell, columns }) => ({ columns, batch: last.get(cell)?.batch }))));
    return identities.map(({ cell, batch, trouble }): CellRead => {
      if (batch === undefined) return { cell, runs: 0, values: {}, trouble };
      const now = known.get(batch);
      const given = troubles.get(batch);
      if (now?.runs) return { cell, batch, runs: now.runs, values: valuesOf(now.columns), ...(given && { trouble: given }) };
      const before = last.get(cell);
      const was = before && old.get(before.batch);
      const { at, revision: of } = before ?? {};
      return {
        cell,
        batch,
        runs: 0,
        values: {},
        ...(given && { trouble: given }),
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
  async curve(project: string, cell: string, name: CurveName, client: string): Promise<{ runs: number; curve?: Curve }> {
    const { document, revision } = await this.projects.get(project);
    const [{ batch }] = await this.known(document, revision, [cell], client);
    const [known, rows] = await Promise.all([this.shards.columns(new Map([[batch, ['length']]])), this.shards.curve(batch, name)]);
    const lengths = known.get(batch)?.columns.length ?? [];
    // A shard may have been finished between the two.
    const runs = Math.min(lengths.length, rows.length);
    if (!runs) return { runs };
    const times = curveTimes(await this.workers.compiledScenario({ document, scenario: scenarioOf(cell) }, client));
    return { runs, curve: curveOf(times, rows.slice(0, runs), lengths.slice(0, runs)) };
  }

  /** What leaving out each of some parts does to a stretch of an encounter's pressure, as far as it has been run without it. */
  async causes(project: string, { cell, from, to, without }: CausesRequest, client: string): Promise<Cause[]> {
    const { document, revision } = await this.projects.get(project);
    const keys = [cell, ...without.map((each) => scenarioKey({ ...scenarioOf(cell), without: each }))];
    const known = await this.known(document, revision, keys, client);
    const [all, ...others] = await Promise.all(known.map(({ batch }) => this.shards.curve(batch, 'pressure')));
    const times = curveTimes(await this.workers.compiledScenario({ document, scenario: scenarioOf(cell) }, client));
    return causesOf(
      times,
      all,
      others.map((rows, i) => ({ without: without[i], rows })),
      { from, to },
    );
  }

  /** The batches of cells as they are now. @throws a bad request for what can't be run */
  private async known(document: Project, revision: number, cells: readonly string[], client: string): Promise<Identity[]> {
    const found = await this.identities(document, revision, cells, client);
    return found.map((one, i) => {
      if ('trouble' in one) throw badRequest(`cell ${cells[i].slice(0, 120)}: ${one.trouble}`);
      return one;
    });
  }

  /** One page of all that is known of a project, as it is now. */
  async report(
    project: string,
    lens: { skill?: string; style?: string; players?: number },
    measures: readonly BandMeasure[],
    client: string,
  ): Promise<string> {
    const { document } = await this.projects.get(project);
    for (const [name, list] of [
      ['skill', document.skills],
      ['style', document.styles],
    ] as const)
      if (lens[name] !== undefined && !list.some(({ id }) => id === lens[name])) throw badRequest(`there is no ${name} "${lens[name]}"`);
    const cells = await this.read(project, { cells: reportCells(document, lens, measures) }, client);
    const read = new Map(cells.map(({ cell, runs, values }): [string, CellRuns] => [cell, { runs, values: numbersIn(values) }]));
    const curves = new Map<string, ReportCurves>();
    for (const cell of reportCurves(document, lens)) {
      if (!read.get(cell)?.runs) continue;
      const [pressure, quiet] = [await this.curve(project, cell, 'pressure', client), await this.curve(project, cell, 'quiet', client)];
      if (pressure.curve && quiet.curve) curves.set(cell, { pressure: pressure.curve, quiet: quiet.curve });
    }
    return report({ project: document, lens, read, curves, at: new Date().toISOString().slice(0, 10), measures, font });
  }

  progress(project: string) {
    return this.shards.progress(project);
  }

  async cancel(project: string, cell?: string): Promise<void> {
    await this.shards.cancel(project, cell);
    await this.queue.tend();
  }

  /** Everything that makes the runs of a cell what they are, in sixteen digits, and what one run may cost; or why there is none. */
  private async identities(
    document: Project,
    revision: number,
    cells: readonly string[],
    client: string,
  ): Promise<(Identity | { trouble: string })[]> {
    const keyOf = (cell: string) => `${document.id} ${revision} ${cell}`;
    const unknown = [...new Set(cells.filter((cell) => !this.kept.has(keyOf(cell))))];
    const found = unknown.length ? await this.workers.identify({ document, cells: unknown, shardRuns: SHARD_RUNS }, client) : [];
    const fresh = new Map(unknown.map((cell, i) => [cell, found[i]]));
    for (const [cell, one] of fresh) {
      if ('trouble' in one) continue;
      this.kept.set(keyOf(cell), one);
      if (this.kept.size > KEPT_IDENTITIES) this.kept.delete(this.kept.keys().next().value as string);
    }
    return cells.map((cell) => fresh.get(cell) ?? this.kept.get(keyOf(cell))!);
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

import { Inject, Injectable } from '@nestjs/common';
import { type Observable, concat, distinctUntilChanged, exhaustMap, from, map, of, takeWhile, timer } from 'rxjs';
import { badRequest, notFound, tooManyAtOnce, tooMuchWork } from '../problem';
import { MOST_BATCH_WORK } from '../batches/batches.service';
import { ProjectsService } from '../projects/projects.service';
import { Workers } from '../threads/workers';
import { type JobListed, type JobRead, Jobs } from './jobs';
import { FIELDS, type JobRequest } from './request';
import { JobRunner } from './runner';

/** Jobs of one project that may wait or run. */
export const MOST_JOBS = 20;
/** ms between two looks at a job that somebody listens to. */
const LOOK_MS = 300;

/** Work on projects that takes its time and outlasts whoever asked. */
@Injectable()
export class JobsService {
  constructor(
    @Inject(ProjectsService) private readonly projects: ProjectsService,
    @Inject(Jobs) private readonly jobs: Jobs,
    @Inject(JobRunner) private readonly runner: JobRunner,
    @Inject(Workers) private readonly workers: Workers,
  ) {}

  /** Begins one on the newest revision. What can't be begun is refused with the reason. */
  async begin(project: string, request: JobRequest, client: string): Promise<JobListed> {
    const foreign = Object.entries(request).find(
      ([name, value]) => value !== undefined && name !== 'kind' && !FIELDS[request.kind].includes(name as keyof JobRequest),
    );
    if (foreign) throw badRequest(`${foreign[0]} is nothing that ${request.kind} knows: ${FIELDS[request.kind].join(', ')}`);
    const { document, revision } = await this.projects.get(project);
    const before = request.before === undefined ? undefined : (await this.projects.revision(project, request.before)).document;
    const plan = await this.workers.jobPlan({ document, request, ...(before && { before }) }, client);
    if ('trouble' in plan) throw badRequest(plan.trouble);
    if (plan.work > MOST_BATCH_WORK)
      throw tooMuchWork(
        `these ${plan.runs} runs may come to ${plan.work} steps of units, and one job may ask for ${MOST_BATCH_WORK}: ask for fewer runs`,
      );
    const made = await this.jobs.make(project, revision, request, MOST_JOBS);
    if (!made) throw tooManyAtOnce(`${MOST_JOBS} jobs of this project wait or run, which is all that may: wait for one, or cancel it`);
    void this.runner.look();
    return made;
  }

  async list(project: string): Promise<JobListed[]> {
    await this.projects.get(project);
    return this.jobs.list(project);
  }

  async read(project: string, id: string): Promise<JobRead> {
    const found = await this.jobs.read(project, id);
    if (!found) throw notFound('job', id);
    return found;
  }

  async cancel(project: string, id: string): Promise<void> {
    if (!(await this.jobs.cancel(project, id))) throw notFound('job', id);
    await this.runner.look();
  }

  /** A job whenever it has changed, until it has ended. */
  async watch(project: string, id: string): Promise<Observable<JobListed>> {
    const first = plain(await this.read(project, id));
    const later = timer(LOOK_MS, LOOK_MS).pipe(exhaustMap(() => from(this.jobs.read(project, id))));
    return concat(of(first), later).pipe(
      // Gone with its project: there is nothing more to tell.
      takeWhile((one) => one !== undefined),
      map((one) => plain(one as JobRead)),
      distinctUntilChanged((a, b) => JSON.stringify(a) === JSON.stringify(b)),
      takeWhile(({ ended }) => ended === undefined, true),
    );
  }
}

/** Without what it came to and what was asked: those who listen read it at its end. */
const plain = ({ result: _result, request: _request, ...rest }: JobRead): JobListed => rest;

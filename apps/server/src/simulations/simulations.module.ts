import { type BatchSummary, type Scenario, duelScenario } from '@insidia/core';
import { Body, Controller, HttpCode, Inject, Module, Param, Post, Req, Res } from '@nestjs/common';
import { ApiOperation, ApiTags } from '@nestjs/swagger';
import type { Request, Response } from 'express';
import { clientOf } from '../access/access';
import { badRequest, notFound, tooMuchWork } from '../problem';
import { requests } from '../requests';
import { ProjectsModule } from '../projects/projects.module';
import { ProjectsService } from '../projects/projects.service';
import { Stopped, Workers } from '../threads/workers';
import { SimulationRequest } from './request';

/** Steps of units that one request may ask for and wait: a quarter of an hour or so. More than that is a batch. */
export const MOST_REQUEST_WORK = 1_000_000_000;

@ApiTags('simulations')
@Controller('api/projects/:id/simulations')
class SimulationsController {
  constructor(
    @Inject(ProjectsService) private readonly projects: ProjectsService,
    @Inject(Workers) private readonly workers: Workers,
  ) {}

  @Post()
  @HttpCode(200)
  @ApiOperation({ summary: 'Run an encounter or a duel of the newest revision and wait for what it measures' })
  async simulate(
    @Param('id') id: string,
    @Body(requests) request: SimulationRequest,
    @Req() from: Request,
    @Res({ passthrough: true }) response: Response,
  ) {
    const { document, revision } = await this.projects.get(id);
    const { encounter, duel, tier, skill, runs, seed } = request;
    if (!encounter === !duel) throw badRequest('say either encounter or duel');
    const lens = { tier, skill };
    const scenario: Scenario = duel ? duelScenario(document, lens, duel) : { kind: 'encounter', id: encounter as string, ...lens };
    const client = clientOf(from);
    const planned = await this.workers.plan({ document, scenario }, client);
    if ('trouble' in planned) throw badRequest(planned.trouble);
    const work = planned.work * runs;
    if (work > MOST_REQUEST_WORK)
      throw tooMuchWork(
        `${runs} runs may come to ${work} steps of units, and a request that is waited for may ask for ${MOST_REQUEST_WORK}: ask for at most ${Math.floor(MOST_REQUEST_WORK / planned.work)} runs, or for a batch`,
      );
    // Whoever asked and has gone holds no thread.
    const gone = new AbortController();
    response.once('close', () => gone.abort());
    if (from.socket.destroyed) gone.abort();
    try {
      const summary = await this.workers.simulate({ document, scenario, seed, runs }, { work, client, project: id, signal: gone.signal });
      return { revision, ...withoutInfinity(summary) };
    } catch (error) {
      if (error instanceof Stopped) throw notFound('project', id);
      throw error;
    }
  }
}

/** JSON has no infinity: a survivor's time is written as text, as the command line does. */
function withoutInfinity(summary: BatchSummary): BatchSummary {
  return JSON.parse(
    JSON.stringify(summary, (_, value: unknown) => (value === Infinity ? 'Infinity' : value === -Infinity ? '-Infinity' : value)),
  ) as BatchSummary;
}

@Module({ imports: [ProjectsModule], controllers: [SimulationsController] })
export class SimulationsModule {}

import { type BatchSummary, compile, duelOptions } from '@insidia/core';
import { Body, Controller, HttpCode, Inject, Injectable, Module, type OnApplicationShutdown, Param, Post } from '@nestjs/common';
import { ApiOperation, ApiTags } from '@nestjs/swagger';
import { join } from 'node:path';
import { Piscina } from 'piscina';
import { badRequest } from '../problem';
import { requests } from '../requests';
import { ProjectsModule } from '../projects/projects.module';
import { ProjectsService } from '../projects/projects.service';
import { SimulationRequest } from './request';

/** Two worker threads; started when first needed. */
@Injectable()
class Workers implements OnApplicationShutdown {
  private readonly pool = new Piscina({ filename: join(__dirname, 'worker.js'), minThreads: 0, maxThreads: 2, idleTimeout: 30_000 });

  run(task: object): Promise<BatchSummary> {
    return this.pool.run(task) as Promise<BatchSummary>;
  }

  async onApplicationShutdown(): Promise<void> {
    await this.pool.close();
  }
}

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
  async simulate(@Param('id') id: string, @Body(requests) request: SimulationRequest) {
    const { document, revision } = await this.projects.get(id);
    const { encounter, duel, tier, skill, runs, seed } = request;
    if (!encounter === !duel) throw badRequest('say either encounter or duel');
    let compiled;
    try {
      compiled = compile(document, duel ? duelOptions(document, { tier, skill }, duel) : { encounter: encounter as string, tier, skill });
    } catch (error) {
      throw badRequest((error as Error).message);
    }
    return { revision, ...withoutInfinity(await this.workers.run({ compiled, seed, runs })) };
  }
}

/** JSON has no infinity: a survivor's time is written as text, as the command line does. */
function withoutInfinity(summary: BatchSummary): BatchSummary {
  return JSON.parse(
    JSON.stringify(summary, (_, value: unknown) => (value === Infinity ? 'Infinity' : value === -Infinity ? '-Infinity' : value)),
  ) as BatchSummary;
}

@Module({ imports: [ProjectsModule], controllers: [SimulationsController], providers: [Workers] })
export class SimulationsModule {}

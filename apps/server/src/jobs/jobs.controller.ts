import { Body, Controller, Delete, Get, HttpCode, Inject, type MessageEvent, Param, Post, Req, Sse } from '@nestjs/common';
import { ApiOperation, ApiProduces, ApiTags } from '@nestjs/swagger';
import type { Request } from 'express';
import { type Observable, filter, finalize, interval, map, takeUntil } from 'rxjs';
import { clientOf, goesOn } from '../access/access';
import { EndedSessions } from '../access/ended-sessions';
import { openStream } from '../access/streams';
import { requests } from '../requests';
import { JobsService } from './jobs.service';
import { JobRequest } from './request';

/** ms between two looks at whether whoever listens is signed in still. */
const SESSION_LOOK_MS = 1000;

@ApiTags('jobs')
@Controller('api/projects/:id/jobs')
export class JobsController {
  constructor(
    @Inject(JobsService) private readonly jobs: JobsService,
    @Inject(EndedSessions) private readonly access: EndedSessions,
  ) {}

  @Post()
  @HttpCode(202)
  @ApiOperation({
    summary:
      'Begin work on the newest revision that outlasts the request: what moves a fight, two versions and which edit did it, a search',
  })
  begin(@Param('id') id: string, @Body(requests) request: JobRequest, @Req() from: Request) {
    return this.jobs.begin(id, request, clientOf(from));
  }

  @Get()
  @ApiOperation({ summary: 'Jobs of a project, the newest first: those that wait or run, and the last fifty that have ended' })
  list(@Param('id') id: string) {
    return this.jobs.list(id);
  }

  @Get(':job')
  @ApiOperation({ summary: 'One of them: what was asked, how far it is, and what it came to' })
  read(@Param('id') id: string, @Param('job') job: string) {
    return this.jobs.read(id, job);
  }

  @Delete(':job')
  @HttpCode(204)
  @ApiOperation({ summary: 'Stop it; one that has ended stays as it is' })
  cancel(@Param('id') id: string, @Param('job') job: string) {
    return this.jobs.cancel(id, job);
  }

  @Sse(':job/events')
  @ApiProduces('text/event-stream')
  @ApiOperation({ summary: 'How far it is whenever that changes, until it has ended, as server-sent events' })
  async events(@Param('id') id: string, @Param('job') job: string, @Req() request: Request): Promise<Observable<MessageEvent>> {
    const found = await this.jobs.watch(id, job);
    const close = openStream(request);
    const signedOut = interval(SESSION_LOOK_MS).pipe(filter(() => !goesOn(this.access.sessions, request)));
    return found.pipe(
      takeUntil(signedOut),
      map((one) => ({ data: one })),
      finalize(close),
    );
  }
}

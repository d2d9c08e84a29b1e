import { Body, Controller, Delete, Get, Header, HttpCode, Inject, type MessageEvent, Param, Post, Query, Req, Sse } from '@nestjs/common';
import { BAND_MEASURES, CURVES, LIMITS } from '@insidia/core';
import { ApiOperation, ApiProduces, ApiTags } from '@nestjs/swagger';
import type { Request } from 'express';
import { type Observable, filter, finalize, interval, map, takeUntil } from 'rxjs';
import { clientOf, goesOn } from '../access/access';
import { EndedSessions } from '../access/ended-sessions';
import { openStream } from '../access/streams';
import { badRequest } from '../problem';
import { requests } from '../requests';
import { BatchesService } from './batches.service';
import { ProgressFeed } from './progress-feed';
import { ShardQueue } from './queue';
import { BatchRequest, CausesRequest, ReadRequest } from './request';

/** ms between two looks at whether whoever listens is signed in still. */
const SESSION_LOOK_MS = 1000;

@ApiTags('batches')
@Controller('api/projects/:id')
export class BatchesController {
  constructor(
    @Inject(BatchesService) private readonly batches: BatchesService,
    @Inject(ProgressFeed) private readonly feed: ProgressFeed,
    @Inject(EndedSessions) private readonly access: EndedSessions,
    @Inject(ShardQueue) private readonly queue: ShardQueue,
  ) {}

  @Post('batches')
  @HttpCode(202)
  @ApiOperation({ summary: 'Ask for so many runs of each of these cells of the newest revision; what is known is not run again' })
  ask(@Param('id') id: string, @Body(requests) { cells }: BatchRequest, @Req() request: Request) {
    return this.batches.ask(id, cells, clientOf(request));
  }

  @Post('batches/estimate')
  @HttpCode(200)
  @ApiOperation({ summary: 'What so many runs of these cells may cost: steps that units live, and seconds on this machine' })
  estimate(@Param('id') id: string, @Body(requests) { cells }: BatchRequest, @Req() request: Request) {
    return this.batches.estimate(id, cells, clientOf(request));
  }

  @Delete('batches')
  @HttpCode(204)
  @ApiOperation({ summary: 'Take back what is not done, of one cell or of all, and stop what is being run; what has been run is kept' })
  cancel(@Param('id') id: string, @Query('cell') cell: string | undefined) {
    return this.batches.cancel(id, cell);
  }

  @Get('batches')
  @ApiOperation({ summary: 'How far the batches are that are not finished: runs done and wanted, by cell' })
  progress(@Param('id') id: string) {
    return this.batches.progress(id);
  }

  @Sse('batches/events')
  @ApiProduces('text/event-stream')
  @ApiOperation({ summary: 'The same whenever it changes, as server-sent events' })
  events(@Param('id') id: string, @Req() request: Request): Observable<MessageEvent> {
    const close = openStream(request);
    this.queue.warm();
    const signedOut = interval(SESSION_LOOK_MS).pipe(filter(() => !goesOn(this.access.sessions, request)));
    return this.feed.of(id).pipe(
      takeUntil(signedOut),
      map((progress) => ({ data: progress })),
      finalize(close),
    );
  }

  @Post('cells/read')
  @HttpCode(200)
  @ApiOperation({ summary: 'What has been run of these cells as they are now, else as they were: the values of some measures, one a run' })
  read(@Param('id') id: string, @Body(requests) request: ReadRequest, @Req() from: Request) {
    return this.batches.read(id, request, clientOf(from));
  }

  @Get('cells/history')
  @ApiOperation({ summary: 'The last six batches of a cell with the values of one measure' })
  history(@Param('id') id: string, @Query('cell') cell: string | undefined, @Query('column') column: string | undefined) {
    if (!cell || !column) throw badRequest('cell and column must be given');
    return this.batches.history(id, cell, column);
  }

  @Get('cells/curve')
  @ApiOperation({ summary: 'Pressure, or another curve, of a cell over its clock: median with p10 to p90 and p25 to p75' })
  curve(@Param('id') id: string, @Query('cell') cell: string | undefined, @Query('of') of = 'pressure', @Req() request: Request) {
    if (!cell) throw badRequest('cell must be given');
    const name = CURVES.find((one) => one === of);
    if (!name) throw badRequest(`of must be one of ${CURVES.join(', ')}: it is ${of}`);
    return this.batches.curve(id, cell, name, clientOf(request));
  }

  @Get('report')
  @Header('Content-Type', 'text/html; charset=utf-8')
  @ApiProduces('text/html')
  @ApiOperation({ summary: 'One page to print: verdicts, boards, pacing and findings of what has been run' })
  report(
    @Param('id') id: string,
    @Req() request: Request,
    @Query('skill') skill?: string,
    @Query('style') style?: string,
    @Query('players') players?: string,
    @Query('measure') measure?: string | string[],
  ) {
    const count = players === undefined ? undefined : Number(players);
    if (count !== undefined && !(Number.isInteger(count) && count >= 1 && count <= LIMITS.party))
      throw badRequest(`players must be a whole number from 1 to ${LIMITS.party}: it is ${players}`);
    const measures = [measure ?? []].flat().map((name) => {
      const found = BAND_MEASURES.find((one) => one === name);
      if (!found) throw badRequest(`measure must be one of ${BAND_MEASURES.join(', ')}: it is ${name}`);
      return found;
    });
    return this.batches.report(id, { skill, style, players: count }, measures, clientOf(request));
  }

  @Post('cells/causes')
  @HttpCode(200)
  @ApiOperation({
    summary: 'What leaving out a wave or a kind does to the mean pressure of a stretch, on the same seeds, where both were run',
  })
  causes(@Param('id') id: string, @Body(requests) request: CausesRequest, @Req() from: Request) {
    return this.batches.causes(id, request, clientOf(from));
  }
}

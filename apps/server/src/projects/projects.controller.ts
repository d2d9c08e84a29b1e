import { type PatchOperation } from '@insidia/core';
import { Body, Controller, Delete, Get, Headers, HttpCode, Inject, Param, Patch, Post, Put, Query, Req, Res } from '@nestjs/common';
import { ApiBody, ApiHeader, ApiOperation, ApiQuery, ApiResponse, ApiTags, getSchemaPath } from '@nestjs/swagger';
import type { Request, Response } from 'express';
import { clientOf, nameOf } from '../access/access';
import { DEMOS, type Demo, loadDemoAgain } from '../demo';
import { badRequest, echo, preconditionRequired } from '../problem';
import { ProjectsService, type Said, type Versioned } from './projects.service';

const PROJECT = { schema: { $ref: getSchemaPath('Project') } };
/** Revisions of one page of the list. */
const MOST_LISTED = 200;
/** What a revision's number is in the database. */
const MOST_REVISION = 2 ** 31 - 1;
const IF_MATCH = { name: 'If-Match', required: true, description: 'ETag of the revision that the change was made to' };

@ApiTags('projects')
@Controller('api/demo')
export class DemoController {
  constructor(@Inject(ProjectsService) private readonly projects: ProjectsService) {}

  @Post()
  @ApiOperation({ summary: 'Add a demo once more, under an id and a name that no project has' })
  @ApiQuery({ name: 'of', required: false, enum: DEMOS, description: 'the station, whose fights go by seconds, or its archive, in turns' })
  @ApiResponse({ status: 201, ...PROJECT })
  async create(@Req() request: Request, @Res({ passthrough: true }) response: Response, @Query('of') of: unknown = DEMOS[0]) {
    if (!DEMOS.includes(of as Demo)) throw badRequest(`of must be one of ${DEMOS.join(', ')}: it is ${echo(of)}`);
    const { author, client } = saidBy(request, undefined, '');
    const created = await loadDemoAgain(this.projects, of as Demo, { author, client });
    response.location(`/api/projects/${created.document.id}`);
    return answer(response, created);
  }
}

@ApiTags('projects')
@Controller('api/projects')
export class ProjectsController {
  constructor(@Inject(ProjectsService) private readonly projects: ProjectsService) {}

  @Get()
  @ApiOperation({ summary: 'All projects' })
  list() {
    return this.projects.list();
  }

  @Post()
  @ApiOperation({ summary: 'Add a project' })
  @ApiBody(PROJECT)
  @ApiResponse({ status: 201, ...PROJECT })
  @ApiResponse({ status: 422, description: 'problem details: path, rule and value of everything wrong' })
  async create(@Body() document: unknown, @Req() request: Request, @Res({ passthrough: true }) response: Response) {
    const created = await this.projects.create(document, saidBy(request, undefined, 'Created'));
    response.location(`/api/projects/${created.document.id}`);
    return answer(response, created);
  }

  @Get(':id')
  @ApiOperation({ summary: 'A project document; the ETag names its revision' })
  @ApiResponse({ status: 200, ...PROJECT })
  async get(@Param('id') id: string, @Res({ passthrough: true }) response: Response) {
    return answer(response, await this.projects.get(id));
  }

  @Put(':id')
  @ApiOperation({ summary: 'Replace a whole document' })
  @ApiBody(PROJECT)
  @ApiHeader(IF_MATCH)
  @ApiResponse({ status: 409, description: 'somebody else has written since: problem details with both versions' })
  async replace(
    @Param('id') id: string,
    @Headers('if-match') match: string | undefined,
    @Body() document: unknown,
    @Query('label') label: string | undefined,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ) {
    return answer(response, await this.projects.replace(id, revisionOf(match), document, saidBy(request, label, 'Replaced the document')));
  }

  @Patch(':id')
  @ApiOperation({ summary: 'Apply a JSON Patch (RFC 6902) whose pointers step through lists by id' })
  @ApiHeader(IF_MATCH)
  @ApiBody({ schema: { type: 'array', items: { type: 'object' } } })
  async patch(
    @Param('id') id: string,
    @Headers('if-match') match: string | undefined,
    @Body() operations: unknown,
    @Query('label') label: string | undefined,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ) {
    const patch = patchOf(operations);
    return answer(
      response,
      await this.projects.patch(id, revisionOf(match), patch, saidBy(request, label, `Changed ${patch.length} values`)),
    );
  }

  @Delete(':id')
  @HttpCode(204)
  @ApiOperation({ summary: 'Delete a project; for thirty days it can be brought back with all its revisions' })
  @ApiHeader(IF_MATCH)
  async remove(@Param('id') id: string, @Headers('if-match') match: string | undefined) {
    await this.projects.remove(id, revisionOf(match));
  }

  @Get(':id/revisions')
  @ApiOperation({
    summary: 'A page of the revisions, the newest first: when, what in words, and by whom; older: what to ask for next, as before',
  })
  @ApiQuery({ name: 'before', required: false, schema: { type: 'integer', minimum: 1 } })
  @ApiQuery({ name: 'limit', required: false, schema: { type: 'integer', minimum: 1, maximum: MOST_LISTED } })
  revisions(@Param('id') id: string, @Query('before') before: unknown, @Query('limit') limit: unknown) {
    return this.projects.revisions(id, wholeOf('before', before, MOST_REVISION), wholeOf('limit', limit, MOST_LISTED) ?? MOST_LISTED);
  }

  @Get(':id/revisions/:number')
  @ApiOperation({ summary: 'The document as of a revision' })
  async revision(@Param('id') id: string, @Param('number') given: string, @Res({ passthrough: true }) response: Response) {
    return answer(response, await this.projects.revision(id, numberOf(given)));
  }

  @Put(':id/revisions/:number/name')
  @HttpCode(204)
  @ApiOperation({ summary: 'Name a revision as a baseline; an empty name takes it away' })
  @ApiBody({ schema: { type: 'object', properties: { name: { type: 'string', maxLength: 80 } }, required: ['name'] } })
  async nameRevision(@Param('id') id: string, @Param('number') given: string, @Body() body: unknown) {
    const name = (body as { name?: unknown } | undefined)?.name;
    if (typeof name !== 'string' || name.trim().length > 80)
      throw badRequest(`name must be text of at most 80 characters: it is ${echo(name)}`);
    await this.projects.nameRevision(id, numberOf(given), name.trim());
  }

  @Post(':id/revisions/:number/restore')
  @HttpCode(200)
  @ApiOperation({ summary: 'Make an earlier revision the newest one' })
  @ApiHeader(IF_MATCH)
  async restore(
    @Param('id') id: string,
    @Param('number') given: string,
    @Headers('if-match') match: string | undefined,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ) {
    return answer(response, await this.projects.restore(id, revisionOf(match), numberOf(given), saidBy(request, undefined, '')));
  }
}

function answer(response: Response, { revision, document }: Versioned) {
  response.set('ETag', `"${revision}"`);
  return document;
}

function revisionOf(match: string | undefined): number {
  if (!match) throw preconditionRequired();
  const found = /^(?:W\/)?"(\d{1,10})"$/.exec(match.trim());
  if (!found || Number(found[1]) > MOST_REVISION) throw badRequest(`If-Match must be an ETag such as "12": it is ${echo(match)}`);
  return Number(found[1]);
}

/** The number of a revision in an address. */
const numberOf = (given: string): number => wholeOf('revision', given, MOST_REVISION)!;

/** A whole number from 1, of a query; undefined where it is not given. @throws ProblemError */
function wholeOf(name: string, value: unknown, most: number): number | undefined {
  if (value === undefined) return undefined;
  const number = typeof value === 'string' && /^\d{1,10}$/.test(value) ? Number(value) : NaN;
  if (!(number >= 1 && number <= most)) throw badRequest(`${name} must be a whole number from 1 to ${most}: it is ${echo(value)}`);
  return number;
}

function saidBy(request: Request, label: string | undefined, otherwise: string): Said {
  const text = label?.trim();
  return { label: text ? text.slice(0, 200) : otherwise, author: nameOf(request), client: clientOf(request) };
}

function patchOf(operations: unknown): PatchOperation[] {
  if (!Array.isArray(operations) || !operations.length) throw badRequest('a JSON Patch is a list of at least one operation');
  operations.forEach((operation, i) => {
    const { op, path } = (operation ?? {}) as { op?: unknown; path?: unknown };
    if (!['add', 'remove', 'replace', 'test'].includes(op as string))
      throw badRequest(`operation ${i}: op must be add, remove, replace or test: it is ${echo(op)}`);
    if (typeof path !== 'string' || (path !== '' && !path.startsWith('/')))
      throw badRequest(`operation ${i}: path must be a JSON Pointer: it is ${echo(path)}`);
    if (op !== 'remove' && !('value' in (operation as object))) throw badRequest(`operation ${i}: value is missing`);
  });
  return operations as PatchOperation[];
}

@ApiTags('projects')
@Controller('api/deleted-projects')
export class DeletedProjectsController {
  constructor(@Inject(ProjectsService) private readonly projects: ProjectsService) {}

  @Get()
  @ApiOperation({ summary: 'Deleted projects, and until when each can be brought back' })
  deleted() {
    return this.projects.deleted();
  }

  @Post(':id/bring-back')
  @HttpCode(200)
  @ApiOperation({ summary: 'Bring a deleted project back, with all its revisions' })
  async bringBack(@Param('id') id: string, @Res({ passthrough: true }) response: Response) {
    return answer(response, await this.projects.bringBack(id));
  }
}

import { type PatchOperation } from '@insidia/core';
import {
  Body,
  Controller,
  Delete,
  Get,
  Headers,
  HttpCode,
  Inject,
  Param,
  ParseIntPipe,
  Patch,
  Post,
  Put,
  Query,
  Res,
} from '@nestjs/common';
import { ApiBody, ApiHeader, ApiOperation, ApiResponse, ApiTags, getSchemaPath } from '@nestjs/swagger';
import type { Response } from 'express';
import { badRequest, preconditionRequired } from '../problem';
import { ProjectsService, type Versioned } from './projects.service';

const PROJECT = { schema: { $ref: getSchemaPath('Project') } };
const IF_MATCH = { name: 'If-Match', required: true, description: 'ETag of the revision that the change was made to' };

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
  async create(@Body() document: unknown, @Res({ passthrough: true }) response: Response) {
    const created = await this.projects.create(document);
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
    @Res({ passthrough: true }) response: Response,
  ) {
    return answer(response, await this.projects.replace(id, revisionOf(match), document, labelOf(label, 'Replaced the document')));
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
    @Res({ passthrough: true }) response: Response,
  ) {
    const patch = patchOf(operations);
    return answer(response, await this.projects.patch(id, revisionOf(match), patch, labelOf(label, `Changed ${patch.length} values`)));
  }

  @Delete(':id')
  @HttpCode(204)
  @ApiOperation({ summary: 'Delete a project with all its revisions' })
  @ApiHeader(IF_MATCH)
  async remove(@Param('id') id: string, @Headers('if-match') match: string | undefined) {
    await this.projects.remove(id, revisionOf(match));
  }

  @Get(':id/revisions')
  @ApiOperation({ summary: 'The newest 500 revisions: when, what in words, and as a patch' })
  revisions(@Param('id') id: string) {
    return this.projects.revisions(id);
  }

  @Get(':id/revisions/:number')
  @ApiOperation({ summary: 'The document as of a revision' })
  async revision(@Param('id') id: string, @Param('number', ParseIntPipe) number: number, @Res({ passthrough: true }) response: Response) {
    return answer(response, await this.projects.revision(id, number));
  }

  @Put(':id/revisions/:number/name')
  @HttpCode(204)
  @ApiOperation({ summary: 'Name a revision as a baseline; an empty name takes it away' })
  @ApiBody({ schema: { type: 'object', properties: { name: { type: 'string', maxLength: 80 } }, required: ['name'] } })
  async nameRevision(@Param('id') id: string, @Param('number', ParseIntPipe) number: number, @Body() body: unknown) {
    const name = (body as { name?: unknown } | undefined)?.name;
    if (typeof name !== 'string' || name.trim().length > 80)
      throw badRequest(`name must be text of at most 80 characters: it is ${JSON.stringify(name)}`);
    await this.projects.nameRevision(id, number, name.trim());
  }

  @Post(':id/revisions/:number/restore')
  @HttpCode(200)
  @ApiOperation({ summary: 'Make an earlier revision the newest one' })
  @ApiHeader(IF_MATCH)
  async restore(
    @Param('id') id: string,
    @Param('number', ParseIntPipe) number: number,
    @Headers('if-match') match: string | undefined,
    @Res({ passthrough: true }) response: Response,
  ) {
    return answer(response, await this.projects.restore(id, revisionOf(match), number));
  }
}

function answer(response: Response, { revision, document }: Versioned) {
  response.set('ETag', `"${revision}"`);
  return document;
}

function revisionOf(match: string | undefined): number {
  if (!match) throw preconditionRequired();
  const found = /^(?:W\/)?"(\d+)"$/.exec(match.trim());
  if (!found) throw badRequest(`If-Match must be an ETag such as "12": it is ${match}`);
  return Number(found[1]);
}

function labelOf(label: string | undefined, otherwise: string): string {
  const text = label?.trim();
  return text ? text.slice(0, 200) : otherwise;
}

function patchOf(operations: unknown): PatchOperation[] {
  if (!Array.isArray(operations) || !operations.length) throw badRequest('a JSON Patch is a list of at least one operation');
  operations.forEach((operation, i) => {
    const { op, path } = (operation ?? {}) as { op?: unknown; path?: unknown };
    if (!['add', 'remove', 'replace', 'test'].includes(op as string))
      throw badRequest(`operation ${i}: op must be add, remove, replace or test: it is ${JSON.stringify(op)}`);
    if (typeof path !== 'string' || (path !== '' && !path.startsWith('/')))
      throw badRequest(`operation ${i}: path must be a JSON Pointer: it is ${JSON.stringify(path)}`);
    if (op !== 'remove' && !('value' in (operation as object))) throw badRequest(`operation ${i}: value is missing`);
  });
  return operations as PatchOperation[];
}

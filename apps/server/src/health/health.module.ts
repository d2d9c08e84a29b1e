import { ENGINE_VERSION } from '@insidia/core';
import { projectSchema } from '@insidia/core/schema';
import { MikroORM } from '@mikro-orm/postgresql';
import { Controller, Get, Inject, Module, Res } from '@nestjs/common';
import { ApiOperation, ApiTags } from '@nestjs/swagger';
import type { Response } from 'express';
import { isFull } from '../database/trouble';

@ApiTags('service')
@Controller('api')
class HealthController {
  constructor(@Inject(MikroORM) private readonly orm: MikroORM) {}

  @Get('health')
  @ApiOperation({ summary: 'Whether the server and its database answer' })
  async health(@Res({ passthrough: true }) response: Response) {
    const status = !(await this.answers()) ? 'no database' : isFull() ? 'disk full' : 'ok';
    if (status !== 'ok') response.status(status === 'disk full' ? 507 : 503);
    return { status, engine: ENGINE_VERSION };
  }

  private async answers(): Promise<boolean> {
    try {
      await this.orm.em.fork().getConnection().execute('select 1');
      return true;
    } catch {
      return false;
    }
  }

  @Get('schema')
  @ApiOperation({ summary: 'JSON Schema (2020-12) of the project document' })
  schema() {
    return projectSchema();
  }
}

@Module({ controllers: [HealthController] })
export class HealthModule {}

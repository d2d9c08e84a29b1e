import { ENGINE_VERSION } from '@insidia/core';
import { projectSchema } from '@insidia/core/schema';
import { MikroORM } from '@mikro-orm/postgresql';
import { Controller, Get, Inject, Module, Res } from '@nestjs/common';
import { ApiOperation, ApiTags } from '@nestjs/swagger';
import type { Response } from 'express';

@ApiTags('service')
@Controller('api')
class HealthController {
  constructor(@Inject(MikroORM) private readonly orm: MikroORM) {}

  @Get('health')
  @ApiOperation({ summary: 'Whether the server and its database answer' })
  async health(@Res({ passthrough: true }) response: Response) {
    const database = await this.orm.isConnected();
    if (!database) response.status(503);
    return { status: database ? 'ok' : 'no database', engine: ENGINE_VERSION };
  }

  @Get('schema')
  @ApiOperation({ summary: 'JSON Schema (2020-12) of the project document' })
  schema() {
    return projectSchema();
  }
}

@Module({ controllers: [HealthController] })
export class HealthModule {}

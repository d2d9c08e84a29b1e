import { Module } from '@nestjs/common';
import { ServeStaticModule } from '@nestjs/serve-static';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { LoggerModule } from 'nestjs-pino';
import { AccessModule } from './access/access.module';
import { BatchesModule } from './batches/batches.module';
import { DatabaseModule } from './database/database.module';
import { HealthModule } from './health/health.module';
import { JobsModule } from './jobs/jobs.module';
import { ProjectsModule } from './projects/projects.module';
import { ThreadsModule } from './threads/threads.module';
import { SimulationsModule } from './simulations/simulations.module';

const page = join(__dirname, '../../web/dist');

@Module({
  imports: [
    LoggerModule.forRoot({ pinoHttp: { level: process.env.LOG_LEVEL ?? 'warn' } }),
    DatabaseModule,
    AccessModule,
    ThreadsModule,
    ProjectsModule,
    SimulationsModule,
    BatchesModule,
    JobsModule,
    HealthModule,
    ...(existsSync(page) ? [ServeStaticModule.forRoot({ rootPath: page, exclude: ['/api/{*path}'] })] : []),
  ],
})
export class AppModule {}

import { Module } from '@nestjs/common';
import { ProjectsModule } from '../projects/projects.module';
import { Jobs } from './jobs';
import { JobsController } from './jobs.controller';
import { JobsService } from './jobs.service';
import { JobRunner } from './runner';

/** What runs jobs, by itself: a worker on another machine has no more. */
@Module({ providers: [Jobs, JobRunner], exports: [Jobs, JobRunner] })
export class JobRunnerModule {}

@Module({ imports: [ProjectsModule, JobRunnerModule], controllers: [JobsController], providers: [JobsService] })
export class JobsModule {}

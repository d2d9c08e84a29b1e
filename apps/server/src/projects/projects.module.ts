import { Module } from '@nestjs/common';
import { DeletedProjectsController, ProjectsController } from './projects.controller';
import { ProjectsService } from './projects.service';

@Module({ controllers: [ProjectsController, DeletedProjectsController], providers: [ProjectsService], exports: [ProjectsService] })
export class ProjectsModule {}

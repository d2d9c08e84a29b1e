import { Module } from '@nestjs/common';
import { DeletedProjectsController, DemoController, ProjectsController } from './projects.controller';
import { ProjectsService } from './projects.service';

@Module({
  controllers: [ProjectsController, DeletedProjectsController, DemoController],
  providers: [ProjectsService],
  exports: [ProjectsService],
})
export class ProjectsModule {}

import { Module } from '@nestjs/common';
import { ProjectsModule } from '../projects/projects.module';
import { BatchesController } from './batches.controller';
import { BatchesService } from './batches.service';
import { ProgressFeed } from './progress-feed';
import { ShardQueue } from './queue';
import { Shards } from './shards';

/** What runs shards, by itself: a worker on another machine is no more than this. */
@Module({ providers: [Shards, ShardQueue], exports: [Shards, ShardQueue] })
export class ShardsModule {}

@Module({ imports: [ProjectsModule, ShardsModule], controllers: [BatchesController], providers: [BatchesService, ProgressFeed] })
export class BatchesModule {}

/** npm run worker: takes shards of batches and jobs from the queue of an Insidia that runs elsewhere, and serves nothing. */
import 'reflect-metadata';
import { Module } from '@nestjs/common';
import { NestFactory } from '@nestjs/core';
import { LoggerModule, Logger } from 'nestjs-pino';
import { ShardsModule } from './batches/batches.module';
import { JobRunnerModule } from './jobs/jobs.module';
import { ThreadsModule } from './threads/threads.module';
import { DatabaseModule } from './database/database.module';

@Module({
  imports: [
    LoggerModule.forRoot({ pinoHttp: { level: process.env.LOG_LEVEL ?? 'warn' } }),
    DatabaseModule,
    ThreadsModule,
    ShardsModule,
    JobRunnerModule,
  ],
})
class WorkerModule {}

async function main(): Promise<void> {
  const app = await NestFactory.createApplicationContext(WorkerModule, { logger: false, abortOnError: false });
  app.useLogger(app.get(Logger));
  let stopping = false;
  const stop = async () => {
    if (stopping) return;
    stopping = true;
    await app.close();
    process.exit(0);
  };
  for (const signal of ['SIGTERM', 'SIGINT'] as const) process.on(signal, () => void stop());
  process.on('disconnect', () => void stop());
  console.log('insidia: working');
  process.send?.('working');
}

main().catch((error: unknown) => {
  console.error(`insidia: the worker could not start: ${error instanceof Error ? error.message : String(error)}`);
  process.exit(1);
});

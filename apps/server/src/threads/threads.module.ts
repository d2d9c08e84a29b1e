import { Global, Module } from '@nestjs/common';
import { Workers } from './workers';

@Global()
@Module({ providers: [Workers], exports: [Workers] })
export class ThreadsModule {}

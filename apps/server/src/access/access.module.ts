import { Global, Module } from '@nestjs/common';
import { EndedSessions } from './ended-sessions';

@Global()
@Module({ providers: [EndedSessions], exports: [EndedSessions] })
export class AccessModule {}

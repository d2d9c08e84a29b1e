/** Sessions, and in the database those that were ended before their time: a restart does not bring them back. */
import { MikroORM } from '@mikro-orm/postgresql';
import { Inject, Injectable, type OnModuleInit } from '@nestjs/common';
import { settings } from '../settings';
import { type Session, Sessions } from './sessions';

@Injectable()
export class EndedSessions implements OnModuleInit {
  /** Undefined where there is no password. */
  readonly sessions: Sessions | undefined;

  constructor(@Inject(MikroORM) private readonly orm: MikroORM) {
    const { password } = settings();
    if (password) this.sessions = new Sessions(password, (session) => void this.keep(session));
  }

  private query<T>(sql: string, values: unknown[] = []): Promise<T[]> {
    return this.orm.em.fork().getConnection().execute(sql, values, 'all') as Promise<T[]>;
  }

  async onModuleInit(): Promise<void> {
    await this.query('delete from ended_session where until < now()');
    const ended = await this.query<{ id: string; until: Date }>('select id, until from ended_session');
    for (const { id, until } of ended) this.sessions?.recall({ id, until: new Date(until).getTime() });
  }

  private async keep({ id, until }: Session): Promise<void> {
    await this.query('insert into ended_session (id, until) values (?, ?) on conflict do nothing', [id, new Date(until)]);
  }
}

import { Migrator } from '@mikro-orm/migrations';
import { MikroORM, PostgreSqlDriver, UnderscoreNamingStrategy } from '@mikro-orm/postgresql';
import { Global, Inject, Injectable, Module, type OnApplicationShutdown } from '@nestjs/common';
import { settings } from '../settings';
import { ObjectVersion, ProjectRecord, RevisionRecord } from './entities';
import { migrations } from './migrations';

/** ms after which a connection that can't be had, and a statement that does not end, are given up. */
const CONNECT_MS = 10_000;
const STATEMENT_MS = 30_000;

async function connect(): Promise<MikroORM> {
  const orm = await MikroORM.init({
    driver: PostgreSqlDriver,
    clientUrl: settings().databaseUrl,
    entities: [ProjectRecord, RevisionRecord, ObjectVersion],
    namingStrategy: UnderscoreNamingStrategy,
    extensions: [Migrator],
    migrations: { migrationsList: migrations, tableName: 'migration', snapshot: false, silent: true },
    pool: { min: 0, max: 12, acquireTimeoutMillis: CONNECT_MS },
    driverOptions: { connection: { connectionTimeoutMillis: CONNECT_MS, statement_timeout: STATEMENT_MS } },
    discovery: { warnWhenNoEntities: false },
  });
  await orm.getMigrator().up();
  return orm;
}

/** Closes the connections once every request has been answered. */
@Injectable()
class Closing implements OnApplicationShutdown {
  constructor(@Inject(MikroORM) private readonly orm: MikroORM) {}

  async onApplicationShutdown(): Promise<void> {
    await this.orm.close(true);
  }
}

@Global()
@Module({ providers: [{ provide: MikroORM, useFactory: connect }, Closing], exports: [MikroORM] })
export class DatabaseModule {}

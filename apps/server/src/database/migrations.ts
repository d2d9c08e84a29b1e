import { Migration } from '@mikro-orm/migrations';

/** Projects, their revisions, and their objects version by version. */
export class ProjectsMigration extends Migration {
  override up(): void {
    this.addSql(`create table project (
      id text primary key, name text not null, revision integer not null,
      created_at timestamptz not null, updated_at timestamptz not null)`);
    this.addSql(`create table revision (
      id bigserial primary key, project text not null references project (id) on delete cascade, number integer not null,
      at timestamptz not null, label text not null, outline json not null, patch json not null,
      unique (project, number))`);
    this.addSql(`create table object_version (
      id bigserial primary key, project text not null references project (id) on delete cascade, collection text not null,
      object_id text not null, revision integer not null, body json,
      unique (project, collection, object_id, revision))`);
    this.addSql(`create index on object_version (project, revision)`);
  }

  override down(): void {
    this.addSql('drop table object_version, revision, project');
  }
}

/** Revisions that somebody has given a name. */
export class BaselinesMigration extends Migration {
  override up(): void {
    this.addSql('alter table revision add column name text');
  }

  override down(): void {
    this.addSql('alter table revision drop column name');
  }
}

/** Batches, kept by what they are of, in shards of seeds; and which batches the cells of a project have been run as. */
export class BatchesMigration extends Migration {
  override up(): void {
    this.addSql(`create table batch (
      id text primary key, project text not null references project (id) on delete cascade, revision integer not null,
      cell text not null, until json, created_at timestamptz not null)`);
    this.addSql(`create table shard (
      batch text not null references batch (id) on delete cascade, number integer not null,
      queued_at timestamptz, owner text, lease timestamptz, done_at timestamptz,
      tries integer not null default 0, digests json, columns json, "values" bytea, curves bytea, primary key (batch, number))`);
    // Kept as they are, so that a part of them can be read without the whole.
    this.addSql(`alter table shard alter column "values" set storage external, alter column curves set storage external`);
    this.addSql(`create index on shard (queued_at, lease) where done_at is null`);
    this.addSql(`create table cell_batch (
      project text not null references project (id) on delete cascade, cell text not null,
      batch text not null references batch (id) on delete cascade, revision integer not null, at timestamptz not null,
      primary key (project, cell, batch))`);
  }

  override down(): void {
    this.addSql('drop table cell_batch, shard, batch');
  }
}

/** Who made a revision, and which sign-ins were ended before their time. */
export class PeopleMigration extends Migration {
  override up(): void {
    this.addSql('alter table revision add column author text');
    this.addSql('create table ended_session (id text primary key, until timestamptz not null)');
  }

  override down(): void {
    this.addSql('drop table ended_session');
    this.addSql('alter table revision drop column author');
  }
}

/** What one run of a batch may cost, and why one was given up. */
export class WorkMigration extends Migration {
  override up(): void {
    this.addSql('alter table batch add column work double precision not null default 0, add column trouble text');
  }

  override down(): void {
    this.addSql('alter table batch drop column work, drop column trouble');
  }
}

/** What is deleted can be brought back for a while; what has not changed is not written again. */
export class HistoryMigration extends Migration {
  override up(): void {
    this.addSql('alter table project add column deleted_at timestamptz');
    this.addSql('alter table revision alter column outline drop not null');
  }

  override down(): void {
    this.addSql('alter table project drop column deleted_at');
  }
}

/** Work that outlasts whoever asked, and what has been answered of what it asked. */
export class JobsMigration extends Migration {
  override up(): void {
    this.addSql(`create table job (
      id text primary key, project text not null references project (id) on delete cascade, revision integer not null,
      request json not null, state text not null, created_at timestamptz not null, owner text, lease timestamptz,
      tries integer not null default 0, ended_at timestamptz, progress json, trouble text, result json)`);
    this.addSql(`create index on job (project, created_at)`);
    this.addSql(`create index on job (lease) where ended_at is null`);
    this.addSql(`create table job_part (
      job text not null references job (id) on delete cascade, number integer not null, answer bytea not null, primary key (job, number))`);
  }

  override down(): void {
    this.addSql('drop table job_part, job');
  }
}

export const migrations = [
  { name: '001-projects', class: ProjectsMigration },
  { name: '002-baselines', class: BaselinesMigration },
  { name: '003-batches', class: BatchesMigration },
  { name: '004-people', class: PeopleMigration },
  { name: '005-history', class: HistoryMigration },
  { name: '006-work', class: WorkMigration },
  { name: '007-jobs', class: JobsMigration },
];

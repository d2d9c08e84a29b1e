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

export const migrations = [{ name: '001-projects', class: ProjectsMigration }];

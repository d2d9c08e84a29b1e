import { Entity, Index, PrimaryKey, Property, Unique } from '@mikro-orm/core';
import type { PatchOperation } from '@insidia/core';

/** A project: its newest revision. */
@Entity({ tableName: 'project' })
export class ProjectRecord {
  @PrimaryKey({ type: 'text' }) id!: string;
  @Property({ type: 'text' }) name!: string;
  @Property({ type: 'integer' }) revision!: number;
  @Property({ type: 'timestamptz' }) createdAt!: Date;
  @Property({ type: 'timestamptz' }) updatedAt!: Date;
  /** Since when it can only be brought back. */
  @Property({ type: 'timestamptz', nullable: true }) deletedAt?: Date | null;
}

/** What a document is besides its objects: its own fields, and the order of the objects of each collection. */
export interface Outline {
  fields: Record<string, unknown>;
  order: Record<string, string[]>;
}

/** One acknowledged write. */
@Entity({ tableName: 'revision' })
@Unique({ properties: ['project', 'number'] })
export class RevisionRecord {
  @PrimaryKey({ type: 'bigint', autoincrement: true }) id!: string;
  @Property({ type: 'text' }) project!: string;
  @Property({ type: 'integer' }) number!: number;
  @Property({ type: 'timestamptz' }) at!: Date;
  /** What changed, in words. */
  @Property({ type: 'text' }) label!: string;
  /** Who made it, where people sign in. */
  @Property({ type: 'text', nullable: true }) author?: string | null;
  /** What somebody calls this revision, so as to come back to it: a baseline. */
  @Property({ type: 'text', nullable: true }) name?: string | null;
  /** Absent: as at the newest revision before it that has one. */
  @Property({ type: 'json', nullable: true }) outline?: Outline | null;
  /** From the revision before to this one. */
  @Property({ type: 'json' }) patch!: PatchOperation[];
}

/** One object of a project as of a revision; no body: gone from that revision on. Never changed once written. */
@Entity({ tableName: 'object_version' })
@Unique({ properties: ['project', 'collection', 'objectId', 'revision'] })
@Index({ properties: ['project', 'revision'] })
export class ObjectVersion {
  @PrimaryKey({ type: 'bigint', autoincrement: true }) id!: string;
  @Property({ type: 'text' }) project!: string;
  @Property({ type: 'text' }) collection!: string;
  @Property({ type: 'text' }) objectId!: string;
  @Property({ type: 'integer' }) revision!: number;
  @Property({ type: 'json', nullable: true }) body!: unknown;
}

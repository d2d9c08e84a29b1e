import { PREFERRED } from '@insidia/core';
import { ArrayMaxSize, ArrayMinSize, IsArray, IsBoolean, IsIn, IsInt, IsOptional, IsString, Max, MaxLength, Min } from 'class-validator';

export const JOB_KINDS = ['moves', 'compare', 'find', 'cheapest'] as const;
export type JobKind = (typeof JOB_KINDS)[number];

/** Runs that a search may take, and of each value of what moves a fight. */
export const MOST_BUDGET = 200_000;
export const MOST_VALUE_RUNS = 10_000;

/** Work on a project that takes its time: what moves a fight, two versions and which edit did it, values with which goals hold, cheap ways to win. */
export class JobRequest {
  @IsIn([...JOB_KINDS]) kind: JobKind;

  /** Of all but `compare`: a question that the project keeps, by its id or its name. */
  @IsOptional() @IsString() @MaxLength(200) question?: string;
  /** Instead of a question: key of a cell, kind, id, tier, skill, style, players, how it is set up, what is turned, with bars between. */
  @IsOptional() @IsString() @MaxLength(2000) cell?: string;
  /** Instead of the question's: MEASURE:STATISTIC:LOW..HIGH or a part of it. */
  @IsOptional() @IsArray() @ArrayMinSize(1) @ArrayMaxSize(12) @IsString({ each: true }) @MaxLength(200, { each: true }) goals?: string[];
  /** Instead of the question's: pointers into the document, with =LOW..HIGH or not; of `moves` without any: the strongest of all. */
  @IsOptional() @IsArray() @ArrayMinSize(1) @ArrayMaxSize(200) @IsString({ each: true }) @MaxLength(500, { each: true }) dials?: string[];

  /** Of each value, or of each cell of a version. */
  @IsOptional() @IsInt() @Min(10) @Max(MOST_VALUE_RUNS) runs?: number;

  /** Of `moves`, the first seed. */
  @IsOptional() @IsInt() @Min(0) @Max(2_000_000_000) seed?: number;
  /** Of `moves` without dials: how many to name, and runs in which all are turned at once to find them. */
  @IsOptional() @IsInt() @Min(1) @Max(40) strongest?: number;
  @IsOptional() @IsInt() @Min(100) @Max(MOST_BUDGET) screen?: number;
  /** Of `moves`: also what the first ones do by twos. */
  @IsOptional() @IsBoolean() pairs?: boolean;

  /** Of `find`: what to keep small, or large; of it and of `cheapest`: runs that it may take. */
  @IsOptional() @IsIn(Object.keys(PREFERRED)) prefer?: keyof typeof PREFERRED;
  @IsOptional() @IsInt() @Min(1) @Max(MOST_BUDGET) budget?: number;

  /** Of `compare`: the revision that the newest is compared with; at these tiers and skills only; and which edit did it. */
  @IsOptional() @IsInt() @Min(1) @Max(2_000_000_000) before?: number;
  @IsOptional() @IsArray() @ArrayMinSize(1) @ArrayMaxSize(100) @IsString({ each: true }) @MaxLength(100, { each: true }) tiers?: string[];
  @IsOptional() @IsArray() @ArrayMinSize(1) @ArrayMaxSize(100) @IsString({ each: true }) @MaxLength(100, { each: true }) skills?: string[];
  @IsOptional() @IsBoolean() byEdit?: boolean;
}

const OF_A_FIGHT: (keyof JobRequest)[] = ['question', 'cell', 'goals', 'dials'];

/** Fields that each kind knows besides its own name. */
export const FIELDS: Record<JobKind, readonly (keyof JobRequest)[]> = {
  moves: [...OF_A_FIGHT, 'runs', 'seed', 'strongest', 'screen', 'pairs'],
  find: [...OF_A_FIGHT, 'prefer', 'budget'],
  cheapest: ['question', 'cell', 'budget'],
  compare: ['before', 'runs', 'tiers', 'skills', 'byEdit'],
};

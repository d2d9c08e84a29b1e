import { Type } from 'class-transformer';
import { STATISTICS, type Statistic } from '@insidia/core';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsIn,
  IsInt,
  IsNumber,
  IsObject,
  IsOptional,
  IsString,
  Max,
  MaxLength,
  Min,
  ValidateNested,
} from 'class-validator';

/** Characters of a cell's key: its turned numbers stand in it, and it is part of an index. */
const LONGEST_CELL = 2000;

/** Cells that one request may name. */
export const MOST_CELLS = 2000;
export const MOST_BATCH_RUNS = 100_000;

class Edges {
  @IsOptional() @IsNumber() low?: number;
  @IsOptional() @IsNumber() high?: number;
}

/** Goes on past its runs until a measure is clear: its interval narrow enough, or off the edges of its band. */
export class Until {
  @IsString() @MaxLength(200) column: string;
  @IsIn([...STATISTICS]) statistic: Statistic;
  /** The interval's width as a share of the value. */
  @IsOptional() @IsNumber() @Min(0) @Max(10) narrower?: number;
  @IsOptional() @IsObject() @ValidateNested() @Type(() => Edges) band?: Edges;
  @IsInt() @Min(1) @Max(MOST_BATCH_RUNS) cap: number;
}

class CellRuns {
  /** Key of a cell: kind, id, tier, skill, style, players, how it is set up, what is turned, with bars between. */
  @IsString() @MaxLength(LONGEST_CELL) cell: string;
  @IsInt() @Min(1) @Max(MOST_BATCH_RUNS) runs: number;
  @IsOptional() @IsObject() @ValidateNested() @Type(() => Until) until?: Until;
}

/** Which cells to run, and how often each. */
export class BatchRequest {
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(MOST_CELLS)
  @IsObject({ each: true })
  @ValidateNested({ each: true })
  @Type(() => CellRuns)
  cells: CellRuns[];
}

class CellColumns {
  @IsString() @MaxLength(LONGEST_CELL) cell: string;
  /** Names of measures' columns whose values are wanted. */
  @IsArray() @ArrayMaxSize(64) @IsString({ each: true }) columns: string[];
}

/** What is to be read of which cells. */
export class ReadRequest {
  @IsArray()
  @ArrayMaxSize(MOST_CELLS)
  @IsObject({ each: true })
  @ValidateNested({ each: true })
  @Type(() => CellColumns)
  cells: CellColumns[];
}

/** A stretch of an encounter's clock, and what is left out in turn. */
export class CausesRequest {
  @IsString() @MaxLength(LONGEST_CELL) cell: string;
  /** s */
  @IsNumber() from: number;
  @IsNumber() to: number;
  /** Each `wave:ID` or `unit:ID`. */
  @IsArray() @ArrayMaxSize(64) @IsString({ each: true }) @MaxLength(100, { each: true }) without: string[];
}

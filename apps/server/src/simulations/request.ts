import { CLOCKS, type Clock, DUEL_MOST, type DuelFrom, LIMITS } from '@insidia/core';
import { Transform, Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsIn,
  IsInt,
  IsNumber,
  IsObject,
  IsOptional,
  IsString,
  Matches,
  Max,
  Min,
  ValidateNested,
} from 'class-validator';

export const MOST_RUNS = 2000;

export class CompanyRequest {
  @IsString() unit: string;
  @IsInt() @Min(1) @Max(DUEL_MOST.copies) count: number;
}

export class DuelRequest {
  @IsString() enemy: string;
  /** A party member, or several that stand together. */
  @Transform(({ value }: { value: unknown }) => (typeof value === 'string' ? [value] : value))
  @IsString({ each: true })
  @ArrayMinSize(1)
  @ArrayMaxSize(LIMITS.party)
  against: string[];
  /** An arena to stand in; absent: open ground. */
  @IsOptional() @IsString() arena?: string;
  @IsOptional() @IsInt() @Min(1) @Max(DUEL_MOST.copies) copies?: number;
  /** Who comes with the enemy. */
  @IsOptional()
  @ValidateNested({ each: true })
  @Type(() => CompanyRequest)
  @ArrayMaxSize(DUEL_MOST.kinds)
  company?: CompanyRequest[];
  /** `ahead`, `behind`, or `point:` and a spawn point of the arena. */
  @IsOptional()
  @Matches(/^(ahead|behind|point:.+)$/, { message: 'from must be ahead, behind or point: and a spawn point' })
  from?: DuelFrom;
  /** m, how high a wall stands between them, on open ground */
  @IsOptional() @IsNumber() @Min(0.1) @Max(20) wall?: number;
  /** m between edges, or cells where it takes turns */
  @IsOptional() @IsNumber() @Min(0) @Max(200) distance?: number;
  /** In seconds or in turns; absent: as the fights of its enemy are. */
  @IsOptional() @IsIn(CLOCKS) clock?: Clock;
}

/** A batch small enough to wait for: an encounter, or a duel. */
export class SimulationRequest {
  @IsOptional() @IsString() encounter?: string;
  @IsOptional() @IsObject() @ValidateNested() @Type(() => DuelRequest) duel?: DuelRequest;
  @IsOptional() @IsString() tier?: string;
  @IsOptional() @IsString() skill?: string;
  @IsInt() @Min(1) @Max(MOST_RUNS) runs = 200;
  @IsInt() @Min(0) @Max(2147480000) seed = 1;
}

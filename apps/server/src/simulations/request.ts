import { Transform, Type } from 'class-transformer';
import { ArrayMaxSize, ArrayMinSize, IsInt, IsNumber, IsObject, IsOptional, IsString, Max, Min, ValidateNested } from 'class-validator';

export const MOST_RUNS = 2000;

export class DuelRequest {
  @IsString() enemy: string;
  /** A party member, or several that stand together. */
  @Transform(({ value }: { value: unknown }) => (typeof value === 'string' ? [value] : value))
  @IsString({ each: true })
  @ArrayMinSize(1)
  @ArrayMaxSize(4)
  against: string[];
  /** An arena to stand in; absent: open ground. */
  @IsOptional() @IsString() arena?: string;
  @IsOptional() @IsInt() @Min(1) @Max(12) copies?: number;
  @IsOptional() @IsNumber() @Min(0) @Max(200) distance?: number;
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

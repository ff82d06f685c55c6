import 'reflect-metadata';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsInt,
  IsOptional,
  IsString,
  IsUUID,
  Matches,
  Max,
  MaxLength,
  Min,
  MinLength,
  ValidateNested,
} from 'class-validator';
import { STROKES } from '@/core/parcel/signature';
import { COUNT, SAY_COUNT } from './count';
import { trimmed } from './trimmed';

class FetchedLineInput {
  @IsInt() @Min(0) @Max(1000) line!: number;
  @Matches(COUNT, SAY_COUNT) quantity!: string;
}

/** What is handed over at the counter, to whom, and their hand. */
export class HandOverInput {
  @IsUUID() requestKey!: string;
  @IsUUID() handoverId!: string;
  @IsString() @trimmed @MinLength(2, { message: 'Write who fetches it.' }) @MaxLength(120) name!: string;
  @IsString() @Matches(STROKES) strokes!: string;
  @IsArray()
  @ArrayMinSize(1, { message: 'Choose what is handed over.' })
  @ArrayMaxSize(200)
  @ValidateNested({ each: true })
  @Type(() => FetchedLineInput)
  lines!: FetchedLineInput[];
}

/** What an item gives once it is paid. */
export class ItemDigitalInput {
  @IsOptional() @IsUUID() fileId!: string | null;
  @IsString() @MaxLength(4000) words!: string;
  @IsOptional() @IsInt() @Min(1, { message: 'Once at least, or no limit.' }) @Max(1000) mostDownloads!: number | null;
  @IsOptional() @IsInt() @Min(1, { message: 'A day at least, or no limit.' }) @Max(3650) days!: number | null;
}

export class GiveAgainInput {
  @IsUUID() grantId!: string;
}

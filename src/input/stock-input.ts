import 'reflect-metadata';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsIn,
  IsInt,
  IsOptional,
  IsString,
  IsUUID,
  Matches,
  MaxLength,
  Min,
  MinLength,
  ValidateNested,
} from 'class-validator';
import { COUNT, SAY_COUNT } from './count';
import { trimmed } from './trimmed';

const MOST_LINES = 500;
const COST = /^(\d{1,12}(\.\d{1,6})?)?$/;

class ThingInput {
  @IsUUID() itemId!: string;
  @IsOptional() @IsUUID() optionId!: string | null;
}

class ReceivedLineInput extends ThingInput {
  @Matches(COUNT, SAY_COUNT) quantity!: string;
  @Matches(COST, { message: 'Write what one of it cost as a number.' }) cost!: string;
}

export class ReceiveInput {
  @IsUUID() requestKey!: string;
  @IsArray()
  @ArrayMinSize(1, { message: 'Add what came.' })
  @ArrayMaxSize(MOST_LINES)
  @ValidateNested({ each: true })
  @Type(() => ReceivedLineInput)
  lines!: ReceivedLineInput[];
  @IsString() @trimmed @MaxLength(160) supplier!: string;
  @IsString() @trimmed @MaxLength(80) paper!: string;
  @IsOptional() @IsUUID() fileId!: string | null;
}

class CountedLineInput extends ThingInput {
  @Matches(COUNT, SAY_COUNT) counted!: string;
  @Matches(/^-?\d{1,9}(\.\d{1,4})?$/) expected!: string;
}

export class CountInput {
  @IsUUID() requestKey!: string;
  @IsArray()
  @ArrayMinSize(1, { message: 'Write how many there are of at least one of them.' })
  @ArrayMaxSize(MOST_LINES)
  @ValidateNested({ each: true })
  @Type(() => CountedLineInput)
  lines!: CountedLineInput[];
  @IsString() @trimmed @MaxLength(200) why!: string;
}

export class ThrownInput extends ThingInput {
  @IsUUID() requestKey!: string;
  @Matches(COUNT, SAY_COUNT) quantity!: string;
  @IsString() @trimmed @MinLength(1, { message: 'Write why: it stands in the log.' }) @MaxLength(200) why!: string;
}

export class StockPageInput {
  @IsOptional() @IsString() @MaxLength(120) words?: string;
  @IsOptional() @IsIn(['yes', 'no']) low?: 'yes' | 'no';
  @IsOptional() @IsString() @MaxLength(200) key?: string;
  @IsOptional() @IsUUID() id?: string;
  @IsOptional() @Type(() => Number) @IsInt() @Min(-1) place?: number;
}

/** Codes as a list, a file or a reader has them. */
export class CodesInput {
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(MOST_LINES)
  @IsString({ each: true })
  @MaxLength(80, { each: true })
  codes!: string[];
}

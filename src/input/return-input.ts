import 'reflect-metadata';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsBoolean,
  IsIn,
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
import { RETURN_REASONS, type ReturnReason } from '@/core/parcel/returning';
import { COUNT, SAY_COUNT } from './count';
import { trimmed } from './trimmed';

class ReturnLineInput {
  @IsInt() @Min(0) @Max(1000) line!: number;
  @Matches(COUNT) quantity!: string;
}

/** What a customer asks to send back. */
export class AskBackInput {
  @IsUUID() requestKey!: string;
  @IsIn(RETURN_REASONS) reason!: ReturnReason;
  @IsString() @trimmed @MaxLength(1000) words!: string;
  @IsOptional() @IsUUID() fileId!: string | null;
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(200)
  @ValidateNested({ each: true })
  @Type(() => ReturnLineInput)
  lines!: ReturnLineInput[];
}

export class AllowReturnInput {
  @IsString() @trimmed @MaxLength(1000) answer!: string;
  @IsBoolean() withLabel!: boolean;
}

export class RefuseReturnInput {
  @IsString() @trimmed @MinLength(1, { message: 'Write why: the customer reads it.' }) @MaxLength(1000) answer!: string;
}

class LookedAtInput {
  @IsInt() @Min(0) @Max(1000) line!: number;
  @Matches(COUNT, SAY_COUNT) toStock!: string;
  @Matches(COUNT, SAY_COUNT) thrown!: string;
}

export class ReceiveReturnInput {
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(200)
  @ValidateNested({ each: true })
  @Type(() => LookedAtInput)
  lines!: LookedAtInput[];
}

export class ReturnDeedInput {
  @IsIn(['exchange', 'close']) deed!: 'exchange' | 'close';
}

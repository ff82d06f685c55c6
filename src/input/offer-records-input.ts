import { MAIL_ADDRESS } from '@/core/customer/mail-address';
import 'reflect-metadata';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsIn,
  IsInt,
  IsObject,
  IsOptional,
  IsString,
  IsUUID,
  Matches,
  Max,
  MaxLength,
  Min,
  MinLength,
  ValidateIf,
  ValidateNested,
} from 'class-validator';
import { STAMP_PLACES, type Stamp } from '@/core/business/business';
import { DayOrNone } from './day';
import { trimmed } from './trimmed';

const SAY_NUMBER = { message: 'Write how often as a whole number.' };

/** A discount code as its form has it; `off` is `10%` or an amount in minor units. */
export class CodeInput {
  @IsString()
  @trimmed
  @MinLength(3, { message: 'A code has at least three letters or digits.' })
  @MaxLength(40)
  code!: string;
  @IsString() @trimmed @MaxLength(200) note!: string;
  @IsOptional()
  @Matches(/^\d{1,3}(\.\d{1,4})?$/, { message: 'Write what it takes off, as 10% or as an amount.' })
  percent!: string | null;
  @IsOptional() @IsInt() @Min(1) @Max(Number.MAX_SAFE_INTEGER) amountMinor!: number | null;
  @Matches(/^[A-Z]{3}$/) currency!: string;
  @DayOrNone() from!: string;
  @DayOrNone() to!: string;
  @IsInt() @Min(0) @Max(Number.MAX_SAFE_INTEGER) leastMinor!: number;
  @IsOptional() @IsInt(SAY_NUMBER) @Min(1, SAY_NUMBER) @Max(10_000_000) mostUses!: number | null;
  @IsOptional() @IsInt(SAY_NUMBER) @Min(1, SAY_NUMBER) @Max(10_000_000) mostEach!: number | null;
  @IsArray() @ArrayMaxSize(200) @IsUUID(undefined, { each: true }) itemIds!: string[];
}

export class PartnerInput {
  @IsString() @trimmed @MinLength(1, { message: 'Write a name.' }) @MaxLength(160) name!: string;
  @ValidateIf(({ email }) => email !== '')
  @Matches(MAIL_ADDRESS, { message: 'Write the whole address, as name@post.example.' })
  email!: string;
}

/** A file of reference rates, as text. */
export class RatesInput {
  @IsString() @MaxLength(200) name!: string;
  @IsString() @MinLength(1) @MaxLength(4_000_000) text!: string;
}

class StampInput implements Stamp {
  @IsUUID() fileId!: string;
  @IsInt() @Min(8) @Max(60) heightMm!: number;
  @IsIn(STAMP_PLACES) at!: Stamp['at'];
}

/** What the business wants on its receipts. */
export class ReceiptStyleInput {
  @IsString() @trimmed @MaxLength(600) registration!: string;
  @IsString() @trimmed @MaxLength(2000) statement!: string;
  @IsString() @trimmed @MaxLength(300) signer!: string;
  @IsOptional() @IsObject() @ValidateNested() @Type(() => StampInput) signature!: StampInput | null;
  @IsOptional() @IsObject() @ValidateNested() @Type(() => StampInput) seal!: StampInput | null;
}

export class GiftLettersInput {
  @IsInt() @Min(1900) @Max(9999) year!: number;
  @IsArray() @ArrayMaxSize(20_000) @IsUUID(undefined, { each: true }) customerIds!: string[];
  @IsUUID() requestKey!: string;
}

export class GiftYearInput {
  @Matches(/^\d{4}$/) year!: string;
  @Matches(/^[A-Z]{3}$/) currency!: string;
}

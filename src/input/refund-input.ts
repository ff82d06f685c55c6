import 'reflect-metadata';
import { Transform, Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsDefined,
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
import type { PaymentMethod } from '@/core/payment/methods';
import { readIban } from '@/core/refund/account';
import type { Aside } from '@/core/refund/aside';
import type { RefundWish } from '@/core/refund/refund';
import { trimmed } from './trimmed';

const MOST_LINES = 500;

class LineInput {
  @IsInt() @Min(0) @Max(MOST_LINES) index!: number;
  @Matches(/^(0|[1-9]\d{0,11})(\.\d{1,4})?$/, { message: 'A quantity is a number such as 2 or 1.5.' })
  quantity!: string;
}

class WishInput {
  @IsIn(['lines', 'sum', 'all', 'void']) by!: RefundWish['by'];
  @ValidateIf(({ by }) => by === 'sum') @IsInt() @Min(1) @Max(Number.MAX_SAFE_INTEGER) amountMinor?: number;
  @ValidateIf(({ by }) => by === 'lines')
  @IsArray()
  @ArrayMaxSize(MOST_LINES)
  @ValidateNested({ each: true })
  @Type(() => LineInput)
  lines?: LineInput[];
  @IsOptional() @IsBoolean() delivery?: boolean;
  @IsOptional() @IsArray() @ArrayMaxSize(MOST_LINES) @IsInt({ each: true }) @Min(0, { each: true }) fees?: number[];
  @IsOptional() @IsBoolean() flatTaxes?: boolean;
  @IsOptional() @IsBoolean() tip?: boolean;
}

class AccountInput {
  @IsString() @trimmed @MinLength(1, { message: 'Name the holder of the account.' }) @MaxLength(140) holder!: string;
  @Transform(({ value }) => (typeof value === 'string' ? (readIban(value) ?? '') : value))
  @IsString()
  @MinLength(1, { message: 'This is no IBAN: its length or its check digits are wrong.' })
  iban!: string;
}

class AsideInput implements Aside {
  @IsOptional() @IsObject() @ValidateNested() @Type(() => AccountInput) account?: AccountInput;
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(MOST_LINES)
  @ValidateNested({ each: true })
  @Type(() => LineInput)
  toStock?: LineInput[];
  @IsOptional() @IsBoolean() endPlan?: boolean;
  @IsOptional() @IsBoolean() tell?: boolean;
}

/** What is given back of a payment. */
export class RefundInput {
  @IsDefined() @IsObject() @ValidateNested() @Type(() => WishInput) wish!: WishInput;
  @IsIn(['card', 'debit', 'transfer', 'cash', 'cheque', 'other', 'voucher']) method!: PaymentMethod;
  @IsString() @trimmed @MaxLength(60) reference!: string;
  @IsBoolean() owedAgain!: boolean;
  @IsString()
  @trimmed
  @MinLength(1, { message: 'Say why: the payer reads it, and it stands on the timeline.' })
  @MaxLength(300)
  reason!: string;
  @IsDefined() @IsObject() @ValidateNested() @Type(() => AsideInput) aside!: AsideInput;
  @IsUUID() requestKey!: string;
}

/** The wish as the rule takes it. */
export function wishOf({ by, amountMinor, lines, delivery, fees, flatTaxes, tip }: WishInput): RefundWish {
  if (by === 'sum') return { by, amountMinor: BigInt(amountMinor ?? 0) };
  if (by !== 'lines') return { by };
  return {
    by,
    lines: (lines ?? []).map(({ index, quantity }) => ({ index, quantity })),
    ...(delivery ? { delivery } : {}),
    ...(fees ? { fees } : {}),
    ...(flatTaxes ? { flatTaxes } : {}),
    tip: tip ?? false,
  };
}

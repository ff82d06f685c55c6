import {
  IsBoolean,
  IsIn,
  IsInt,
  IsOptional,
  IsPositive,
  IsString,
  IsUUID,
  Matches,
  Max,
  MaxLength,
  Min,
} from 'class-validator';
import { MOST_VOUCHER_MONTHS } from '@/core/voucher/voucher';
import { trimmed } from './trimmed';

/** The code of a voucher, as somebody types it. */
export class VoucherCodeInput {
  @IsString() @trimmed @MaxLength(60) code!: string;
}

/** One press that pays with a voucher; `paysMinor` is what whoever presses saw. */
export class UseVoucherInput extends VoucherCodeInput {
  @IsInt() @IsPositive() @Max(Number.MAX_SAFE_INTEGER) paysMinor!: number;
  @IsUUID() requestKey!: string;
  @IsOptional() @IsBoolean() acceptsTerms?: boolean;
}

/** What is done with a voucher at the desk. */
export class VoucherDeedInput {
  @IsIn(['send', 'stop', 'go-on', 'extend']) deed!: 'send' | 'stop' | 'go-on' | 'extend';
  /** The new last day; empty for without end. */
  @IsString() @Matches(/^(\d{4}-\d{2}-\d{2})?$/) on!: string;
  /** Where it is sent; empty for whom it is for. */
  @IsString() @trimmed @MaxLength(200) to!: string;
  @IsUUID() requestKey!: string;
}

/** How long vouchers are good that are sold from now on; no months for without end. */
export class VoucherRuleInput {
  @IsOptional() @IsInt() @Min(1) @Max(MOST_VOUCHER_MONTHS) months!: number | null;
  @IsBoolean() toYearEnd!: boolean;
}

/** Which vouchers are looked for, and after which a page begins. */
export class VouchersInput {
  @IsOptional() @IsString() @MaxLength(100) words = '';
  @IsOptional() @IsString() @MaxLength(40) key = '';
  @IsOptional() @IsUUID() id?: string;
}

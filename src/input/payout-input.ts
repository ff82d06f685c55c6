import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
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
  ValidateNested,
} from 'class-validator';
import { Smallest } from './profile-input';
import { trimmed } from './trimmed';

const WHENS = ['daily', 'weekly', 'monthly', 'by-hand'] as const;

class WhenInput {
  @IsIn(WHENS, { message: 'Choose when.' }) kind!: (typeof WHENS)[number];
  @IsOptional() @IsInt() @Min(1) @Max(7, { message: 'Choose a weekday.' }) weekday?: number;
  @IsOptional() @IsInt() @Min(1) @Max(31, { message: 'A month has 31 days at the most.' }) day?: number;
}

/** When and from which sum on is paid out; the smallest sums by currency in minor units. */
export class PayoutPolicyInput {
  @IsObject() @ValidateNested() @Type(() => WhenInput) when!: WhenInput;
  @IsObject() @Smallest() smallest!: Record<string, number>;
  @IsIn(['partners', 'business'], { message: 'Choose who bears what is disputed.' }) disputes!: 'partners' | 'business';
}

/** The number of an account. */
export class AccountNumberInput {
  @IsString() @trimmed @MinLength(1, { message: 'Write the number of the account.' }) @MaxLength(60) number!: string;
}

const CURRENCY = { message: 'Choose a currency.' };

/** An account to which money is paid out; `partnerId` is null for the business's own. */
export class GiveAccountInput extends AccountNumberInput {
  @IsOptional() @IsUUID() partnerId!: string | null;
  @Matches(/^[A-Z]{3}$/, CURRENCY) currency!: string;
}

/** The two small sums, in minor units. */
export class ConfirmAccountInput {
  @IsArray()
  @ArrayMinSize(2)
  @ArrayMaxSize(2)
  @IsInt({ each: true, message: 'Write both sums as they stand on the statement.' })
  @Min(1, { each: true, message: 'Write both sums as they stand on the statement.' })
  @Max(100_000, { each: true, message: 'The two sums are small: below one unit each.' })
  sums!: number[];
}

/** Where a page of payouts goes on: before this number. */
export class PayoutPageInput {
  @Matches(/^[1-9]\d{0,8}$/) key!: string;
  @IsString() @MaxLength(60) id!: string;
}

/** A press that mails a partner their link, with what they are asked for. */
export class PartnerLinkInput {
  @IsUUID() requestKey!: string;
  @IsOptional() @IsString() @trimmed @MaxLength(600) asked?: string;
}

/** What a partner does on their own page. */
export class PartnerPageInput {
  @IsIn(['give', 'confirm']) action!: 'give' | 'confirm';
  @IsOptional() @IsString() @trimmed @MaxLength(60) number?: string;
  @IsOptional() @Matches(/^[A-Z]{3}$/, CURRENCY) currency?: string;
  @IsOptional() @IsUUID() accountId?: string;
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(2)
  @IsInt({ each: true })
  @Min(0, { each: true })
  @Max(100_000, { each: true })
  sums?: number[];
}

/** In which form a payout is fetched. */
export class PayoutFileInput {
  @IsIn(['csv', 'pdf']) form!: 'csv' | 'pdf';
}

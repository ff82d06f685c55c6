import {
  IsBoolean,
  IsIn,
  IsInt,
  IsObject,
  IsOptional,
  IsPositive,
  IsString,
  IsUUID,
  Max,
  MaxLength,
  Min,
  MinLength,
} from 'class-validator';
import { CardToken } from './card-token';
import { trimmed } from './trimmed';
import type { Work } from './work-input';

/** One press of the payer's button. The card is a token of the processor's; a number would not pass. */
export class PayInput {
  @IsUUID() attemptKey!: string;
  @CardToken() cardToken!: string;
  @IsInt() @IsPositive() @Max(Number.MAX_SAFE_INTEGER) amountMinor!: number;
  /** On top of the amount. */
  @IsOptional() @IsInt() @Min(0) @Max(Number.MAX_SAFE_INTEGER) tipMinor?: number;
  @IsOptional() @IsBoolean() acceptsTerms?: boolean;
  /** The piece of work as it was set, with its solution; what is in it is checked by its signature. */
  @IsObject() work!: Work;
}

export class AttemptInput {
  @IsUUID() attempt!: string;
}

/** The attempt that is taken back; none for the only one that can be open. */
export class WithdrawInput {
  @IsOptional() @IsUUID() attempt?: string | null;
}

export class SeenInput {
  @IsIn(['phone', 'computer']) device!: 'phone' | 'computer';
}

/** What the customer says of a file. */
export class DecisionInput {
  @IsIn(['approved', 'change']) decision!: 'approved' | 'change';
  @IsString() @trimmed @MaxLength(2000) comment!: string;
  @IsString() @trimmed @MaxLength(160) byName!: string;
  @IsOptional() @IsString() @MaxLength(200) approver?: string;
}

export class QuestionInput {
  @IsString() @trimmed @MinLength(1, { message: 'Write your question.' }) @MaxLength(4000) text!: string;
  @IsString() @trimmed @MaxLength(160) byName!: string;
}

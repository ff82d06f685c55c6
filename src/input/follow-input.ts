import {
  IsBoolean,
  IsIn,
  IsInt,
  IsOptional,
  IsPositive,
  IsString,
  IsUUID,
  Max,
  MaxLength,
  MinLength,
} from 'class-validator';
import type { ReceivedBy } from '@/core/ledger/movements';
import { Day } from './day';
import { trimmed } from './trimmed';

/** Money that came another way than by card; the amount in minor units. */
export class ReceivedInput {
  @IsUUID() requestKey!: string;
  @IsInt() @IsPositive({ message: 'Write how much came in.' }) @Max(Number.MAX_SAFE_INTEGER) amountMinor!: number;
  @IsIn(['transfer', 'cash', 'cheque', 'other']) method!: ReceivedBy;
  @IsString() @trimmed @MaxLength(120) reference!: string;
  @Day('Choose the day on which it came in.') receivedOn!: string;
  @IsOptional() @IsBoolean() more?: boolean;
}

export class CancelInput {
  @IsString() @trimmed @MinLength(1, { message: 'Say why, in a few words.' }) @MaxLength(400) reason!: string;
  @IsBoolean() tell!: boolean;
}

export class CreditInput {
  @IsUUID() requestKey!: string;
  @IsInt() @IsPositive({ message: 'Write how much is credited.' }) @Max(Number.MAX_SAFE_INTEGER) amountMinor!: number;
  @IsString() @trimmed @MinLength(1, { message: 'Say why, in a few words.' }) @MaxLength(400) reason!: string;
  @IsBoolean() tell!: boolean;
}

export class AnswerInput {
  @IsString() @trimmed @MinLength(1, { message: 'Write an answer.' }) @MaxLength(4000) text!: string;
}

/** One press of a button, and nothing else. */
export class PressInput {
  @IsUUID() requestKey!: string;
}

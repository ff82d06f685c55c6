import { plainToInstance, Transform, Type } from 'class-transformer';
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
import { ASIDES, type PartKind } from '@/core/bank/match/things';
import { CSV_FIELDS, type CsvField, type CsvMapping, DAY_ORDERS, type DayOrder } from '@/core/bank/statement/csv';
import { trimmed } from './trimmed';

const CURRENCY = /^[A-Z]{3}$/;
const FIELDS = Object.keys(CSV_FIELDS) as CsvField[];

class MappingInput implements CsvMapping {
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(60)
  @IsIn([null, ...FIELDS], { each: true, message: 'Say what each column is.' })
  columns!: (CsvField | null)[];
  @IsIn(DAY_ORDERS) dayOrder!: DayOrder;
  @IsIn(['.', ',']) decimal!: '.' | ',';
  @Matches(/^[\p{L}\p{N}][\p{L}\p{N} ./-]{0,39}$/u, { message: 'Say whose account it is: its number.' })
  account!: string;
  @Matches(CURRENCY, { message: 'Choose a currency.' }) currency!: string;
}

const parsed = (text: unknown): unknown => {
  try {
    return typeof text === 'string' && text !== '' ? plainToInstance(MappingInput, JSON.parse(text)) : undefined;
  } catch {
    return text;
  }
};

/** A bank's file; of a CSV what its columns are, as JSON in the address. */
export class StatementInput {
  @IsString() @trimmed @MinLength(1) @MaxLength(200) name!: string;
  @IsOptional() @Transform(({ value }) => parsed(value)) @ValidateNested() mapping?: MappingInput;
}

class PartInput {
  @IsIn(['invoice', 'payout', 'refund', 'payment', 'aside']) kind!: PartKind;
  @Matches(new RegExp(`^([0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}|${ASIDES.join('|')})$`), {
    message: 'Choose what the line is for.',
  })
  id!: string;
  @IsInt() @Min(-Number.MAX_SAFE_INTEGER) @Max(Number.MAX_SAFE_INTEGER) minor!: number;
}

/** What a line is for; sums in minor units. */
export class MatchInput {
  @IsUUID() press!: string;
  @IsArray()
  @ArrayMinSize(1, { message: 'Choose what the line is for.' })
  @ArrayMaxSize(60)
  @ValidateNested({ each: true })
  @Type(() => PartInput)
  parts!: PartInput[];
  @IsIn(['credit', 'open']) rest!: 'credit' | 'open';
  @IsString() @trimmed @MaxLength(120) note!: string;
  @IsBoolean() always!: boolean;
}

export class LaterInput {
  @IsBoolean() later!: boolean;
}

/** An account of which there are statements. */
export class BankAccountInput {
  @IsString() @MaxLength(40) account!: string;
  @Matches(/^([A-Z]{3})?$/) currency!: string;
}

/** Which account is looked at; none is the one with most that waits. */
export class BankPageInput {
  @IsOptional() @IsString() @MaxLength(40) account?: string;
  @IsOptional() @Matches(/^([A-Z]{3})?$/) currency?: string;
  /** How many of the matched lines are shown; in an address, where everything is text. */
  @IsOptional() @Matches(/^[1-9]\d{0,4}$/) matched?: string;
}

export class FindInvoicesInput {
  @Matches(CURRENCY) currency!: string;
  @IsString() @MaxLength(120) words!: string;
}

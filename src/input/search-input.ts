import 'reflect-metadata';
import { Transform, Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsDefined,
  IsIn,
  IsObject,
  IsOptional,
  IsString,
  IsUUID,
  Matches,
  MaxLength,
  MinLength,
  ValidateIf,
  ValidateNested,
} from 'class-validator';
import {
  ASKED_STATES,
  type AskedState,
  EVERYTHING,
  type InvoiceAsk,
  MOST_AT_ONCE,
  SORTS,
  type Sort,
} from '@/core/invoice/ask';
import { DayOrNone } from './day';
import { trimmed } from './trimmed';

/** Words that a page’s address asks for. */
export class WordsInput {
  @IsOptional() @IsString() @MaxLength(120) words?: string;
}

/** What is asked of the list; in an address, where everything is text. */
export class AskInput {
  @IsOptional() @IsString() @MaxLength(200) words?: string;
  @IsOptional() @IsIn(['', ...ASKED_STATES]) state?: AskedState | '';
  @IsOptional() @IsString() @MaxLength(60) group?: string;
  @ValidateIf(({ customerId }) => Boolean(customerId)) @IsUUID() customerId?: string;
  @ValidateIf(({ tradingNameId }) => Boolean(tradingNameId)) @IsUUID() tradingNameId?: string;
  @IsOptional() @Matches(/^([A-Z]{3})?$/) currency?: string;
  @IsOptional() @DayOrNone() from?: string;
  @IsOptional() @DayOrNone() to?: string;
  @IsOptional() @IsString() @MaxLength(30) least?: string;
  @IsOptional() @IsString() @MaxLength(30) most?: string;
  @IsOptional() @IsIn(SORTS) sort?: Sort;
  @IsOptional()
  @Transform(({ value }) => (value === 'true' ? true : value === 'false' ? false : value))
  @IsBoolean()
  descending?: boolean;
}

export class SearchInput extends AskInput {
  @IsOptional() @Matches(/^([-\d.:TZ]{1,40}|)$/) key?: string;
  @IsOptional() @IsUUID() id?: string;
}

export const askOf = ({
  words,
  state,
  group,
  customerId,
  tradingNameId,
  currency,
  from,
  to,
  least,
  most,
  sort,
  descending,
}: AskInput): InvoiceAsk => ({
  words: words ?? '',
  state: state ?? '',
  group: group ?? '',
  customerId: customerId ?? '',
  tradingNameId: tradingNameId ?? '',
  currency: currency ?? '',
  from: from ?? '',
  to: to ?? '',
  least: least ?? '',
  most: most ?? '',
  sort: sort ?? EVERYTHING.sort,
  descending: descending ?? EVERYTHING.descending,
});

export class SaveListInput {
  @IsString() @trimmed @MinLength(1, { message: 'Name the list.' }) @MaxLength(60) name!: string;
  @IsDefined() @IsObject() @ValidateNested() @Type(() => AskInput) asked!: AskInput;
}

export class ManyInput {
  @IsArray() @ArrayMaxSize(MOST_AT_ONCE) @IsUUID('all', { each: true }) ids!: string[];
  @IsIn(['remind', 'cancel']) action!: 'remind' | 'cancel';
  @IsUUID() requestKey!: string;
  @IsString() @trimmed @MaxLength(400) reason!: string;
  @IsBoolean() tell!: boolean;
}

export class ManyFileInput {
  @IsArray() @ArrayMaxSize(MOST_AT_ONCE) @IsUUID('all', { each: true }) ids!: string[];
  @IsIn(['csv', 'ubl', 'pdf']) form!: 'csv' | 'ubl' | 'pdf';
}

export class BringInInput {
  @IsString() @MaxLength(400) name!: string;
}

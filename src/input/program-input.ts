/** What other programs send: the same rules as the desk's forms, and what may be left out is as on an empty one. */
import 'reflect-metadata';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  ArrayUnique,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsObject,
  IsOptional,
  IsPositive,
  IsString,
  IsUUID,
  Matches,
  Max,
  MaxLength,
  Min,
  MinLength,
  ValidateNested,
} from 'class-validator';
import { ASKED_STATES, type AskedState } from '@/core/invoice/ask';
import type { Item, Unit } from '@/core/item/item';
import { GOES_AS_USUAL, UNITS } from '@/core/item/item';
import { NO_ADDRESS } from '@/core/place/address';
import { KEY_RIGHTS, type KeyRight, MOST_KEY_DAYS } from '@/core/program/key';
import { AddressInput, CustomerInput } from './customer-input';
import { GoingInput, ItemInput } from './item-input';
import { DueInput } from './paper-input';
import { trimmed } from './trimmed';

const TYPED = 40;
const DAY = /^(\d{4}-\d\d-\d\d)?$/;
const SAY_DAY = { message: 'Write a day as 2026-03-31.' };
const SAY_WHY = { message: 'Say why, in a few words.' };

/** A key for a program. */
export class KeyInput {
  @IsString() @trimmed @MinLength(1, { message: 'Write which program it is for.' }) @MaxLength(60) name!: string;
  @IsArray()
  @ArrayMinSize(1, { message: 'Choose at least one thing that it may do.' })
  @ArrayMaxSize(KEY_RIGHTS.length)
  @ArrayUnique()
  @IsIn(KEY_RIGHTS, { each: true })
  rights!: KeyRight[];
  @IsInt({ message: 'Write a whole number of days.' })
  @Min(1, { message: 'At least a day.' })
  @Max(MOST_KEY_DAYS, { message: `At most ${MOST_KEY_DAYS} days.` })
  days!: number;
}

/** Where a page begins: what the page before it gave as `next`. */
export class PageOf {
  @IsOptional() @Matches(/^[\w-]{1,400}$/, { message: 'Send what the page before gave as next.' }) after?: string;
}

export class CustomersAsked extends PageOf {
  @IsOptional() @IsString() @MaxLength(200) words?: string;
  @IsOptional() @IsString() @MaxLength(60) group?: string;
}

export class CustomerWritten extends CustomerInput {
  override kind: 'person' | 'company' = 'person';
  override email = '';
  override copies: string[] = [];
  override phone = '';
  override language = '';
  override currency = '';
  override billing: AddressInput = Object.assign(new AddressInput(), NO_ADDRESS);
  override delivery: AddressInput | null = null;
  override taxNumber = '';
  override note = '';
  override due: DueInput | null = null;
  override groups: string[] = [];
  override shipsFirst: boolean | null = null;
}

export class ItemsAsked extends PageOf {
  @IsOptional() @IsString() @MaxLength(200) words?: string;
}

export class ItemWritten extends ItemInput {
  override code = '';
  override description = '';
  override kind: Item['kind'] = 'goods';
  override unit: Unit = 'piece';
  override prices: Record<string, string> = {};
  override cost = '';
  override taxClass = 'standard';
  override onHand: string | null = null;
  override lowAt: string | null = null;
  override pictureId: string | null = null;
  override going: GoingInput = Object.assign(new GoingInput(), GOES_AS_USUAL);
  override options: ItemInput['options'] = [];
}

export class ShipmentsAsked extends PageOf {
  @IsOptional() @IsString() @MaxLength(120) words?: string;
  @IsOptional() @IsIn(['all', 'under-way', 'ended']) under?: 'all' | 'under-way' | 'ended';
}

export class InvoicesAsked extends PageOf {
  @IsOptional() @IsString() @MaxLength(200) words?: string;
  @IsOptional() @IsIn(ASKED_STATES) state?: AskedState;
  @IsOptional() @IsUUID() customerId?: string;
  @IsOptional() @Matches(DAY, SAY_DAY) from?: string;
  @IsOptional() @Matches(DAY, SAY_DAY) to?: string;
}

export class LineWritten {
  @IsString() @trimmed @MinLength(1, { message: 'Write what it is.' }) @MaxLength(500) what!: string;
  /** A decimal of the currency's main unit. */
  @IsString() @MaxLength(TYPED) price!: string;
  @IsString() @MaxLength(TYPED) quantity = '1';
  @IsIn(UNITS) unit: Unit = 'piece';
  /** `10%` or an amount. */
  @IsString() @MaxLength(TYPED) discount = '';
  @IsString() @MaxLength(1000) note = '';
  @IsString() @MaxLength(40) code = '';
  @IsString() @MaxLength(40) taxClass = 'standard';
  @IsOptional() @IsUUID() itemId: string | null = null;
  @IsOptional() @IsUUID() optionId: string | null = null;
  /** The taxes by their ids; those of the customer's place where it is left out. */
  @IsOptional() @IsArray() @ArrayMaxSize(10) @IsUUID('all', { each: true }) taxes: string[] | null = null;
}

export class InvoiceWritten {
  @IsUUID() customerId!: string;
  @IsArray()
  @ArrayMinSize(1, { message: 'Write at least one line.' })
  @ArrayMaxSize(500)
  @ValidateNested({ each: true })
  @Type(() => LineWritten)
  lines!: LineWritten[];
  @IsString() @MaxLength(160) title = '';
  @IsString() @MaxLength(120) reference = '';
  @IsString() @MaxLength(4000) note = '';
  @IsString() @trimmed @MaxLength(160) tradingName = '';
  @IsString() @trimmed @MaxLength(80) location = '';
  @IsString() @MaxLength(TYPED) discount = '';
  @IsString() @Matches(/^([A-Z]{3})?$/) currency = '';
  @Matches(DAY, SAY_DAY) issuedOn = '';
  @Matches(DAY, SAY_DAY) serviceFrom = '';
  @Matches(DAY, SAY_DAY) serviceTo = '';
  @IsOptional() @IsObject() @ValidateNested() @Type(() => DueInput) due: DueInput | null = null;
}

export class SendingWritten {
  @IsIn(['mail', 'link', 'hand']) way: 'mail' | 'link' | 'hand' = 'mail';
  @IsString() @MaxLength(4000) text = '';
}

export class CancellingWritten {
  @IsString() @trimmed @MinLength(1, SAY_WHY) @MaxLength(400) reason!: string;
  @IsBoolean() tell = false;
}

export class CreditingWritten {
  @IsInt() @IsPositive() @Max(Number.MAX_SAFE_INTEGER) amountMinor!: number;
  @IsString() @trimmed @MinLength(1, SAY_WHY) @MaxLength(400) reason!: string;
  @IsBoolean() tell = false;
}

export class ReceivedWritten {
  @IsInt() @IsPositive() @Max(Number.MAX_SAFE_INTEGER) amountMinor!: number;
  @IsIn(['transfer', 'cash', 'cheque', 'other']) method: 'transfer' | 'cash' | 'cheque' | 'other' = 'transfer';
  @IsString() @trimmed @MaxLength(120) reference = '';
  @Matches(DAY, SAY_DAY) receivedOn = '';
}

export class LinksAsked extends PageOf {
  @IsOptional() @IsString() @MaxLength(200) words?: string;
}

export class LinkWritten {
  @IsString() @trimmed @MinLength(1, { message: 'Write what it is for.' }) @MaxLength(120) title!: string;
  /** A decimal of the currency's main unit. */
  @Matches(/^\d{1,12}([.,]\d{1,4})?$/, { message: 'Write the price as a number.' }) price!: string;
  @IsString() @Matches(/^([A-Z]{3})?$/) currency = '';
  @IsString() @MaxLength(4000) description = '';
  @Matches(DAY, SAY_DAY) lastOn = '';
}

export class LinkStateWritten {
  @IsIn(['open', 'paused', 'closed']) state!: 'open' | 'paused' | 'closed';
}

export class PlanWritten {
  @IsUUID() customerId!: string;
  @IsString() @trimmed @MinLength(1, { message: 'Write what it is for.' }) @MaxLength(120) name!: string;
  @IsArray()
  @ArrayMinSize(1, { message: 'Write at least one line.' })
  @ArrayMaxSize(60)
  @ValidateNested({ each: true })
  @Type(() => LineWritten)
  lines!: LineWritten[];
  @Matches(/^\d{4}-\d\d-\d\d$/, SAY_DAY) start!: string;
  @IsIn(['day', 'week', 'month', 'year']) unit: 'day' | 'week' | 'month' | 'year' = 'month';
  @IsInt() @Min(1) @Max(99) every = 1;
  /** After so many charges it ends; null for one that goes on. */
  @IsOptional() @IsInt() @Min(1) @Max(999) charges: number | null = null;
  @IsIn(['card', 'invoice']) pay: 'card' | 'invoice' = 'card';
  @IsString() @MaxLength(4000) memo = '';
  @IsString() @trimmed @MaxLength(80) reference = '';
}

export class PlanSendingWritten {
  @IsIn(['mail', 'text', 'link']) way: 'mail' | 'text' | 'link' = 'mail';
}

export class PauseWritten {
  @Matches(DAY, SAY_DAY) until = '';
}

export class EndingWritten {
  @IsBoolean() afterPeriod = false;
}

export class ChargesAsked extends PageOf {
  @IsOptional() @IsString() @MaxLength(200) words?: string;
  @IsOptional() @Matches(DAY, SAY_DAY) from?: string;
  @IsOptional() @Matches(DAY, SAY_DAY) to?: string;
}

export class PaymentsAsked extends PageOf {
  @IsOptional() @IsUUID() customerId?: string;
  @IsOptional() @Matches(DAY, SAY_DAY) from?: string;
  @IsOptional() @Matches(DAY, SAY_DAY) to?: string;
}

export class RefundWritten {
  @IsInt() @IsPositive() @Max(Number.MAX_SAFE_INTEGER) amountMinor!: number;
  @IsString() @trimmed @MaxLength(400) reason = '';
  /** Back to the card or account that paid, or given another way by hand. */
  @IsIn(['card', 'transfer', 'cash', 'cheque', 'other']) method: 'card' | 'transfer' | 'cash' | 'cheque' | 'other' =
    'card';
  /** What it paid is owed again: no credit note is written. */
  @IsBoolean() owedAgain = false;
}

/** Nothing is sent along. */
export class NothingWritten {}

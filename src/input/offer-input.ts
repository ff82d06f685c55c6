import { MAIL_ADDRESS } from '@/core/customer/mail-address';
import 'reflect-metadata';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
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
import {
  ASKED,
  type Asked,
  FIELD_KINDS,
  type FieldKind,
  MOST_FIELDS,
  MOST_ITEMS,
  OFFER_KINDS,
  OFFER_STATES,
  type Offer,
  type OfferKind,
  type OfferState,
  PLACEMENTS,
  type Placement,
} from '@/core/offer/offer';
import { MOST_RHYTHMS, type OfferRepeat, type OfferRhythm } from '@/core/offer/repeat';
import { Texts } from './checkout-input';
import { DayOrNone, Moment } from './day';
import { Prices } from './item-input';
import { trimmed } from './trimmed';

const CURRENCY = /^([A-Z]{3})?$/;

class OfferOptionInput {
  @IsUUID() id!: string;
  @IsString() @trimmed @MaxLength(80) name!: string;
  @IsObject() @Prices() prices!: Record<string, string>;
  @IsOptional() @IsUUID() optionId!: string | null;
}

class OfferItemInput {
  @IsUUID() id!: string;
  @IsString() @trimmed @MaxLength(160) name!: string;
  @IsString() @trimmed @MaxLength(1000) note!: string;
  @IsOptional() @IsUUID() itemId!: string | null;
  @IsObject() @Prices() prices!: Record<string, string>;
  @IsOptional() @IsString() @MaxLength(40) cost?: string;
  @IsString() @MaxLength(40) taxClass!: string;
  @IsArray()
  @ArrayMaxSize(60)
  @ValidateNested({ each: true })
  @Type(() => OfferOptionInput)
  options!: OfferOptionInput[];
  @IsInt() @Min(0) @Max(100_000) least!: number;
  @IsInt() @Min(1) @Max(100_000) most!: number;
}

class ZoneInput {
  @IsUUID() id!: string;
  @IsString() @trimmed @MaxLength(80) name!: string;
  @IsArray() @ArrayMaxSize(260) @Matches(/^[A-Z]{2}$/, { each: true }) countries!: string[];
  @IsObject() @Prices() prices!: Record<string, string>;
}

class DeliveryInput {
  @IsArray() @ArrayMaxSize(30) @ValidateNested({ each: true }) @Type(() => ZoneInput) zones!: ZoneInput[];
  @IsObject() @Prices() freeFrom!: Record<string, string>;
}

class FieldInput {
  @IsUUID() id!: string;
  @IsIn(FIELD_KINDS) kind!: FieldKind;
  @IsString() @trimmed @MaxLength(120) label!: string;
  @IsString() @trimmed @MaxLength(300) help!: string;
  @IsBoolean() required!: boolean;
  @IsArray() @ArrayMaxSize(40) @IsString({ each: true }) @MaxLength(120, { each: true }) choices!: string[];
  @IsBoolean() onReceipt!: boolean;
}

class ShareInput {
  @IsUUID() partnerId!: string;
  @IsString() @MaxLength(12) percent!: string;
}

class SplitInput {
  @IsArray() @ArrayMaxSize(20) @ValidateNested({ each: true }) @Type(() => ShareInput) partners!: ShareInput[];
  @IsString() @MaxLength(40) keep!: string;
  @IsIn(['business', 'all']) feeFrom!: 'business' | 'all';
  @IsOptional() @IsIn(['net', 'all']) of?: 'net' | 'all';
}

class RhythmInput implements OfferRhythm {
  @IsIn(['week', 'month', 'year']) unit!: OfferRhythm['unit'];
  @IsInt() @Min(1) @Max(24) every!: number;
}

class RecurringInput implements OfferRepeat {
  @IsArray()
  @ArrayMaxSize(MOST_RHYTHMS)
  @ValidateNested({ each: true })
  @Type(() => RhythmInput)
  rhythms!: RhythmInput[];
  @IsBoolean() once!: boolean;
  @IsOptional() @IsInt() @Min(2) @Max(520) count!: number | null;
}

/** An offer as its composer has it; whether it can be placed is the offer's own business. */
export class OfferInput implements Offer {
  @IsIn(OFFER_KINDS) kind!: OfferKind;
  @IsString() @trimmed @MaxLength(120) title!: string;
  @IsString() @trimmed @MaxLength(4000) description!: string;
  @IsString() @Matches(CURRENCY) currency!: string;
  @IsArray() @ArrayMaxSize(20) @Matches(CURRENCY, { each: true }) currencies!: string[];
  @IsObject() @Prices() prices!: Record<string, string>;
  @IsString() @MaxLength(40) taxClass!: string;
  @IsOptional() @IsBoolean() pricesIncludeTax!: boolean | null;
  @IsOptional() @IsUUID() tradingNameId!: string | null;
  @IsOptional() @IsUUID() locationId!: string | null;
  @IsArray()
  @ArrayMaxSize(MOST_ITEMS)
  @ValidateNested({ each: true })
  @Type(() => OfferItemInput)
  items!: OfferItemInput[];
  @IsObject() @Prices() least!: Record<string, string>;
  @IsObject() @Prices() most!: Record<string, string>;
  @IsArray() @ArrayMaxSize(12) @IsString({ each: true }) @MaxLength(40, { each: true }) amounts!: string[];
  @IsInt() @Min(-1) @Max(11) chosen!: number;
  @IsBoolean() ownAmount!: boolean;
  @IsArray() @ArrayMaxSize(30) @IsString({ each: true }) @MaxLength(120, { each: true }) purposes!: string[];
  @IsObject() @Prices() smallest!: Record<string, string>;
  @IsBoolean() codes!: boolean;
  @IsOptional() @ValidateNested() @Type(() => DeliveryInput) delivery!: DeliveryInput | null;
  @IsOptional() @IsArray() @ArrayMaxSize(5) @Matches(/^\d{1,2}(\.\d{1,2})?$/, { each: true }) tip!: string[] | null;
  @IsIn(ASKED) phone!: Asked;
  @IsIn(ASKED) billing!: Asked;
  @IsBoolean() message!: boolean;
  @IsArray() @ArrayMaxSize(MOST_FIELDS) @ValidateNested({ each: true }) @Type(() => FieldInput) fields!: FieldInput[];
  @IsOptional() @IsUUID() termsId!: string | null;
  @IsOptional() @IsInt() @Min(1) @Max(1_000_000) mostPayments!: number | null;
  @DayOrNone() lastOn!: string;
  @IsString() @trimmed @MaxLength(2000) thanks!: string;
  @IsString() @trimmed @MaxLength(500) redirect!: string;
  @IsString() @trimmed @MaxLength(500) turnedBack!: string;
  @IsArray()
  @ArrayMaxSize(10)
  @Matches(MAIL_ADDRESS, {
    each: true,
    message: 'Write each whole address, as name@post.example.',
  })
  notify!: string[];
  @IsIn(['auto', 'hand']) receipt!: 'auto' | 'hand';
  @IsOptional() @ValidateNested() @Type(() => SplitInput) split!: SplitInput | null;
  @IsOptional() @ValidateNested() @Type(() => RecurringInput) repeat!: RecurringInput | null;
  @IsBoolean() voucher!: boolean;
}

/** What is kept of an offer: itself, its name on the list, how it looks and where it may be framed. */
export class KeepOfferInput {
  @IsInt() @Min(1) revision!: number;
  @IsString() @trimmed @MinLength(1, { message: 'Give it a name.' }) @MaxLength(120) name!: string;
  @IsObject() @ValidateNested() @Type(() => OfferInput) offer!: OfferInput;
  @IsObject() look!: Record<string, unknown>;
  @IsArray()
  @ArrayMaxSize(20)
  @Matches(/^https?:\/\/[a-z0-9.-]+(:\d{1,5})?$/, {
    each: true,
    message: 'Write a website as https://www.shop.example, without a path.',
  })
  sites!: string[];
}

export class BeginOfferInput {
  @IsIn(PLACEMENTS) placement!: Placement;
  @IsOptional() @IsUUID() from?: string;
}

export class OfferStateInput {
  @IsIn(OFFER_STATES) state!: OfferState;
}

export class AddressNameInput {
  @IsString() @MaxLength(60) address!: string;
}

export class OfferPageInput {
  @IsIn(PLACEMENTS) placement!: Placement;
  @IsOptional() @IsString() @MaxLength(200) words?: string;
  @IsOptional() @Moment() key?: string;
  @IsOptional() @IsUUID() id?: string;
}

/** An offer for one person, with some of it filled in. */
export class RequestInput {
  @IsString() @trimmed @MaxLength(160) toName!: string;
  @IsString() @trimmed @MaxLength(200) toAddress!: string;
  @IsString() @trimmed @MaxLength(40) amount!: string;
  @IsObject() @Texts(30, 1000) answers!: Record<string, string>;
  @IsBoolean() locked!: boolean;
  @IsIn(['mail', 'text', 'chat', 'link']) way!: 'mail' | 'text' | 'chat' | 'link';
  @IsString() @trimmed @MaxLength(2000) words!: string;
}

/** Money that was written down by mistake. */
export class TakenBackInput {
  @IsString() @trimmed @MaxLength(300) reason!: string;
  @IsBoolean() tell!: boolean;
}

/** Money to be given back. */
export class ReceiptAgainInput {
  @IsString()
  @Matches(MAIL_ADDRESS, { message: 'Write the whole address, as name@post.example.' })
  to!: string;
  @IsString() @trimmed @MaxLength(60) reference!: string;
  @IsUUID() requestKey!: string;
}

/** A page as its designer has it; what is of no known form is left out when it is kept. */
export class PageInput {
  @IsObject() look!: Record<string, unknown>;
}

export class VersionInput {
  @IsInt() @Min(1) @Max(1_000_000) version!: number;
}

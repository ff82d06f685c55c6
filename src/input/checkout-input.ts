import 'reflect-metadata';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsInt,
  IsObject,
  IsOptional,
  IsString,
  IsUUID,
  Matches,
  Max,
  MaxLength,
  Min,
  registerDecorator,
  ValidateNested,
} from 'class-validator';
import type { Choice } from '@/core/offer/choice';
import type { ChosenGift } from '@/core/voucher/gift';
import { CardToken } from './card-token';
import { AddressInput } from './customer-input';
import { trimmed } from './trimmed';
import type { Work } from './work-input';

/** Texts by name: few, and short. */
export const Texts = (most: number, longest: number) => (target: object, propertyName: string) =>
  registerDecorator({
    name: 'texts',
    target: target.constructor,
    propertyName,
    validator: {
      validate: (value: unknown) =>
        typeof value === 'object' &&
        value !== null &&
        !Array.isArray(value) &&
        Object.entries(value).length <= most &&
        Object.entries(value).every(
          ([name, text]) => /^[\w-]{1,60}$/.test(name) && typeof text === 'string' && text.length <= longest,
        ),
      defaultMessage: () => 'Something that was sent cannot be read.',
    },
  });

class ChosenItemInput {
  @IsUUID() id!: string;
  @IsString() @MaxLength(40) optionId!: string;
  @IsString() @MaxLength(12) quantity!: string;
}

class GiftInput implements ChosenGift {
  @IsString() @trimmed @MaxLength(120) toName!: string;
  @IsString() @trimmed @MaxLength(200) toEmail!: string;
  @IsString() @Matches(/^(\d{4}-\d{2}-\d{2})?$/) on!: string;
  @IsString() @MaxLength(600) message!: string;
}

/** What a payer chose and wrote. */
export class ChoiceInput implements Choice {
  @IsString() @Matches(/^([A-Z]{3})?$/) currency!: string;
  @IsString() @MaxLength(40) amount!: string;
  @IsString() @MaxLength(120) purpose!: string;
  @IsArray() @ArrayMaxSize(60) @ValidateNested({ each: true }) @Type(() => ChosenItemInput) items!: ChosenItemInput[];
  @IsString() @MaxLength(60) code!: string;
  @IsOptional() @IsString() @MaxLength(60) voucher?: string;
  @IsOptional() @ValidateNested() @Type(() => GiftInput) gift?: GiftInput;
  @IsString() @MaxLength(40) tip!: string;
  @IsString() @trimmed @MaxLength(160) name!: string;
  @IsString() @trimmed @MaxLength(200) email!: string;
  @IsString() @trimmed @MaxLength(60) phone!: string;
  @IsOptional() @ValidateNested() @Type(() => AddressInput) billing!: AddressInput | null;
  @IsOptional() @ValidateNested() @Type(() => AddressInput) delivery!: AddressInput | null;
  @IsString() @trimmed @MaxLength(2000) message!: string;
  @IsObject() @Texts(30, 1000) answers!: Record<string, string>;
  @IsBoolean() acceptsTerms!: boolean;
  @IsString() @Matches(/^((week|month|year):\d{1,2})?$/) repeat!: string;
  @IsBoolean() agrees!: boolean;
}

/** The choice with what it was quoted under. */
export class QuoteInput {
  @IsObject() @ValidateNested() @Type(() => ChoiceInput) choice!: ChoiceInput;
  @IsString() @MaxLength(4000) quote!: string;
  @IsString() @MaxLength(200) request!: string;
  @IsString() @Matches(/^[a-z]{2}(-[A-Z]{2})?$/) locale!: string;
}

/** One press of the button of a checkout. The card is a token of the processor's. */
export class OrderInput extends QuoteInput {
  @IsUUID() checkoutKey!: string;
  @IsUUID() attemptKey!: string;
  @CardToken('or none') cardToken!: string;
  @IsInt() @Min(0) @Max(Number.MAX_SAFE_INTEGER) chargedMinor!: number;
  /** What the payer saw of each later payment; null for once. */
  @IsOptional() @IsInt() @Min(0) @Max(Number.MAX_SAFE_INTEGER) laterMinor!: number | null;
  @IsObject() @Texts(12, 200) passed!: Record<string, string>;
  /** Whether the page stands in a frame on another website. */
  @IsOptional() @IsBoolean() framed?: boolean;
  /** The piece of work as it was set, with its solution; what is in it is checked by its signature. */
  @IsObject() work!: Work;
}

export class CheckoutKeyInput {
  @IsUUID() checkout!: string;
}

export class RequestSignInput {
  @IsString() @MaxLength(200) request!: string;
}

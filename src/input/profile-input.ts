import 'reflect-metadata';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayUnique,
  IsArray,
  IsBoolean,
  IsDefined,
  IsEmail,
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
  registerDecorator,
  ValidateIf,
  ValidateNested,
} from 'class-validator';
import type { ProfileFields } from '@/core/business/business';
import { CARD_SCHEMES } from '@/core/button/button';
import { type Fronts, type Location, MOST_FRONTS, type TradingName } from '@/core/front/front';
import type { NumberSeries } from '@/core/invoice/numbering';
import type { BankDetails } from '@/core/invoice/printed';
import { MOST_REMINDERS } from '@/core/invoice/reminders';
import { isCurrency } from '@/core/money/currency';
import { ACCOUNT_SCHEME } from '@/core/payment/outcome';
import type { BusinessTax } from '@/core/tax/business-tax';
import { isLanguage } from '@/core/words/words';
import { AddressInput } from './customer-input';
import { WaysInput } from './paper-input';
import { trimmed } from './trimmed';

const HOUR = { message: 'Write the hour as 20:00.' };

class AccountInput implements BankDetails {
  @IsString() @trimmed @MaxLength(120) holder!: string;
  @IsString() @trimmed @MaxLength(60) account!: string;
  @IsString() @trimmed @MaxLength(40) bankCode!: string;
  @IsString() @trimmed @MaxLength(120) bank!: string;
}

class OtherAccountInput extends AccountInput {
  @IsString() @Matches(/^[A-Z]{3}$/, { message: 'Choose a currency.' }) currency!: string;
}

class BankInput extends AccountInput {
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(10)
  @ArrayUnique((one: OtherAccountInput) => one.currency, { message: 'One currency stands there twice.' })
  @ValidateNested({ each: true })
  @Type(() => OtherAccountInput)
  others?: OtherAccountInput[];
}

class SeriesInput implements NumberSeries {
  @IsString() @trimmed @MaxLength(40) name!: string;
  @IsString() @trimmed @MaxLength(60) pattern!: string;
}

/** Smallest sums by currency, in minor units. */
export const Smallest = () => (target: object, propertyName: string) =>
  registerDecorator({
    name: 'smallest',
    target: target.constructor,
    propertyName,
    validator: {
      validate: (value: unknown) =>
        typeof value === 'object' &&
        value !== null &&
        Object.entries(value).length <= 40 &&
        Object.entries(value).every(
          ([code, minor]) => isCurrency(code) && Number.isSafeInteger(minor) && minor >= 0 && minor <= 1_000_000_000,
        ),
      defaultMessage: () => 'Write the smallest sum of each currency as an amount.',
    },
  });

const Texts = () => (target: object, propertyName: string) =>
  registerDecorator({
    name: 'texts',
    target: target.constructor,
    propertyName,
    validator: {
      validate: (value: unknown) =>
        typeof value === 'object' &&
        value !== null &&
        !Array.isArray(value) &&
        Object.entries(value).every(
          ([code, text]) => isLanguage(code) && typeof text === 'string' && text.length <= 4000,
        ),
      defaultMessage: () => 'Write at most 4,000 letters for each language.',
    },
  });

export class ProfileInput implements ProfileFields {
  @IsString() @trimmed @MinLength(1, { message: 'Write the name of the business.' }) @MaxLength(160) name!: string;
  @IsString() @trimmed @MaxLength(400, { message: 'Say it in 400 letters at most.' }) description!: string;
  @IsString() @trimmed @MaxLength(40) phone!: string;
  @trimmed
  @IsEmail({ allow_display_name: false }, { message: 'Write the whole address, such as name@place.example' })
  email!: string;
  @IsString() @trimmed @MaxLength(160) website!: string;
  @IsString() @trimmed @MaxLength(60) taxNumber!: string;
  @IsString() @Matches(/^[A-Z]{2}$/) country!: string;
  @IsBoolean() pricesIncludeTax!: boolean;
  @IsDefined() @IsObject() @ValidateNested() @Type(() => AddressInput) place!: AddressInput;
  @IsOptional() @IsUUID() logoId!: string | null;
  @IsString() @Matches(/^#[0-9a-fA-F]{6}$/, { message: 'Write the colour as #6B2451.' }) accent!: string;
  @IsDefined() @IsObject() @ValidateNested() @Type(() => BankInput) bank!: BankInput;
  @IsArray()
  @ArrayMaxSize(MOST_REMINDERS)
  @IsInt({ each: true })
  @Min(-365, { each: true })
  @Max(365, { each: true })
  reminders!: number[];
  @IsString() @Matches(/^([01]\d|2[0-3]):[0-5]\d$/, HOUR) quietFrom!: string;
  @IsString() @Matches(/^([01]\d|2[0-3]):[0-5]\d$/, HOUR) quietTo!: string;
  @IsObject() @Texts() mailTexts!: Record<string, string>;
  @IsOptional() @IsObject() @ValidateNested() @Type(() => WaysInput) ways!: WaysInput | null;
  @IsOptional() @IsUUID() termsId!: string | null;
  @IsObject() @Smallest() smallestPayments!: Record<string, number>;
  @IsArray() @ArrayMaxSize(12) @ValidateNested({ each: true }) @Type(() => SeriesInput) series!: SeriesInput[];
}

const EMPTY_OR_EMAIL = (_of: object, value: unknown) => value !== '';

class TradingNameInput implements TradingName {
  @IsUUID() id!: string;
  @IsString() @trimmed @MinLength(1, { message: 'Write the name.' }) @MaxLength(160) name!: string;
  @IsOptional() @IsUUID() logoId!: string | null;
  @IsString() @Matches(/^#[0-9a-fA-F]{6}$/, { message: 'Write the colour as #6B2451.' }) accent!: string;
  @trimmed
  @ValidateIf(EMPTY_OR_EMAIL)
  @IsEmail({ allow_display_name: false }, { message: 'Write the whole address, such as name@place.example' })
  email!: string;
  @IsString() @trimmed @MaxLength(40) phone!: string;
  @IsString() @trimmed @MaxLength(160) website!: string;
  @IsString() @trimmed @MaxLength(40) series!: string;
  @IsBoolean() retired!: boolean;
}

class LocationInput implements Location {
  @IsUUID() id!: string;
  @IsString() @trimmed @MinLength(1, { message: 'Write how it is called.' }) @MaxLength(80) name!: string;
  @IsDefined() @IsObject() @ValidateNested() @Type(() => AddressInput) place!: AddressInput;
  @IsString() @trimmed @MaxLength(40) phone!: string;
  @IsString() @trimmed @MaxLength(60) taxNumber!: string;
  @IsBoolean() retired!: boolean;
}

/** The names under which a business trades, and the places from which it sells. */
export class FrontsInput implements Fronts {
  @IsArray()
  @ArrayMaxSize(MOST_FRONTS)
  @ArrayUnique((one: TradingNameInput) => one.id)
  @ValidateNested({ each: true })
  @Type(() => TradingNameInput)
  tradingNames!: TradingNameInput[];
  @IsArray()
  @ArrayMaxSize(MOST_FRONTS)
  @ArrayUnique((one: LocationInput) => one.id)
  @ValidateNested({ each: true })
  @Type(() => LocationInput)
  locations!: LocationInput[];
}

export class TermsInput {
  @IsOptional() @IsUUID() id?: string | null;
  @IsString() @trimmed @MinLength(1, { message: 'Name the terms.' }) @MaxLength(120) name!: string;
  @IsString() @trimmed @MinLength(1, { message: 'Write the terms.' }) @MaxLength(40_000) text!: string;
}

class TaxInput implements BusinessTax {
  @IsUUID() id!: string;
  @IsString() @trimmed @MaxLength(80) name!: string;
  @IsString() @trimmed @MaxLength(12) rate!: string;
  @IsString() @trimmed @MaxLength(40) class!: string;
  @IsString() @MaxLength(2) country!: string;
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(300)
  @IsString({ each: true })
  @MaxLength(8, { each: true })
  regions?: string[];
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(5000)
  @IsString({ each: true })
  @MaxLength(24, { each: true })
  postalCodes?: string[];
  @IsBoolean() onDelivery!: boolean;
  @IsOptional() @IsBoolean() additional?: boolean;
  @IsBoolean() retired!: boolean;
}

export class TaxesInput {
  @IsArray() @ArrayMaxSize(2000) @ValidateNested({ each: true }) @Type(() => TaxInput) rules!: TaxInput[];
}

class TariffLineInput {
  @Matches(/^[A-Z]{3}$/, { message: 'Choose a currency.' }) currency!: string;
  @IsIn(['', ...CARD_SCHEMES, ACCOUNT_SCHEME]) scheme!: string;
  @Matches(/^(0|[1-9]\d?|100)(\.\d{1,4})?$/, { message: 'A percentage is a number such as 2.9.' }) percent!: string;
  @IsInt() @Min(0) @Max(1_000_000, { message: 'The fixed part of a fee is smaller than that.' }) fixedMinor!: number;
}

/** What is agreed with the card processor. */
export class TariffInput {
  @IsArray() @ArrayMaxSize(60) @ValidateNested({ each: true }) @Type(() => TariffLineInput) lines!: TariffLineInput[];
}

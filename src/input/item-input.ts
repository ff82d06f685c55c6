import 'reflect-metadata';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsDefined,
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
  ValidateNested,
} from 'class-validator';
import { HANDED, type Handed, type Item, type ItemGoing, type ItemOption, UNITS, type Unit } from '@/core/item/item';
import { MOST_GRAMS, MOST_MM } from '@/core/parcel/measure';
import { trimmed } from './trimmed';

const COUNT = /^-?\d{1,9}([.,]\d{1,4})?$/;
const SAY_COUNT = { message: 'Write how many as a number.' };

/** Currency codes with prices as typed; whether they are prices is the item's business. */
export const Prices = () => (target: object, propertyName: string) =>
  registerDecorator({
    name: 'prices',
    target: target.constructor,
    propertyName,
    validator: {
      validate: (value: unknown) =>
        typeof value === 'object' &&
        value !== null &&
        !Array.isArray(value) &&
        Object.entries(value).length <= 20 &&
        Object.entries(value).every(
          ([code, price]) => /^[A-Z]{3}$/.test(code) && typeof price === 'string' && price.length <= 40,
        ),
      defaultMessage: () => 'Write each price with its currency.',
    },
  });

class OptionInput implements ItemOption {
  @IsUUID() id!: string;
  @IsString() @trimmed @MaxLength(80) name!: string;
  @IsString() @trimmed @MaxLength(40) code!: string;
  @Prices() prices!: Record<string, string>;
  @IsOptional() @Matches(COUNT, SAY_COUNT) onHand!: string | null;
  @IsOptional() @Matches(COUNT, SAY_COUNT) lowAt!: string | null;
  @IsOptional() @IsInt() @Min(0) @Max(MOST_GRAMS) grams?: number;
  @IsOptional() @IsString() @trimmed @MaxLength(40) shelf?: string;
}

/** How an item goes, as the form has it. */
export class GoingInput implements ItemGoing {
  @IsIn(['', ...HANDED]) handed!: Handed | '';
  @IsInt() @Min(0) @Max(MOST_GRAMS, { message: 'Nothing heavier than 100 kg is sent as a parcel.' }) grams!: number;
  @IsInt() @Min(0) @Max(MOST_MM) lengthMm!: number;
  @IsInt() @Min(0) @Max(MOST_MM) widthMm!: number;
  @IsInt() @Min(0) @Max(MOST_MM) heightMm!: number;
  @IsString() @trimmed @MaxLength(40) shelf!: string;
  @IsString() @Matches(/^([A-Z]{2})?$/, { message: 'Choose a country.' }) origin!: string;
  @IsString() @trimmed @MaxLength(20) hsCode!: string;
}

/** An item as the form has it. */
export class ItemInput implements Omit<Item, 'id'> {
  @IsString() @trimmed @MaxLength(40) code!: string;
  @IsString() @trimmed @MinLength(1, { message: 'Write a name.' }) @MaxLength(160) name!: string;
  @IsString() @trimmed @MaxLength(1000) description!: string;
  @IsIn(['goods', 'digital', 'service']) kind!: Item['kind'];
  @IsIn(UNITS) unit!: Unit;
  @IsObject() @Prices() prices!: Record<string, string>;
  @IsString() @trimmed @MaxLength(40) cost!: string;
  @IsString() @trimmed @MinLength(1) @MaxLength(40) taxClass!: string;
  @IsOptional() @Matches(COUNT, SAY_COUNT) onHand!: string | null;
  @IsOptional() @Matches(COUNT, SAY_COUNT) lowAt!: string | null;
  @IsOptional() @IsUUID() pictureId!: string | null;
  @IsDefined() @IsObject() @ValidateNested() @Type(() => GoingInput) going!: GoingInput;
  @IsArray() @ArrayMaxSize(60) @ValidateNested({ each: true }) @Type(() => OptionInput) options!: OptionInput[];
}

export class ItemPageInput {
  @IsOptional() @IsString() @MaxLength(200) words?: string;
  @IsOptional() @IsString() @MaxLength(200) key?: string;
  @IsOptional() @IsUUID() id?: string;
}

/** Ids with commas between them. */
export class IdsInput {
  @IsString() @MaxLength(200 * 37) @Matches(/^([0-9a-f-]{36}(,[0-9a-f-]{36}){0,199})?$/) ids!: string;
}

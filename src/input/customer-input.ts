import 'reflect-metadata';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsDefined,
  IsEmail,
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
import type { Customer } from '@/core/customer/customer';
import { IMPORT_FIELDS, IMPORT_PART, type ImportField, ON_FILE, type OnFile } from '@/core/customer/import-rows';
import type { Address } from '@/core/place/address';
import { DueInput } from './paper-input';
import { trimmed } from './trimmed';

const WHOLE = { message: 'Write the whole address, such as name@place.example' };

export class AddressInput implements Address {
  @IsArray() @ArrayMaxSize(6) @trimmed @IsString({ each: true }) @MaxLength(120, { each: true }) lines!: string[];
  @IsString() @trimmed @MaxLength(120) city!: string;
  @IsString() @Matches(/^([A-Z]{2}-[A-Z0-9]{1,3})?$/) region!: string;
  @IsString() @trimmed @MaxLength(20) postalCode!: string;
  @IsString() @Matches(/^([A-Z]{2})?$/, { message: 'Choose a country.' }) country!: string;
}

/** A customer as the form has it. */
export class CustomerInput implements Omit<Customer, 'id'> {
  @IsIn(['person', 'company']) kind!: 'person' | 'company';
  @IsString() @trimmed @MinLength(1, { message: 'Write a name.' }) @MaxLength(160) name!: string;
  @ValidateIf(({ email }) => email !== '')
  @trimmed
  @MaxLength(254)
  @IsEmail({ allow_display_name: false }, WHOLE)
  email!: string;
  @IsArray()
  @ArrayMaxSize(10)
  @trimmed
  @IsEmail({ allow_display_name: false }, { each: true, ...WHOLE })
  copies!: string[];
  @IsString() @trimmed @MaxLength(40) phone!: string;
  @IsIn(['', 'en', 'de', 'fr', 'es']) language!: string;
  @IsString() @Matches(/^([A-Z]{3})?$/) currency!: string;
  @IsDefined() @IsObject() @ValidateNested() @Type(() => AddressInput) billing!: AddressInput;
  @IsOptional() @IsObject() @ValidateNested() @Type(() => AddressInput) delivery!: AddressInput | null;
  @IsString() @trimmed @MaxLength(60) taxNumber!: string;
  @IsString() @trimmed @MaxLength(4000, { message: 'A note holds 4,000 letters at most.' }) note!: string;
  @IsOptional() @IsObject() @ValidateNested() @Type(() => DueInput) due!: DueInput | null;
  @IsArray() @ArrayMaxSize(20) @trimmed @IsString({ each: true }) @MaxLength(60, { each: true }) groups!: string[];
  @IsOptional() @IsBoolean() shipsFirst!: boolean | null;
}

export class MergeInput {
  @IsUUID() otherId!: string;
}

export class AlikeInput {
  @IsString() @MaxLength(160) name!: string;
  @IsString() @MaxLength(254) email!: string;
}

/** Where a page of customers begins, and what is looked for. */
export class CustomerPageInput {
  @IsOptional() @IsString() @MaxLength(200) words?: string;
  @IsOptional() @IsString() @MaxLength(60) group?: string;
  @IsOptional() @IsString() @MaxLength(200) key?: string;
  @IsOptional() @IsUUID() id?: string;
}

/** A part of a file: what each column is, and the rows as read. `write` false only checks. */
export class ImportInput {
  @IsArray()
  @ArrayMaxSize(60)
  @IsIn([null, ...Object.keys(IMPORT_FIELDS)], { each: true })
  mapping!: (ImportField | null)[];
  @IsArray() @ArrayMaxSize(IMPORT_PART) @IsArray({ each: true }) rows!: string[][];
  @IsBoolean() write!: boolean;
  @IsOptional() @IsIn(ON_FILE) onFile?: OnFile;
}

export class CountryInput {
  @IsOptional() @Matches(/^[A-Z]{2}$/) country?: string;
}

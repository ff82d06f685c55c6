import 'reflect-metadata';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
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
  ValidateIf,
  ValidateNested,
} from 'class-validator';
import { type CustomsPart, NATURES, type Nature } from '@/core/customs/declaration';
import type { CalendarDate } from '@/core/dates/calendar-date';
import type { Recipient } from '@/core/parcel/handover';
import { MOST_GRAMS, MOST_MM } from '@/core/parcel/measure';
import type { DeliverSettings } from '@/core/parcel/notice';
import {
  type Insuring,
  LABEL_SHEETS,
  type LabelSheet,
  MOST_RULES,
  type ParcelProfile,
  type ParcelRule,
} from '@/core/parcel/profile';
import { COUNT } from './count';
import { AddressInput } from './customer-input';
import { Day, Moment } from './day';
import { trimmed } from './trimmed';

const MOST_AT_ONCE = 1000;
const SAY_HS = 'Write the customs number with 6 to 10 figures, such as 9209.94.';
const SUM = { min: 0, max: 100_000_000 };

/** Parcels or sales, by id; none said for all that lie on the paper. */
export class SomeInput {
  @IsOptional() @IsArray() @ArrayMaxSize(MOST_AT_ONCE) @IsUUID('all', { each: true }) ids?: string[];
}

export class PutOnInput {
  @IsArray() @ArrayMinSize(1) @ArrayMaxSize(MOST_AT_ONCE) @IsUUID('all', { each: true }) ids!: string[];
}

export class MailDayInput extends SomeInput {
  @Day() mailOn!: CalendarDate;
}

export class ProfilesInput extends SomeInput {
  @IsOptional() @IsUUID() profileId!: string | null;
}

export class BuyInput extends SomeInput {
  /** What the screen said goes to the carrier, in minor units; none for who sees no sums. */
  @IsOptional() @IsInt() @Min(0) @Max(SUM.max) expectedMinor?: number | null;
}

export class PackPageInput {
  @IsOptional() @IsIn(['yes', 'no']) blocked?: 'yes' | 'no';
  @IsOptional() @IsString() @MaxLength(120) words?: string;
  /** The moment of the last one, in ISO 8601. */
  @IsOptional() @IsString() @MaxLength(40) @Moment() key?: string;
  @IsOptional() @IsUUID() id?: string;
}

export class ShipmentPageInput extends PackPageInput {
  @IsOptional() @IsIn(['all', 'under-way', 'ended']) under?: 'all' | 'under-way' | 'ended';
}

export class ScanInput {
  @IsString() @trimmed @MinLength(1, { message: 'Scan or type a number.' }) @MaxLength(60) text!: string;
}

export class RecipientInput implements Recipient {
  @IsString() @trimmed @MinLength(1, { message: 'Write whom it is for.' }) @MaxLength(160) name!: string;
  @IsDefined() @IsObject() @ValidateNested() @Type(() => AddressInput) address!: AddressInput;
  @ValidateIf(({ email }) => email !== '')
  @trimmed
  @MaxLength(254)
  @IsEmail({ allow_display_name: false }, { message: 'Write the whole address, such as name@place.example' })
  email!: string;
  @IsString() @trimmed @MaxLength(40) phone!: string;
  @IsString() @Matches(/^[A-Za-z0-9-]{2,35}$/) locale!: string;
}

export class ParcelInput {
  /** Null gives the choice to the rules. */
  @IsOptional() @IsUUID() profileId?: string | null;
  @IsOptional() @IsInt() @Min(1) @Max(MOST_GRAMS, { message: 'No parcel is heavier than 100 kg.' }) grams?:
    | number
    | null;
  @IsOptional() @IsString() @Matches(/^[a-z0-9-]{0,40}$/) service?: string;
  @IsOptional() @IsIn(['on-day', 'first-scan', 'held']) notice?: 'on-day' | 'first-scan' | 'held';
  @IsOptional() @IsObject() @ValidateNested() @Type(() => RecipientInput) recipient?: RecipientInput;
}

class PartInput {
  @IsInt() @Min(0) @Max(1000) place!: number;
  @Matches(COUNT, { message: 'Write how many as a number.' }) quantity!: string;
}

export class LeaveOutInput {
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(500)
  @ValidateNested({ each: true })
  @Type(() => PartInput)
  out!: PartInput[];
  @IsBoolean() apart!: boolean;
}

class FreeLineInput {
  @IsString() @trimmed @MinLength(1, { message: 'Write what is in it.' }) @MaxLength(200) what!: string;
  @IsOptional() @IsUUID() itemId!: string | null;
  @IsOptional() @IsUUID() optionId!: string | null;
  @Matches(COUNT, { message: 'Write how many as a number.' }) quantity!: string;
  @IsInt() @Min(0) @Max(SUM.max) valueMinor!: number;
}

export class FreeParcelInput {
  @IsOptional() @IsUUID() customerId!: string | null;
  @IsDefined() @IsObject() @ValidateNested() @Type(() => RecipientInput) recipient!: RecipientInput;
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(40)
  @ValidateNested({ each: true })
  @Type(() => FreeLineInput)
  lines!: FreeLineInput[];
}

export class NoticesInput {
  @IsArray() @ArrayMinSize(1) @ArrayMaxSize(MOST_AT_ONCE) @IsUUID('all', { each: true }) ids!: string[];
  @IsIn(['move', 'hold', 'send', 'first-scan']) deed!: 'move' | 'hold' | 'send' | 'first-scan';
  @ValidateIf(({ deed }) => deed === 'move') @Day() mailOn?: CalendarDate;
}

class LineCustomsInput {
  @IsInt() @Min(0) @Max(1000) place!: number;
  @IsString() @trimmed @MaxLength(120) declaredAs!: string;
  @IsString() @trimmed @Matches(/^(\d{4}([. ]?\d{2}){1,3})?$/, { message: SAY_HS }) hsCode!: string;
  @IsString()
  @trimmed
  @Matches(/^([A-Z]{2})?$/, { message: 'Write the country by its two letters, such as US.' })
  origin!: string;
  @IsOptional() @IsInt() @Min(1) @Max(MOST_GRAMS) netGrams!: number | null;
  /** What all of it is worth, in minor units; none for as it was sold. */
  @IsOptional() @IsInt() @Min(0) @Max(SUM.max) valueMinor?: number | null;
}

/** What customs are told of a parcel. */
export class DeclareInput implements CustomsPart {
  @IsIn(NATURES) nature!: Nature;
  @IsString() @trimmed @MaxLength(80) explanation!: string;
  @IsString() @trimmed @MaxLength(160) comments!: string;
  @IsString() @trimmed @MaxLength(40) licence!: string;
  @IsString() @trimmed @MaxLength(40) certificate!: string;
  @IsString() @trimmed @MaxLength(40) importer!: string;
  @IsArray()
  @ArrayMaxSize(500)
  @ValidateNested({ each: true })
  @Type(() => LineCustomsInput)
  lines!: LineCustomsInput[];
  /** Whether it is kept with the items for the next time. */
  @IsBoolean() keep!: boolean;
}

/** Ids with commas between them. */
export class ParcelIdsInput {
  @IsString() @MaxLength(200 * 37) @Matches(/^[0-9a-f-]{36}(,[0-9a-f-]{36}){0,199}$/) ids!: string;
}

/** The same, and how their labels are printed. */
export class LabelsInput extends ParcelIdsInput {
  @IsOptional() @IsIn(['pdf', 'zpl']) as?: 'pdf' | 'zpl';
  @IsOptional() @IsIn(LABEL_SHEETS) sheet?: LabelSheet;
  @IsOptional() @Matches(/^[0-3]$/) begin?: string;
}

class ThingInput {
  @IsUUID() itemId!: string;
  @IsOptional() @IsUUID() optionId?: string | null;
}

class ZoneInput {
  @IsString() @MinLength(1) @MaxLength(60) id!: string;
  @IsArray() @ArrayMaxSize(260) @ArrayUnique() @Matches(/^[A-Z]{2}$/, { each: true }) countries!: string[];
}

/** Of which things, in which zones and currency delivery prices are proposed. */
export class ProposeDeliveryInput {
  @Matches(/^[A-Z]{3}$/, { message: 'Choose a currency.' }) currency!: string;
  @IsArray() @ArrayMaxSize(200) @ValidateNested({ each: true }) @Type(() => ThingInput) things!: ThingInput[];
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(60)
  @ValidateNested({ each: true })
  @Type(() => ZoneInput)
  zones!: ZoneInput[];
}

/** What is done about a parcel that went wrong. */
export class ParcelDeedInput {
  @IsIn(['send-again', 'take-into-stock', 'leave']) deed!: 'send-again' | 'take-into-stock' | 'leave';
}

/** What the carrier is asked to pay, in minor units. */
export class ClaimInput {
  @IsInt() @Min(1, { message: 'Write a sum above 0.' }) @Max(100_000_000) minor!: number;
}

/** On which day the carrier comes. */
export class PickUpInput {
  @IsUUID() requestKey!: string;
  @Day() on!: CalendarDate;
}

export class TopUpInput {
  @IsUUID() requestKey!: string;
  @IsInt()
  @Min(1, { message: 'Write a sum above 0.' })
  @Max(2_000_000, { message: 'At most 20,000 at once.' })
  minor!: number;
}

const LENGTH = { message: 'Write the outer side as a length, up to 3 m.' };

class InsuringInput {
  @IsIn(['never', 'always', 'from']) kind!: Insuring['kind'];
  @ValidateIf(({ kind }) => kind === 'from') @IsInt() @Min(0) @Max(SUM.max) minor!: number;
}

export class ParcelProfileInput implements Omit<ParcelProfile, 'id' | 'insuring'> {
  @IsString() @trimmed @MinLength(1, { message: 'Name this profile.' }) @MaxLength(60) name!: string;
  @IsInt(LENGTH) @Min(1, LENGTH) @Max(MOST_MM, LENGTH) lengthMm!: number;
  @IsInt(LENGTH) @Min(1, LENGTH) @Max(MOST_MM, LENGTH) widthMm!: number;
  @IsInt(LENGTH) @Min(1, LENGTH) @Max(MOST_MM, LENGTH) heightMm!: number;
  @IsInt() @Min(0) @Max(MOST_GRAMS) ownGrams!: number;
  @IsInt() @Min(0) @Max(MOST_GRAMS) mostGrams!: number;
  @IsInt() @Min(0) @Max(SUM.max) packagingMinor!: number;
  @IsString() @Matches(/^[a-z0-9-]{0,40}$/) service!: string;
  @IsDefined() @IsObject() @ValidateNested() @Type(() => InsuringInput) insuring!: InsuringInput;
  @IsBoolean() signature!: boolean;
}

class ParcelRuleInput implements ParcelRule {
  @IsUUID() id!: string;
  @IsUUID() profileId!: string;
  @IsArray() @ArrayMaxSize(60) @ArrayUnique() @Matches(/^[A-Z]{2}$/, { each: true }) countries!: string[];
  @IsBoolean() abroad!: boolean;
  @IsInt() @Min(0) @Max(MOST_GRAMS) fromGrams!: number;
  @IsInt() @Min(0) @Max(MOST_GRAMS) toGrams!: number;
  @IsInt() @Min(0) @Max(SUM.max) fromMinor!: number;
  @IsInt() @Min(0) @Max(SUM.max) toMinor!: number;
  @IsArray() @ArrayMaxSize(60) @IsUUID('all', { each: true }) itemIds!: string[];
  @IsString() @trimmed @MaxLength(80) wish!: string;
}

export class ParcelRulesInput {
  @IsArray()
  @ArrayMaxSize(MOST_RULES)
  @ValidateNested({ each: true })
  @Type(() => ParcelRuleInput)
  rules!: ParcelRuleInput[];
}

export class TryRulesInput extends ParcelRulesInput {
  @IsString() @Matches(/^[A-Z]{2}$/, { message: 'Choose a country.' }) country!: string;
  @IsString() @trimmed @MaxLength(20) postalCode!: string;
  @IsInt() @Min(0) @Max(MOST_GRAMS) grams!: number;
  @IsInt() @Min(0) @Max(SUM.max) valueMinor!: number;
  @IsArray() @ArrayMaxSize(20) @IsUUID('all', { each: true }) itemIds!: string[];
  @IsString() @trimmed @MaxLength(200) wish!: string;
}

class TellInput {
  @IsBoolean() left!: boolean;
  @IsBoolean() door!: boolean;
  @IsBoolean() delivered!: boolean;
  @IsBoolean() late!: boolean;
}

class OwnLabelInput {
  @IsInt() @Min(60, { message: 'A label is at least 60 mm wide.' }) @Max(300) widthMm!: number;
  @IsInt() @Min(100, { message: 'A label is at least 100 mm high.' }) @Max(400) heightMm!: number;
}

export class DeliveringInput implements DeliverSettings {
  @Matches(/^([01]\d|2[0-3]):[0-5]\d$/, { message: 'Write the hour as 08:00.' }) tellAt!: string;
  @IsDefined() @IsObject() @ValidateNested() @Type(() => TellInput) tell!: TellInput;
  @IsIn(['on-day', 'first-scan', 'held']) usual!: 'on-day' | 'first-scan' | 'held';
  @IsArray()
  @ArrayMaxSize(7)
  @ArrayUnique()
  @IsInt({ each: true })
  @Min(1, { each: true })
  @Max(7, { each: true })
  mailDays!: number[];
  @IsDefined() @IsObject() @ValidateNested() @Type(() => OwnLabelInput) ownLabel!: OwnLabelInput;
  @IsIn(LABEL_SHEETS) labelSheet!: LabelSheet;
  @IsBoolean() shipsFirst!: boolean;
  @IsInt() @Min(0) @Max(365, { message: 'A year at most; 0 for nothing that can be asked back.' }) returnDays!: number;
  @IsString() @trimmed @MaxLength(40) customsReference!: string;
}

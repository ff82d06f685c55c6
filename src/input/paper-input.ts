import 'reflect-metadata';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
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
import { MOST_REMINDERS } from '@/core/invoice/reminders';
import type { SendingWay, SendWith } from '@/core/invoice/send-with';
import { HANDED, type Handed, UNITS, type Unit } from '@/core/item/item';
import { EXEMPT_AS, type ExemptAs } from '@/core/paper/exempt';
import type { Following } from '@/core/paper/kept-by';
import {
  type Approver,
  type DueChoice,
  MOST_APPROVERS,
  MOST_FILES,
  MOST_LINES,
  type Paper,
  type PaperDelivery,
  type PaperFee,
  type PaperFile,
  type PaperFlatTax,
  type PaperLine,
  type PaperWays,
} from '@/core/paper/paper';
import { Moment } from './day';
import { trimmed } from './trimmed';

const DAY = /^[0-9-]{0,10}$/;
const TYPED = 40;

class LineInput implements PaperLine {
  @IsUUID() id!: string;
  @IsIn(UNITS) unit!: Unit;
  @IsString() @MaxLength(500, { message: 'A line holds 500 letters at most.' }) what!: string;
  @IsString() @MaxLength(TYPED) quantity!: string;
  @IsString() @MaxLength(TYPED) price!: string;
  @IsString() @MaxLength(TYPED) discount!: string;
  @IsArray() @ArrayMaxSize(10) @IsUUID('all', { each: true }) taxes!: string[];
  @IsOptional() @IsIn(['place', 'person']) taxesBy?: 'place' | 'person';
  @IsOptional() @IsString() @MaxLength(40) taxClass?: string;
  @IsOptional() @IsUUID() itemId?: string | null;
  @IsOptional() @IsUUID() optionId?: string | null;
  @IsOptional()
  @IsString()
  @MaxLength(1000, { message: 'A note to a line holds 1,000 letters at most.' })
  note?: string;
  @IsOptional() @Matches(DAY) on?: string;
  @IsOptional() @IsString() @MaxLength(40, { message: 'A code holds 40 signs at most.' }) code?: string;
  @IsOptional() @IsIn(HANDED) handed?: Handed;
}

export class DueInput {
  @IsIn(['receipt', 'days', 'month-end', 'date']) kind!: DueChoice['kind'];
  @ValidateIf(({ kind }) => kind === 'days') @IsInt() @Min(0) @Max(365, { message: 'At most 365 days.' }) days!: number;
  // As typed: whether it is a day is the paper's business, and is said there.
  @ValidateIf(({ kind }) => kind === 'date') @IsString() @MaxLength(10) date!: string;
}

class FeeInput implements PaperFee {
  @IsUUID() id!: string;
  @IsString() @MaxLength(120) name!: string;
  @IsString() @MaxLength(TYPED) amount!: string;
  @IsArray() @ArrayMaxSize(10) @IsUUID('all', { each: true }) taxes!: string[];
}

class FlatTaxInput implements PaperFlatTax {
  @IsUUID() id!: string;
  @IsString() @MaxLength(120) name!: string;
  @IsString() @MaxLength(TYPED) amount!: string;
}

class DeliveryInput implements PaperDelivery {
  @IsString() @MaxLength(TYPED) charged!: string;
  @IsString() @MaxLength(TYPED) postage!: string;
  @IsString() @MaxLength(TYPED) packaging!: string;
  @IsOptional() @IsArray() @ArrayMaxSize(10) @IsUUID('all', { each: true }) taxes!: string[] | null;
}

class ApproverInput implements Approver {
  @IsUUID() id!: string;
  @IsString() @MaxLength(160) name!: string;
  @IsString() @MaxLength(254) email!: string;
}

class PaperFileInput implements PaperFile {
  @IsUUID() id!: string;
  @IsString() @MaxLength(200) name!: string;
  @IsString() @MaxLength(100) type!: string;
  @IsInt() @Min(1) size!: number;
  @IsBoolean() approve!: boolean;
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(MOST_APPROVERS)
  @ValidateNested({ each: true })
  @Type(() => ApproverInput)
  approvers?: ApproverInput[];
}

export class WaysInput implements PaperWays {
  @IsBoolean() card!: boolean;
  @IsOptional() @IsBoolean() debit?: boolean;
  @IsBoolean() transfer!: boolean;
  @IsBoolean() parts!: boolean;
  @IsString() @MaxLength(TYPED) first!: string;
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(4)
  @Matches(/^(100|[1-9]?[0-9])$/, { each: true, message: 'Tips are whole percents up to 100.' })
  tip!: string[] | null;
}

class ElsewhereInput {
  @IsUUID() fileId!: string;
  @IsString() @MaxLength(200) name!: string;
}

/** A paper as typed: bounded in size, not yet judged. */
export class PaperInput implements Paper {
  @IsOptional() @IsUUID() customerId!: string | null;
  @IsString() @MaxLength(120) reference!: string;
  @IsDefined() @IsObject() @ValidateNested() @Type(() => DueInput) due!: DueInput;
  @IsArray()
  @ArrayMaxSize(MOST_LINES, { message: `An invoice holds ${MOST_LINES} lines at most.` })
  @ValidateNested({ each: true })
  @Type(() => LineInput)
  lines!: LineInput[];
  @IsString() @MaxLength(TYPED) discount!: string;
  @IsString() @MaxLength(4000, { message: 'A note holds 4,000 letters at most.' }) note!: string;
  @IsString() @MaxLength(160) title!: string;
  @IsString()
  @Matches(/^[\p{L}\p{N} ./_-]{0,40}$/u, { message: 'Letters, digits, spaces and . / _ - can stand in a number.' })
  number!: string;
  @IsOptional() @IsUUID() tradingNameId!: string | null;
  @IsOptional() @IsUUID() locationId!: string | null;
  @IsString() @MaxLength(40) series!: string;
  @IsString() @Matches(DAY) issuedOn!: string;
  @IsString() @Matches(DAY) serviceFrom!: string;
  @IsString() @Matches(DAY) serviceTo!: string;
  @IsString() @Matches(/^([A-Z]{3})?$/) currency!: string;
  @IsOptional() @IsBoolean() pricesIncludeTax!: boolean | null;
  @IsOptional() @IsObject() @ValidateNested() @Type(() => DeliveryInput) delivery!: DeliveryInput | null;
  @IsArray() @ArrayMaxSize(20) @ValidateNested({ each: true }) @Type(() => FeeInput) fees!: FeeInput[];
  @IsArray() @ArrayMaxSize(5) @ValidateNested({ each: true }) @Type(() => FlatTaxInput) flatTaxes!: FlatTaxInput[];
  @IsOptional() @IsString() @MaxLength(300) exempt!: string | null;
  @IsOptional() @IsIn(EXEMPT_AS) exemptAs!: ExemptAs;
  @IsOptional() @IsUUID() termsId!: string | null;
  @IsString() @MaxLength(4000, { message: 'A memo holds 4,000 letters at most.' }) memo!: string;
  @IsArray()
  @ArrayMaxSize(MOST_FILES, { message: `An invoice holds ${MOST_FILES} files at most.` })
  @ValidateNested({ each: true })
  @Type(() => PaperFileInput)
  files!: PaperFileInput[];
  @IsDefined() @IsObject() @ValidateNested() @Type(() => WaysInput) ways!: WaysInput;
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(MOST_REMINDERS)
  @IsInt({ each: true })
  @Min(-365, { each: true })
  @Max(365, { each: true })
  reminders!: number[] | null;
  @IsOptional() @IsObject() @ValidateNested() @Type(() => ElsewhereInput) elsewhere!: ElsewhereInput | null;
  @IsOptional() @IsBoolean() sample!: boolean;
  @IsOptional() @IsBoolean() shipsFirst?: boolean | null;
}

/** One writing of a draft: a window's name and the count of its changes. */
class WritingInput {
  @IsUUID() hand!: string;
  @IsInt() @Min(0) step!: number;
}

/** A draft to keep, with the revision that it was read at and whose words it is. */
export class DraftInput {
  @IsInt() @Min(0) revision!: number;
  @IsOptional() @IsObject() @ValidateNested() @Type(() => WritingInput) by?: WritingInput | null;
  @IsOptional() @IsObject() @ValidateNested() @Type(() => WritingInput) after?: WritingInput | null;
  @IsDefined() @IsObject() @ValidateNested() @Type(() => PaperInput) paper!: PaperInput;
}

/** Whose words a draft is; without a window's name only the revision counts. */
export const windowOf = ({ by, after }: DraftInput): Pick<Following, 'by' | 'after'> => ({
  by: by ?? null,
  after: after ?? null,
});

/** A paper as kept: what is optional at the door is null within. */
export const paperOf = (input: PaperInput): Paper => ({
  ...input,
  customerId: input.customerId ?? null,
  pricesIncludeTax: input.pricesIncludeTax ?? null,
  delivery: input.delivery ? { ...input.delivery, taxes: input.delivery.taxes ?? null } : null,
  exempt: input.exempt ?? null,
  exemptAs: input.exemptAs ?? 'exempt',
  termsId: input.termsId ?? null,
  ways: { ...input.ways, tip: input.ways.tip ?? null },
  reminders: input.reminders ?? null,
  elsewhere: input.elsewhere ?? null,
});

const WHOLE = { message: 'Write the whole address, such as name@place.example' };

export class SendWithInput implements SendWith {
  @IsIn(['mail', 'text', 'chat', 'link', 'hand']) way!: SendingWay;
  @IsArray() @ArrayMaxSize(10) @trimmed @IsEmail({ allow_display_name: false }, { each: true, ...WHOLE }) to!: string[];
  @IsString() @trimmed @MaxLength(40) phone!: string;
  @IsString() @MaxLength(4000, { message: 'A text holds 4,000 letters at most.' }) text!: string;
}

/** A draft to send, now or (with `at`) by itself at an instant. */
export class SendInput {
  @IsInt() @Min(0) revision!: number;
  @IsDefined() @IsObject() @ValidateNested() @Type(() => SendWithInput) how!: SendWithInput;
  @IsOptional() @Moment() on?: string;
}

/** Once more; the key is made for one click. */
export class SendAgainInput {
  @IsUUID() requestKey!: string;
  @IsDefined() @IsObject() @ValidateNested() @Type(() => SendWithInput) how!: SendWithInput;
}

export class TrialInput {
  @IsUUID() requestKey!: string;
  @trimmed @IsEmail({ allow_display_name: false }, WHOLE) to!: string;
}

/** What an invoice is begun from. */
export class StartInput {
  @IsOptional() @IsUUID() customerId?: string;
  @IsOptional() @IsUUID() templateId?: string;
  @IsOptional() @IsUUID() invoiceId?: string;
  @IsOptional() @IsBoolean() asLast?: boolean;
  @IsOptional() @IsBoolean() withFiles?: boolean;
}

export class ChangeInput {
  @IsInt() @Min(1) version!: number;
  @IsBoolean() tell!: boolean;
  @IsDefined() @IsObject() @ValidateNested() @Type(() => PaperInput) paper!: PaperInput;
}

export class TemplateInput {
  @IsString() @trimmed @MinLength(1, { message: 'Name the template.' }) @MaxLength(80) name!: string;
  @IsDefined() @IsObject() @ValidateNested() @Type(() => PaperInput) paper!: PaperInput;
  @IsOptional() @IsBoolean() withFiles?: boolean;
}

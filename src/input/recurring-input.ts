import 'reflect-metadata';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
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
import type { CalendarDate } from '@/core/dates/calendar-date';
import { isUsualDay } from '@/core/dates/usual';
import { MOST_IN_BULK, type OwnWords } from '@/core/invoice/bulk';
import type { Schedule } from '@/core/schedule/schedule';
import { Day, DayOrNone } from './day';
import { SendWithInput } from './paper-input';
import { trimmed } from './trimmed';

/** A rule of our own at a field. */
const Holds =
  (name: string, holds: (value: unknown) => boolean, words: string) => () => (target: object, propertyName: string) =>
    registerDecorator({
      name,
      target: target.constructor,
      propertyName,
      validator: { validate: holds, defaultMessage: () => words },
    });

const Ends = Holds(
  'ends',
  (value) =>
    value === 'never' ||
    (typeof value === 'object' &&
      value !== null &&
      Object.keys(value).length === 1 &&
      (('on' in value && isUsualDay(value.on)) ||
        ('after' in value &&
          Number.isInteger(value.after) &&
          Number(value.after) >= 1 &&
          Number(value.after) <= 1000))),
  'Say when it ends.',
);

export class ScheduleInput implements Schedule {
  @IsIn(['day', 'week', 'month', 'year']) unit!: Schedule['unit'];
  @IsInt() @Min(1) @Max(366) every!: number;
  @Day() start!: CalendarDate;
  @IsOptional() @IsArray() @ArrayMaxSize(31) monthDays?: (number | 'last')[];
  @IsOptional() @IsArray() @ArrayMaxSize(7) @IsInt({ each: true }) weekdays?: number[];
  @IsDefined() @Ends() ends!: Schedule['ends'];
  @IsOptional() @IsIn(['none', 'next', 'previous', 'skip']) shift?: NonNullable<Schedule['shift']>;
}

export class RecurringInput {
  @IsString() @trimmed @MinLength(1, { message: 'Name it.' }) @MaxLength(80) name!: string;
  @IsIn(['draft', 'send']) makes!: 'draft' | 'send';
  @IsDefined() @IsObject() @ValidateNested() @Type(() => ScheduleInput) schedule!: ScheduleInput;
}

export class NewRecurringInput extends RecurringInput {
  @IsUUID() invoiceId!: string;
  @IsOptional() @IsBoolean() withFiles?: boolean;
}

/** The invoice or draft that says what comes from the next one on. */
export class RepaperInput {
  @IsUUID() invoiceId!: string;
}

export class RecurringActionInput {
  @IsIn(['pause', 'resume', 'skip', 'end']) action!: 'pause' | 'resume' | 'skip' | 'end';
}

const text = (value: unknown, most: number): boolean =>
  value === undefined || (typeof value === 'string' && value.length <= most);
const Own = Holds(
  'own',
  (value) => {
    if (typeof value !== 'object' || value === null || Array.isArray(value)) return false;
    const { reference, note, lines = {}, ...rest } = value as Record<string, unknown>;
    return (
      Object.keys(rest).length === 0 &&
      text(reference, 120) &&
      text(note, 4000) &&
      typeof lines === 'object' &&
      lines !== null &&
      Object.entries(lines).every(
        ([at, own]) =>
          /^\d{1,3}$/.test(at) &&
          typeof own === 'object' &&
          own !== null &&
          Object.entries(own).every(
            ([part, said]) => ['quantity', 'price', 'what'].includes(part) && text(said, part === 'what' ? 500 : 40),
          ),
      )
    );
  },
  'This row says something that an invoice has no place for.',
);

class BatchRowInput {
  @IsString() @MaxLength(254) customer!: string;
  @IsDefined() @Own() own!: OwnWords;
}

export class BatchInput {
  @IsUUID() invoiceId!: string;
  @IsString() @trimmed @MaxLength(80) name!: string;
  @IsArray() @ArrayMaxSize(MOST_IN_BULK) @IsUUID('all', { each: true }) customerIds!: string[];
  @IsString() @MaxLength(60) group!: string;
  @IsArray()
  @ArrayMaxSize(MOST_IN_BULK)
  @ValidateNested({ each: true })
  @Type(() => BatchRowInput)
  rows!: BatchRowInput[];
  @IsDefined() @IsObject() @ValidateNested() @Type(() => SendWithInput) how!: SendWithInput;
  @IsOptional() @IsBoolean() withFiles?: boolean;
}

/** From which invoice something is begun. */
export class FromInput {
  @IsOptional() @IsUUID() from?: string;
}

export class BulkActionInput {
  @IsIn(['send', 'again']) action!: 'send' | 'again';
}

export class StatementInput {
  @IsOptional() @DayOrNone() from?: string;
  @IsOptional() @DayOrNone() to?: string;
  @IsOptional() @Matches(/^([A-Z]{3})?$/) currency?: string;
}

export class MailStatementInput extends StatementInput {
  @IsUUID() requestKey!: string;
  @IsString() @MaxLength(4000) text!: string;
}

import 'reflect-metadata';
import { IsIn, IsString, Matches, MaxLength, MinLength } from 'class-validator';
import type { CalendarDate } from '@/core/dates/calendar-date';

/** A month, by its first day. */
export class CarrierMonthInput {
  @Matches(/^(20\d\d)-(0[1-9]|1[0-2])-01$/, { message: 'Name the month by its first day.' }) month!: CalendarDate;
}

/** What is decided on an entry of a statement. */
export class CarrierEntryInput extends CarrierMonthInput {
  @IsString() @MinLength(1) @MaxLength(200) key!: string;
  @IsIn(['book', 'leave']) deed!: 'book' | 'leave';
}

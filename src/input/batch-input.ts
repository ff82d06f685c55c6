import { IsString, Matches, MaxLength, MinLength } from 'class-validator';
import { trimmed } from './trimmed';

const DAY = /^\d{4}-\d{2}-\d{2}$/;

/** Where a page of the days' batches begins: after this day. */
export class BatchPageInput {
  @Matches(DAY) key!: string;
  @Matches(DAY) id!: string;
}

/** What was found out about a day's differences. */
export class SettleBatchInput {
  @IsString()
  @trimmed
  @MinLength(1, { message: 'Write what was found.' })
  @MaxLength(300)
  words!: string;
}

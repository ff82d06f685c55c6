import { IsString, MaxLength, MinLength } from 'class-validator';
import { Day } from './day';
import { trimmed } from './trimmed';

/** Where a page of the days' batches begins: after this day. */
export class BatchPageInput {
  @Day() key!: string;
  @Day() id!: string;
}

/** What was found out about a day's differences. */
export class SettleBatchInput {
  @IsString()
  @trimmed
  @MinLength(1, { message: 'Write what was found.' })
  @MaxLength(300)
  words!: string;
}

import { ArrayMaxSize, IsArray, IsIn, IsOptional, IsString, IsUUID, MaxLength } from 'class-validator';
import { FILE_PARTS } from '@/core/dispute/payment-file';
import { Moment } from './day';
import { trimmed } from './trimmed';

/** What the business prepares as its answer to a dispute. */
export class PreparedAnswerInput {
  @IsString() @trimmed @MaxLength(5000, { message: 'At most 5,000 signs: put the rest into a paper.' }) words!: string;
  @IsArray() @ArrayMaxSize(20, { message: 'At most 20 papers.' }) @IsUUID('all', { each: true }) fileIds!: string[];
  @IsArray() @ArrayMaxSize(FILE_PARTS.length) @IsIn(FILE_PARTS, { each: true }) leftOut!: string[];
}

/** Where a page of disputes goes on: after one. */
export class DisputePageInput {
  @IsString() @MaxLength(40) @Moment() key!: string;
  @IsUUID() id!: string;
}

/** Which answer is looked at: as it would go out now, or as it was sent. */
export class DisputeFileInput {
  @IsOptional() @IsIn(['now', 'sent']) form?: 'now' | 'sent';
}

import { ArrayMaxSize, IsArray, IsBoolean, IsString, IsUUID, MaxLength } from 'class-validator';
import { MOST_AT_ONCE } from '@/core/invoice/ask';
import { trimmed } from './trimmed';

export class RemindOfAllInput {
  @IsArray() @ArrayMaxSize(MOST_AT_ONCE) @IsUUID('all', { each: true }) invoiceIds!: string[];
  @IsArray() @ArrayMaxSize(MOST_AT_ONCE) @IsUUID('all', { each: true }) planIds!: string[];
  @IsUUID() requestKey!: string;
}

export class CardLinksInput {
  @IsArray() @ArrayMaxSize(MOST_AT_ONCE) @IsUUID('all', { each: true }) customerIds!: string[];
  @IsUUID() requestKey!: string;
}

export class SendAnewInput {
  @IsString() @trimmed @MaxLength(254) address!: string;
  @IsBoolean() keep!: boolean;
}

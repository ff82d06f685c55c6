import { IsIn, IsOptional, IsString, IsUUID, MaxLength } from 'class-validator';
import { Moment } from './day';

/** Where a page of payments begins. */
export class PageInput {
  @Moment() key!: string;
  @IsUUID() id!: string;
}

/** A page of the log, and what is looked for in it. */
export class LogInput extends PageInput {
  @IsString() @MaxLength(100) words!: string;
}

/** Where a page of a part of the invoices begins. */
export class InvoicePageInput extends PageInput {
  @IsIn(['open', 'drafts', 'settled']) part!: 'open' | 'drafts' | 'settled';
}

/** In which form customers are handed out. */
export class ExportInput {
  @IsIn(['csv', 'vcf']) form!: 'csv' | 'vcf';
}

/** A list that opens with a new row to be written. */
export class BeginInput {
  @IsOptional() @IsIn(['yes']) new?: 'yes';
}

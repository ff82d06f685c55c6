import { ArrayMaxSize, IsArray, IsBoolean, IsIn } from 'class-validator';
import { IMPORT_PART } from '@/core/customer/import-rows';
import { OPEN_INVOICE_FIELDS, type OpenInvoiceField } from '@/core/invoice/import-rows';
import { ITEM_FIELDS, type ItemField } from '@/core/item/import-rows';

/** The rows of a part of a file as they were read; `write` false only checks. */
class RowsInput {
  @IsArray() @ArrayMaxSize(IMPORT_PART) @IsArray({ each: true }) rows!: unknown[][];
  @IsBoolean() write!: boolean;
}

export class ItemRowsInput extends RowsInput {
  @IsArray()
  @ArrayMaxSize(60)
  @IsIn([null, ...Object.keys(ITEM_FIELDS)], { each: true })
  mapping!: (ItemField | null)[];
}

export class InvoiceRowsInput extends RowsInput {
  @IsArray()
  @ArrayMaxSize(60)
  @IsIn([null, ...Object.keys(OPEN_INVOICE_FIELDS)], { each: true })
  mapping!: (OpenInvoiceField | null)[];
}

/** Whatever a cell is, it is read as text: a row of a file has nothing else. */
export const textRows = (rows: readonly (readonly unknown[])[]): string[][] =>
  rows.map((cells) => cells.map((cell) => (typeof cell === 'string' ? cell : '')));

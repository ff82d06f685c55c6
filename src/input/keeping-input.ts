import { IsInt, IsString, MaxLength, MinLength } from 'class-validator';
import { trimmed } from './trimmed';

const WHOLE = { message: 'Write a whole number.' };

/** How long things are kept; the bounds are the rule's. */
export class KeepingInput {
  @IsInt(WHOLE) paperYears!: number;
  @IsInt(WHOLE) checkoutDays!: number;
  @IsInt(WHOLE) mailMonths!: number;
  @IsInt(WHOLE) programDays!: number;
}

/** The name of the business, as whoever closes it types it. */
export class ClosingInput {
  @IsString() @trimmed @MaxLength(200) @MinLength(1, { message: 'Type the name of the business.' }) name!: string;
}

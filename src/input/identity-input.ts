import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsString,
  IsUUID,
  Matches,
  Max,
  MaxLength,
  Min,
  ValidateNested,
} from 'class-validator';
import { type Member, MOST_MEMBERS, SIDES, type Side } from '@/core/identity/identity';
import { trimmed } from './trimmed';

class MemberInput implements Member {
  @IsUUID() id!: string;
  @IsString() @trimmed @MaxLength(120) name!: string;
  @IsString()
  @Matches(/^(\d{4}-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01]))?$/, { message: 'Say the day of birth.' })
  born!: string;
  @IsString() @Matches(/^([A-Z]{2})?$/, { message: 'Choose a country.' }) country!: string;
  @IsString() @trimmed @MaxLength(80) position!: string;
  @IsInt({ message: 'Write a whole number of percent.' })
  @Min(0, { message: 'Write a whole number of percent.' })
  @Max(100, { message: 'Nobody holds more than 100 percent.' })
  share!: number;
  @IsBoolean() acts!: boolean;
}

/** Who stands behind a business. */
export class MembersInput {
  @IsArray()
  @ArrayMaxSize(MOST_MEMBERS)
  @ValidateNested({ each: true })
  @Type(() => MemberInput)
  members!: MemberInput[];
}

/** Whose picture it is, and of what; the picture itself is the body. */
export class ShownPictureInput {
  @IsUUID() memberId!: string;
  @IsIn(SIDES) side!: Side;
}

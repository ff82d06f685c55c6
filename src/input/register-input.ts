import 'reflect-metadata';
import { Type } from 'class-transformer';
import {
  IsDefined,
  IsIn,
  IsObject,
  IsOptional,
  IsString,
  IsUUID,
  Matches,
  MaxLength,
  MinLength,
  ValidateIf,
  ValidateNested,
} from 'class-validator';
import {
  REGISTER_CHANNELS,
  REGISTER_STATES,
  REGISTER_WAYS,
  type RegisterAsk,
  SHOWN,
  WHOLE_REGISTER,
} from '@/core/register/ask';
import { DayOrNone } from './day';
import { trimmed } from './trimmed';

const given = (name: keyof RegisterAsk) => ValidateIf((input: Partial<RegisterAsk>) => Boolean(input[name]));

/** What is asked of the register; in an address, where everything is text. */
export class RegisterAskInput {
  @IsOptional() @IsString() @MaxLength(200) words?: string;
  @IsOptional() @IsIn(['', ...SHOWN]) show?: RegisterAsk['show'];
  @IsOptional() @DayOrNone() from?: string;
  @IsOptional() @DayOrNone() to?: string;
  @IsOptional() @IsIn(['', ...REGISTER_CHANNELS]) channel?: RegisterAsk['channel'];
  @IsOptional() @IsIn(['', ...REGISTER_STATES]) state?: RegisterAsk['state'];
  @IsOptional() @IsIn(['', ...REGISTER_WAYS]) way?: RegisterAsk['way'];
  @IsOptional() @Matches(/^([A-Z]{3})?$/) currency?: string;
  @given('customerId') @IsUUID() customerId?: string;
  @given('offerId') @IsUUID() offerId?: string;
  @given('planId') @IsUUID() planId?: string;
  @given('partnerId') @IsUUID() partnerId?: string;
  @given('itemId') @IsUUID() itemId?: string;
  @IsOptional() @IsIn(['', 'differs']) fee?: RegisterAsk['fee'];
  @IsOptional() @IsIn(['', 'not-yet']) landed?: RegisterAsk['landed'];
}

export class RegisterPageInput extends RegisterAskInput {
  @IsOptional() @Matches(/^([-\d.:TZ]{1,40}|)$/) key?: string;
  @IsOptional() @IsUUID() id?: string;
}

export class RegisterFileInput extends RegisterAskInput {
  @IsIn(['csv', 'json']) form!: 'csv' | 'json';
}

/** What is asked, whole: what is not given asks nothing. */
export function registerAskOf(input: RegisterAskInput): RegisterAsk {
  const names = Object.keys(WHOLE_REGISTER) as (keyof RegisterAsk)[];
  return Object.fromEntries(names.map((name) => [name, input[name] ?? ''])) as RegisterAsk;
}

export class SaveRegisterInput {
  @IsString() @trimmed @MinLength(1, { message: 'Name the list.' }) @MaxLength(60) name!: string;
  @IsDefined() @IsObject() @ValidateNested() @Type(() => RegisterAskInput) asked!: RegisterAskInput;
}

import type { AuthenticationResponseJSON, RegistrationResponseJSON } from '@simplewebauthn/server';
import { IsBoolean, IsIn, IsInt, IsObject, IsString, Matches, Max, MaxLength, Min, MinLength } from 'class-validator';
import type { Way } from '@/core/person/steps';
import { trimmed } from './trimmed';

const SEAL = 2000;

/** A passkey's answer, as the browser gave it; its library reads it, and refuses what is not well-formed. */
export class PasskeyInput {
  @IsString() @MaxLength(SEAL) seal!: string;
  @IsObject() response!: AuthenticationResponseJSON;
}

/** What was done of a second step: a code, or a passkey's answer. */
class DoneInput {
  @IsString() @MaxLength(200) code = '';
  @IsString() @MaxLength(SEAL) seal = '';
  @IsObject() response: Partial<AuthenticationResponseJSON> = {};
}

export class HalfInput {
  @IsString() @MaxLength(SEAL) half!: string;
}

export class SecondStepInput extends DoneInput {
  @IsIn(['app', 'passkey', 'recovery']) way!: Way;
  @IsString() @MaxLength(SEAL) half!: string;
}

export class ProveInput extends DoneInput {
  @IsIn(['app', 'passkey', 'recovery', 'password']) way!: Way | 'password';
}

/** A code of a new authenticator app. */
export class AppInput {
  @IsString() @MaxLength(SEAL) seal!: string;
  @IsString() @MaxLength(20) @MinLength(1, { message: 'Write the six figures that the app shows.' }) code!: string;
}

/** A passkey that a browser made. */
export class NewPasskeyInput {
  @IsString() @MaxLength(SEAL) seal!: string;
  @IsObject() response!: RegistrationResponseJSON;
  @IsString() @trimmed @MaxLength(60) @MinLength(1, { message: 'Give it a name.' }) name!: string;
}

/** How people of a business sign in. */
export class AccessInput {
  @IsBoolean() stepRequired!: boolean;
  /** In minor units of the business's currency. */
  @IsInt({ message: 'Write a sum.' })
  @Min(0, { message: 'Write a sum.' })
  @Max(Number.MAX_SAFE_INTEGER, { message: 'Write a sum.' })
  aboveMinor!: number;
}

/** One of one's passkeys. */
export class PasskeyIdInput {
  @IsString() @MaxLength(1400) @Matches(/^[A-Za-z0-9_-]+$/) id!: string;
}

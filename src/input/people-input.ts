import {
  ArrayMaxSize,
  IsArray,
  IsEmail,
  IsIn,
  IsObject,
  IsOptional,
  IsString,
  IsUUID,
  Matches,
  MaxLength,
  MinLength,
  registerDecorator,
} from 'class-validator';
import { isCurrency } from '@/core/money/currency';
import { EXTRAS, type ExtraRight, ROLES, type Role } from '@/core/person/rights';
import { trimmed } from './trimmed';
import type { Work } from './work-input';

export class SignInInput {
  @IsString() @MaxLength(254) @MinLength(1, { message: 'Write your e-mail address.' }) email!: string;
  @IsString() @MaxLength(200) @MinLength(1, { message: 'Write your password.' }) password!: string;
  /** The piece of work as it was set, with its solution, where one was asked for; its signature is checked. */
  @IsOptional() @IsObject() work?: Work;
}

const ADDRESS = { message: 'Write an address such as ada@workshop.example.' };
const PASSWORD = { message: 'A password has at least ten signs.' };

/** A zone that this computer knows (IANA). */
const IsZone = () => (target: object, propertyName: string) =>
  registerDecorator({
    name: 'zone',
    target: target.constructor,
    propertyName,
    validator: {
      validate: (value: unknown) => {
        try {
          return typeof value === 'string' && new Intl.DateTimeFormat('en', { timeZone: value }) !== null;
        } catch {
          return false;
        }
      },
      defaultMessage: () => 'Choose a time zone.',
    },
  });

const IsKnownCurrency = () => (target: object, propertyName: string) =>
  registerDecorator({
    name: 'currency',
    target: target.constructor,
    propertyName,
    validator: {
      validate: (value: unknown) => typeof value === 'string' && isCurrency(value),
      defaultMessage: () => 'Choose a currency.',
    },
  });

/** A further business of whoever is signed in. */
export class AnotherInput {
  @IsUUID() key!: string;
  @IsString()
  @trimmed
  @MaxLength(120)
  @MinLength(1, { message: 'Write the name of your business, or your own.' })
  business!: string;
  @IsString() @Matches(/^[A-Z]{2}$/, { message: 'Choose a country.' }) country!: string;
  @IsString() @MaxLength(60) @IsZone() zone!: string;
  @IsString() @IsKnownCurrency() currency!: string;
  @IsString() @Matches(/^(en|de|fr|es)-[A-Z]{2}$/, { message: 'Choose a language.' }) locale!: string;
}

export class SignUpInput extends AnotherInput {
  @IsString() @trimmed @MaxLength(120) @MinLength(1, { message: 'Write your name.' }) name!: string;
  @IsString() @trimmed @MaxLength(254) @IsEmail({}, ADDRESS) email!: string;
  @IsString() @MaxLength(200) @MinLength(10, PASSWORD) password!: string;
  @IsOptional() @IsObject() work?: Work;
}

/** Where a browser says that it stands. */
export class GuessInput {
  @IsString() @MaxLength(60) zone!: string;
  @IsString() @MaxLength(200) languages!: string;
}

export class FiguresInput {
  @IsString()
  @Matches(/^\D*(\d\D*){6}$/, { message: 'Write the six figures of the mail.' })
  @MaxLength(20)
  figures!: string;
}

export class MailAddressInput {
  @IsString() @trimmed @MaxLength(254) @IsEmail({}, ADDRESS) email!: string;
}

export class ForgottenInput extends MailAddressInput {
  @IsOptional() @IsObject() work?: Work;
}

/** A link that came by mail. */
export class LinkInput {
  @IsString() @MaxLength(600) token!: string;
}

export class ChosenPasswordInput extends LinkInput {
  @IsString() @MaxLength(200) @MinLength(10, PASSWORD) fresh!: string;
}

/** Which session ends; empty for all others. */
export class EndInput {
  @IsString() @Matches(/^[A-Za-z0-9_-]{0,24}$/) key!: string;
}

const CHOOSE_ROLE = { message: 'Choose a role.' };

/** What somebody may do: a role, and single rights on top. */
export class HoldsInput {
  @IsIn(ROLES, CHOOSE_ROLE) role!: Role;
  @IsArray() @ArrayMaxSize(EXTRAS.length) @IsIn(EXTRAS, { each: true }) extra!: ExtraRight[];
}

export class InviteInput extends HoldsInput {
  @IsString() @trimmed @MaxLength(254) @IsEmail({}, ADDRESS) email!: string;
}

/** An invitation is accepted: with a name and a new password by somebody new, with their password by somebody known. */
export class AcceptInput extends LinkInput {
  @IsString() @trimmed @MaxLength(120) name!: string;
  @IsString() @MaxLength(200) password!: string;
}

/** The business to which somebody goes over. */
export class DeskInput {
  @IsUUID() businessId!: string;
}

export class CardAnswersInput {
  @IsString() @Matches(/^(\d{3})?$/) kind!: string;
  @IsString() @trimmed @MaxLength(60) statementName!: string;
}

export class SignInWorkInput {
  @IsString() @MaxLength(254) email!: string;
}

export class PasswordInput {
  @IsString() @MaxLength(200) @MinLength(1, { message: 'Write your password so far.' }) old!: string;
  @IsString() @MaxLength(200) @MinLength(10, PASSWORD) fresh!: string;
}

/** Which job is tried again. */
export class StuckInput {
  @IsString() @MaxLength(300) key!: string;
}

/** What somebody looks for. */
export class WordsInput {
  @IsString() @MaxLength(100) words!: string;
}

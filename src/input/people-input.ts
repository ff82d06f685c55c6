import { IsObject, IsOptional, IsString, MaxLength, MinLength } from 'class-validator';
import type { Work } from './work-input';

export class SignInInput {
  @IsString() @MaxLength(254) @MinLength(1, { message: 'Write your e-mail address.' }) email!: string;
  @IsString() @MaxLength(200) @MinLength(1, { message: 'Write your password.' }) password!: string;
  /** The piece of work as it was set, with its solution, where one was asked for; its signature is checked. */
  @IsOptional() @IsObject() work?: Work;
}

export class SignInWorkInput {
  @IsString() @MaxLength(254) email!: string;
}

export class PasswordInput {
  @IsString() @MaxLength(200) @MinLength(1, { message: 'Write your password so far.' }) old!: string;
  @IsString() @MaxLength(200) @MinLength(10, { message: 'A password has at least ten signs.' }) fresh!: string;
}

/** Which job is tried again. */
export class StuckInput {
  @IsString() @MaxLength(300) key!: string;
}

/** What somebody looks for. */
export class WordsInput {
  @IsString() @MaxLength(100) words!: string;
}

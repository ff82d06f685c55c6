import { IsString, MaxLength, MinLength } from 'class-validator';

export class SignInInput {
  @IsString() @MaxLength(254) @MinLength(1, { message: 'Write your e-mail address.' }) email!: string;
  @IsString() @MaxLength(200) @MinLength(1, { message: 'Write your password.' }) password!: string;
}

/** What somebody looks for. */
export class WordsInput {
  @IsString() @MaxLength(100) words!: string;
}

import {
  ArrayMaxSize,
  ArrayMinSize,
  ArrayUnique,
  IsArray,
  IsBoolean,
  IsIn,
  IsString,
  MaxLength,
} from 'class-validator';
import { ALL_HOOK_KINDS, type HookKind } from '@/core/hook/events';
import { trimmed } from './trimmed';

/** A program that is told of things: where, and of which. */
export class HookInput {
  @IsString() @trimmed @MaxLength(500, { message: 'This address is too long.' }) url!: string;
  @IsArray()
  @ArrayMinSize(1, { message: 'Choose at least one thing that it is told of.' })
  @ArrayMaxSize(ALL_HOOK_KINDS.length)
  @ArrayUnique()
  @IsIn(ALL_HOOK_KINDS, { each: true })
  kinds!: HookKind[];
}

export class ChangedHookInput extends HookInput {
  @IsBoolean() isOn!: boolean;
}

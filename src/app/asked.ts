import 'reflect-metadata';
import { plainToInstance } from 'class-transformer';
import { validate } from 'class-validator';
import type { Shape } from '@/input/checked';

type Given = Readonly<Record<string, string | string[] | undefined>>;

/** What a page's address asks for, as its class has it; what is of no known form counts as not said. */
export async function askedOf<Input extends object>(
  shape: Shape<Input>,
  given: Promise<object>,
): Promise<Partial<Input>> {
  const said = Object.entries((await given) as Given).filter(([, value]) => typeof value === 'string');
  const asked = plainToInstance(shape, Object.fromEntries(said)) as Record<string, unknown>;
  const errors = await validate(asked, { whitelist: true });
  for (const { property } of errors) delete asked[property];
  return asked as Partial<Input>;
}

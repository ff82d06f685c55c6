import 'reflect-metadata';
import { plainToInstance } from 'class-transformer';
import { type ValidationError, validate } from 'class-validator';
import { formTrouble, type Shape, type WrongField } from './form';
import { plainTrouble } from './plain';

export type { Shape, WrongField };

/** What was sent is of no known form. */
export class Malformed extends Error {
  override readonly name = 'Malformed';

  constructor(readonly fields: readonly WrongField[]) {
    super('malformed');
  }
}

/** So many wrong fields are told of; who has more sees the rest when these are right. */
const MOST_TOLD = 20;

function* fieldsOf(errors: readonly ValidationError[], path = ''): Generator<WrongField> {
  for (const error of errors) {
    for (const words of Object.values(error.constraints ?? {})) yield { field: `${path}${error.property}`, words };
    yield* fieldsOf(error.children ?? [], `${path}${error.property}.`);
  }
}

function requireNone(wrong: Iterable<WrongField>): void {
  const fields: WrongField[] = [];
  for (const { field, words } of wrong) {
    fields.push({ field: field.slice(0, 200), words: words.slice(0, 300) });
    if (fields.length === MOST_TOLD) break;
  }
  if (fields.length > 0) throw new Malformed(fields);
}

/**
 * What was sent, as its class has it; nothing but the class's own fields passes.
 *
 * @param given parsed JSON, or the parameters of an address
 * @throws Malformed with at most 20 fields
 */
export async function checkedInput<Input extends object>(shape: Shape<Input>, given: unknown): Promise<Input> {
  if (typeof given !== 'object' || given === null || Array.isArray(given)) {
    throw new Malformed([{ field: '', words: 'An object is needed.' }]);
  }
  const trouble = plainTrouble(given);
  if (trouble) throw new Malformed([{ field: '', words: trouble }]);
  requireNone(formTrouble(shape, given));
  const input = plainToInstance(shape, given);
  requireNone(
    fieldsOf(await validate(input, { whitelist: true, forbidNonWhitelisted: true, forbidUnknownValues: true })),
  );
  return input;
}

/** The value of a JSON text; an empty one is an empty object. @throws Malformed */
export function parsedJson(text: string): unknown {
  try {
    return text === '' ? {} : JSON.parse(text);
  } catch {
    throw new Malformed([{ field: '', words: 'This is not JSON.' }]);
  }
}

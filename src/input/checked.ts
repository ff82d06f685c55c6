import 'reflect-metadata';
import { plainToInstance } from 'class-transformer';
import { getMetadataStorage, type ValidationError, validate } from 'class-validator';
import { plainTrouble } from './plain';

/** A class whose decorators say what may be sent. */
export type Shape<Input> = new () => Input;

/** A field that was refused, by its path, with words for a person. */
export type WrongField = { readonly field: string; readonly words: string };

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
    for (const words of Object.values(error.constraints ?? {}))
      yield { field: `${path}${error.property}`.slice(0, 200), words: words.slice(0, 300) };
    yield* fieldsOf(error.children ?? [], `${path}${error.property}.`);
  }
}

function told(errors: readonly ValidationError[]): WrongField[] {
  const fields: WrongField[] = [];
  for (const field of fieldsOf(errors)) {
    fields.push(field);
    if (fields.length === MOST_TOLD) break;
  }
  return fields;
}

const nestedNames = new Map<unknown, readonly string[]>();

/** The fields of a class that hold objects of other classes, alone or in a list. */
function nestedIn(shape: object): readonly string[] {
  const known = nestedNames.get(shape);
  if (known) return known;
  const rules = getMetadataStorage().getTargetValidationMetadatas(shape as never, '', true, false);
  const names = new Set(
    rules.filter(({ type }) => type === 'nestedValidation').map(({ propertyName }) => propertyName),
  );
  nestedNames.set(shape, [...names]);
  return [...names];
}

/** The first field that holds a list where an object belongs, as `a.0.b`: the library looks through lists of any depth. */
function listForObject(input: object, path = ''): string | null {
  for (const name of nestedIn(input.constructor)) {
    const held: unknown = Reflect.get(input, name);
    for (const [at, one] of (Array.isArray(held) ? held : [held]).entries()) {
      const here = `${path}${name}${Array.isArray(held) ? `.${at}` : ''}`;
      if (Array.isArray(one)) return here;
      const deeper = typeof one === 'object' && one !== null ? listForObject(one, `${here}.`) : null;
      if (deeper) return deeper;
    }
  }
  return null;
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
  const input = plainToInstance(shape, given);
  const errors = await validate(input, { whitelist: true, forbidNonWhitelisted: true, forbidUnknownValues: true });
  if (errors.length > 0) throw new Malformed(told(errors));
  const list = listForObject(input);
  if (list) throw new Malformed([{ field: list, words: 'An object is needed, not a list.' }]);
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

/** JSON Schema (2020-12, as OpenAPI 3.1 takes it) of what is answered, and of what is sent as the code's own input classes say. */
import { targetConstructorToSchema } from 'class-validator-jsonschema';
import { formOf, type Shape } from '@/input/form';

export type Schema = { readonly [key: string]: unknown };

export const TEXT: Schema = { type: 'string' };
export const ID: Schema = { type: 'string', format: 'uuid' };
export const WHOLE: Schema = { type: 'integer' };
/** Minor units of the currency that stands beside. */
export const MINOR: Schema = { type: 'integer', description: 'In minor units of its currency.' };
export const YES_NO: Schema = { type: 'boolean' };
export const DAY: Schema = { type: 'string', format: 'date' };
export const MOMENT: Schema = { type: 'string', format: 'date-time' };
export const orNull = (of: Schema): Schema => ({ anyOf: [of, { type: 'null' }] });
export const list = (items: Schema): Schema => ({ type: 'array', items });
export const oneOfWords = (words: readonly string[]): Schema => ({ type: 'string', enum: [...words] });
/** Currencies or other words with a text each. */
export const TEXTS_BY_WORD: Schema = { type: 'object', additionalProperties: TEXT };

/** An object with all of these and nothing else. */
export const object = (properties: Readonly<Record<string, Schema>>): Schema => ({
  type: 'object',
  properties,
  required: Object.keys(properties),
  additionalProperties: false,
});

/** A page of a list, and what the next one is asked by. */
export const page = (of: Schema): Schema => object({ data: list(of), next: orNull(TEXT) });

type Mutable = Record<string, unknown>;
const isPlain = (value: unknown): boolean => value !== undefined && typeof value !== 'function';

/** The name of a class among the schemas. */
export const schemaName = (shape: Shape<object>): string => shape.name.replace(/Input$/, '');

/**
 * What a class takes: its decorators as JSON Schema; what may be left out has its value said, and classes within it are named.
 *
 * @param into gets the schemas by name, those of the classes within it too
 * @param partial whether anything may be left out
 */
export function schemaOf(shape: Shape<object>, into: Record<string, Schema>, partial = false): string {
  const name = `${schemaName(shape)}${partial ? 'Change' : ''}`;
  if (into[name]) return name;
  into[name] = {};
  const read = targetConstructorToSchema(shape, {
    refPointerPrefix: '#/components/schemas/',
    additionalConverters: { prices: TEXTS_BY_WORD },
  }) as Mutable;
  const properties = { ...(read.properties as Record<string, Mutable>) };
  const { names, nested } = formOf(shape);
  const usual = new shape() as Record<string, unknown>;
  const required: string[] = [];
  for (const field of names) {
    const inner = nested.get(field);
    let said: Mutable = { ...properties[field] };
    if (inner) {
      const ref = { $ref: `#/components/schemas/${schemaOf(inner.shape, into)}` };
      said = inner.inList ? { ...said, type: 'array', items: ref } : ref;
    }
    const value = usual[field];
    const isOptional = !((read.required as string[] | undefined) ?? []).includes(field);
    if (value === null || (isOptional && inner)) said = { anyOf: [said, { type: 'null' }] };
    if (isPlain(value)) said.default = value;
    else if (!isOptional && !partial) required.push(field);
    if (partial) delete said.default;
    properties[field] = said;
  }
  into[name] = {
    type: 'object',
    properties,
    ...(required.length > 0 ? { required } : {}),
    additionalProperties: false,
  };
  return name;
}

import 'reflect-metadata';
import { plainToInstance } from 'class-transformer';
import { getMetadataStorage } from 'class-validator';

/** A class whose decorators say what may be sent. */
export type Shape<Input> = new () => Input;

/** A field that was refused, by its path, with words for a person. */
export type WrongField = { readonly field: string; readonly words: string };

/** UTF-16 units that one sign may take, with what stands on it: how many signs a text has is for its own rule to say. */
const UNITS_A_SIGN = 4;
/** Signs of a text about whose length its rules say nothing: a pattern, a choice, an address. */
const UNSAID = 1000;

type Nested = { readonly shape: Shape<object>; readonly inList: boolean };
type Form = {
  readonly names: ReadonlySet<string>;
  /** How many entries a list may have, with the sentence for more. */
  readonly lists: ReadonlyMap<string, { readonly most: number; readonly words: string }>;
  /** Units of the texts, alone or in a list, beyond which no rule is tried: patterns take the square of a length. */
  readonly longest: ReadonlyMap<string, number>;
  /** Fields that hold objects of other classes. */
  readonly nested: ReadonlyMap<string, Nested>;
};

const known = new Map<Shape<object>, Form>();

/** The class of the objects that a field holds, as the transforming library makes them; null where they stay as they are. */
function classWithin(shape: Shape<object>, name: string): Shape<object> | null {
  const made: unknown = Reflect.get(plainToInstance(shape, { [name]: {} }), name);
  const of = typeof made === 'object' && made !== null ? made.constructor : Object;
  return of === Object ? null : (of as Shape<object>);
}

function readForm(shape: Shape<object>): Form {
  const rules = getMetadataStorage().getTargetValidationMetadatas(shape, '', true, false);
  const names = new Set(rules.map(({ propertyName }) => propertyName));
  const lists = new Map<string, { most: number; words: string }>();
  const longest = new Map([...names].map((name) => [name, UNSAID]));
  const nested = new Map<string, Nested>();
  for (const { propertyName, type, name, constraints, message, each } of rules) {
    if (name === 'arrayMaxSize') {
      const most = Number(constraints[0]);
      lists.set(propertyName, { most, words: typeof message === 'string' ? message : `At most ${most} can be sent.` });
    }
    if (name === 'maxLength') longest.set(propertyName, Number(constraints[0]) * UNITS_A_SIGN);
    if (type !== 'nestedValidation') continue;
    const inner = classWithin(shape, propertyName);
    if (inner) nested.set(propertyName, { shape: inner, inList: each });
  }
  return { names, lists, longest, nested };
}

/** What the rules of a class say of the form alone. */
export function formOf(shape: Shape<object>): Form {
  const form = known.get(shape) ?? readForm(shape);
  known.set(shape, form);
  return form;
}

function* heldTrouble(held: unknown, { shape, inList }: Nested, path: string): Generator<WrongField> {
  const list = Array.isArray(held) ? held : null;
  if (list && !inList) return yield { field: path, words: 'An object is needed, not a list.' };
  for (const [at, one] of (list ?? [held]).entries()) {
    const here = list ? `${path}.${at}` : path;
    if (Array.isArray(one)) yield { field: here, words: 'An object is needed, not a list.' };
    else if (typeof one === 'object' && one !== null) yield* formTrouble(shape, one, `${here}.`);
  }
}

const isLonger = (value: unknown, most: number): boolean => typeof value === 'string' && value.length > most;

/**
 * What of a parsed value has no place in its class: names that it does not know, lists with more entries than it takes, lists where
 * an object belongs, texts far longer than any rule lets through. Found before any object is made or any rule tried, which costs a
 * hundred times as much an entry.
 *
 * @param path of the value, empty or with a dot at its end
 */
export function* formTrouble(shape: Shape<object>, given: object, path = ''): Generator<WrongField> {
  const { names, lists, longest, nested } = formOf(shape);
  for (const [name, held] of Object.entries(given)) {
    const field = `${path}${name}`;
    const list = lists.get(name);
    const within = nested.get(name);
    const most = longest.get(name) ?? 0;
    if (!names.has(name)) yield { field, words: 'Nothing is known by this name.' };
    else if (list && Array.isArray(held) && held.length > list.most) yield { field, words: list.words };
    else if ((Array.isArray(held) ? held : [held]).some((one) => isLonger(one, most)))
      yield { field, words: 'This is longer than anything that is taken here.' };
    else if (within) yield* heldTrouble(held, within, field);
  }
}

/** What a class of input would take, read from its own rules, and what it would not. */
import { randomUUID } from 'node:crypto';
import { defaultMetadataStorage } from 'class-transformer/cjs/storage.js';
import { getMetadataStorage } from 'class-validator';
import type { Shape } from '@/input/checked';

/** A number from 0 to 1, the same each time for the same seed. */
export type Chance = () => number;

export const oneOf = <T>(chance: Chance, all: readonly T[]): T => all[Math.floor(chance() * all.length)] as T;

type Rule = {
  readonly propertyName: string;
  readonly type: string;
  readonly name?: string | undefined;
  readonly constraints?: unknown[];
  readonly each: boolean;
};

/** Texts of many kinds, one of which most patterns take. */
const SAMPLES = [
  '',
  'USD',
  'US',
  'en',
  'en-US',
  '2026-12-01',
  '2026-12-01T09:00',
  '2026-12-01T09:00:00.000Z',
  '09:00',
  '10',
  'yes',
  'month:1',
  'tok_0123456789abcdef01234567',
  'name@post.example',
  'https://shop.example',
  'abc',
  'US-WA',
  '2026-12',
];

const textFor = (rules: readonly Rule[], ids: readonly string[], chance: Chance): string => {
  const pattern = rules.find(({ name }) => name === 'matches')?.constraints?.[0] as RegExp | undefined;
  if (!pattern) return oneOf(chance, ['Care club', 'x', 'Ärger & Söhne', '10.50', '弦楽器']);
  const id = oneOf(chance, ids);
  const fitting = [...SAMPLES, id].filter((text) => new RegExp(pattern).test(text));
  return fitting.length > 0 ? oneOf(chance, fitting) : 'x';
};

function valueFor(
  shape: Shape<object>,
  property: string,
  rules: readonly Rule[],
  ids: readonly string[],
  chance: Chance,
): unknown {
  const named = (name: string) => rules.find((rule) => rule.name === name || rule.type === name);
  const inner = defaultMetadataStorage.findTypeMetadata(shape, property)?.typeFunction?.() as Shape<object> | undefined;
  const one = (): unknown => {
    const choices = named('isIn')?.constraints?.[0];
    if (Array.isArray(choices)) return oneOf(chance, choices);
    if (named('nestedValidation') && inner) return likelyValue(inner, ids, chance);
    if (named('isUuid')) return chance() < 0.8 ? oneOf(chance, ids) : randomUUID();
    if (named('isBoolean')) return chance() < 0.5;
    if (named('isInt') || named('isPositive')) {
      const least = Number(named('min')?.constraints?.[0] ?? 1);
      const most = Number(named('max')?.constraints?.[0] ?? 1000);
      return oneOf(chance, [least, Math.min(most, least + 1), Math.min(most, 100), most]);
    }
    if (named('isEmail')) return 'name@post.example';
    if (named('moment')) return '2026-11-20T10:00:00.000Z';
    if (named('prices')) return oneOf(chance, [{}, { USD: '10' }, { USD: '10.50', EUR: '9' }]);
    if (named('isObject') || named('texts')) return {};
    if (named('day')) return '2026-12-01';
    if (named('ends')) return oneOf(chance, ['never', { on: '2027-12-01' }, { after: 3 }]);
    return textFor(rules, ids, chance);
  };
  if (!named('isArray') && !rules.some(({ each }) => each)) return one();
  return Array.from({ length: Math.floor(chance() * 3) }, one);
}

/** A value that the class would likely take. @param ids of things that exist */
export function likelyValue(shape: Shape<object>, ids: readonly string[], chance: Chance): Record<string, unknown> {
  const rules = getMetadataStorage().getTargetValidationMetadatas(shape, '', true, false) as unknown as Rule[];
  const made: Record<string, unknown> = {};
  for (const property of new Set(rules.map(({ propertyName }) => propertyName))) {
    const own = rules.filter(({ propertyName }) => propertyName === property);
    const mayMiss = own.some(({ type, name }) => type === 'conditionalValidation' || name === 'isOptional');
    if (mayMiss && chance() < 0.4) continue;
    made[property] = valueFor(shape, property, own, ids, chance);
  }
  return made;
}

const nested = (depth: number): unknown => {
  let value: unknown = 1;
  for (let at = 0; at < depth; at++) value = at % 2 === 0 ? [value] : { a: value };
  return value;
};

/** What nobody sends who means well. */
const HOSTILE: readonly (() => unknown)[] = [
  () => null,
  () => '',
  () => ' ',
  () => 'x'.repeat(5000),
  // What nearly fits a pattern takes the square of its length, where no rule of length comes first.
  () => `a@${'.'.repeat(50_000)}@`,
  () => `${'1'.repeat(50_000)}x`,
  () => '\u0000',
  () => 'a\u0000b',
  () => '\ud800',
  () => '\u202eexe.pdf',
  () => '0000-00-00',
  () => '9999-12-31',
  () => '2026-02-30',
  () => '0001-01-01',
  () => '-271821-04-20',
  () => "'; drop table people; --",
  () => '<script>alert(1)</script>',
  () => '%ff%00',
  () => '../../etc/passwd',
  () => '1e400',
  () => '-0',
  () => '99999999999999999999999999',
  () => '0.00000000000000000001',
  () => -1,
  () => 0,
  () => 0.5,
  () => 1e308,
  () => Number.MAX_SAFE_INTEGER,
  () => 2 ** 53,
  () => [],
  () => {},
  () => ({}),
  () => ({ constructor: { prototype: { role: 'owner' } } }),
  () => JSON.parse('{"__proto__": {"role": "owner"}}'),
  () => ({ toString: 1, valueOf: 2, length: -1 }),
  () => JSON.parse('{"then": "x"}'),
  () => nested(40),
  () => nested(500),
  () => Array.from({ length: 6000 }, () => 1),
  () => Object.fromEntries(Array.from({ length: 900 }, (_, at) => [`k${at}`, at])),
  () => true,
  () => randomUUID(),
  () => '٣',
  () => 'NaN',
];

type Place = { readonly holder: Record<string, unknown> | unknown[]; readonly key: string | number };

function placesOf(value: unknown, found: Place[] = []): Place[] {
  if (Array.isArray(value)) {
    for (const [key, inner] of value.entries()) {
      found.push({ holder: value, key });
      placesOf(inner, found);
    }
  } else if (typeof value === 'object' && value !== null) {
    for (const [key, inner] of Object.entries(value)) {
      found.push({ holder: value as Record<string, unknown>, key });
      placesOf(inner, found);
    }
  }
  return found;
}

/** The value with one to three things wrong in it. */
export function spoilt(value: Record<string, unknown>, ids: readonly string[], chance: Chance): unknown {
  const copy = structuredClone(value);
  for (let times = 1 + Math.floor(chance() * 3); times > 0; times--) {
    const places = placesOf(copy);
    const kind = chance();
    const at = places.length > 0 ? oneOf(chance, places) : null;
    if (!at || kind < 0.1)
      copy[oneOf(chance, ['extra', 'constructor', 'id', 'businessId', '$where', 'é'])] = oneOf(chance, HOSTILE)();
    else if (kind < 0.2) Reflect.deleteProperty(at.holder, at.key);
    else if (kind < 0.3) Reflect.set(at.holder, at.key, oneOf(chance, ids));
    else Reflect.set(at.holder, at.key, oneOf(chance, HOSTILE)());
  }
  return copy;
}

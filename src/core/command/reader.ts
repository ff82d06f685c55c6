import { type RuleCode, RuleError } from '../rule-error';

/** Reads fields of one JSON document of the command line: `null` is absent, unknown fields are ignored, errors name the path. */
export class Reader {
  private constructor(
    private readonly fields: Readonly<Record<string, unknown>>,
    private readonly path: string,
  ) {}

  /** @throws RuleError `bad_input` where `value` is not an object */
  static of(value: unknown, path = ''): Reader {
    if (typeof value !== 'object' || value === null || Array.isArray(value))
      throw bad(path || 'input', 'an object is needed');
    return new Reader(value as Record<string, unknown>, path);
  }

  private at(name: string): string {
    return this.path ? `${this.path}.${name}` : name;
  }

  has(name: string): boolean {
    return this.fields[name] !== undefined && this.fields[name] !== null;
  }

  text(name: string): string {
    const value = this.fields[name];
    if (typeof value !== 'string') throw bad(this.at(name), 'a string is needed');
    return value;
  }

  /** A decimal travels as a string; `code` is the answer where it is not one. */
  decimal(name: string, code: RuleCode): string {
    const value = this.fields[name];
    if (typeof value === 'string') return value;
    throw this.has(name)
      ? new RuleError(code, `${this.at(name)}: a decimal string is needed`)
      : bad(this.at(name), 'is missing');
  }

  flag(name: string): boolean {
    const value = this.fields[name];
    if (typeof value !== 'boolean') throw bad(this.at(name), 'true or false is needed');
    return value;
  }

  /** An amount in minor units: an integer ≥ 0 within 2^53 − 1. */
  amount(name: string): bigint {
    return amountOf(this.fields[name], this.at(name));
  }

  amountOr<T>(name: string, absent: T): bigint | T {
    return this.has(name) ? this.amount(name) : absent;
  }

  /** A number of any kind; whether it is one that the rule takes is the rule's business. */
  number(name: string): number {
    return numberOf(this.fields[name], this.at(name));
  }

  /** Weekday numbers under `weekend`; anything else is no schedule (`calculation.md` 8, 14). */
  weekend(): number[] | undefined {
    try {
      return this.listOr('weekend', numberOf, undefined);
    } catch (error) {
      throw error instanceof RuleError ? new RuleError('bad_schedule', `schedule.${error.message}`) : error;
    }
  }

  isText(name: string): boolean {
    return typeof this.fields[name] === 'string';
  }

  object(name: string): Reader {
    return Reader.of(this.fields[name], this.at(name));
  }

  list<T>(name: string, read: (value: unknown, path: string) => T): T[] {
    const value = this.fields[name];
    if (!Array.isArray(value)) throw bad(this.at(name), 'a list is needed');
    return value.map((entry: unknown, index) => read(entry, `${this.at(name)}[${index}]`));
  }

  listOr<T, A>(name: string, read: (value: unknown, path: string) => T, absent: A): T[] | A {
    return this.has(name) ? this.list(name, read) : absent;
  }
}

const bad = (path: string, words: string): RuleError => new RuleError('bad_input', `${path}: ${words}`);

/** A list entry that is a string. */
export function textEntry(value: unknown, path: string): string {
  if (typeof value !== 'string') throw bad(path, 'a string is needed');
  return value;
}

/** A list entry that is an integer. */
export function integerEntry(value: unknown, path: string): number {
  if (typeof value !== 'number' || !Number.isInteger(value)) throw bad(path, 'an integer is needed');
  return value;
}

/** A list entry that is a number. */
export function numberOf(value: unknown, path: string): number {
  if (typeof value !== 'number') throw bad(path, 'a number is needed');
  return value;
}

/** An amount that may be below 0. */
export function signedAmount(reader: Reader, name: string): bigint {
  const value = reader.number(name);
  if (!Number.isInteger(value)) throw bad(name, 'an integer of minor units is needed');
  if (!Number.isSafeInteger(value)) throw new RuleError('amount_out_of_range', `${name}: outside ±(2^53 − 1)`);
  return BigInt(value);
}

/** A list entry that is an amount. */
export const amountEntry = (value: unknown, path: string): bigint => amountOf(value, path);

function amountOf(value: unknown, path: string): bigint {
  if (typeof value !== 'number' || !Number.isInteger(value)) throw bad(path, 'an integer of minor units is needed');
  if (!Number.isSafeInteger(value)) throw new RuleError('amount_out_of_range', `${path}: outside ±(2^53 − 1)`);
  if (value < 0) throw bad(path, 'an amount is not below 0');
  return BigInt(value);
}

/** Percent or amount: exactly one of the two. */
export function percentOrAmount(reader: Reader, path: string): { percent: string } | { amount: bigint } {
  if (reader.has('percent') === reader.has('amount')) throw bad(path, 'give percent or amount, one of the two');
  return reader.has('percent')
    ? { percent: reader.decimal('percent', 'bad_rate') }
    : { amount: reader.amount('amount') };
}

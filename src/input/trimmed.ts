import 'reflect-metadata';
import { Transform } from 'class-transformer';

const trim = (value: unknown): unknown => (typeof value === 'string' ? value.trim() : value);

/** Takes the space around a text away before it is looked at; in a list, around each, and leaves empty ones out. */
export const trimmed = Transform(({ value }) =>
  Array.isArray(value) ? value.map(trim).filter((one) => one !== '') : trim(value),
);

import { readFileSync } from 'node:fs';
import { expect, test } from 'vitest';
import { routesMap } from '../../bin/docs/routes';
import { schemaOf } from '../../bin/docs/schema';
import { ownDatabase } from '../../tests/support/database';

test('docs/schema.sql is what the migrations lead to', async () => {
  const { admin } = await ownDatabase();
  expect(schemaOf(admin)).toBe(readFileSync('docs/schema.sql', 'utf8'));
});

test('docs/routes.md names every address with the operations it enters', async () => {
  expect(await routesMap()).toBe(readFileSync('docs/routes.md', 'utf8'));
});

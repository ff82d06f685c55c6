import { beforeAll, expect, test } from 'vitest';
import { asSuperuser, ownDatabase } from '../../tests/support/database';
import { migrate } from './migrate';

let urls: Awaited<ReturnType<typeof ownDatabase>>;
beforeAll(async () => {
  urls = await ownDatabase();
});

test('a second run changes nothing', async () => {
  const shape = () =>
    asSuperuser(
      urls.admin,
      `select table_name, column_name, data_type from information_schema.columns where table_schema = 'public' order by 1, 2`,
    );
  const before = await shape();
  await migrate(urls);
  expect(await shape()).toEqual(before);
});

test('a file edited after it was applied is refused by name', async () => {
  await asSuperuser(urls.admin, `update migration_hashes set sha256 = 'other' where name like '0002%'`);
  await expect(migrate(urls)).rejects.toThrow('0002_create_invoices.sql was edited');
});

/** Everything of the business, taken along as one archive. */
import { longDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { allPapers, type TakenTable, takenRows, takenTables } from '@/db/all-data';
import { businessById } from '@/db/businesses';
import { noteTakenAlong } from '@/db/keeping';
import { type LazyFile, lazyFile, pathPart, zipStream } from '@/documents/zip';
import { type Context, desk } from '@/flows/door/operation';
import { noteExport } from '@/flows/log/log';
import { type Archive, jsonText, paperFiles } from './archive-files';

const PART = 1000;

/** A table as JSON, read by pages of its key: it is never held whole, here or in one transaction. */
const tableFile = (ctx: Context, table: TakenTable): LazyFile => ({
  name: `data/${table.name.replaceAll('_', '-')}.json`,
  async *parts() {
    yield '[';
    let first = true;
    for (let after: readonly string[] | null = null; ; ) {
      const from: readonly string[] | null = after;
      const rows: Awaited<ReturnType<typeof takenRows>> = await ctx.read((db) => takenRows(db, table, from, PART));
      const text = rows.map(({ row }) => jsonText(row)).join(',\n');
      if (text) yield `${first ? '\n' : ',\n'}${text}`;
      first &&= text === '';
      const last = rows.at(-1);
      if (rows.length < PART || !last) break;
      after = last.key;
    }
    yield '\n]\n';
  },
});

const about = (business: string, day: string): string =>
  `Everything of ${business}, as of ${day}.

In data: one file for each kind of thing, rows as JSON. Sums are in the smallest unit of their currency; moments are as ISO 8601 writes them; ids name rows of the other files.
In papers: every invoice, credit note and receipt as it went out.
In files: every file that was handed in or sent along, by the beginning of its id in data/files.json.

Left out: passwords, second steps, sessions, links and other secrets, pictures of documents that show who you are, and what the card processor keeps.
`;

/** Whether it may be taken along now. @throws Refusal `prove-again` */
export const mayTakeAlong = desk('people', { again: true }).read(async (): Promise<void> => undefined);

/** Everything of the business; that it was taken stands in the log. @throws Refusal `prove-again` */
export const takeAlong = desk('people', { again: true, whenClosed: true }).run(async (ctx): Promise<Archive> => {
  const { business, tables, papers } = await ctx.read(async (db) => ({
    business: await businessById(db),
    tables: await takenTables(db),
    papers: await allPapers(db),
  }));
  await ctx.write(async (tx) => {
    await noteTakenAlong(tx);
    await noteExport(tx, 'Everything of the business', '');
  });
  const today = dateInZone(ctx.now, business.zone);
  return {
    name: `${pathPart(business.name)}-${today}.zip`,
    parts: zipStream([
      lazyFile('read-me.txt', async () => about(business.name, longDate(today, business.paperLocale))),
      ...tables.map((table) => tableFile(ctx, table)),
      ...paperFiles(ctx, papers),
    ]),
  };
});

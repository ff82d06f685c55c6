import pg from 'pg';
import { expect, test } from 'vitest';
import { calendarDate } from '@/core/dates/calendar-date';
import { EVERYTHING } from '@/core/invoice/ask';
import { WHOLE_REGISTER } from '@/core/register/ask';
import { customerPage } from '@/db/customers';
import { invoicePage } from '@/db/invoice-lists';
import { searchPage } from '@/db/invoice-search';
import { itemPage } from '@/db/items';
import { offerPage } from '@/db/offers';
import { registerPage } from '@/db/register';
import { beginOffer } from '@/flows/offer/offers';
import { asSuperuser, enter } from '../support/database';
import { BUSINESS_TABLES } from '../support/partitioned';
import { foundHouse, sentInvoice, sharedWorkshop } from '../support/workshop';

const TODAY = calendarDate('2026-07-01');
const workshop = await sharedWorkshop();

const ask = <Row>(text: string) => asSuperuser<Row>(workshop.admin, text);

test('every table of a business is cut by the business, and the others are whole', async () => {
  const cut = await ask<{ relname: string; by: string }>(
    `select relname, pg_get_partkeydef(oid) as by from pg_class where relkind = 'p' order by relname`,
  );
  const own = await ask<{ relname: string }>(BUSINESS_TABLES);
  expect(cut).toEqual(own.map(({ relname }) => ({ relname, by: 'HASH (business_id)' })));
  expect(cut.length).toBeGreaterThan(45);
});

test('businesses live in different pieces, each with all of its rows in the pieces of one number', async () => {
  const houses = [];
  for (let at = 0; at < 6; at++) {
    const house = await foundHouse(`House ${at}`);
    await sentInvoice(house);
    houses.push(house.business.id);
  }
  const tables = ['invoices', 'timeline', 'ledger_postings', 'messages', 'customers', 'people', 'businesses'];
  const rows = tables
    .map((table) => `select business_id, tableoid::regclass::text as piece from ${table}`)
    .join(' union ');
  const placed = await ask<{ business: string; piece: string; tables: number }>(
    `select business_id as business, substring(piece from '[0-9]+$') as piece, count(*)::int as tables
     from (${rows}) as every_row group by 1, 2`,
  );
  expect(placed.map(({ business }) => business).sort()).toEqual(houses.sort());
  expect(placed.every(({ tables }) => tables === 7)).toBe(true);
  expect(new Set(placed.map(({ piece }) => piece)).size).toBeGreaterThan(1);
});

type Node = { readonly 'Relation Name'?: string; readonly 'Actual Loops': number; readonly Plans?: readonly Node[] };

/** The tables in which a plan really looked. */
const readBy = (node: Node): string[] => [
  ...(node['Relation Name'] && node['Actual Loops'] > 0 ? [node['Relation Name']] : []),
  ...(node.Plans ?? []).flatMap(readBy),
];

test('what is read of a business is looked for in its own piece and in no other', async () => {
  const house = await foundHouse('Read');
  await sentInvoice(house);
  await beginOffer(house.owner, 'link');
  const client = new pg.Client({ connectionString: process.env.DATABASE_URL });
  await client.connect();
  await enter(client, house.business.id);
  const pages = [
    invoicePage(house.business.id, 'open', 41, null),
    searchPage(
      house.business.id,
      { ...EVERYTHING, words: 'weir' },
      { least: null, most: null, today: TODAY, sign: '.' },
      41,
      null,
    ),
    registerPage(house.business.id, WHOLE_REGISTER, { from: null, to: null }, 41, null),
    offerPage(house.business.id, 'link', '', 51, null),
    customerPage(house.business.id, { words: '', group: '' }, 41, null),
    itemPage(house.business.id, 'string', 41, null),
  ];
  for (const { text, values } of pages) {
    const { rows } = await client.query(`explain (analyze, format json) ${text}`, [...values]);
    const touched = readBy(rows[0]['QUERY PLAN'][0].Plan);
    expect(touched.length).toBeGreaterThan(0);
    expect(new Set(touched.map((name) => name.match(/\d+$/)?.[0])).size, touched.join(', ')).toBe(1);
  }
  await client.end();
});

import type { Customer } from '@/core/customer/customer';
import { HANDED, type Item, UNITS } from '@/core/item/item';
import { addCustomer, changeCustomer, customerSheet, customersPage } from '@/flows/records/customers';
import { itemSheet, itemsPage, keepItem } from '@/flows/records/items';
import { CustomersAsked, CustomerWritten, ItemsAsked, ItemWritten, NothingWritten } from '@/input/program-input';
import { change, create, cursorOf, cursorText, type Endpoint, get } from '../endpoint';
import { ID, list, object, oneOfWords, orNull, page, type Schema, TEXT, TEXTS_BY_WORD, WHOLE, YES_NO } from '../schema';

const ADDRESS = object({ lines: list(TEXT), city: TEXT, region: TEXT, postalCode: TEXT, country: TEXT });
const DUE: Schema = { type: 'object', properties: { kind: TEXT, days: WHOLE, date: TEXT }, required: ['kind'] };

const CUSTOMER = object({
  id: ID,
  kind: oneOfWords(['person', 'company']),
  name: TEXT,
  email: TEXT,
  copies: list(TEXT),
  phone: TEXT,
  language: TEXT,
  currency: TEXT,
  billing: ADDRESS,
  delivery: orNull(ADDRESS),
  taxNumber: TEXT,
  note: TEXT,
  due: orNull(DUE),
  groups: list(TEXT),
  shipsFirst: orNull(YES_NO),
  erased: YES_NO,
});

const shownCustomer = (customer: Customer, erased = false): object => ({ ...customer, erased });

const fieldsOf = ({ id: _, ...fields }: Customer): Omit<Customer, 'id'> => fields;

const ITEM = object({
  id: ID,
  code: TEXT,
  name: TEXT,
  description: TEXT,
  kind: oneOfWords(['goods', 'digital', 'service']),
  unit: oneOfWords(UNITS),
  prices: TEXTS_BY_WORD,
  cost: TEXT,
  taxClass: TEXT,
  onHand: orNull(TEXT),
  lowAt: orNull(TEXT),
  pictureId: orNull(ID),
  going: object({
    handed: oneOfWords(['', ...HANDED]),
    grams: WHOLE,
    lengthMm: WHOLE,
    widthMm: WHOLE,
    heightMm: WHOLE,
    shelf: TEXT,
    origin: TEXT,
    hsCode: TEXT,
  }),
  options: list(
    object({
      id: ID,
      name: TEXT,
      code: TEXT,
      prices: TEXTS_BY_WORD,
      onHand: orNull(TEXT),
      lowAt: orNull(TEXT),
      grams: WHOLE,
      shelf: TEXT,
    }),
  ),
});

const shownItem = ({ id, code, name, description, kind, unit, prices, cost, taxClass, ...item }: Item): object => ({
  id,
  code,
  name,
  description,
  kind,
  unit,
  prices,
  cost,
  taxClass,
  onHand: item.onHand,
  lowAt: item.lowAt,
  pictureId: item.pictureId,
  going: item.going,
  options: item.options.map((option) => ({
    id: option.id,
    name: option.name,
    code: option.code,
    prices: option.prices,
    onHand: option.onHand,
    lowAt: option.lowAt,
    grams: option.grams ?? 0,
    shelf: option.shelf ?? '',
  })),
});

export const RECORDS: readonly Endpoint[] = [
  get('/customers', {
    what: 'Customers by name, or those in whom the words are found',
    right: 'see',
    input: CustomersAsked,
    answers: page(CUSTOMER),
    run: async (actor, { input: { words = '', group = '', after } }) => {
      const { rows, next } = await customersPage(actor, { words, group }, cursorOf(after));
      return { data: rows.map((row) => shownCustomer(row)), next: cursorText(next) };
    },
  }),
  create('/customers', {
    what: 'Add a customer',
    right: 'records',
    input: CustomerWritten,
    answers: CUSTOMER,
    run: async (actor, { input }) => shownCustomer(await addCustomer(actor, { ...input })),
  }),
  get('/customers/{id}', {
    what: 'A customer',
    right: 'see',
    input: NothingWritten,
    answers: CUSTOMER,
    run: async (actor, { ids: [id = ''] }) => {
      const { customer, erasedAt } = await customerSheet(actor, id);
      return shownCustomer(customer, erasedAt !== null);
    },
  }),
  change('/customers/{id}', {
    what: 'Change a customer; what is left out stays',
    right: 'records',
    input: CustomerWritten,
    answers: CUSTOMER,
    current: async (actor, [id = '']) => fieldsOf((await customerSheet(actor, id)).customer),
    run: async (actor, { input, ids: [id = ''] }) => shownCustomer(await changeCustomer(actor, id, { ...input })),
  }),
  get('/items', {
    what: 'Items by name, or those in which the words are found',
    right: 'see',
    input: ItemsAsked,
    answers: page(ITEM),
    run: async (actor, { input: { words = '', after } }) => {
      const { rows, next } = await itemsPage(actor, words, cursorOf(after));
      return { data: rows.map(shownItem), next: cursorText(next) };
    },
  }),
  create('/items', {
    what: 'Add an item',
    right: 'records',
    input: ItemWritten,
    answers: ITEM,
    run: async (actor, { input }) => shownItem(await keepItem(actor, null, { ...input })),
  }),
  get('/items/{id}', {
    what: 'An item',
    right: 'see',
    input: NothingWritten,
    answers: ITEM,
    run: async (actor, { ids: [id = ''] }) => shownItem((await itemSheet(actor, id)).item),
  }),
  change('/items/{id}', {
    what: 'Change an item; what is left out stays',
    right: 'records',
    input: ItemWritten,
    answers: ITEM,
    current: async (actor, [id = '']) => {
      const { id: _, ...fields } = shownItem((await itemSheet(actor, id)).item) as Item;
      return fields;
    },
    // A count that nobody sent is the one that was read a moment ago: what was sold meanwhile is not counted away.
    run: async (actor, { input, said, ids: [id = ''] }) => {
      const counts = said.includes('onHand') || said.includes('options');
      return shownItem(await keepItem(actor, id, { ...input }, counts ? 'Said by a program' : undefined));
    },
  }),
];

import { randomUUID } from 'node:crypto';
import { beforeEach, describe, expect, test } from 'vitest';
import { newCustomer } from '@/core/customer/customer';
import type { Location, TradingName } from '@/core/front/front';
import { EVERYTHING } from '@/core/invoice/ask';
import { newLine } from '@/core/paper/paper';
import { readInvoiceXml } from '@/documents/xml/read-invoice';
import { checkoutPage } from '@/flows/checkout/checkout-page';
import { hostedPage, publishHostedPage } from '@/flows/checkout/hosted-page';
import { programContext } from '@/flows/door/program';
import { deskInvoiceXml } from '@/flows/file/kept-files';
import { creditInvoice } from '@/flows/invoice/credit-invoice';
import { saveDraft, startInvoice } from '@/flows/invoice/draft';
import { invoiceSheet, printedOf } from '@/flows/invoice/invoice-sheet';
import { makeDueRecurring, startRecurring } from '@/flows/invoice/recurring';
import { remindTogether } from '@/flows/invoice/remind';
import { listOverview, saveList, searchInvoices } from '@/flows/invoice/search-invoices';
import { writeInvoice } from '@/flows/invoice/write-invoice';
import { offerSheet } from '@/flows/offer/offers';
import { sendRequest } from '@/flows/offer/requests';
import { planPage } from '@/flows/plan/plan-page';
import { asSuperuser } from '../../../tests/support/database';
import { handedOver } from '../../../tests/support/house-mail';
import { paidOrder, placedOffer } from '../../../tests/support/offers';
import { planTerms, runningPlan } from '../../../tests/support/plans';
import {
  foundHouse,
  type House,
  mailOf,
  plainPaper,
  sentInvoice,
  sharedWorkshop,
} from '../../../tests/support/workshop';
import { addCustomer } from './customers';
import { businessProfile, keepFronts, keepProfile } from './profile';
import { keepTaxRules, taxRules } from './taxes';

const workshop = await sharedWorkshop();
const CALLED = 'Weir Street Rentals';
let house: House;
let name: TradingName;
let harbour: Location;
const under = () => ({ tradingNameId: name.id, locationId: harbour.id });

/** A house that also trades under a name with numbers of its own, and sells from a harbour in a region with a tax of its own. */
beforeEach(async () => {
  house = await foundHouse();
  const { business } = await businessProfile(house.owner);
  const { id: _i, address: _a, zone: _z, paperLocale: _p, deskLocale: _d, currency: _c, ...fields } = business;
  const series = [
    { name: 'Main', pattern: '{n}' },
    { name: 'Rentals', pattern: 'WR-{n:3}' },
  ];
  await keepProfile(house.owner, { ...fields, series });
  await keepTaxRules(house.owner, [
    ...(await taxRules(house.owner)),
    {
      id: randomUUID(),
      name: 'Harbour tax',
      rate: '20',
      class: 'standard',
      country: 'US',
      regions: ['US-OR'],
      onDelivery: false,
      retired: false,
    },
  ]);
  name = {
    id: randomUUID(),
    name: CALLED,
    logoId: null,
    accent: '#224466',
    email: 'desk@weir-street.example',
    phone: '',
    website: '',
    series: 'Rentals',
    retired: false,
  };
  harbour = {
    id: randomUUID(),
    name: 'Harbour',
    place: { lines: ['2 Quay'], city: 'Astoria', region: 'US-OR', postalCode: '97103', country: 'US' },
    phone: '555-0177',
    taxNumber: '93-0000002',
    retired: false,
  };
  await keepFronts(house.owner, { tradingNames: [name], locations: [harbour] });
});

const SELLER = {
  name: CALLED,
  legalName: 'Sallow Joinery',
  address: ['Sallow Joinery', '2 Quay', 'Astoria, OR 97103'],
  phone: '555-0177',
  email: 'desk@weir-street.example',
  taxNumber: '93-0000002',
};
/** A line that is taxed where the customer is, or, of one without an address, where it is sold. */
const byPlace = () => newLine(randomUUID(), 'piece', { what: 'Cello, a month', price: '100', taxClass: 'standard' });
const somebody = () =>
  addCustomer(house.owner, newCustomer('Ines Ferreira', { email: `${randomUUID().slice(0, 8)}@ferreira.example` }));
const mailTo = async (address: string) => {
  await handedOver(workshop, house.business.id, '');
  return mailOf(workshop.standIns, address);
};

describe('an invoice under a name, from a place', () => {
  test('has its head, its number, the taxes of the place, and its sender; the business’s own go on as before', async () => {
    const customer = await somebody();
    const paper = plainPaper(house, { customerId: customer.id, lines: [byPlace()], ...under() });
    const first = await sentInvoice(house, paper);
    expect(first.number).toBe('WR-001');
    const printed = printedOf(await invoiceSheet(house.owner, first.id));
    expect(printed).toMatchObject({ total: 12_000, accent: '#224466', seller: SELLER });
    const [mail] = await mailTo(customer.email);
    expect(mail?.from).toContain(CALLED);
    expect(mail?.replyTo).toBe('desk@weir-street.example');
    expect(mail?.subject).toBe(`Invoice WR-001 from ${CALLED}: $120.00`);
    const own = await sentInvoice(house, plainPaper(house, { customerId: customer.id }));
    expect(own.number).toBe('1');
    expect(printedOf(await invoiceSheet(house.owner, own.id)).seller.name).toBe('Sallow Joinery');
    expect((await sentInvoice(house, { ...paper, series: 'Main' })).number).toBe('2');
  });

  test('is read by another program as from the business, trading as', async () => {
    const { id } = await sentInvoice(house, plainPaper(house, under()));
    const read = readInvoiceXml((await deskInvoiceXml(house.owner, id)).bytes.toString());
    expect(read?.seller).toMatchObject({
      name: 'Sallow Joinery',
      tradingName: CALLED,
      city: 'Astoria',
      region: 'US-OR',
    });
  });

  test('is found by its name, and no other is; a list kept before one could ask for it asks nothing of it', async () => {
    const { id } = await sentInvoice(house, plainPaper(house, under()));
    await sentInvoice(house);
    const { rows } = await searchInvoices(house.owner, { ...EVERYTHING, tradingNameId: name.id });
    expect(rows.map((row) => row.id)).toEqual([id]);
    const { tradingNameId: _, ...before } = EVERYTHING;
    await saveList(house.owner, 'Of before', before as never);
    expect((await listOverview(house.owner)).saved).toMatchObject([{ name: 'Of before', asked: EVERYTHING }]);
  });

  test('is written by a program under what they are called, and refused at the place where nothing is called so', async () => {
    const line = {
      what: 'Cello, a month',
      price: '100',
      quantity: '1',
      unit: 'piece',
      discount: '',
      note: '',
      code: '',
    } as const;
    const asked = {
      customerId: house.customerId,
      lines: [{ ...line, taxClass: 'standard', itemId: null, optionId: null, taxes: null }],
      title: '',
      reference: '',
      note: '',
      discount: '',
      currency: '',
      issuedOn: '',
      serviceFrom: '',
      serviceTo: '',
      due: null,
      tradingName: 'weir street rentals',
      location: 'Harbour',
    };
    const { invoice } = await invoiceSheet(house.owner, await writeInvoice(house.owner, asked));
    expect(invoice.paper).toMatchObject(under());
    await expect(writeInvoice(house.owner, { ...asked, location: 'Nowhere' })).rejects.toMatchObject({
      code: 'paper-not-ready',
      fields: [{ field: 'location' }],
    });
  });

  test('is reminded of under its name: what one customer owes to two names are two letters', async () => {
    await sentInvoice(house, plainPaper(house, under()));
    await sentInvoice(house, plainPaper(house, under()));
    await sentInvoice(house);
    await handedOver(workshop, house.business.id, '');
    const before = (await mailOf(workshop.standIns, 'perpetua@vane.example')).length;
    const { rows } = await searchInvoices(house.owner, EVERYTHING);
    await remindTogether(
      house.owner,
      rows.map((row) => row.id),
      randomUUID(),
    );
    await handedOver(workshop, house.business.id, '');
    const mails = (await mailOf(workshop.standIns, 'perpetua@vane.example')).slice(0, -before);
    expect(mails.map(({ from }) => from.includes(CALLED)).sort()).toEqual([false, true]);
  });

  test('is credited under the same name, though the name is not offered any more; copies keep it', async () => {
    const { id } = await sentInvoice(house, plainPaper(house, under()));
    await keepFronts(house.owner, { tradingNames: [{ ...name, retired: true }], locations: [harbour] });
    await creditInvoice(house.owner, id, {
      amountMinor: 1_000n,
      reason: 'Scratch',
      tell: true,
      requestKey: randomUUID(),
    });
    const [credit] = await mailTo('perpetua@vane.example');
    expect(credit?.from).toContain(CALLED);
    const copy = await invoiceSheet(house.owner, await startInvoice(house.owner, { invoiceId: id }));
    expect(copy.invoice.paper).toMatchObject(under());
  });

  test('comes again under it', async () => {
    const { id } = await sentInvoice(house, plainPaper(house, under()));
    const today = new Date().toISOString().slice(0, 10);
    const schedule = { unit: 'month', every: 1, start: today, ends: 'never' } as never;
    await startRecurring(house.owner, id, { name: 'Cello', schedule, makes: 'send' });
    const later = new Date(Date.now() + 2 * 86_400_000);
    await makeDueRecurring(programContext(house.business.id, later));
    const numbers = await asSuperuser<{ number: string; seller: string }>(
      workshop.admin,
      `select number, printed->'seller'->>'name' as seller from invoices where business_id = $1 and number is not null order by number`,
      [house.business.id],
    );
    expect(numbers).toEqual([
      { number: 'WR-001', seller: CALLED },
      { number: 'WR-002', seller: CALLED },
    ]);
  });
});

describe('an offer under a name, from a place', () => {
  const READER = { acceptLanguage: 'en-US', lang: '', currency: '', request: '' };

  test('is asked, paid and confirmed under it, with the taxes of the place', async () => {
    const offer = { prices: { USD: '100' }, ...under() };
    const { id, called } = await placedOffer(house, offer);
    const page = await checkoutPage(called, READER);
    expect(page).toMatchObject({ seller: SELLER, accent: '#224466', quote: { totalMinor: 12_000 } });
    await paidOrder(workshop, called, { email: 'ida@marsh.example' });
    const [receipt] = await mailTo('ida@marsh.example');
    expect(receipt?.from).toContain(CALLED);
    expect(receipt?.replyTo).toBe('desk@weir-street.example');
    const { orders } = await offerSheet(house.owner, id);
    expect(orders[0]).toMatchObject({ totalMinor: 12_000n });
  });

  test('is sent to somebody under it, and its page and button look so', async () => {
    const { id } = await placedOffer(house, { kind: 'open', ...under() });
    await sendRequest(house.owner, id, {
      toName: 'Ida Marsh',
      toAddress: 'ida-asked@marsh.example',
      filled: {},
      locked: false,
      way: 'mail',
      words: '',
    });
    const [asked] = await mailTo('ida-asked@marsh.example');
    expect(asked?.from).toContain(CALLED);
    const page = await placedOffer(house, { kind: 'open', ...under() }, 'page');
    await publishHostedPage(house.owner, page.id);
    const html = await hostedPage(page.called, { acceptLanguage: 'en', lang: '', currency: '', passed: {} });
    expect(html).toContain(CALLED);
    expect(html).toContain('2 Quay');
  });

  test('that is repeated begins a plan under it', async () => {
    const { called } = await placedOffer(house, {
      prices: { USD: '30' },
      repeat: { rhythms: [{ unit: 'month', every: 1 }], once: true, count: null },
      ...under(),
    });
    await paidOrder(workshop, called, { email: 'again@marsh.example', repeat: 'month:1', agrees: true });
    const plans = await asSuperuser<{ front: object }>(
      workshop.admin,
      `select jsonb_build_object('tradingNameId', terms->'paper'->>'tradingNameId', 'locationId', terms->'paper'->>'locationId') as front
       from plans where business_id = $1`,
      [house.business.id],
    );
    expect(plans).toEqual([{ front: under() }]);
  });
});

test('a plan is sent, seen and agreed to under its name, and the authorisation names the business', async () => {
  const terms = planTerms(house, new Date().toISOString().slice(0, 10));
  const { id } = await runningPlan(house, workshop.standIns, { ...terms, paper: { ...terms.paper, ...under() } });
  const [plan] = await asSuperuser<{ link: string; text: string }>(
    workshop.admin,
    `select plans.link_token as link, authorisations.text from plans join authorisations on authorisations.plan_id = plans.id where plans.id = $1`,
    [id],
  );
  expect(plan?.text).toContain('Sallow Joinery');
  expect(await planPage(plan?.link ?? '', 'en')).toMatchObject({ seller: SELLER, accent: '#224466' });
});

describe('what is kept', () => {
  test('is refused whole where a name, a series, a country or a tax number is wrong, and where somebody else was quicker', async () => {
    const refused = (change: Parameters<typeof keepFronts>[1]) =>
      expect(keepFronts(house.owner, change)).rejects.toMatchObject({ code: 'paper-not-ready' });
    await refused({ tradingNames: [{ ...name, series: 'Lost' }], locations: [harbour] });
    await refused({ tradingNames: [{ ...name, name: 'Sallow Joinery' }], locations: [harbour] });
    await refused({ tradingNames: [name], locations: [{ ...harbour, taxNumber: 'DE123' }] });
    await refused({ tradingNames: [], locations: [harbour] });
    expect((await businessProfile(house.owner)).business).toMatchObject({ tradingNames: [name], locations: [harbour] });
    await expect(keepFronts(house.clerk, { tradingNames: [name], locations: [] })).rejects.toMatchObject({
      code: 'not-allowed',
    });
  });

  test('stands in the log, and an id of nobody’s asks under the business’s own name', async () => {
    await keepFronts(house.owner, {
      tradingNames: [{ ...name, email: 'new@weir-street.example' }],
      locations: [harbour],
    });
    const entries = await asSuperuser<{ details: unknown }>(
      workshop.admin,
      `select to_jsonb(log_entries) as details from log_entries where business_id = $1 and kind = 'profile'`,
      [house.business.id],
    );
    expect(JSON.stringify(entries)).toContain('new@weir-street.example');
    const other = await foundHouse('Alder Works');
    const id = await startInvoice(other.owner);
    await saveDraft(other.owner, id, plainPaper(other, under()), 0);
    expect(printedOf(await invoiceSheet(other.owner, id)).seller.name).toBe('Alder Works');
  });
});

/** Loads the demo business by playing eighteen months through the same flows that people use. */
import { randomUUID } from 'node:crypto';
import sharp from 'sharp';
import { addDays } from '@/core/dates/calendar-date';
import { dateInZone } from '@/core/dates/zone';
import type { Item } from '@/core/item/item';
import { money } from '@/core/money/money';
import { completePaper, newLine, type Paper, type PaperFile, type PaperWays, USUAL_WAYS } from '@/core/paper/paper';
import { WHOLE_REGISTER } from '@/core/register/ask';
import { insertBusiness, insertCounter } from '@/db/businesses';
import { insertCustomer } from '@/db/customers';
import { invoiceById } from '@/db/invoices';
import { queuedMessages, updateMessage } from '@/db/messages';
import { paymentById } from '@/db/payments';
import { type Actor, insertPerson } from '@/db/people';
import { closePool } from '@/db/pool';
import { insertTax } from '@/db/taxes';
import { addToTimeline } from '@/db/timeline';
import { inBusiness, readBusiness } from '@/db/transaction';
import { closeDays } from '@/flows/day/close-days';
import { programContext } from '@/flows/door/program';
import { storeFile } from '@/flows/file/store-file';
import { passwordHash } from '@/flows/house/password';
import { cancelInvoice } from '@/flows/invoice/cancel-invoice';
import { askQuestion, decideFile } from '@/flows/invoice/consent';
import { creditInvoice } from '@/flows/invoice/credit-invoice';
import { discardDraft, saveDraft, startInvoice } from '@/flows/invoice/draft';
import { noteSeen } from '@/flows/invoice/payer-page';
import { makeDueRecurring, startRecurring } from '@/flows/invoice/recurring';
import { remindDue } from '@/flows/invoice/remind';
import { sendInvoice } from '@/flows/invoice/send-invoice';
import { keepAsTemplate } from '@/flows/invoice/templates';
import { lookForDebits } from '@/flows/payment/hear-debits';
import { recordReceived } from '@/flows/payment/receive-payment';
import { takePayment } from '@/flows/payment/take-payment';
import { handOverMessage } from '@/flows/post/hand-over-message';
import { keepItem } from '@/flows/records/items';
import { keepTerms } from '@/flows/records/profile';
import { registerOf } from '@/flows/register/register';
import { services } from '@/outside/services';
import { PRETEND_ACCOUNTS } from '../../standins/cards/pretend-accounts';
import { PRETEND_CARDS } from '../../standins/cards/pretend-cards';
import { seeded } from '../../tests/support/seeded';
import { debitPlans } from './debits';
import { playDisputes } from './disputes';
import { offerPlans } from './offers';
import { playParcels } from './parcels';
import { playPayouts } from './payouts';
import { planPlans } from './plans';
import { refundPlans } from './refunds';
import { stockWork } from './stock';
import { BUSINESS, CUSTOMERS, ITEMS, JOBS, PASSWORD, PEOPLE, TAXES, TERMS } from './thistlewood';

const DAY_MS = 86_400_000;
const DAYS = 545;
/** Mail older than this is noted as handed over and not made again: a thousand PDFs would keep people waiting. */
const REAL_MAIL_DAYS = 12;
const STANDINS = new URL(process.env.CLOCK_URL ?? '').origin;

const chance = seeded(20261113);
const pick = <T>(list: readonly T[]): T => list[Math.floor(chance() * list.length)] as T;

const real = services();
let present = new Date();
(globalThis as { dahliaServices?: typeof real }).dahliaServices = { ...real, clock: { now: async () => present } };
const begun = new Date();

const customers = CUSTOMERS.map((customer) => ({ id: randomUUID(), ...customer }));
const [ada, bram] = PEOPLE.slice(0, 2).map(
  (person): Actor => ({
    businessId: BUSINESS.id,
    personId: randomUUID(),
    name: person.name,
    role: person.role,
    extra: [],
    provedSeconds: 0,
    lacksStep: false,
    closed: false,
  }),
);
if (!ada || !bram) throw new Error('The demo needs two people');

async function found(): Promise<void> {
  present = new Date(begun.getTime() - (DAYS + 20) * DAY_MS);
  const hash = await passwordHash(PASSWORD);
  await inBusiness(programContext(BUSINESS.id, present), async (tx) => {
    await insertBusiness(tx, BUSINESS);
    for (const [at, person] of PEOPLE.entries()) {
      const id = [ada, bram][at]?.personId ?? randomUUID();
      // One after the other: the sign-in page lists them in this order.
      const later = { ...tx, now: new Date(present.getTime() + at) };
      await insertPerson(later, { id, businessId: BUSINESS.id, ...person, passwordHash: hash });
    }
    for (const [at, tax] of TAXES.entries()) await insertTax(tx, tax, at);
    await insertCounter(tx, 'invoice', 1001n);
    await insertCounter(tx, 'receipt', 2001n);
    for (const customer of customers) await insertCustomer(tx, customer);
  });
}

const at = (daysAgo: number, hour: number): void => {
  const instant = begun.getTime() - daysAgo * DAY_MS;
  const day = new Date(instant);
  day.setUTCHours(hour + 8, Math.floor(chance() * 60), Math.floor(chance() * 60));
  present =
    day.getTime() > begun.getTime() ? new Date(begun.getTime() - 60_000 * (1 + Math.floor(chance() * 30))) : day;
};

type Plan = {
  customer: string;
  job: number;
  due: number;
  discount?: string;
  reference?: string;
  note?: string;
  more?: Partial<Paper>;
};

async function draft(by: Actor, plan: Plan): Promise<string> {
  const customer = customers.find(({ name }) => name === plan.customer);
  const id = await startInvoice(by);
  const paper: Paper = completePaper({
    customerId: customer?.id ?? null,
    reference: plan.reference ?? '',
    due: plan.due === 0 ? { kind: 'receipt' } : { kind: 'days', days: plan.due },
    lines: (JOBS[plan.job] ?? []).map((line) => ({ id: randomUUID(), ...line })),
    discount: plan.discount ?? '',
    note: plan.note ?? '',
    ...plan.more,
  });
  await saveDraft(by, id, paper, 0);
  return id;
}

async function send(by: Actor, plan: Plan): Promise<string> {
  const id = await draft(by, plan);
  await sendInvoice(by, id, 1, 'mail');
  await mail();
  return id;
}

/** Hands over what is queued at this moment of the history. */
async function mail(): Promise<void> {
  const old = begun.getTime() - present.getTime() > REAL_MAIL_DAYS * DAY_MS;
  for (const message of await readBusiness(programContext(BUSINESS.id, present), (db) => queuedMessages(db))) {
    if (!old) {
      await setStandInClock();
      await handOverMessage(BUSINESS.id, message.id);
      continue;
    }
    await inBusiness(programContext(BUSINESS.id, present), async (tx) => {
      await updateMessage(tx, message.id, { state: 'handed-over', trouble: null });
      const event = { kind: 'mail-handed-over', what: message.kind, to: message.toAddress } as const;
      if (message.invoiceId) await addToTimeline(tx, message.invoiceId, event, 'Dahlia');
    });
  }
}

const setStandInClock = () =>
  fetch(`${STANDINS}/clock`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ set: present.toISOString() }),
  });

/** Somebody typed a card into the processor's own terminal: its book has a payment that ours has not. */
async function strayPayment(): Promise<void> {
  at(4, 15);
  await setStandInClock();
  await services().cards.sale({
    key: `${BUSINESS.id}.${randomUUID()}`,
    amount: money(1850n, BUSINESS.currency),
    token: await cardToken('lumen-good'),
    reference: 'Rosin and a mute',
    returnUrl: STANDINS,
  });
}

async function cardToken(name: string): Promise<string> {
  const account = PRETEND_ACCOUNTS.find((known) => known.name === name)?.number;
  const number = PRETEND_CARDS.find((card) => card.name === name)?.number;
  const year = String(new Date().getUTCFullYear() + 3).slice(2);
  const answer = await fetch(`${STANDINS}/cards/tokens`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(account ? { account, holder: 'Demo' } : { number, expiry: `08/${year}`, code: '123' }),
  });
  return ((await answer.json()) as { token: string }).token;
}

const linkOf = async (id: string) => {
  const invoice = await readBusiness(programContext(BUSINESS.id, present), (db) => invoiceById(db, id));
  if (!invoice) throw new Error('No invoice');
  return { link: invoice.linkToken, amountMinor: invoice.dueMinor };
};

async function look(id: string): Promise<void> {
  const { link } = await linkOf(id);
  await noteSeen(link, chance() < 0.6 ? 'phone' : 'computer');
}

async function pay(id: string, card: string, part?: bigint, acceptsTerms = false): Promise<void> {
  await setStandInClock();
  const { link, amountMinor } = await linkOf(id);
  await look(id);
  present = new Date(present.getTime() + 70_000);
  const attempt = {
    attemptKey: randomUUID(),
    cardToken: await cardToken(card),
    amountMinor: part ?? amountMinor,
    acceptsTerms,
  };
  await takePayment(link, attempt, randomUUID());
  await mail();
}

/** What became of bank debits by this moment of the history. */
async function lookAtDebits(): Promise<void> {
  await setStandInClock();
  await lookForDebits(programContext(BUSINESS.id, present));
  await mail();
}

/** The payer's bank gives back the latest debit that was paid. */
async function giveBack(code: string): Promise<void> {
  await setStandInClock();
  const ask = { ...WHOLE_REGISTER, show: 'payments', way: 'debit', state: 'paid', channel: 'invoice' } as const;
  const [row] = (await registerOf(ada as Actor, ask, null)).rows;
  const payment = row && (await readBusiness(programContext(BUSINESS.id, present), (db) => paymentById(db, row.id)));
  const body = new URLSearchParams({ sale: payment?.saleId ?? '', code });
  await fetch(`${STANDINS}/cards/debits`, { method: 'POST', body, redirect: 'manual' });
}

/** What is still to happen, so that the months are played in order. */
const later: { daysAgo: number; hour: number; work: () => Promise<void> }[] = [];

/** What belongs to the business beside its customers: terms, items, a template, and what comes again. */
async function records(): Promise<void> {
  present = new Date(begun.getTime() - 200 * DAY_MS);
  for (const one of ITEMS) items.push(await keepItem(ada as Actor, null, one));
  later.push(...stockWork(ada as Actor, items).filter(({ daysAgo }) => daysAgo > 30));
  termsId = await keepTerms(ada as Actor, null, TERMS.name, TERMS.text);
  await keepAsTemplate(
    ada as Actor,
    'Monthly loan',
    completePaper({
      title: 'Loan of a cello, {month} {year}',
      lines: [newLine(randomUUID(), 'month', { what: 'Loan of a cello, {month}', price: '62.00' })],
      note: 'The strings are changed once a year at our bench, without charge.',
    }),
  );
}
let termsId = '';
const items: Item[] = [];

/** A drawing to be approved: a violin's outline, drawn as a vector and kept as a picture. */
async function drawing(): Promise<PaperFile> {
  const outline = `<svg xmlns="http://www.w3.org/2000/svg" width="900" height="1200" viewBox="0 0 90 120">
    <rect width="90" height="120" fill="#fffdf9"/>
    <g fill="none" stroke="#241a26" stroke-width=".5">
    <path d="M45 8c3 0 5 3 5 7v22c9 0 17 5 17 14 0 8-6 10-6 17s10 10 10 24c0 13-11 20-26 20S19 105 19 92c0-14 10-17 10-24s-6-9-6-17c0-9 8-14 17-14V15c0-4 2-7 5-7z"/>
    <path d="M45 40v68M34 66c-3 6-3 12 1 18M56 66c3 6 3 12-1 18M40 78h10"/><path stroke-dasharray="1 1" d="M12 51h66M12 92h66"/>
    </g><text x="60" y="116" font-size="3" fill="#635463">half size, 1:2</text></svg>`;
  const png = await sharp(Buffer.from(outline)).png().toBuffer();
  const stored = await storeFile(ada as Actor, 'half-size-violin.png', 'attachment', png);
  return { ...stored, approve: true };
}

async function history(): Promise<void> {
  for (let daysAgo = DAYS; daysAgo > 30; daysAgo--) {
    for (const { hour, work } of later.filter((task) => task.daysAgo === daysAgo)) {
      at(daysAgo, hour);
      await work();
    }
    const weekday = new Date(begun.getTime() - daysAgo * DAY_MS).getUTCDay();
    if (weekday === 0 || chance() > 0.3 + (DAYS - daysAgo) / (DAYS * 5)) continue;
    at(daysAgo, 9 + Math.floor(chance() * 4));
    const due = pick([0, 14, 14, 14, 30]);
    const id = await send(chance() < 0.7 ? (ada as Actor) : (bram as Actor), {
      customer: pick(customers).name,
      job: Math.floor(chance() * JOBS.length),
      due,
      ...(chance() < 0.15 ? { discount: '5%' } : {}),
    });
    const wait = 1 + Math.floor(chance() * (due + 6));
    const payDay = Math.max(daysAgo - wait, 31);
    if (chance() < 0.08) {
      later.push({ daysAgo: payDay, hour: 12, work: () => pay(id, 'corvid-poor') });
    }
    later.push({ daysAgo: payDay, hour: 14, work: () => pay(id, pick(['corvid-good', 'lumen-good'])) });
  }
}

async function lately(): Promise<void> {
  const plans: [daysAgo: number, hour: number, work: () => Promise<void>][] = [];
  const sent = (daysAgo: number, plan: Plan, seen: number | null, paid: [number, string] | null, by = ada as Actor) => {
    let id = '';
    plans.push([
      daysAgo,
      9,
      async () => {
        id = await send(by, plan);
      },
    ]);
    if (seen !== null) plans.push([seen, 11, () => look(id)]);
    if (paid) plans.push([paid[0], 13 + (plans.length % 4), () => pay(id, paid[1])]);
  };
  sent(43, { customer: 'Harrow Street Quartet', job: 0, due: 30, discount: '5%' }, 40, null);
  sent(35, { customer: 'Lambert Oyelaran', job: 3, due: 14 }, null, null);
  sent(29, { customer: 'Cornelius Tidewell', job: 2, due: 14 }, 27, [20, 'corvid-good']);
  sent(28, { customer: 'Hedda Marchbanks', job: 7, due: 14 }, 27, [18, 'lumen-good'], bram);
  sent(27, { customer: 'Wilhelmina Strand', job: 5, due: 14 }, 26, [15, 'corvid-good']);
  sent(25, { customer: 'Miro Castellane', job: 11, due: 14 }, 25, [13, 'corvid-good']);
  sent(
    24,
    { customer: 'Northern Lending Fund for Young Players', job: 10, due: 60, reference: 'fund 26-11' },
    20,
    null,
  );
  sent(22, { customer: 'Yusra Albright', job: 6, due: 14 }, 21, [12, 'lumen-good'], bram);
  sent(
    20,
    {
      customer: 'Marguerite Öystad',
      job: 1,
      due: 30,
      reference: 'viola 1931',
      note: 'The drawing of the fingerboard is in the case pocket.',
    },
    18,
    null,
  );
  sent(18, { customer: 'Edda Tolliver', job: 1, due: 14 }, 17, [10, 'corvid-good']);
  sent(15, { customer: 'Bartholomew Featheringstone-Oduya and Daughters', job: 7, due: 30 }, 12, null, bram);
  sent(14, { customer: 'Theodora Vance', job: 9, due: 14 }, 13, [8, 'lumen-good']);
  sent(12, { customer: 'Calder Nwosu', job: 10, due: 30, discount: '5%' }, 9, null);
  sent(11, { customer: 'Petra Lindqvist', job: 5, due: 14 }, 11, [7, 'corvid-good'], bram);
  sent(9, { customer: 'St Brannoc’s Choir', job: 8, due: 30 }, 8, null);
  sent(8, { customer: 'Fenwick Primary School', job: 4, due: 14, reference: 'PO 4471' }, 6, null, bram);
  sent(7, { customer: 'Kester Loveday', job: 3, due: 14 }, 6, [4, 'corvid-good']);
  sent(6, { customer: 'Josune Arrieta', job: 0, due: 14 }, null, null);
  sent(5, { customer: 'Odile Brackenbury', job: 6, due: 14 }, 4, [1, 'corvid-poor']);
  sent(4, { customer: 'Ilse Varga', job: 3, due: 0 }, 3, [2, 'corvid-good']);
  sent(3, { customer: 'Celia Monk', job: 9, due: 14 }, 2, [1, 'lumen-good'], bram);
  sent(2, { customer: 'Alder Ferry Chamber Society', job: 8, due: 30 }, null, null);
  sent(1, { customer: 'Anselm Roke', job: 2, due: 0 }, 0, [0, 'corvid-good']);
  sent(1, { customer: 'The Saltmarsh Fiddle Club of Upper and Lower Wending', job: 11, due: 14 }, 0, null);
  const parts = (first: string, more: Partial<PaperWays> = {}): Partial<Paper> => ({
    ways: { ...USUAL_WAYS, transfer: true, parts: true, first, ...more },
  });
  // A deposit asked for, a drawing approved, half of it paid; another paid at the bank; one cancelled; one credited in part.
  plans.push([
    17,
    9,
    async () => {
      const file = await drawing();
      const more = { ...parts('30%'), title: 'A half-size violin, made for Emrys', files: [file], termsId };
      const id = await send(ada as Actor, { customer: 'Emrys Cadwallon', job: 10, due: 30, more });
      const { link, amountMinor } = await linkOf(id);
      await look(id);
      const yes = { decision: 'approved', comment: 'Just as we spoke about it.', byName: '' } as const;
      await decideFile(link, file.id, yes);
      present = new Date(present.getTime() + 400_000);
      await pay(id, 'corvid-good', amountMinor / 2n, true);
    },
  ]);
  plans.push([
    13,
    10,
    async () => {
      const id = await send(bram as Actor, { customer: 'Beatrix Amsel', job: 3, due: 14, more: parts('') });
      await look(id);
      const { amountMinor } = await linkOf(id);
      const received = {
        amountMinor,
        method: 'transfer',
        reference: 'statement 44',
        receivedOn: '',
        requestKey: randomUUID(),
      } as const;
      await recordReceived(bram as Actor, id, received);
    },
  ]);
  plans.push([
    10,
    10,
    async () => {
      const id = await send(ada as Actor, { customer: 'Jory Penhallow', job: 11, due: 14 });
      await cancelInvoice(ada as Actor, id, 'Billed twice: it is on the one before', true);
    },
  ]);
  plans.push([
    9,
    12,
    async () => {
      const id = await send(ada as Actor, { customer: 'Ottoline Brezh', job: 0, due: 30 });
      const credit = { amountMinor: 2500n, reason: 'The case came scratched', tell: true, requestKey: randomUUID() };
      await creditInvoice(ada as Actor, id, credit);
      await askQuestion((await linkOf(id)).link, { text: 'Could I fetch it on Saturday morning?', byName: '' }, 'demo');
    },
  ]);
  plans.push([
    35,
    9,
    async () => {
      const lent = {
        title: 'Loan of a cello, {month} {year}',
        lines: [newLine(randomUUID(), 'month', { what: 'Loan of a cello, {month}', price: '62.00' })],
      };
      const id = await draft(ada as Actor, { customer: 'Tobias Wrenfield', job: 6, due: 14, more: lent });
      const start = addDays(dateInZone(present, BUSINESS.zone), 5);
      const schedule = { unit: 'month', every: 1, start, ends: 'never', shift: 'next' } as const;
      await startRecurring(ada as Actor, id, { name: 'Cello loan, Tobias Wrenfield', makes: 'send', schedule });
      await discardDraft(ada as Actor, id);
    },
  ]);
  for (const daysAgo of [30, 29, 28, 27, 26, 2, 1, 0])
    plans.push([daysAgo, 8, () => makeDueRecurring(programContext(BUSINESS.id, present))]);
  plans.push([
    1,
    16,
    async () => void (await draft(bram as Actor, { customer: 'Gwendolen Ashdown', job: 7, due: 14 })),
  ]);
  plans.push([
    0,
    10,
    async () =>
      void (await draft(ada as Actor, {
        customer: 'Ingrid Fallowell',
        job: 0,
        due: 14,
        discount: '10%',
        note: 'Your cello is ready to try from Saturday. The old bridge is in the case pocket.',
      })),
  ]);
  plans.push(...billing.filter(([daysAgo]) => daysAgo <= 43));
  for (const { daysAgo, hour, work } of stockWork(ada as Actor, items))
    if (daysAgo <= 30) plans.push([daysAgo, hour, work]);
  plans.push(...refundPlans({ actor: ada as Actor, send: (plan) => send(ada as Actor, plan) }));
  plans.push(...debitPlans({ send: (plan) => send(ada as Actor, plan), pay, giveBack, look: lookAtDebits }));
  plans.push(...offerPlans({ actor: ada as Actor, token: cardToken, website: STANDINS, mail, now: () => present }));
  plans.sort((a, b) => b[0] - a[0] || a[1] - b[1]);
  for (const [daysAgo, hour, work] of plans) {
    at(daysAgo, hour);
    await work();
    await remindDue(programContext(BUSINESS.id, present));
    await mail();
  }
}

process.stdout.write(`Loading ${BUSINESS.name}, eighteen months up to ${dateInZone(begun, BUSINESS.zone)} …\n`);
await found();
await records();
const billing = planPlans({
  actor: ada,
  token: cardToken,
  customer: (name) => customers.find((one) => one.name === name)?.id ?? '',
  now: () => present,
  setClock: setStandInClock,
  mail,
});
for (const [daysAgo, hour, work] of billing) if (daysAgo > 43) later.push({ daysAgo, hour, work });
await history();
await lately();
await strayPayment();
await closeDays(programContext(BUSINESS.id, begun));
const today = dateInZone(begun, BUSINESS.zone);
const stage = {
  actor: ada,
  zone: BUSINESS.zone,
  to: addDays(today, -1),
  standIns: STANDINS,
  at: async (instant: Date) => {
    present = instant;
    await setStandInClock();
  },
};
await playPayouts({ ...stage, from: addDays(today, -DAYS), mail });
await playDisputes(stage);
await playParcels({ ...stage, today, items, mail });
present = begun;
await fetch(`${STANDINS}/clock`, {
  method: 'POST',
  headers: { 'content-type': 'application/json' },
  body: '{"real":true}',
});
await closePool();
process.exit(0);

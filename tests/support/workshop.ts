/** A small invented business for tests: one call gives a database, stand-ins, people, customers and taxes. */
import { randomUUID } from 'node:crypto';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { type Challenge, solveChallenge } from 'altcha-lib';
import { deriveKey } from 'altcha-lib/algorithms/pbkdf2';
import { afterAll } from 'vitest';
import { NEW_PROFILE } from '@/core/business/business';
import { newCustomer } from '@/core/customer/customer';
import { completePaper, type Paper } from '@/core/paper/paper';
import type { Role } from '@/core/person/rights';
import { NO_ADDRESS } from '@/core/place/address';
import { AS_BUSINESS } from '@/core/writing/writing';
import { type Business, insertBusiness, insertCounter, updateBusiness } from '@/db/businesses';
import { insertCustomer } from '@/db/customers';
import { invoiceById } from '@/db/invoices';
import type { DatabaseUrls } from '@/db/migrate';
import { type Actor, insertPerson } from '@/db/people';
import { closePool } from '@/db/pool';
import { insertTax } from '@/db/taxes';
import { inBusiness, readBusiness } from '@/db/transaction';
import { programContext } from '@/flows/door/program';
import type { Work } from '@/flows/door/work';
import { saveDraft, startInvoice } from '@/flows/invoice/draft';
import { sendInvoice } from '@/flows/invoice/send-invoice';
import { checkoutWork } from '@/flows/payment/card-testing';
import { PRETEND_ACCOUNTS } from '../../standins/cards/pretend-accounts';
import { PRETEND_CARDS } from '../../standins/cards/pretend-cards';
import { startStandIns } from '../../standins/server';
import { ownDatabase } from './database';

export type Workshop = {
  readonly admin: string;
  readonly standIns: string;
  readonly smtpPort: number;
  /** Ends the stand-ins, as a power cut would for whoever uses them. */
  readonly stopStandIns: () => Promise<void>;
  readonly close: () => Promise<void>;
};

/**
 * A fresh database and stand-ins, and the settings through which this process finds them.
 *
 * @param database where it works; a copy of the suite's template unless said otherwise
 */
export async function openWorkshop(
  more: Readonly<Record<string, string>> = {},
  database: () => Promise<DatabaseUrls & { admin: string }> = ownDatabase,
): Promise<Workshop> {
  const urls = await database();
  const started = await startStandIns({
    folder: mkdtempSync(join(tmpdir(), 'dahlia-standins-')),
    seed: 'test',
    httpPort: 0,
    smtpPort: 0,
    apiKey: 'test-key',
    appOrigins: ['http://localhost:1'],
    delay: [0, 0],
    late: { breaksMs: 0, knownMs: 500 },
    messagesApiKey: 'test-messages',
    bankApiKey: 'test-bank',
    identityApiKey: 'test-identity',
    carrierApiKey: 'test-carrier',
    mailReports: { url: '', secret: 'test-mail', delayMs: 0 },
    webhookUrl: 'http://127.0.0.1:1/nobody',
    webhookSecret: 'test-secret',
    webhookDelayMs: 60_000,
  });
  const standIns = `http://127.0.0.1:${started.httpPort}`;
  Object.assign(process.env, {
    DATABASE_URL: urls.app,
    JOBS_DATABASE_URL: urls.jobs,
    CARDS_URL: `${standIns}/cards`,
    CARDS_API_KEY: 'test-key',
    CARDS_WEBHOOK_SECRET: 'test-secret',
    CARDS_TIMEOUT_MS: '60000',
    CLOCK_URL: `${standIns}/clock`,
    CLOCK_FRESH_MS: '0',
    SMTP_URL: `smtp://127.0.0.1:${started.smtpPort}`,
    MAIL_FROM: 'post@dahlia.example',
    FILES_SECRET: 'test-files',
    SEALING_SECRET: 'test-sealing',
    MAIL_WEBHOOK_SECRET: 'test-mail',
    MESSAGES_URL: `${standIns}/messages`,
    MESSAGES_API_KEY: 'test-messages',
    BANK_URL: `${standIns}/bank`,
    BANK_API_KEY: 'test-bank',
    IDENTITY_URL: `${standIns}/identity`,
    IDENTITY_API_KEY: 'test-identity',
    CARRIER_URL: `${standIns}/carrier`,
    CARRIER_API_KEY: 'test-carrier',
    PUBLIC_URL: 'http://localhost:1',
    ...more,
  });
  let stopped: Promise<void> | undefined;
  const stopStandIns = () => (stopped ??= started.stop());
  return {
    admin: urls.admin,
    standIns,
    smtpPort: started.smtpPort,
    stopStandIns,
    close: async () => {
      await closePool();
      await stopStandIns();
    },
  };
}

/** The same for all tests of the file that asks for it, closed after the last of them: `const workshop = await sharedWorkshop();` */
export async function sharedWorkshop(...asked: Parameters<typeof openWorkshop>): Promise<Workshop> {
  const workshop = await openWorkshop(...asked);
  afterAll(() => workshop.close());
  return workshop;
}

const PROFILE: Business = {
  ...NEW_PROFILE,
  id: '',
  name: 'Sallow Joinery',
  address: ['3 Mill Yard', 'Alder Ferry'],
  phone: '(206) 555-0101',
  email: 'bench@sallow.example',
  website: 'sallow.example',
  taxNumber: '91-0000001',
  country: 'US',
  zone: 'America/Los_Angeles',
  paperLocale: 'en-US',
  deskLocale: 'en-US',
  currency: 'USD',
  pricesIncludeTax: false,
  smallestPayments: { USD: 100 },
  // The clocks of tests jump over many days at once.
  charging: { ...NEW_PROFILE.charging, missed: 'all' },
  mailConfirmedAt: new Date(0),
  cardsSince: new Date(0),
  verifiedAt: new Date(0),
};

export type House = {
  readonly business: Business;
  readonly owner: Actor;
  readonly bookkeeper: Actor;
  readonly clerk: Actor;
  readonly packer: Actor;
  readonly reader: Actor;
  readonly customerId: string;
  readonly taxId: string;
};

/** A business with somebody of each role, a customer and a tax of 10 percent. */
export async function foundHouse(name = 'Sallow Joinery', passwordHash = 'none', ownerEmail?: string): Promise<House> {
  const business: Business = { ...PROFILE, id: randomUUID(), name };
  const customerId = randomUUID();
  const taxId = randomUUID();
  const person = (role: Role): Actor & { readonly role: Role } => ({
    businessId: business.id,
    personId: randomUUID(),
    name: `${role} of ${name}`,
    role,
    extra: [],
    provedSeconds: 0,
    lacksStep: false,
    closed: false,
    writing: AS_BUSINESS,
  });
  const people = {
    owner: person('owner'),
    bookkeeper: person('bookkeeper'),
    clerk: person('clerk'),
    packer: person('packer'),
    reader: person('reader'),
  };
  await inBusiness(programContext(business.id), async (tx) => {
    await insertBusiness(tx, business);
    await updateBusiness(tx, business);
    for (const one of Object.values(people)) {
      const own = `${one.role}-${business.id.slice(0, 8)}@sallow.example`;
      const email = one.role === 'owner' ? (ownerEmail ?? own) : own;
      await insertPerson(tx, {
        id: one.personId,
        businessId: business.id,
        name: one.name,
        email,
        role: one.role,
        passwordHash,
      });
    }
    await insertTax(
      tx,
      {
        id: taxId,
        name: 'Sales tax',
        rate: '10',
        onDelivery: false,
        class: 'standard',
        country: 'US',
        retired: false,
      },
      0,
    );
    await insertCounter(tx, 'invoice', 1n);
    await insertCounter(tx, 'receipt', 1n);
    const billing = { ...NO_ADDRESS, lines: ['9 Weir Street'], country: 'US' };
    const customer = newCustomer('Perpetua Vane', { email: 'perpetua@vane.example', billing });
    await insertCustomer(tx, { id: customerId, ...customer });
  });
  return { business, ...people, customerId, taxId };
}

/** A paper over 2 × 50.00 with 10 percent tax: 110.00. */
export const plainPaper = (house: House, change: Partial<Paper> = {}): Paper =>
  completePaper({
    customerId: house.customerId,
    lines: [
      {
        id: randomUUID(),
        unit: 'piece',
        what: 'Drawer, dovetailed',
        quantity: '2',
        price: '50.00',
        discount: '',
        taxes: [house.taxId],
      },
    ],
    ...change,
  });

/** A draft with this paper, kept once. Returns its id; its revision is 1. */
export async function keptDraft(house: House, paper = plainPaper(house)): Promise<string> {
  const id = await startInvoice(house.owner);
  await saveDraft(house.owner, id, paper, 0);
  return id;
}

/** A sent invoice over 110.00 with the customer's link. */
export async function sentInvoice(
  house: House,
  paper = plainPaper(house),
): Promise<{ id: string; link: string; number: string }> {
  const id = await keptDraft(house, paper);
  const number = await sendInvoice(house.owner, id, 1, 'mail');
  const invoice = await readBusiness(programContext(house.business.id), (db) => invoiceById(db, id));
  if (!invoice) throw new Error('The invoice is gone');
  return { id, link: invoice.linkToken, number };
}

/** A token for a pretend card or bank account, as the processor's frame would get it. */
export async function cardToken(standIns: string, name: string): Promise<string> {
  const account = PRETEND_ACCOUNTS.find((known) => known.name === name);
  if (account) return tokenFor(standIns, { account: account.number, holder: 'Otto Reed' });
  return tokenOf(standIns, PRETEND_CARDS.find((card) => card.name === name)?.number ?? '');
}

/** The same for a number. */
export async function tokenOf(standIns: string, number: string): Promise<string> {
  const expiry = `08/${String(new Date().getUTCFullYear() + 2).slice(2)}`;
  return tokenFor(standIns, { number, expiry, code: '123' });
}

async function tokenFor(standIns: string, typed: Readonly<Record<string, string>>): Promise<string> {
  const answer = await fetch(`${standIns}/cards/tokens`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(typed),
  });
  return ((await answer.json()) as { token: string }).token;
}

/** What a payer's computer works out before an attempt is sent. @param called the offer's public id or short address */
export async function workDone(called: string): Promise<Work> {
  return solved(await checkoutWork(called));
}

/** The same over HTTP. @param path of the interface, as `/api/pay/TOKEN` */
export async function fetchedWork(web: string, path: string): Promise<Work> {
  const answer = await fetch(`${web}${path}/challenge`);
  return solved(((await answer.json()) as { value: Challenge }).value);
}

async function solved(challenge: Challenge): Promise<Work> {
  const solution = await solveChallenge({ challenge, deriveKey });
  if (!solution) throw new Error('The work was not done');
  return { challenge, solution };
}

export type StoredMail = {
  to: string[];
  from: string;
  replyTo: string;
  subject: string;
  text: string;
  html: string;
  messageId: string;
  attachments: { filename: string; contentType: string; size: number }[];
};

/** Everything in the stand-ins' mailbox for an address, latest first. */
export async function mailOf(standIns: string, to: string): Promise<StoredMail[]> {
  const answer = await fetch(`${standIns}/mail/api/messages?to=${encodeURIComponent(to)}`);
  return ((await answer.json()) as { messages: StoredMail[] }).messages;
}

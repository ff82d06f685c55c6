import type { AskedState } from '@/core/invoice/ask';
import { ASKED_STATES, EVERYTHING } from '@/core/invoice/ask';
import { sendBy } from '@/core/invoice/send-with';
import { invoiceState } from '@/core/invoice/state';
import { jsonMinor } from '@/core/money/money';
import type { Actor } from '@/flows/door/rights';
import { cancelInvoice } from '@/flows/invoice/cancel-invoice';
import { creditInvoice } from '@/flows/invoice/credit-invoice';
import { invoiceSheet, printedOf } from '@/flows/invoice/invoice-sheet';
import { searchInvoices } from '@/flows/invoice/search-invoices';
import { sendInvoice } from '@/flows/invoice/send-invoice';
import { writeInvoice } from '@/flows/invoice/write-invoice';
import { businessToday } from '@/flows/payment/payment-list';
import { recordReceived } from '@/flows/payment/receive-payment';
import {
  CancellingWritten,
  CreditingWritten,
  InvoicesAsked,
  InvoiceWritten,
  NothingWritten,
  ReceivedWritten,
  SendingWritten,
} from '@/input/program-input';
import { act, create, cursorOf, cursorText, type Endpoint, get, saidOf } from '../endpoint';
import { DAY, ID, list, MINOR, object, oneOfWords, orNull, page, TEXT } from '../schema';

const HEAD = {
  id: ID,
  number: orNull(TEXT),
  state: oneOfWords(ASKED_STATES),
  customerId: orNull(ID),
  currency: TEXT,
  totalMinor: MINOR,
  dueMinor: MINOR,
  issuedOn: orNull(DAY),
  dueOn: orNull(DAY),
  title: TEXT,
  reference: TEXT,
};

const LINE = object({
  what: TEXT,
  quantity: TEXT,
  unitPrice: TEXT,
  netMinor: MINOR,
  taxes: list(TEXT),
  note: TEXT,
});

const INVOICE = object({
  ...HEAD,
  paidMinor: MINOR,
  refundedMinor: MINOR,
  creditedMinor: MINOR,
  taxMinor: MINOR,
  note: TEXT,
  /** As its reader sees it: a trading name, or the business's own. */
  sellerName: TEXT,
  lines: list(LINE),
  link: orNull(TEXT),
});

const stateOf = (...given: Parameters<typeof invoiceState>): AskedState =>
  ASKED_STATES.find(
    (state) =>
      state ===
      invoiceState(...given)
        .toLowerCase()
        .replace('part-paid', 'part'),
  ) ?? 'draft';

/** An invoice as it stands now. */
async function shown(actor: Actor, id: string): Promise<object> {
  const sheet = await invoiceSheet(actor, id);
  const { invoice, today } = sheet;
  const printed = printedOf(sheet);
  const isDraft = invoice.stage === 'draft';
  return {
    id,
    number: invoice.number,
    state: stateOf(invoice, today),
    customerId: invoice.customerId,
    currency: invoice.currency,
    totalMinor: jsonMinor(invoice.totalMinor),
    dueMinor: jsonMinor(invoice.stage === 'cancelled' ? 0n : invoice.dueMinor),
    issuedOn: invoice.issuedOn,
    dueOn: invoice.dueOn,
    title: printed.title,
    reference: printed.reference,
    paidMinor: jsonMinor(invoice.paidMinor),
    refundedMinor: jsonMinor(invoice.refundedMinor),
    creditedMinor: jsonMinor(invoice.creditedMinor),
    taxMinor: printed.taxTotal,
    note: printed.note,
    sellerName: printed.seller.name,
    lines: printed.lines.map(({ what, quantity, unitPrice, net, taxes, note }) => ({
      what,
      quantity,
      unitPrice,
      netMinor: net,
      taxes,
      note: note ?? '',
    })),
    link: isDraft ? null : sheet.link,
  };
}

const BEHIND = '/invoices/{id}';

export const INVOICES: readonly Endpoint[] = [
  get('/invoices', {
    what: 'Invoices that were sent, latest due first; drafts where state says so',
    right: 'see',
    input: InvoicesAsked,
    answers: page(object(HEAD)),
    run: async (actor, { input: { after, ...asked } }) => {
      const { today } = await businessToday(actor);
      const { rows, next } = await searchInvoices(actor, { ...EVERYTHING, ...saidOf(asked) }, cursorOf(after));
      return {
        data: rows.map((row) => ({
          id: row.id,
          number: row.number,
          state: stateOf(row, today),
          customerId: row.customerId,
          currency: row.currency,
          totalMinor: jsonMinor(row.totalMinor),
          dueMinor: jsonMinor(row.dueMinor),
          issuedOn: row.issuedOn,
          dueOn: row.dueOn,
          title: row.title,
          reference: row.reference,
        })),
        next: cursorText(next),
      };
    },
  }),
  create('/invoices', {
    what: 'Write an invoice as a draft',
    right: 'ask',
    input: InvoiceWritten,
    answers: INVOICE,
    run: async (actor, { input }) => shown(actor, await writeInvoice(actor, input)),
  }),
  get(BEHIND, {
    what: 'An invoice',
    right: 'see',
    input: NothingWritten,
    answers: INVOICE,
    run: (actor, { ids: [id = ''] }) => shown(actor, id),
  }),
  act(`${BEHIND}/send`, {
    what: 'Send an invoice: it gets its number and is final',
    right: 'ask',
    input: SendingWritten,
    answers: INVOICE,
    run: async (actor, { input: { way, text }, ids: [id = ''] }) => {
      const { invoice } = await invoiceSheet(actor, id);
      await sendInvoice(actor, id, invoice.revision, sendBy(way, { text }));
      return shown(actor, id);
    },
  }),
  act(`${BEHIND}/cancel`, {
    what: 'Cancel an invoice on which nothing was paid',
    right: 'ask',
    input: CancellingWritten,
    answers: INVOICE,
    run: async (actor, { input: { reason, tell }, ids: [id = ''] }) => {
      await cancelInvoice(actor, id, reason, tell);
      return shown(actor, id);
    },
  }),
  act(`${BEHIND}/credit`, {
    what: 'Write a credit note over a sum',
    right: 'ask',
    input: CreditingWritten,
    answers: INVOICE,
    run: async (actor, { input: { amountMinor, ...more }, ids: [id = ''], requestKey }) => {
      await creditInvoice(actor, id, { ...more, amountMinor: BigInt(amountMinor), requestKey });
      return shown(actor, id);
    },
  }),
  act(`${BEHIND}/payments`, {
    what: 'Write down money that came another way',
    right: 'take',
    input: ReceivedWritten,
    answers: INVOICE,
    run: async (actor, { input: { amountMinor, ...more }, ids: [id = ''], requestKey }) => {
      await recordReceived(actor, id, { ...more, amountMinor: BigInt(amountMinor), requestKey });
      return shown(actor, id);
    },
  }),
];

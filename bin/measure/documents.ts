/** PDFs, a batch down to its mails, and customers from a file. */
import { randomUUID } from 'node:crypto';
import { newCustomer } from '@/core/customer/customer';
import { guessedMapping } from '@/core/customer/import-rows';
import { completePrinted } from '@/core/invoice/printed';
import { sendBy } from '@/core/invoice/send-with';
import { queuedMessages } from '@/db/messages';
import { readBusiness } from '@/db/transaction';
import { invoicePdf } from '@/documents/pdf/draw';
import { programContext } from '@/flows/door/program';
import { checkBulk, runBulk, sendBulk } from '@/flows/invoice/bulk-invoices';
import { invoiceSheet, printedOf } from '@/flows/invoice/invoice-sheet';
import { handOverMessage } from '@/flows/post/hand-over-message';
import { addCustomer } from '@/flows/records/customers';
import { checkCustomers, importCustomers } from '@/flows/records/import-customers';
import { foundHouse, keptDraft, plainPaper, sentInvoice } from '../../tests/support/workshop';
import { report, timedEach } from './report';

/** A PDF of 20 lines, one after another as a worker makes them. */
export async function measurePdf(): Promise<void> {
  const house = await foundHouse('Printing');
  const [line] = plainPaper(house).lines;
  if (!line) throw new Error('No line');
  const lines = Array.from({ length: 20 }, (_, at) => ({
    ...line,
    id: randomUUID(),
    what: `Drawer ${at}, dovetailed and fitted`,
  }));
  const { id } = await sentInvoice(house, plainPaper(house, { lines }));
  const printed = completePrinted(printedOf(await invoiceSheet(house.owner, id)));
  await timedEach(3, () => invoicePdf(printed));
  const { times, seconds } = await timedEach(40, () => invoicePdf(printed));
  report('PDF of 20 lines', times, seconds);
}

/** A batch of so many: from pressing send until every mail is handed over, four at a time as the worker does. */
export async function measureBulk(count: number): Promise<void> {
  const house = await foundHouse('Batching');
  for (let at = 0; at < count; at++)
    await addCustomer(
      house.owner,
      newCustomer(`Singer ${at}`, { email: `singer${at}@choir.example`, groups: ['Choir'] }),
    );
  const draft = await keptDraft(house);
  const batch = await checkBulk(
    house.owner,
    draft,
    'Tickets',
    { customerIds: [], group: 'Choir', rows: [] },
    sendBy('mail'),
  );
  const begun = performance.now();
  await sendBulk(house.owner, batch);
  await runBulk(house.business.id, batch);
  const sent = performance.now();
  const waiting = await readBusiness(programContext(house.business.id), (db) => queuedMessages(db));
  await Promise.all(
    Array.from({ length: 4 }, async () => {
      for (let next = waiting.pop(); next; next = waiting.pop()) await handOverMessage(house.business.id, next.id);
    }),
  );
  const seconds = (performance.now() - begun) / 1000;
  report(`batch of ${count}, to all mails handed over`, [seconds * 1000], seconds, {
    secondsToNumbers: Number(((sent - begun) / 1000).toFixed(2)),
    perSecond: Number((count / seconds).toFixed(1)),
  });
}

/** Rows of a file checked and written, in the parts that the page sends. */
export async function measureImport(count: number): Promise<void> {
  const house = await foundHouse('Importing');
  const mapping = guessedMapping(['Name', 'E-mail', 'Phone', 'Street', 'City', 'State', 'ZIP', 'Country']);
  const rows = Array.from({ length: count }, (_, at) => [
    `Person ${at}`,
    `person${at}@import.example`,
    '(206) 555-0100',
    `${at} Weir Street`,
    'Alder Ferry',
    'Washington',
    '98199',
    'United States',
  ]);
  for (const [name, work] of [
    ['checked', checkCustomers],
    ['written', importCustomers],
  ] as const) {
    const begun = performance.now();
    for (let from = 0; from < rows.length; from += 1000)
      await work(house.owner, rows.slice(from, from + 1000), mapping, 'refuse');
    const seconds = (performance.now() - begun) / 1000;
    report(`${count} customers ${name}`, [seconds * 1000], seconds, { rowsPerSecond: Math.round(count / seconds) });
  }
}

import { randomUUID } from 'node:crypto';
import { expect, test } from 'vitest';
import { newCustomer } from '@/core/customer/customer';
import { queuedMessages } from '@/db/messages';
import { readBusiness } from '@/db/transaction';
import { programContext } from '@/flows/door/program';
import { storeFile } from '@/flows/file/store-file';
import { takePayment } from '@/flows/payment/take-payment';
import { handOverMessage } from '@/flows/post/hand-over-message';
import { addCustomer } from '@/flows/records/customers';
import {
  cardToken,
  foundHouse,
  keptDraft,
  mailOf,
  plainPaper,
  sentInvoice,
  sharedWorkshop,
} from '../../../tests/support/workshop';
import { approverOf } from './approvers';
import { changeInvoice } from './change-invoice';
import { decideFile } from './consent';
import { invoiceSheet } from './invoice-sheet';
import { viewByLink } from './payer-page';
import { sendInvoice } from './send-invoice';

const workshop = await sharedWorkshop();
const house = await foundHouse();
const mailAll = async () => {
  for (const { id } of await readBusiness(programContext(house.business.id), (db) => queuedMessages(db)))
    await handOverMessage(house.business.id, id);
};
const signIn = async (address: string) => {
  const mail = (await mailOf(workshop.standIns, address)).find(({ subject }) => subject.startsWith('Please approve'));
  return decodeURIComponent(/approver=([^\s"&]+)/.exec(mail?.text ?? '')?.[1] ?? '');
};
const person = (name: string) => ({ id: randomUUID(), name, email: `${randomUUID()}@approves.example` });
const plan = async () => storeFile(house.owner, 'plan.csv', 'attachment', Buffer.from('a;b\n1;2\n'));

test('each has a link of their own; all of them, and nobody else, let the payment through; who said what when is kept', async () => {
  const [ada, bo, cy] = [person('Ada Okafor'), person('Bo Lind'), person('Cy Reed')];
  const file = { ...(await plan()), approve: true, approvers: [ada, bo] };
  const customer = await addCustomer(house.owner, newCustomer('Payer', { email: `${randomUUID()}@payer.example` }));
  const paper = plainPaper(house, { customerId: customer.id, files: [file] });
  const { id, link } = await sentInvoice(house, paper);
  await mailAll();
  const pay = async () =>
    takePayment(
      link,
      { attemptKey: randomUUID(), cardToken: await cardToken(workshop.standIns, 'corvid-good'), amountMinor: 11_000n },
      'a',
    );
  const decide = (approver: string, decision: 'approved' | 'change' = 'approved') =>
    decideFile(link, file.id, { decision, comment: '', byName: 'Somebody else', approver });
  const [adas, bos] = [await signIn(ada.email), await signIn(bo.email)];
  await expect(decide('')).rejects.toMatchObject({ code: 'not-asked' });
  await expect(decide(`${bo.id}.${adas.split('.')[1]}`)).rejects.toMatchObject({ code: 'not-asked' });
  await decide(adas);
  await expect(pay()).rejects.toMatchObject({ code: 'approve-first' });
  await decide(bos, 'change');
  await expect(pay()).rejects.toMatchObject({ code: 'approve-first' });

  // Somebody more is asked: only they get a mail, and the others' words stand.
  const more = { ...paper, files: [{ ...file, approvers: [ada, bo, cy] }] };
  await changeInvoice(house.owner, id, more, 1, false);
  await mailAll();
  expect((await mailOf(workshop.standIns, ada.email)).length).toBe(1);
  await decide(bos);
  await expect(pay()).rejects.toMatchObject({ code: 'approve-first' });
  await decide(await signIn(cy.email));
  const said = (await invoiceSheet(house.owner, id)).approvals.map(({ byName, decision }) => `${byName}: ${decision}`);
  expect(said.sort()).toEqual(['Ada Okafor: approved', 'Bo Lind: approved', 'Cy Reed: approved']);
  expect(await pay()).toMatchObject({ state: 'paid' });

  // A sign opens the invoice that it was made for, and no other.
  const other = await sentInvoice(house, more);
  const view = await viewByLink(other.link);
  expect(view && approverOf(view, adas)).toBeNull();
});

test('an approver without a whole address keeps the invoice from being sent, in words', async () => {
  const file = { ...(await plan()), approve: true, approvers: [{ ...person('Ada'), email: 'ada@' }] };
  await expect(
    sendInvoice(house.owner, await keptDraft(house, plainPaper(house, { files: [file] })), 1, 'mail'),
  ).rejects.toMatchObject({
    code: 'paper-not-ready',
    fields: [{ field: 'files' }],
  });
});

import { expect, test } from 'vitest';
import { USUAL_WAYS } from '@/core/paper/paper';
import { ledgerTroubles } from '@/db/ledger';
import { readBusiness } from '@/db/transaction';
import { programContext } from '@/flows/door/program';
import { invoiceSheet } from '@/flows/invoice/invoice-sheet';
import { keepPlan, sendPlan } from '@/flows/plan/plans';
import { voucherList } from '@/flows/voucher/vouchers';
import { asSuperuser } from '../support/database';
import { decideDebit } from '../support/debits';
import { placedOffer } from '../support/offers';
import { sharedOwnerDesk } from '../support/owner-desk';
import {
  byName,
  choose,
  expectAccessible,
  fillAccount,
  fillCard,
  openPage,
  press,
  pressOn,
  type,
  untilShown,
  untilTrue,
  visit,
  visitAgain,
} from '../support/person';
import { planTerms } from '../support/plans';
import { until } from '../support/until';
import { mailOf, plainPaper, sentInvoice } from '../support/workshop';

const { stack, house, page, errors, browser } = await sharedOwnerDesk();
const { page: payer, errors: payerErrors } = await openPage(browser, { width: 390, height: 844 });

const books = () => readBusiness(programContext(house.business.id), (db) => ledgerTroubles(db));
const paymentOf = async (invoiceId: string): Promise<string> => {
  const [row] = await asSuperuser<{ id: string }>(
    stack.admin,
    'select id from payments where invoice_id = $1 order by started_at desc limit 1',
    [invoiceId],
  );
  return row?.id ?? '';
};

test('an invoice from a bank account, on a phone: what is agreed to is said, it waits through a reload, is paid, and comes back', async () => {
  const ways = { ...USUAL_WAYS, debit: true };
  const { id, link } = await sentInvoice(house, plainPaper(house, { ways }));
  await visit(payer, `${stack.web}/i/${link}`);
  await untilShown(payer, 'Pay $110.00');
  await fillAccount(payer, 'account-good');
  await untilShown(payer, 'I allow Sallow Joinery to collect $110.00 once from my account');
  await expectAccessible(payer, 'an invoice to be paid from an account');
  await press(payer, 'Pay $110.00', 'button');
  await untilShown(payer, 'Whether it is paid is known by');
  await visitAgain(payer);
  await untilShown(payer, 'there is nothing more to do');
  expect(await payer.$('iframe.card-fields')).toBeTruthy();
  const paymentId = await paymentOf(id);
  await visit(page, `${stack.web}/money/payments/${paymentId}`);
  await untilShown(page, 'Known whether it is paid');
  // The bank pays, and the desk sees it by itself.
  expect(await decideDebit(stack, paymentId)).toBe(true);
  await untilShown(page, 'In the day’s closing');
  await visitAgain(payer);
  await untilShown(payer, 'Paid in full');
  expect(await decideDebit(stack, paymentId, 'MD06')).toBe(true);
  await untilShown(page, 'Came back');
  await untilShown(page, 'the payer asked their bank for it back');
  await visit(page, `${stack.web}/today`);
  await untilShown(page, 'the bank debit came back');
  await visitAgain(payer);
  await untilShown(payer, 'You asked your bank for this payment back');
  await fillCard(payer, 'corvid-good');
  await press(payer, 'Pay $110.00', 'button');
  await untilShown(payer, 'Paid in full');
  expect(await books()).toEqual([]);
});

test('a plan is begun with an account in place of a card', async () => {
  const terms = planTerms(house, '2031-01-02');
  const { id } = await keepPlan(house.owner, null, { terms, memo: '', reference: '' });
  await sendPlan(house.owner, id, 'mail');
  const [row] = await asSuperuser<{ token: string }>(
    stack.admin,
    'select link_token as token from plans where id = $1',
    [id],
  );
  await visit(payer, `${stack.web}/a/${row?.token}`);
  await untilShown(payer, 'Your card or bank account');
  await press(payer, 'I agree to this', 'checkbox');
  await type(payer, 'Your name', 'Wren Abernathy');
  await fillAccount(payer, 'account-other');
  await press(payer, 'Agree, and begin', 'button');
  await until('the plan runs', async () => {
    const [plan] = await asSuperuser<{ state: string }>(stack.admin, 'select state from plans where id = $1', [id]);
    return plan?.state === 'active';
  });
  await visit(page, `${stack.web}/ask/plans/${id}`);
  await untilShown(page, 'Bank account ·');
});

test('a voucher for somebody on a day, bought on a phone; used at the checkout, on an invoice and at the desk; put back', async () => {
  const sale = await placedOffer(house, { kind: 'open', ownAmount: true, title: 'A gift voucher', voucher: true });
  await visit(payer, `${stack.web}/c/${sale.called}`);
  await untilShown(payer, 'Who is it for?');
  await type(payer, 'Amount, USD', '100');
  await type(payer, 'Name', 'Ida Marsh');
  await type(payer, 'E-mail address', 'ida@marsh.example');
  await press(payer, 'For somebody else', 'radio');
  await type(payer, 'Their name', 'Solveig Nordahl');
  await type(payer, 'Their e-mail', 'solveig@');
  await type(payer, 'Your words to them (if you like)', 'For the new strings');
  await fillCard(payer, 'corvid-good');
  await press(payer, 'Pay $100.00', 'button');
  await untilShown(payer, 'Write the whole address');
  await type(payer, 'Their e-mail', 'solveig@nordahl.example');
  await untilTrue(payer, () => !document.body.innerText.includes('Write the whole address'));
  await expectAccessible(payer, 'a voucher to be bought');
  await pressOn(payer, 'Pay $100.00', '/o/');
  await untilShown(payer, 'The voucher goes to Solveig Nordahl');
  let address = '';
  await until('the voucher comes', async () => {
    const [mail] = await mailOf(stack.standIns, 'solveig@nordahl.example');
    address = /\/v\/[\w.-]+/.exec(mail?.text ?? '')?.[0] ?? '';
    return address !== '';
  });
  await visit(payer, `${stack.web}${address}`);
  await untilShown(payer, 'Left on it');
  await expectAccessible(payer, 'a voucher’s page');
  const [voucher] = (await voucherList(house.owner, { words: 'Solveig', after: '' })).rows;
  const code = voucher?.code ?? '';

  // 44.00 of it at a checkout, without a card.
  const shop = await placedOffer(house, { prices: { USD: '40' }, title: 'A setting' });
  await visit(payer, `${stack.web}/c/${shop.called}`);
  await type(payer, 'Name', 'Solveig Nordahl');
  await type(payer, 'E-mail address', 'solveig@nordahl.example');
  await press(payer, 'I have a gift voucher');
  await type(payer, 'Code of the voucher', 'WRONG');
  await payer.keyboard.press('Enter');
  await untilShown(payer, 'There is no voucher with this code');
  await type(payer, 'Code of the voucher', code.toLowerCase());
  await payer.keyboard.press('Enter');
  await untilShown(payer, '$44.00 is paid by the voucher. $56.00 stays on it.');
  await pressOn(payer, 'Pay with the voucher', '/o/');
  await untilShown(payer, 'Gift voucher …');

  // 30.00 on an invoice of 110.00 at the desk, the rest of it by its customer's link.
  const { id, link } = await sentInvoice(house);
  await visit(payer, `${stack.web}/i/${link}`);
  await press(payer, 'I have a gift voucher');
  await type(payer, 'Code of the voucher', code);
  await press(payer, 'Look', 'button');
  await untilShown(payer, 'Left to pay: $54.00');
  await press(payer, 'Use $56.00 of it', 'button');
  await untilShown(payer, 'Pay $54.00');
  const other = await placedOffer(house, { kind: 'open', ownAmount: true, title: 'Another voucher', voucher: true });
  await visit(payer, `${stack.web}/c/${other.called}`);
  await type(payer, 'Amount, USD', '20');
  await type(payer, 'Name', 'Ida Marsh');
  await type(payer, 'E-mail address', 'ida@marsh.example');
  await fillCard(payer, 'corvid-good');
  await pressOn(payer, 'Pay $20.00', '/o/');
  const [own] = (await voucherList(house.owner, { words: 'ida@', after: '' })).rows;
  await visit(page, `${stack.web}/ask/invoices/${id}`);
  await choose(page, 'More to do with this invoice', 'Take a gift voucher');
  await type(page, 'Code of the voucher', own?.code ?? '');
  await press(page, 'Look it up', 'button');
  await untilShown(page, '$34.00 is left to pay');
  await press(page, 'Use $20.00 of it', 'button');
  await untilShown(page, '$34.00');
  await until('it is paid in part', async () => (await invoiceSheet(house.reader, id)).invoice.dueMinor === 3400n);

  // The desk sees where it went, and puts what the invoice got back on it.
  await visit(page, `${stack.web}/records/vouchers`);
  await untilShown(page, 'Owed by vouchers');
  await expectAccessible(page, 'vouchers');
  await visit(page, `${stack.web}/records/vouchers/${voucher?.id}`);
  await untilShown(page, 'used up');
  await expectAccessible(page, 'a voucher');
  const [byVoucher] = (await invoiceSheet(house.reader, id)).payments.filter(
    ({ voucherId }) => voucherId === voucher?.id,
  );
  await visit(page, `${stack.web}/money/payments/${byVoucher?.id}`);
  await press(page, 'Refund', 'button');
  await press(page, 'Everything', 'button');
  await untilShown(page, 'is put back on the voucher');
  await type(page, 'Why, as the payer reads it', 'A mistake');
  await press(page, 'Refund $56.00', 'button');
  await until('it is put back', async () => {
    const [again] = (await voucherList(house.owner, { words: 'Solveig', after: '' })).rows;
    return again?.balanceMinor === 5600n;
  });
  await visit(page, `${stack.web}/records/vouchers/${voucher?.id}`);
  await press(page, 'Stop it', 'button');
  await untilShown(page, 'Let it go on');
  await byName(page, 'Let it go on', 'button');
  expect(await books()).toEqual([]);
  expect([errors, payerErrors]).toEqual([[], []]);
});

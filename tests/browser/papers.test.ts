/** What stands on an invoice: numbers in either reading, what is opened and typed into, who approves, money taken back. */
import { randomUUID } from 'node:crypto';
import sharp from 'sharp';
import { expect, test } from 'vitest';
import { newLine, USUAL_WAYS } from '@/core/paper/paper';
import { invoiceSheet } from '@/flows/invoice/invoice-sheet';
import { recordReceived } from '@/flows/payment/receive-payment';
import { sharedOwnerDesk } from '../support/owner-desk';
import {
  choose,
  expectAccessible,
  fillCard,
  give,
  openPage,
  press,
  shown,
  type,
  untilShown,
  untilTrue,
  visit,
} from '../support/person';
import { until } from '../support/until';
import { keptDraft, mailOf, plainPaper, sentInvoice } from '../support/workshop';

const { stack, house, page, errors, browser } = await sharedOwnerDesk();

const held = (name: string) => page.$eval(`[aria-label="${name}"]`, (field) => (field as HTMLInputElement).value);
const compose = async (id: string) => {
  await visit(page, `${stack.web}/ask/compose/${id}`);
};

test('what is asked for takes the next letter: title, number, delivery, a fee, a tax, an exemption, a line’s note', async () => {
  await compose(await keptDraft(house, plainPaper(house, { customerId: house.customerId })));
  await page.focus('textarea[aria-label="Line 1: what for"]');
  // Letters that are keys of the desk: n begins an invoice, g leads away, j and k walk a list.
  for (const [opener, letters] of [
    ['Code, day, note', '2026-11-03'],
    ['Title', 'nightingale'],
    ['Number', 'n77'],
    ['Delivery', '5'],
    ['A fee', 'gown'],
    ['A flat tax', 'kerb'],
    ['No tax at all', 'e'],
  ] as const) {
    await press(page, opener, 'button');
    await untilTrue(page, () => /INPUT|TEXTAREA|BUTTON/.test(document.activeElement?.tagName ?? ''));
    await page.keyboard.type(letters);
    if (opener === 'No tax at all') await page.keyboard.press('Escape');
  }
  expect(await page.evaluate(() => location.pathname)).toContain('/ask/compose/');
  expect(await held('Delivery: what the customer pays')).toBe('5');
  const typed = await page.$$eval('input', (fields) => fields.map(({ value }) => value));
  for (const words of ['nightingale', 'n77', 'gown', 'kerb']) expect(typed).toContain(words);
  await expectAccessible(page, 'composer with everything on it');
});

test('a number that can be read in two ways is asked about, and either answer ends it; all of a line taken off is said there', async () => {
  const price = 'Line 1: price of one';
  const asked = () => page.$$eval('[role=status] button', (buttons) => buttons.map(({ innerText }) => innerText));
  await compose(
    await keptDraft(house, plainPaper(house, { lines: [newLine(randomUUID(), 'piece', { what: 'Oak' })] })),
  );
  await type(page, price, '1,500');
  expect(await asked()).toEqual(['1500 is meant', '1.500 is meant']);
  await press(page, '1.500 is meant', 'button');
  expect([await held(price), await asked()]).toEqual(['1.500', []]);
  await type(page, price, '2,500');
  await press(page, '2500 is meant', 'button');
  expect([await held(price), await asked()]).toEqual(['2500', []]);
  await type(page, 'Line 1: how much', '0,25');
  await untilShown(page, '625.00');
  await type(page, 'Line 1: discount, as 10% or an amount', '100%');
  await press(page, 'Send invoice', 'button');
  await untilShown(page, 'All of it is taken off');
  expect(await page.evaluate(() => document.activeElement?.getAttribute('aria-label'))).toBe(
    'Line 1: discount, as 10% or an amount',
  );
});

test('two approve by name, each by their own link; nobody pays before, and the sheet says who did when', async () => {
  const png = await sharp({ create: { width: 60, height: 60, channels: 3, background: '#f4e1e8' } })
    .png()
    .toBuffer();
  const id = await keptDraft(house);
  await compose(id);
  await give(page, stack.folder, 'drawing.png', png);
  await press(page, 'to be approved', 'checkbox');
  for (const [opener, name, address] of [
    ['Name somebody', 'Pia Vane', 'pia@vane.example'],
    ['And somebody else', 'Noor Brandt', 'noor@brandt.example'],
  ] as const) {
    await press(page, opener, 'button');
    await page.keyboard.type(name);
    await page.keyboard.press('Tab');
    await page.keyboard.type(address);
  }
  await press(page, 'Send invoice', 'button');
  await (await page.waitForSelector('[role=dialog] .btn-go'))?.click();
  await untilTrue(page, () => location.pathname.startsWith('/ask/invoices/'));
  const linkTo = async (address: string) => {
    let link = '';
    await until('the approver’s mail', async () => {
      const [mail] = (await mailOf(stack.standIns, address)).filter(({ text }) => /\/i\//.test(text));
      link = /http:\S+\/i\/\S+/.exec(mail?.text ?? '')?.[0] ?? '';
      return link !== '';
    });
    return link;
  };
  const phone = await openPage(browser, { width: 390, height: 844 });
  const payers = await linkTo('perpetua@vane.example');
  await visit(phone.page, payers);
  expect(await shown(phone.page)).toContain('Waits for Pia Vane and Noor Brandt');
  await (await phone.page.waitForSelector('button.btn-tall'))?.click();
  await untilShown(phone.page, 'A file above has to be approved first. It waits for Pia Vane and Noor Brandt.');
  expect(await phone.page.$('::-p-aria([name="Approve"][role="button"])')).toBeNull();
  for (const [address, name] of [
    ['pia@vane.example', 'Pia Vane'],
    ['noor@brandt.example', 'Noor Brandt'],
  ] as const) {
    await visit(phone.page, await linkTo(address));
    await press(phone.page, 'Approve', 'button');
    await untilShown(phone.page, `by ${name}`);
  }
  await visit(phone.page, payers);
  await untilShown(phone.page, 'by Noor Brandt');
  await fillCard(phone.page, 'corvid-good');
  await (await phone.page.waitForSelector('button.btn-tall'))?.click();
  await untilShown(phone.page, 'Receipt');
  phone.close();
  await untilShown(page, 'approved by Pia Vane on');
  await untilShown(page, 'approved by Noor Brandt on');
});

test('a payment that was written down by mistake is taken back: the invoice owes it again', async () => {
  const { id } = await sentInvoice(house, plainPaper(house, { ways: { ...USUAL_WAYS, parts: true } }));
  const received = {
    amountMinor: 3000n,
    method: 'cash',
    reference: '',
    receivedOn: '',
    requestKey: randomUUID(),
  } as const;
  await recordReceived(house.owner, id, received);
  await visit(page, `${stack.web}/ask/invoices/${id}`);
  await untilShown(page, '80.00 still due');
  await choose(page, 'More to do with this invoice', 'Void $30.00, in cash');
  await untilShown(page, 'It was recorded by mistake');
  await type(page, 'Why', 'It was another customer’s');
  await press(page, 'Void it', 'button');
  await untilShown(page, '110.00 still due');
  expect((await invoiceSheet(house.owner, id)).invoice).toMatchObject({ paidMinor: 0n });
  expect(errors).toEqual([]);
});

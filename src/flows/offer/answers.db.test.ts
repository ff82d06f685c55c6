/** What payers answered and what packing needs: as a table, as a file, in the notice; a link's picture, and a page's requests. */
import { randomUUID } from 'node:crypto';
import { expect, test } from 'vitest';
import type { OfferField } from '@/core/offer/offer';
import { checkoutPage, offerPicturePath } from '@/flows/checkout/checkout-page';
import { handOverMessage } from '@/flows/post/hand-over-message';
import { asSuperuser } from '../../../tests/support/database';
import { paidOrder, placedOffer } from '../../../tests/support/offers';
import { foundHouse, mailOf, sharedWorkshop } from '../../../tests/support/workshop';
import { offerAnswers, offerAnswersCsv } from './answers';
import { keepOffer, offerSheet } from './offers';
import { sendRequest } from './requests';

const workshop = await sharedWorkshop();
const field = (label: string, more: Partial<OfferField> = {}): OfferField => ({
  id: randomUUID(),
  kind: 'text',
  label,
  help: '',
  required: false,
  choices: [],
  onReceipt: false,
  ...more,
});

test('answers of an offer stand in a table and a file, and the notice of a payment has all that packing needs', async () => {
  const house = await foundHouse();
  const fields = [field('Bow hand'), field('=SUM(1)')];
  const offer = await placedOffer(house, {
    prices: { USD: '40' },
    fields,
    phone: 'may',
    message: true,
    billing: 'may',
    notify: ['bench@sallow.example'],
  });
  const [hand, formula] = fields.map(({ id }) => id);
  const address = { lines: ['4 Kiln Road'], city: 'Fenwick', region: '', postalCode: '12345', country: 'DE' };
  await paidOrder(workshop, offer.called, {
    answers: { [hand ?? '']: 'Ëlie, left', [formula ?? '']: '=1+1' },
    phone: '555 0100',
    message: 'Ring\ntwice',
    billing: address,
  });
  await paidOrder(workshop, offer.called, { name: 'Бо Линд' });
  const table = await offerAnswers(house.reader, offer.id);
  expect(table.questions).toEqual(['Bow hand', '=SUM(1)']);
  expect(table.rows.map(({ payer, cells }) => [payer, ...cells.map(({ text }) => text)])).toEqual([
    ['Бо Линд', '', ''],
    ['Ida Marsh', 'Ëlie, left', '=1+1'],
  ]);
  const [headings, ...lines] = (await offerAnswersCsv(house.reader, offer.id)).split('\r\n');
  expect(headings).toMatch(
    /^at,reference,payer,email,phone,deliver to,bought,message,paid,currency,state,Bow hand,'=SUM\(1\)$/,
  );
  expect(lines.join('\n')).toContain('"Ëlie, left",\'=1+1');
  expect(lines.join('\n')).toContain('44.00,USD,paid');
  for (const { id } of await asSuperuser<{ id: string }>(
    workshop.admin,
    `select id from messages where kind = 'order-notice' and to_address = 'bench@sallow.example'`,
  ))
    await handOverMessage(house.business.id, id);
  const notice = (await mailOf(workshop.standIns, 'bench@sallow.example')).find(({ text }) => text.includes('Ida'));
  for (const words of ['4 Kiln Road', 'Fenwick', '555 0100', 'Ring', 'Ëlie, left', 'ida@marsh.example'])
    expect(notice?.text, words).toContain(words);
  const other = await foundHouse('Elsewhere');
  for (const asked of [offerAnswers, offerAnswersCsv])
    await expect(asked(other.owner, offer.id)).rejects.toMatchObject({ code: 'not-found' });
});

test('a link shows its picture over its page and to chats, and nothing that is no file of the business; a page takes requests too', async () => {
  const house = await foundHouse();
  const reader = { acceptLanguage: 'en', lang: '', currency: '', request: '' };
  const link = await placedOffer(house, { prices: { USD: '40' } });
  expect((await checkoutPage(link.called, reader))?.picture).toBe(false);
  await expect(offerPicturePath(link.called)).rejects.toMatchObject({ code: 'not-found' });
  const { placed } = await offerSheet(house.owner, link.id);
  const picture = randomUUID();
  await keepOffer(house.owner, link.id, placed.revision, {
    name: placed.name,
    offer: placed.offer,
    look: { picture },
    sites: [],
  });
  expect((await checkoutPage(link.called, reader))?.picture).toBe(true);
  expect(await offerPicturePath(link.called)).toMatch(new RegExp(`^/served/${house.business.id}\\.${picture}\\.`));
  const page = await placedOffer(house, { prices: { USD: '40' } }, 'page');
  await asSuperuser(workshop.admin, `update offers set placed_at = now() where id = $1`, [page.id]);
  const asked = { toName: 'Bo', toAddress: '', filled: {}, locked: true, way: 'link', words: '' } as const;
  const { sign } = await sendRequest(house.owner, page.id, asked);
  expect((await checkoutPage(page.called, { ...reader, request: sign }))?.request).toMatchObject({ toName: 'Bo' });
});

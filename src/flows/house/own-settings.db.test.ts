import { describe, expect, test } from 'vitest';
import { EVERYTHING } from '@/core/invoice/ask';
import type { WantedNews } from '@/core/news/news';
import { businessById } from '@/db/businesses';
import type { Actor } from '@/db/people';
import { doDueWork, whatIsDue } from '@/flows/day/due-work';
import { desk } from '@/flows/door/operation';
import { programContext } from '@/flows/door/program';
import { searchInvoices } from '@/flows/invoice/search-invoices';
import { forgetWhatIsOver } from '@/flows/keeping/forget-over';
import { recordReceived } from '@/flows/payment/receive-payment';
import { takePayment } from '@/flows/payment/take-payment';
import { asSuperuser } from '../../../tests/support/database';
import { handedOver } from '../../../tests/support/house-mail';
import { setClock } from '../../../tests/support/plans';
import {
  cardToken,
  foundHouse,
  type House,
  mailOf,
  sentInvoice,
  sharedWorkshop,
} from '../../../tests/support/workshop';
import { deskNews, haveSeenNews, keepNews, keepWriting, ownSettings } from './own-settings';
import { removePerson, setRights } from './people';

const workshop = await sharedWorkshop();
const NEVER_QUIET = { quietFrom: '00:00', quietTo: '00:00' };
const hears = (actor: Actor, wanted: WantedNews, quiet = NEVER_QUIET) => keepNews(actor, { wanted, ...quiet });
const addressOf = (house: House, role: string) => `${role}-${house.business.id.slice(0, 8)}@sallow.example`;

async function paid(house: House, card = 'corvid-good'): Promise<string> {
  const { id, link } = await sentInvoice(house);
  const token = await cardToken(workshop.standIns, card);
  await takePayment(link, { attemptKey: crypto.randomUUID(), cardToken: token, amountMinor: 11_000n }, 'a');
  return id;
}

/** Lets the clock come to an instant, and what is due by then be done. */
async function at(house: House, instant: string): Promise<void> {
  await setClock(workshop.standIns, new Date(instant));
  const due = (await whatIsDue()).filter(
    ({ businessId, concern }) => businessId === house.business.id && concern === 'news',
  );
  for (const { businessId, concern } of due) await doDueWork(businessId, concern);
}
const mails = async (house: House, role: string): Promise<string[]> => {
  await handedOver(workshop, house.business.id, '');
  return (await mailOf(workshop.standIns, addressOf(house, role))).map(({ subject }) => subject);
};

describe('how somebody writes', () => {
  const readBusiness = desk('see').read((db) => businessById(db));

  test('is theirs at the desk, and nobody else’s; papers stay as they are', async () => {
    const house = await foundHouse();
    await keepWriting(house.clerk, { days: 'iso', numbers: 'comma' });
    const { writing } = await ownSettings(house.clerk);
    expect(writing).toEqual({ days: 'iso', numbers: 'comma' });
    expect(await readBusiness({ ...house.clerk, writing })).toMatchObject({
      paperLocale: 'en-US',
      deskLocale: 'en-US-x-iso-comma',
    });
    expect((await readBusiness(house.owner)).deskLocale).toBe('en-US');
    expect((await ownSettings(house.owner)).writing).toEqual({ days: null, numbers: null });
  });

  test('is how what they type is read', async () => {
    const house = await foundHouse();
    const { number } = await sentInvoice(house);
    const of = async (actor: Actor, words: string) =>
      (await searchInvoices(actor, { ...EVERYTHING, words })).rows.map((row) => row.number);
    const writing = { days: null, numbers: 'comma' } as const;
    expect(await of({ ...house.clerk, writing }, '110,00')).toEqual([number]);
    expect(await of(house.clerk, '110.00')).toEqual([number]);
  });
});

describe('news', () => {
  test('reach who wants them, as they want them, but not whoever did it', async () => {
    const house = await foundHouse();
    await hears(house.owner, { paid: ['browser'], seen: ['mail'] });
    await hears(house.clerk, { paid: ['browser'] });
    const { id } = await sentInvoice(house);
    await recordReceived(house.clerk, id, {
      requestKey: crypto.randomUUID(),
      amountMinor: 11_000n,
      method: 'cash',
      reference: '',
      receivedOn: '',
    });
    expect(await deskNews(house.owner)).toMatchObject({
      unseen: 1,
      isQuiet: false,
      news: [{ event: { kind: 'paid' }, customer: 'Perpetua Vane', invoiceId: id, currency: 'USD', seen: false }],
    });
    expect((await deskNews(house.clerk)).news).toEqual([]);
    expect((await deskNews(house.reader)).news).toEqual([]);
    const [latest] = (await deskNews(house.owner)).news;
    await haveSeenNews(house.owner, Number(latest?.id));
    expect(await deskNews(house.owner)).toMatchObject({ unseen: 0, news: [{ seen: true }] });
  });

  test('by mail are gathered: many at once are one, and none is told twice', async () => {
    const house = await foundHouse();
    await setClock(workshop.standIns, new Date('2027-03-01T18:00:00Z'));
    await hears(house.bookkeeper, { paid: ['mail', 'browser'], refused: ['mail'] });
    await paid(house);
    await paid(house);
    await paid(house, 'corvid-too-little').catch(() => undefined);
    await at(house, '2027-03-01T18:01:00Z');
    expect(await mails(house, 'bookkeeper')).toEqual([]);
    await at(house, '2027-03-01T18:03:00Z');
    await at(house, '2027-03-01T18:04:00Z');
    expect(await mails(house, 'bookkeeper')).toEqual(['Sallow Joinery: 3 news']);
    const [mail] = await mailOf(workshop.standIns, addressOf(house, 'bookkeeper'));
    expect(mail?.text).toContain('Perpetua Vane, invoice 1');
    expect(mail?.text.match(/Paid \$110\.00/g)).toHaveLength(2);
    expect((await deskNews(house.bookkeeper)).unseen).toBe(2);
  });

  test('are written as their reader writes', async () => {
    const house = await foundHouse();
    await setClock(workshop.standIns, new Date('2027-03-02T18:00:00Z'));
    await keepWriting(house.owner, { days: null, numbers: 'comma' });
    await hears(house.owner, { paid: ['mail'] });
    await paid(house);
    await at(house, '2027-03-02T18:05:00Z');
    const [mail] = await handedOver(workshop, house.business.id, '').then(() =>
      mailOf(workshop.standIns, addressOf(house, 'owner')),
    );
    expect(mail?.subject).toMatch(/^Sallow Joinery: Paid 110,00\s\$, Perpetua Vane, invoice 1$/);
  });

  test('wait in quiet hours, which may be changed meanwhile, and are lost nowhere', async () => {
    const house = await foundHouse();
    const quiet = { quietFrom: '20:00', quietTo: '07:30' };
    // 21:00 in the house's zone.
    await setClock(workshop.standIns, new Date('2027-03-04T05:00:00Z'));
    await hears(house.owner, { paid: ['mail', 'browser'] }, quiet);
    await paid(house);
    await at(house, '2027-03-04T06:00:00Z');
    expect(await mails(house, 'owner')).toEqual([]);
    expect(await deskNews(house.owner)).toMatchObject({ unseen: 1, isQuiet: true });
    await hears(house.owner, { paid: ['mail', 'browser'] }, { quietFrom: '20:00', quietTo: '09:00' });
    await at(house, '2027-03-04T15:45:00Z');
    expect(await mails(house, 'owner')).toEqual([]);
    await at(house, '2027-03-04T17:00:00Z');
    expect(await mails(house, 'owner')).toHaveLength(1);
  });

  test('are not mailed to an address that nobody confirmed, to who left, or to who wants them no more', async () => {
    const house = await foundHouse();
    await setClock(workshop.standIns, new Date('2027-03-05T18:00:00Z'));
    for (const one of [house.clerk, house.reader, house.bookkeeper]) await hears(one, { paid: ['mail'] });
    await asSuperuser(
      workshop.admin,
      `with gone as (delete from sign_in_names where person_id = $1 returning *)
       insert into unconfirmed_names (email_key, business_id, person_id, created_at) select email_key, business_id, person_id, now() from gone`,
      [house.clerk.personId],
    );
    await paid(house);
    await removePerson(house.owner, house.reader.personId);
    await hears(house.bookkeeper, {});
    await at(house, '2027-03-05T18:10:00Z');
    for (const role of ['clerk', 'reader', 'bookkeeper']) expect(await mails(house, role), role).toEqual([]);
  });

  test('are hidden from whom customers or sums are hidden, also those that wait already', async () => {
    const house = await foundHouse();
    await setClock(workshop.standIns, new Date('2027-03-05T20:00:00Z'));
    for (const one of [house.clerk, house.reader]) await hears(one, { paid: ['mail', 'browser'] });
    await setRights(house.owner, house.clerk.personId, { role: 'packer', extra: [] });
    await paid(house);
    await setRights(house.owner, house.reader.personId, { role: 'reader', extra: ['no-sums'] });
    await at(house, '2027-03-05T20:10:00Z');
    for (const role of ['clerk', 'reader']) expect(await mails(house, role), role).toEqual([]);
    const packer = { ...house.clerk, role: 'packer' } as const;
    await expect(deskNews(packer)).rejects.toMatchObject({ code: 'not-allowed' });
    expect((await ownSettings(packer)).news).toBeNull();
  });

  test('go with their time, and with whoever left', async () => {
    const house = await foundHouse();
    await setClock(workshop.standIns, new Date('2027-03-06T18:00:00Z'));
    await hears(house.owner, { paid: ['browser'] });
    await hears(house.reader, { paid: ['browser'] });
    await paid(house);
    await removePerson(house.owner, house.reader.personId);
    const count = async () =>
      (
        await asSuperuser<{ n: number }>(workshop.admin, 'select count(*)::int as n from news where business_id = $1', [
          house.business.id,
        ])
      )[0]?.n;
    expect(await count()).toBe(2);
    const forget = (instant: string) => forgetWhatIsOver(programContext(house.business.id, new Date(instant)));
    await forget('2027-03-07T18:00:00Z');
    expect(await count()).toBe(1);
    await forget('2027-05-06T18:00:00Z');
    expect(await count()).toBe(0);
  });
});

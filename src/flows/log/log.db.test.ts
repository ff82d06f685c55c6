import Papa from 'papaparse';
import { expect, test } from 'vitest';
import { USUAL_POLICY } from '@/core/plan/dunning';
import { refundPayment } from '@/flows/payment/refund-payment';
import { keepCharging } from '@/flows/plan/charging-policy';
import { handOverMessage } from '@/flows/post/hand-over-message';
import { storePartner } from '@/flows/records/partners';
import { businessProfile, keepProfile } from '@/flows/records/profile';
import { keepTaxRules, taxRules } from '@/flows/records/taxes';
import { asSuperuser } from '../../../tests/support/database';
import { backOf } from '../../../tests/support/refunds';
import { foundHouse, mailOf, sharedWorkshop } from '../../../tests/support/workshop';
import { logFile, logPage } from './log';

const workshop = await sharedWorkshop();
const house = await foundHouse();
const { business, series } = await businessProfile(house.owner);
const fields = { ...business, series };

test('a clerk changes no money setting and gives nothing back', async () => {
  const me = house.clerk;
  const [rule] = await taxRules(house.owner);
  const tries = [
    keepProfile(me, { ...fields, bank: { ...business.bank, account: 'mine' } }),
    keepTaxRules(me, rule ? [{ ...rule, rate: '0' }] : []),
    keepCharging(me, { ...USUAL_POLICY, secondCard: false }),
    storePartner(me, null, { name: 'Me', email: '' }),
    refundPayment(me, crypto.randomUUID(), backOf(1n)),
  ];
  for (const tried of await Promise.allSettled(tries)) {
    expect(tried).toMatchObject({ status: 'rejected', reason: { code: 'not-allowed' } });
  }
  expect((await logPage(house.owner, null)).entries).toEqual([]);
});

test('a changed money setting is told with both values in the log and in a mail to every owner; what stays is not', async () => {
  await keepProfile(house.owner, { ...fields, accent: '#112233' });
  expect((await logPage(house.owner, null)).entries).toEqual([]);
  await keepProfile(house.owner, { ...fields, bank: { ...business.bank, account: 'XX11 2222' } });
  await keepProfile(house.owner, { ...fields, bank: { ...business.bank, account: 'XX33 4444' } });
  const rules = await taxRules(house.owner);
  await keepTaxRules(
    house.owner,
    rules.map((rule) => ({ ...rule, rate: '11' })),
  );
  await keepCharging(house.owner, { ...USUAL_POLICY, retryDays: [2], missed: 'all' });
  await storePartner(house.owner, null, { name: 'Ines Moor', email: 'ines@moor.example' });
  const { entries } = await logPage(house.owner, null);
  const of = (kind: string) => entries.filter((entry) => entry.kind === kind);
  expect(of('profile').map(({ changes }) => changes)).toEqual(
    expect.arrayContaining([
      [{ what: 'Account number', from: 'XX11 2222', to: 'XX33 4444' }],
      [{ what: 'Account number', from: '', to: 'XX11 2222' }],
    ]),
  );
  expect(of('taxes')[0]?.changes).toEqual([
    { what: 'Tax rule Sales tax', from: 'Sales tax 10 %, standard, US', to: 'Sales tax 11 %, standard, US' },
  ]);
  expect(of('charging')[0]?.changes).toEqual([{ what: 'Tried again after days', from: '3, 5, 9', to: '2' }]);
  expect(of('partner')[0]?.byName).toBe(house.owner.name);
  const queued = await asSuperuser<{ id: string }>(
    workshop.admin,
    `select id from messages where kind = 'settings-changed' and business_id = $1`,
    [business.id],
  );
  expect(queued.length).toBe(5);
  for (const { id } of queued) await handOverMessage(business.id, id);
  const mails = await mailOf(workshop.standIns, `owner-${business.id.slice(0, 8)}@sallow.example`);
  expect(mails.length).toBe(5);
  const bank = mails.find(({ text }) => text.includes('XX33 4444'));
  expect(bank?.text).toContain('Account number: XX11 2222 → XX33 4444');
  expect(bank?.text).toContain('/settings/log');
});

test('the log is searched by who, what, from where and by value, and comes as CSV that a spreadsheet may open', async () => {
  const own = await foundHouse('Searched');
  const profile = await businessProfile(own.owner);
  const kept = { ...profile.business, series: profile.series };
  await keepProfile(own.owner, { ...kept, bank: { ...profile.business.bank, account: '=2+3 %_' } });
  await keepProfile(own.owner, { ...kept, name: 'Sought; and "quoted"' });
  const found = async (words: string) => (await logPage(own.owner, null, words)).entries.length;
  expect(await found('')).toBe(2);
  expect(await found('ACCOUNT number')).toBe(2);
  expect(await found('sought')).toBe(1);
  expect(await found('owner profile')).toBe(2);
  expect(await found('owner tariff')).toBe(0);
  // Signs that a pattern would take for any letter.
  expect(await found('%_')).toBe(2);
  expect(await found('%x_')).toBe(0);
  let text = '';
  for await (const part of await logFile(own.owner, '')) text += part;
  const { data, errors } = Papa.parse<Record<string, string>>(text.trim(), { header: true });
  expect(errors).toEqual([]);
  expect(data).toContainEqual(
    expect.objectContaining({ 'of what': 'Name of the business', 'new value': 'Sought; and "quoted"' }),
  );
  expect(data.map((row) => row['new value'])).toContain("'=2+3 %_");
  await expect(logFile(own.clerk, '')).rejects.toMatchObject({ code: 'not-allowed' });
});

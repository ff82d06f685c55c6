/** What plans send and hand out: letters in the customer's language, the private calendar, CSV, the authorisation as paper. */
import { execFileSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import ICAL from 'ical.js';
import { beforeEach, describe, expect, test } from 'vitest';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { instantInZone } from '@/core/dates/zone';
import { USUAL_POLICY } from '@/core/plan/dunning';
import { customerById } from '@/db/customers';
import { readBusiness } from '@/db/transaction';
import { chargeDue } from '@/flows/charging/charge-due';
import { todayView } from '@/flows/day/today';
import type { Context } from '@/flows/door/operation';
import { programContext } from '@/flows/door/program';
import { handOverMessage } from '@/flows/post/hand-over-message';
import { changeCustomer } from '@/flows/records/customers';
import { keepCard } from '../../../bin/stack/card-on-file';
import { asSuperuser } from '../../../tests/support/database';
import { planTerms, runningPlan, setClock } from '../../../tests/support/plans';
import { cardToken, foundHouse, type House, mailOf, sharedWorkshop } from '../../../tests/support/workshop';
import { askForCards } from './ask-for-cards';
import { authorisationFile, paperToSign } from './authorisation-file';
import { calendarFeed, renewFeed } from './calendar-feed';
import { carryOver } from './change-charge';
import { cancelPlan } from './change-plan';
import { keepCharging, readHolidays } from './charging-policy';
import { lapse } from './lapse';
import { sendOwnPage } from './own-page';
import { keepPlan, sendPlan } from './plans';
import { remindWaiting } from './remind-waiting';
import { tellBefore } from './tell-before';
import { planFiguresCsv, upcomingCsv, upcomingSetting } from './upcoming';

const workshop = await sharedWorkshop();
let house: House;
beforeEach(async () => {
  house = await foundHouse();
});

const clock = async (day: string, hour = '12:00'): Promise<Date> => {
  const now = instantInZone(day as CalendarDate, hour, house.business.zone);
  await setClock(workshop.standIns, now);
  return now;
};
const ALL = { words: '', state: '', from: '', to: '', notCarried: false } as const;
const secretOf = async () => (await upcomingSetting(house.owner)).feed.split('/').at(-1) ?? '';

/** What the clock brings to plans beside their charges. */
async function whatPlansNeed(ctx: Context): Promise<void> {
  for (const concern of [lapse, tellBefore, remindWaiting, askForCards]) await concern(ctx);
}

describe('letters', () => {
  /** Every kind of letter about a plan, as a customer of this language gets them; none may hold a gap or another language's words. */
  const WORDS = {
    en: { link: 'Look at it, and begin', notice: 'will be charged on June 15, 2027', refused: 'could not be charged' },
    de: { link: 'Ansehen und beginnen', notice: '15. Juni 2027', refused: 'konnten nicht belastet werden' },
    es: { link: 'Mirarlo y empezar', notice: '15 de junio de 2027', refused: 'No se pudieron cargar' },
    fr: { link: 'Regarder et commencer', notice: '15 juin 2027', refused: 'n’ont pas pu être débités' },
  } as const;
  test.each(['en', 'de', 'es', 'fr'] as const)(
    'in %s: link, notice, refusal, end and own page, each with its sum and link',
    async (language) => {
      await clock('2027-06-10');
      const terms = planTerms(house, '2027-06-15', { name: 'Bogen & Saite', noticeDays: 7, price: '1234.50' });
      const { id, customerId, email } = await runningPlan(house, workshop.standIns, terms, ['corvid-poor']);
      const customer = await readBusiness(programContext(house.business.id), (db) => customerById(db, customerId));
      if (!customer) throw new Error('The customer is gone');
      await changeCustomer(house.owner, customerId, { ...customer, language });
      const paper = { ...terms.paper, customerId };
      const second = await keepPlan(house.owner, null, { terms: { ...terms, paper }, memo: '', reference: '' });
      await sendPlan(house.owner, second.id, 'mail');
      await whatPlansNeed(programContext(house.business.id, await clock('2027-06-10')));
      await clock('2027-06-15', '09:30');
      await chargeDue(house.business.id);
      await cancelPlan(house.owner, id, false);
      await sendOwnPage(house.owner, customerId, 'mail');
      const queued = await asSuperuser<{ id: string; kind: string }>(
        workshop.admin,
        `select id, kind from messages where business_id = $1 and to_address = $2 and state = 'queued' order by created_at`,
        [house.business.id, email],
      );
      expect(queued.map(({ kind }) => kind)).toEqual(
        expect.arrayContaining(['plan-link', 'charge-notice', 'charge-refused', 'own-page', 'plan-ended']),
      );
      for (const message of queued) await handOverMessage(house.business.id, message.id);
      const mails = await mailOf(workshop.standIns, email);
      expect(mails).toHaveLength(queued.length);
      for (const { subject, text, html } of mails) {
        expect(`${subject}\n${text}\n${html}`).not.toMatch(/undefined|null|NaN|\{|\[object/);
        // One leads to where it can be dealt with; what was typed cannot become markup.
        expect(text).toMatch(/http:\/\/localhost:1\/(a|m|i)\/[\w.-]+/);
        expect(html).not.toContain('Bogen & Saite');
      }
      const all = mails.map(({ subject, text }) => `${subject}\n${text}`);
      const { link, notice, refused } = WORDS[language];
      // The link's letter names the first dates, the later ones are behind the link.
      const invited = all.find((mail) => mail.includes(link)) ?? '';
      expect(invited).toContain(notice.replace('will be charged on ', ''));
      expect(invited.match(/1\D{0,2}357[.,]95/g)).toHaveLength(3);
      expect(all.some((mail) => mail.includes(notice))).toBe(true);
      // 1,234.50 and 10 percent, however the language groups it.
      const sum = /1\D{0,2}357[.,]95/;
      expect(all.some((mail) => mail.includes(refused) && sum.test(mail))).toBe(true);
    },
  );
});

describe('the private calendar', () => {
  test('holds the coming charges, opens with its address only, and an address that was renewed opens nothing', async () => {
    await clock('2027-01-04');
    await runningPlan(house, workshop.standIns, planTerms(house, '2027-01-31', { schedule: { ends: { after: 3 } } }));
    const secret = await secretOf();
    const calendar = new ICAL.Component(ICAL.parse(await calendarFeed(secret)));
    const events = calendar.getAllSubcomponents('vevent').map((event) => new ICAL.Event(event));
    expect(events.map(({ startDate, summary }) => `${startDate} ${summary}`)).toEqual([
      '2027-01-31 $22.00, Otto Reed',
      '2027-02-28 $22.00, Otto Reed',
      '2027-03-31 $22.00, Otto Reed',
    ]);
    expect(new Set(events.map(({ uid }) => uid)).size).toBe(3);
    for (const wrong of ['', 'x', `${secret}x`, `x${secret}`, secret.slice(0, -2)])
      await expect(calendarFeed(wrong)).rejects.toMatchObject({ code: 'not-found' });
    await expect(renewFeed(house.reader)).rejects.toMatchObject({ code: 'not-allowed' });
    await renewFeed(house.owner);
    await expect(calendarFeed(secret)).rejects.toMatchObject({ code: 'not-found' });
    expect(await calendarFeed(await secretOf())).toContain('Otto Reed');
    const other = await foundHouse('Elsewhere');
    expect(await calendarFeed((await upcomingSetting(other.owner)).feed.split('/').at(-1) ?? '')).not.toContain('Otto');
  });
});

describe('CSV', () => {
  test('every charge with its sum, what is carried over, and cells that a spreadsheet would run begin with an apostrophe', async () => {
    await clock('2027-01-31', '08:00');
    const terms = planTerms(house, '2027-01-31', { name: '=1+1', schedule: { ends: { after: 2 } } });
    await runningPlan(house, workshop.standIns, terms, ['corvid-good'], 'Reed, "Otto"');
    await clock('2027-01-31', '09:10');
    await chargeDue(house.business.id);
    const [first] = await asSuperuser<{ id: string }>(
      workshop.admin,
      `select id from charges where business_id = $1 and state = 'charged'`,
      [house.business.id],
    );
    expect(await carryOver(house.owner, [first?.id ?? '', randomUUID()])).toBe(1);
    expect(await carryOver(house.owner, [first?.id ?? ''])).toBe(0);
    const [headings, ...lines] = (await upcomingCsv(house.reader, ALL)).trim().split('\r\n');
    expect(headings).toBe('date,customer,plan,number,reference,amount,currency,state,carried over');
    expect(lines).toEqual([
      `2027-01-31,"Reed, ""Otto""",'=1+1,P-1,,22.00,USD,Charged,"2027-01-31, ${house.owner.name}"`,
      `2027-02-28,"Reed, ""Otto""",'=1+1,P-1,,22.00,USD,Upcoming,`,
    ]);
    expect((await upcomingCsv(house.owner, { ...ALL, notCarried: true })).trim().split('\r\n')).toHaveLength(1);
    expect(await planFiguresCsv(house.reader)).toContain('2027-01,membership,USD,22.00,22.00,1,0,0');
    const other = await foundHouse('Elsewhere');
    expect((await upcomingCsv(other.owner, ALL)).trim().split('\r\n')).toHaveLength(1);
  });
});

describe('the authorisation as paper', () => {
  const textOf = (bytes: Buffer): string => {
    const file = join(mkdtempSync(join(tmpdir(), 'dahlia-paper-')), 'paper.pdf');
    writeFileSync(file, bytes);
    return execFileSync('pdftotext', ['-layout', file, '-'], { encoding: 'utf8' }).replace(/\s+/g, ' ');
  };

  test('to be signed: wording, dates and sums; as given: who, how, in which version; a later wording changes neither', async () => {
    await clock('2027-01-04');
    const terms = planTerms(house, '2027-01-31', { schedule: { ends: { after: 2 } } });
    const { id } = await runningPlan(house, workshop.standIns, terms);
    const toSign = textOf((await paperToSign(house.owner, { plan: id })).bytes);
    expect(toSign).toContain('I, Otto Reed, allow Sallow Joinery to charge my card or bank account for Care club.');
    expect(toSign).toMatch(/January 31, 2027.*22\.00.*February 28, 2027.*22\.00/);
    await keepCharging(house.owner, USUAL_POLICY, '{customer} lets {business} charge: {what}.');
    await keepCharging(house.owner, USUAL_POLICY, '{customer} lets {business} charge: {what}.');
    expect(textOf((await paperToSign(house.owner, { plan: id })).bytes)).toContain(
      'Otto Reed lets Sallow Joinery charge: Care club.',
    );
    const [given] = await asSuperuser<{ id: string }>(
      workshop.admin,
      'select id from authorisations where plan_id = $1',
      [id],
    );
    const filed = textOf((await authorisationFile(house.reader, given?.id ?? '')).bytes);
    expect(filed).toContain('I, Otto Reed, allow Sallow Joinery');
    expect(filed).toContain('Given on January 4, 2027 by Otto Reed, by telephone');
    // The same wording kept twice is one version.
    const versions = await asSuperuser<{ n: number }>(
      workshop.admin,
      'select count(*)::int as n from authorisation_texts where business_id = $1',
      [house.business.id],
    );
    expect(versions[0]?.n).toBe(1);
    const other = await foundHouse('Elsewhere');
    await expect(authorisationFile(other.owner, given?.id ?? '')).rejects.toMatchObject({ code: 'not-found' });
    await expect(paperToSign(other.owner, { plan: id })).rejects.toMatchObject({ code: 'not-found' });
  });
});

test('the policy: days off from a calendar move what is planned from then on, retries are kept in order, and a reader changes nothing', async () => {
  await clock('2027-01-04');
  const file = [
    'BEGIN:VCALENDAR',
    'VERSION:2.0',
    'BEGIN:VEVENT',
    'UID:1',
    'DTSTAMP:20260101T000000Z',
    'SUMMARY:Foundation day',
    'DTSTART;VALUE=DATE:20270131',
    'END:VEVENT',
    'END:VCALENDAR',
  ].join('\r\n');
  const holidays = await readHolidays(house.owner, file);
  expect(holidays).toEqual([{ on: '2027-01-31', name: 'Foundation day' }]);
  await expect(readHolidays(house.owner, 'BEGIN:NOTHING')).rejects.toMatchObject({ code: 'calendar-not-read' });
  await expect(keepCharging(house.reader, USUAL_POLICY)).rejects.toMatchObject({ code: 'not-allowed' });
  const days = holidays as { on: CalendarDate; name: string }[];
  await keepCharging(house.owner, { ...USUAL_POLICY, holidays: days, retryDays: [9, 3, 3] });
  const schedule = { shift: 'next', weekend: [], ends: { after: 2 } } as const;
  const { id } = await runningPlan(house, workshop.standIns, planTerms(house, '2027-01-31', { schedule }));
  const rows = await asSuperuser<{ on: string }>(
    workshop.admin,
    'select charged_on::text as on from charges where plan_id = $1 order by charged_on',
    [id],
  );
  expect(rows.map(({ on }) => on)).toEqual(['2027-02-01', '2027-02-28']);
  const { charging } = (await upcomingSetting(house.owner)).business;
  expect(charging.retryDays).toEqual([3, 9]);
});

test('Today names whose next charge would fail, with the best of their cards, until there is a better one', async () => {
  await clock('2027-01-04');
  const terms = planTerms(house, '2027-02-10');
  const ending = await runningPlan(house, workshop.standIns, terms, ['lumen-ending'], 'Ida Marsh');
  await runningPlan(house, workshop.standIns, terms, ['corvid-good'], 'Otto Reed');
  const failing = async () =>
    (await todayView(house.reader)).queue.flatMap((item) => (item.kind === 'card' ? [item.failing] : []));
  expect(await failing()).toMatchObject([
    { planId: ending.id, customer: 'Ida Marsh', on: '2027-02-10', card: { last4: '0248', expires: '2027-01' } },
  ]);
  const token = await cardToken(workshop.standIns, 'corvid-good');
  await keepCard(programContext(house.business.id), ending.customerId, {
    token: token,
    key: randomUUID(),
    byName: 'Ida Marsh',
  });
  expect(await failing()).toEqual([]);
});

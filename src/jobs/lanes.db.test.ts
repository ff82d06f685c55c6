import { expect, test } from 'vitest';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { instantInZone } from '@/core/dates/zone';
import { asSuperuser } from '../../tests/support/database';
import { rudeMail } from '../../tests/support/manners';
import { planTerms, runningPlan, setClock } from '../../tests/support/plans';
import { until } from '../../tests/support/until';
import { foundHouse, sentInvoice, sharedWorkshop } from '../../tests/support/workshop';
import { startLanes } from './lanes';

const mail = await rudeMail(() => 1);
const workshop = await sharedWorkshop({ SMTP_URL: `smtp://127.0.0.1:${mail.port}` });

test('a mail server that never says a word stops no charge, and its mails are kept', async () => {
  mail.behave(() => 'never-greets');
  const house = await foundHouse();
  const day = '2027-01-04' as CalendarDate;
  await setClock(workshop.standIns, instantInZone(day, '08:00', house.business.zone));
  await runningPlan(house, workshop.standIns, planTerms(house, day));
  for (let mails = 0; mails < 12; mails++) await sentInvoice(house);
  const running = await startLanes();
  const count = async (text: string) => (await asSuperuser<{ n: number }>(workshop.admin, text))[0]?.n ?? -1;
  await until('the mail lane is busy', async () => {
    const busy = await count(
      'select count(*)::int as n from graphile_worker._private_jobs where locked_at is not null',
    );
    return busy > 0;
  });
  await setClock(workshop.standIns, instantInZone(day, '10:00', house.business.zone));
  await asSuperuser(workshop.admin, `select graphile_worker.add_job('minute')`);
  await until(
    'the plan is charged',
    async () => (await count(`select count(*)::int as n from charges where state = 'charged'`)) === 1,
  );
  expect(await count(`select count(*)::int as n from messages where state <> 'queued'`)).toBe(0);
  // Lines that are held open end with the server; what waits in the lane is then tried again some time.
  await mail.stop();
  await running.stop();
  await running.queue.end();
});

/** Payments that holders of cards asked back: one to be answered, one that the bank decides, one won and one lost. */
import { addDays, type CalendarDate } from '@/core/dates/calendar-date';
import { instantInZone } from '@/core/dates/zone';
import { WHOLE_REGISTER } from '@/core/register/ask';
import { paymentById } from '@/db/payments';
import type { Actor } from '@/db/people';
import { readBusiness } from '@/db/transaction';
import { prepareAnswer, sendAnswer } from '@/flows/dispute/answer-dispute';
import { disputeList } from '@/flows/dispute/dispute-sheet';
import { lookForDisputes } from '@/flows/dispute/hear-disputes';
import { programContext } from '@/flows/door/program';
import { registerOf } from '@/flows/register/register';

type Stage = {
  readonly actor: Actor;
  readonly zone: string;
  readonly to: CalendarDate;
  readonly standIns: string;
  readonly at: (instant: Date) => Promise<void>;
};

const ASKED: readonly { readonly channel: 'plan' | 'invoice' | 'link' | 'page'; readonly reason: string }[] = [
  { channel: 'link', reason: 'not-as-described' },
  { channel: 'page', reason: 'charged-twice' },
  { channel: 'invoice', reason: 'not-received' },
  { channel: 'plan', reason: 'not-recognised' },
];

/** Asks for them five days ago, and hears of it today: what moves counts for a day that is still open. */
export async function playDisputes({ actor, zone, to, standIns, at }: Stage): Promise<void> {
  const press = (path: string, fields: Record<string, string>) =>
    fetch(`${standIns}/cards/disputes${path}`, {
      method: 'POST',
      body: new URLSearchParams(fields),
      redirect: 'manual',
    });
  await at(instantInZone(addDays(to, -5), '10:00', zone));
  const asked: string[] = [];
  for (const { channel, reason } of ASKED) {
    const until = addDays(to, -7);
    const ask = { ...WHOLE_REGISTER, show: 'payments', way: 'card', state: 'paid', channel, to: until } as const;
    const [row] = (await registerOf(actor, ask, null)).rows;
    const payment = row && (await readBusiness(programContext(actor.businessId), (db) => paymentById(db, row.id)));
    if (!payment?.saleId) continue;
    await press('', { sale: payment.saleId, reason });
    asked.push(payment.id);
  }
  const now = instantInZone(addDays(to, 1), '08:10', zone);
  await at(now);
  const look = () => lookForDisputes(programContext(actor.businessId, now));
  await look();
  const { open } = await disputeList(actor);
  const [won, lost, sent] = asked.map((id) => open.find(({ paymentId }) => paymentId === id));
  if (won) await press(`/${won.key}`, { won: 'yes' });
  if (lost) await press(`/${lost.key}`, { won: 'no' });
  await look();
  if (!sent) return;
  const words =
    'The instrument was fetched in the workshop, played for an hour, and paid by card the same week; she wrote that she is happy with it.';
  await prepareAnswer(actor, sent.id, { words, fileIds: [], leftOut: [] });
  await sendAnswer(actor, sent.id);
}

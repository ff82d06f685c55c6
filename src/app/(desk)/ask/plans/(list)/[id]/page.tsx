import type { Metadata } from 'next';
import { orNotFound } from '@/app/found';
import { pageActor } from '@/app/session';
import { clockTime, shortDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { jsonMinor } from '@/core/money/money';
import { REFUSAL_BRIEF } from '@/core/payment/outcome';
import { mayDo } from '@/core/person/rights';
import { chargeNoteText } from '@/core/plan/charge-words';
import { CLASS_WORDS, refusalClass } from '@/core/plan/dunning';
import { payBy } from '@/core/plan/plan';
import { AUTHORISED_WORDS } from '@/core/timeline/timeline';
import { cardFieldsUrl } from '@/flows/invoice/payer-page';
import { planSheet } from '@/flows/plan/plan-list';
import { WayToBank } from '@/ui/payment/way-to-bank';
import { PlanSheetView } from '@/ui/plan/plan-sheet';
import { Timeline } from '@/ui/timeline';
import { stepsOf } from '../../../../money/payments/way-steps';

export const metadata: Metadata = { title: 'Billing plan' };

export default async function PlanPage({ params }: { params: Promise<{ id: string }> }) {
  const actor = await pageActor();
  const { id } = await params;
  const sheet = await orNotFound(id, planSheet(actor, id));
  const { plan, business, customer, charges, attempts } = sheet;
  const when = (at: Date) =>
    `${shortDate(dateInZone(at, business.zone), business.deskLocale)}, ${clockTime(at, business.zone)}`;
  return (
    <PlanSheetView
      plan={{
        id,
        number: plan.number,
        name: plan.terms.name,
        kind: plan.terms.kind,
        pay: plan.terms.pay,
        state: plan.state,
        memo: plan.memo,
        reference: plan.reference,
        currency: plan.currency,
        chargedMinor: jsonMinor(plan.chargedMinor),
        chargedCount: plan.chargedCount,
        plannedMinor: plan.plannedMinor === null ? null : jsonMinor(plan.plannedMinor),
        plannedCount: plan.plannedCount,
        nextOn: plan.nextOn,
        price: plan.terms.paper.lines[0]?.price ?? '',
        lapsesOn: plan.lapsesOn,
        endsOn: plan.endsOn,
        proposed: plan.proposed !== null,
      }}
      customer={{ id: customer.id, name: customer.name, email: customer.email, phone: customer.phone }}
      charges={charges.map((charge) => ({
        id: charge.id,
        part: charge.part,
        nominal: charge.nominal,
        chargedOn: charge.chargedOn,
        minor: jsonMinor(charge.amountMinor),
        reasons: charge.reasons,
        state: charge.state,
        words: chargeNoteText(charge.note),
        trouble: charge.lastReason
          ? `${REFUSAL_BRIEF[charge.lastReason]} (${CLASS_WORDS[refusalClass(charge.lastReason)]})`
          : '',
        next: charge.state === 'refused' && charge.actAt ? when(charge.actAt) : '',
        payBy: charge.state === 'billed' ? payBy(plan.terms, charge.chargedOn) : null,
        invoiceId: charge.invoiceId,
        missed: charge.state === 'upcoming' && charge.note?.code === 'missed' && charge.actAt === null,
        attempts: attempts
          .filter(({ chargeId }) => chargeId === charge.id)
          .map((attempt) => ({
            when: when(attempt.at),
            words: [
              attempt.card ?? '',
              attempt.state === 'paid'
                ? 'accepted'
                : attempt.state === 'pending'
                  ? 'no answer yet'
                  : attempt.reason
                    ? REFUSAL_BRIEF[attempt.reason]
                    : attempt.state,
            ]
              .filter(Boolean)
              .join(', '),
            paymentId: attempt.paymentId,
          })),
      }))}
      planned={(sheet.planned?.charges ?? []).map(({ amountMinor, reasons, ...charge }) => ({
        ...charge,
        minor: jsonMinor(amountMinor),
        reasons: reasons.map((reason) => ('minor' in reason ? { ...reason, minor: jsonMinor(reason.minor) } : reason)),
      }))}
      holidays={business.charging.holidays.map(({ on }) => on)}
      cards={sheet.cards}
      authorisations={sheet.authorisations.map((one) => ({
        id: one.id,
        words: `${when(one.givenAt)}, ${one.givenBy}, ${AUTHORISED_WORDS[one.how]}`,
        withdrawn: one.withdrawnAt ? when(one.withdrawnAt) : '',
      }))}
      invoice={sheet.invoice}
      link={sheet.link}
      locale={business.deskLocale}
      today={sheet.today}
      fieldsUrl={cardFieldsUrl({ take: 'both' })}
      mayAsk={mayDo(actor, 'ask')}
      timeline={
        <>
          {sheet.way ? <WayToBank title="Way of the latest charge" steps={stepsOf(sheet.way, business)} /> : null}
          <Timeline
            lines={sheet.timeline}
            currency={plan.currency}
            locale={business.deskLocale}
            zone={business.zone}
            today={sheet.today}
            coming={null}
          />
        </>
      }
    />
  );
}

import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { cache } from 'react';
import { longDate, shortDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { takenBy } from '@/core/invoice/printed';
import { jsonMinor } from '@/core/money/money';
import { fileStanding } from '@/core/paper/approval';
import { approveFirstWords, waitsForWords } from '@/core/words/approval-wording';
import { transferCode } from '@/core/words/invoice-wording';
import { accountText, isLanguage, localeFor, wordsOf } from '@/core/words/words';
import { thingsByInvoice } from '@/flows/digital/grants';
import { approverOf } from '@/flows/invoice/approvers';
import { cardFieldsUrl, partAskedNow, payableNow, viewByLink } from '@/flows/invoice/payer-page';
import { parcelsByInvoice } from '@/flows/parcel/parcel-page';
import { waysOpen } from '@/flows/payment/pay-by-voucher';
import { returnsByInvoice } from '@/flows/returning/returns';
import { GivenPart } from '@/ui/payer/given-part';
import { ParcelsPart } from '@/ui/payer/parcels-part';
import { PayerInvoice } from '@/ui/payer/payer-invoice';
import { ReturnPart } from '@/ui/payer/return-part';

const view = cache(viewByLink);
type Props = {
  params: Promise<{ token: string }>;
  searchParams: Promise<{ lang?: string | string[]; approver?: string | string[] }>;
};

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  const found = await view((await params).token);
  return found
    ? {
        title: {
          absolute: `${wordsOf(found.printed.locale).invoice} ${found.printed.number} · ${found.printed.seller.name}`,
        },
        referrer: 'same-origin',
      }
    : { title: 'Not found' };
}

/** What the customer sees through the link: the invoice, and beside it what to pay. */
export default async function LinkedInvoice({ params, searchParams }: Props) {
  const { token } = await params;
  const found = await view(token);
  if (!found) notFound();
  const { lang, approver: given } = await searchParams;
  const asked = typeof lang === 'string' && isLanguage(lang) ? lang : '';
  const locale = localeFor(asked, found.printed.locale, found.printed.payer.country ?? '');
  const printed = { ...found.printed, locale };
  const words = wordsOf(locale);
  const { zone, dueMinor, approvals, termsAccepted } = found;
  const on = (at: string) => dateInZone(new Date(at), zone);
  const sign = typeof given === 'string' ? given : '';
  const approver = sign ? approverOf(found, sign) : null;
  const isPayable = found.stage === 'sent' && dueMinor > 0n;
  const files = printed.files.map((file) => {
    const { said, waitsFor, isOpen } = fileStanding(file, approvals);
    const names = waitsFor.map(({ name }) => name);
    const isAsked = (file.approvers ?? []).length > 0 ? waitsFor.some(({ id }) => id === approver?.id) : isOpen;
    return {
      id: file.id,
      name: file.name,
      href: `/i/${token}/files/${file.id}`,
      approve: file.approve,
      decided: said.map(({ decision, at, byName }) =>
        decision === 'approved'
          ? words.approvedOn(longDate(on(at), locale), byName)
          : words.changeAskedOn(longDate(on(at), locale)),
      ),
      waits: isOpen && isPayable,
      names,
      waitsFor: waitsForWords(names, locale),
      mine: isAsked && isPayable,
    };
  });
  const payable = payableNow(found);
  const open = found.stage === 'sent' && dueMinor > 0n;
  const part = partAskedNow(found, payable);
  const { terms } = printed;
  const { processor, voucher, statementName } = await waysOpen(token);
  const byCard = found.receipts.some(({ method }) => method === 'card');
  const takes = takenBy(printed.ways, processor);
  const sent = await parcelsByInvoice(token);
  const backs = await returnsByInvoice(token);
  const things = await thingsByInvoice(token, locale);
  return (
    <PayerInvoice
      invoice={printed}
      stage={found.stage}
      underWay={found.underWay.map(({ expectedAt, ...attempt }) => ({
        ...attempt,
        expected: expectedAt ? words.underWayDebit(longDate(on(expectedAt), locale)) : '',
      }))}
      balance={{
        paidMinor: jsonMinor(found.paidMinor),
        creditedMinor: jsonMinor(found.creditedMinor),
        refundedMinor: jsonMinor(found.refundedMinor),
        dueMinor: found.stage === 'cancelled' ? 0 : jsonMinor(dueMinor),
      }}
      receipts={found.receipts.map((receipt) => ({
        id: receipt.number,
        number: receipt.number,
        label: words.paid(
          shortDate(on(receipt.at), locale),
          accountText(receipt.card, words) || words.methods[receipt.method],
        ),
        minor: receipt.amountMinor,
        href: `/i/${token}/receipts/${receipt.number}`,
      }))}
      statement={byCard && statementName ? words.onStatement(statementName) : ''}
      files={files}
      token={token}
      {...(approver ? { approver: { name: approver.name, sign } } : {})}
      logo={printed.logoId ? `/i/${token}/files/${printed.logoId}` : null}
      parcels={
        <>
          <GivenPart things={things} path={`/i/${token}`} locale={locale} />
          <ParcelsPart {...sent} locale={locale} />
          <ReturnPart page={backs} path={`/i/${token}`} locale={locale} troubles={words.troubles} />
        </>
      }
      code={transferCode(printed, jsonMinor(dueMinor)) ? `/i/${token}/pay-code` : null}
      pay={
        open
          ? {
              kind: 'open',
              card: takes !== null,
              byVoucher: voucher,
              open: {
                fieldsUrl: cardFieldsUrl({ take: takes ?? 'card', locale }),
                pending: found.pending ? (found.pending.approvalUrl ?? 'checking') : null,
                collecting: found.pending?.expectedAt
                  ? words.collecting(
                      accountText(found.pending.card ?? '', words),
                      longDate(on(found.pending.expectedAt), locale),
                    )
                  : '',
                refused: found.refused ? words.refusals[found.refused.reason] : null,
              },
              terms: {
                currency: printed.currency,
                locale,
                house: printed.seller.name,
                dueMinor: jsonMinor(payable.due),
                leastMinor: jsonMinor(payable.least),
                askedMinor: part === null ? null : jsonMinor(part),
                smallestMinor: jsonMinor(payable.smallest),
                parts: printed.ways.parts,
                tip: printed.ways.tip,
                terms:
                  terms && termsAccepted?.versionId !== terms.versionId ? { name: terms.name, text: terms.text } : null,
                approveFirst: approveFirstWords(
                  files.filter(({ waits }) => waits),
                  locale,
                ),
              },
            }
          : { kind: 'closed' }
      }
    />
  );
}

import type { Metadata, Route } from 'next';
import Link from 'next/link';
import { orNotFound } from '@/app/found';
import { pageActor } from '@/app/session';
import { clockTime, longDate, shortDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { jsonMinor } from '@/core/money/money';
import { mayDo } from '@/core/person/rights';
import { voucherCodeText, voucherEnd } from '@/core/voucher/voucher';
import { type VoucherSheet, voucherSheet } from '@/flows/voucher/vouchers';
import { Amount, Figure } from '@/ui/kit/amount';
import { VoucherActions } from '@/ui/voucher/voucher-actions';
import { voucherStands } from '../voucher-row';

export const metadata: Metadata = { title: 'Voucher' };

const MOVED = {
  sold: 'Sold',
  used: 'Used',
  'given-back': 'Put back',
  refunded: 'Sale refunded',
  'not-refunded': 'Not refunded after all',
  expired: 'Over',
  extended: 'Good again',
} as const;

/** How it reached, or will reach, whom it is for. */
function sentWords({ voucher, business }: VoucherSheet): string {
  const { sentAt, sendOn, toEmail } = voucher;
  if (sentAt)
    return `Sent to ${toEmail}, ${shortDate(dateInZone(sentAt, business.zone), business.deskLocale, { weekday: true })}.`;
  return sendOn ? `Goes to ${toEmail} on ${longDate(sendOn, business.deskLocale)}.` : '';
}

/** A voucher: what is left of it, for whom it is, and all that moved on it. */
export default async function VoucherPage({ params }: { params: Promise<{ id: string }> }) {
  const actor = await pageActor();
  const { id } = await params;
  const sheet = await orNotFound(id, voucherSheet(actor, id));
  const { voucher, order, moves, business } = sheet;
  const { deskLocale: locale, zone } = business;
  const mayTake = mayDo(actor, 'take');
  const figure = (minor: bigint) => <Figure minor={jsonMinor(minor)} currency={voucher.currency} locale={locale} />;
  return (
    <article className="sheet max-w-[640px] px-[26px] pb-7 pt-5 sm:px-[44px]" aria-label="Voucher">
      <Link href="/records/vouchers" className="link link-small mb-2 inline-block md:hidden">
        All vouchers
      </Link>
      <p className="label">Left on it</p>
      <h1 className="private font-serif text-[30px]/[38px] font-semibold">
        <Amount minor={jsonMinor(voucher.balanceMinor)} currency={voucher.currency} locale={locale} />
        {voucher.balanceMinor === voucher.valueMinor ? null : (
          <span className="ml-2 text-[18px] font-medium text-soft">of {figure(voucher.valueMinor)}</span>
        )}
      </h1>
      <p className="mt-1">
        <b className="font-semibold">{mayTake ? voucherCodeText(voucher.code) : voucherEnd(voucher.code)}</b>,{' '}
        {voucherStands(voucher, sheet)}.
        {voucher.blocked && !voucher.stopped ? ' The payment by which it was bought is disputed.' : ''}
      </p>
      <p className="private mt-3">
        {voucher.toName ? `For ${voucher.toName}. ` : ''}
        Bought by {order.printed.payer.name},{' '}
        <Link className="link" href={`/money/payments/${voucher.paymentId}` as Route}>
          {shortDate(dateInZone(voucher.soldAt, zone), locale, { weekday: true, year: true })}
        </Link>
        . {sentWords(sheet)}
      </p>
      {voucher.message ? (
        <p className="document private mt-3 whitespace-pre-line border-l border-ink pl-4 italic">{voucher.message}</p>
      ) : null}
      {mayTake ? (
        <VoucherActions
          id={voucher.id}
          to={voucher.toEmail}
          stopped={voucher.stopped}
          expiresOn={voucher.expiresOn ?? ''}
        />
      ) : null}
      <h2 className="title-section mt-7 border-b border-ink pb-1">What moved on it</h2>
      <ul>
        {moves.map((move) => (
          <li key={move.id} className="flex items-baseline gap-4 border-b border-rule py-2">
            <span className="small w-[136px] flex-none text-soft">
              {shortDate(dateInZone(move.at, zone), locale)}, {clockTime(move.at, zone)}
            </span>
            <span className="min-w-0 flex-1">
              {MOVED[move.kind]}
              {move.about && move.paymentId ? (
                <>
                  {move.kind === 'used' ? ' for ' : ', '}
                  <Link className="link" href={`/money/payments/${move.paymentId}` as Route}>
                    {move.invoiceId ? `invoice ${move.about}` : `order ${move.about}`}
                  </Link>
                </>
              ) : null}
              <span className="small private ml-2 text-soft">by {move.byName}</span>
            </span>
            <span className="private font-serif text-[15.5px]">{figure(move.minor)}</span>
          </li>
        ))}
      </ul>
      {mayTake ? (
        <p className="mt-4">
          <a className="link" href={`/files/vouchers/${voucher.id}`} target="_blank" rel="noreferrer">
            Its paper
          </a>
        </p>
      ) : null}
    </article>
  );
}

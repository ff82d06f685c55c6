import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { longDate, shortDate } from '@/core/dates/date-text';
import { money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import { isLanguage, localeFor, wordsOf } from '@/core/words/words';
import { voucherPage } from '@/flows/voucher/voucher-page';
import { CheckoutFrame } from '@/ui/checkout/checkout-frame';

export const metadata: Metadata = { title: 'Gift voucher', referrer: 'same-origin', robots: 'noindex' };

/** A gift voucher's own page: what is left of it, until when, and where it went. */
export default async function LinkedVoucher({
  params,
  searchParams,
}: {
  params: Promise<{ token: string }>;
  searchParams: Promise<{ lang?: string | string[] }>;
}) {
  const { token } = await params;
  const found = await voucherPage(token);
  if (!found) notFound();
  const { lang } = await searchParams;
  const { voucher, seller, trouble } = found;
  const locale = localeFor(typeof lang === 'string' && isLanguage(lang) ? lang : '', voucher.locale, '');
  const words = wordsOf(locale).voucher;
  const sum = (minor: bigint) => moneyText(money(minor, voucher.currency), locale);
  const row = 'flex items-baseline justify-between gap-4 border-b border-rule py-2 font-serif text-[17px]/6';
  const why = trouble === 'voucher-over' ? words.over : trouble === 'voucher-blocked' ? words.blocked : words.usedUp;
  return (
    <CheckoutFrame
      kept={token}
      logo={found.logo}
      languages={{}}
      view={{
        locale,
        title: voucher.title || words.title,
        description: [
          voucher.toName ? words.for(voucher.toName) : '',
          voucher.fromName ? words.from(voucher.fromName) : '',
        ]
          .filter(Boolean)
          .join(' · '),
        seller,
        accent: found.accent,
        request: null,
      }}
    >
      <div className="grid gap-x-12 gap-y-7 px-5 pb-9 sm:px-11 md:grid-cols-2">
        <div>
          <p className="label">{words.left}</p>
          <p className="font-serif text-[44px]/[52px] font-semibold" data-left={voucher.availableMinor.toString()}>
            {sum(voucher.availableMinor)}
          </p>
          {trouble ? <p className="mt-1 font-medium text-brick">{why}</p> : null}
          <p className="mt-2 text-[16px]/6 text-soft">
            {voucher.expiresOn ? words.good(longDate(voucher.expiresOn, locale)) : words.goodAlways}
          </p>
          <p className="mt-6 label">{words.code}</p>
          <p className="select-all font-serif text-[24px]/8 font-semibold">{found.code}</p>
          <p className="mt-3 text-[15px]/[22px] text-soft">{words.how(seller.name)}</p>
          <p className="mt-5">
            <a className="btn btn-tall !w-auto" href={`/v/${token}/voucher.pdf`}>
              {words.download}
            </a>
          </p>
        </div>
        <div>
          <p className={`${row} border-t border-t-ink`}>
            <span>{words.worth}</span>
            <span>{sum(voucher.valueMinor)}</span>
          </p>
          {found.moves.map(({ id, kind, minor, on }) => (
            <p key={id} className={row}>
              <span className="text-soft">
                {kind === 'used' ? words.used(shortDate(on, locale)) : words.givenBack(shortDate(on, locale))}
              </span>
              <span>{sum(minor)}</span>
            </p>
          ))}
          {voucher.message ? (
            <p className="mt-6 whitespace-pre-line font-serif text-[18px]/7 italic">{voucher.message}</p>
          ) : null}
        </div>
      </div>
    </CheckoutFrame>
  );
}

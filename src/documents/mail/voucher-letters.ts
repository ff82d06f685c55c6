import type { PrintedVoucher } from '@/core/voucher/printed-voucher';
import { wordsOf } from '@/core/words/words';
import { day, type Letter, letter, sumText } from './letter';

/** The letter with which vouchers come, all of one purchase; their papers go along. */
export function voucherLetter(vouchers: readonly [PrintedVoucher, ...PrintedVoucher[]]): Letter {
  const [first] = vouchers;
  const { locale, seller, fromName } = first;
  const words = wordsOf(locale);
  const sum = sumText(
    vouchers.reduce((all, { valueMinor }) => all + valueMinor, 0),
    first,
  );
  return letter({
    locale,
    seller,
    accent: first.accent,
    subject: fromName ? words.voucher.subjectFrom(fromName, sum) : words.voucher.subject(seller.name, sum),
    lead: [first.title, first.toName ? words.voucher.for(first.toName) : ''].filter(Boolean).join(', '),
    sum,
    under: first.expiresOn ? words.voucher.good(day(first.expiresOn, locale)) : words.voucher.goodAlways,
    words: [first.message, words.voucher.how(seller.name), words.attached].filter(Boolean),
    rows: vouchers.map(({ code, valueMinor, link }) => ({
      label: code,
      value: sumText(valueMinor, first),
      link,
    })),
    ...(vouchers.length === 1 ? { button: { words: words.voucher.see, link: first.link } } : {}),
    ...(fromName ? { italic: words.voucher.from(fromName) } : {}),
    last: words.answerThis(seller.name),
  });
}

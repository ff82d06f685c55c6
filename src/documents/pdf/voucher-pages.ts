import type { PrintedVoucher } from '@/core/voucher/printed-voucher';
import { wordsOf } from '@/core/words/words';
import { dayOf, letterhead, passage, sumOf } from './parts';
import { MARGIN, type Measure, type PictureSizes, paperOf, type SetDocument, Setter } from './setter';

const CODE_WIDTH = 96;

/** Sets a gift voucher on a page: what it is worth, for whom, from whom, its code, and how it is used. */
export function voucherPages(voucher: PrintedVoucher, measure: Measure, pictures: PictureSizes = {}): SetDocument {
  const { locale, seller } = voucher;
  const words = wordsOf(locale);
  const paper = paperOf(locale);
  const set = new Setter(measure, paper, () => undefined);
  letterhead(set, { seller, accent: voucher.accent, logo: pictures.logo });
  set.y += 26;
  for (const line of set.wrapped(voucher.title || words.voucher.title, 'serif-medium', 30, set.right - MARGIN)) {
    set.text(MARGIN, line, 'serif-medium', 30, { role: 'H1' });
    set.y += 36;
  }
  set.y += 8;
  set.text(MARGIN, sumOf(voucher.valueMinor, voucher), 'serif-bold', 44, { colour: voucher.accent });
  set.y += 62;
  const people = [
    voucher.toName ? words.voucher.for(voucher.toName) : '',
    voucher.fromName ? words.voucher.from(voucher.fromName) : '',
  ].filter(Boolean);
  for (const line of people) {
    for (const part of set.wrapped(line, 'serif-medium', 15, set.right - MARGIN)) {
      set.text(MARGIN, part, 'serif-medium', 15);
      set.y += 21;
    }
  }
  if (voucher.message) {
    set.y += 8;
    passage(set, '', voucher.message, 'serif-italic', 13);
  }
  set.y += 30;
  set.room(150);
  set.rule(MARGIN, set.right - MARGIN);
  set.y += 18;
  const top = set.y;
  set.put({
    kind: 'code',
    x: set.right - CODE_WIDTH,
    y: top,
    width: CODE_WIDTH,
    text: voucher.link,
    says: words.voucher.see,
  });
  set.text(MARGIN, words.voucher.code, 'sans', 9.5, { soft: true });
  set.y += 18;
  set.text(MARGIN, voucher.code, 'serif-bold', 22);
  set.y += 36;
  const good = voucher.expiresOn ? words.voucher.good(dayOf(voucher.expiresOn, locale)) : words.voucher.goodAlways;
  set.text(MARGIN, good, 'serif-medium', 12);
  set.y = Math.max(set.y + 24, top + CODE_WIDTH + 10);
  for (const line of set.wrapped(words.voucher.how(seller.name), 'sans', 9.5, set.right - MARGIN)) {
    set.text(MARGIN, line, 'sans', 9.5, { soft: true });
    set.y += 14;
  }
  return {
    title: `${words.voucher.title} ${voucher.code}, ${seller.name}`,
    language: locale,
    ...paper,
    pages: set.pages,
  };
}

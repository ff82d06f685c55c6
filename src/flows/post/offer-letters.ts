import { sellerOf } from '@/core/business/business';
import { moneyText } from '@/core/money/money-text';
import { priceMinor } from '@/core/offer/price';
import { wordsOf } from '@/core/words/words';
import { offerById } from '@/db/offers';
import { orderNotice } from '@/documents/mail/receipt-letters';
import { requestLetter } from '@/documents/mail/request-letter';
import { found } from '@/flows/door/rights';
import { requestLink } from '@/flows/offer/requests';
import { services } from '@/outside/services';
import type { Subject, Written } from './subject';

export async function orderMail({ message, receipt, order }: Subject): Promise<Written> {
  const { printed } = found(receipt);
  const sheet = `${services().publicUrl}/money/payments/${message.paymentId}`;
  return {
    ...orderNotice(printed, { offer: message.details.subject ?? '', order: found(order).printed }, sheet),
    files: [],
  };
}

/** The offer of a request, and the address under which it is opened. */
async function requested({ ctx, request }: Subject) {
  const { id, offerId, filled, toName, words } = found(request);
  const placed = found(await ctx.read((db) => offerById(db, offerId)));
  return { offer: placed.offer, link: requestLink(placed, id), filled, toName, words };
}

export async function requestMail(subject: Subject): Promise<Written> {
  const { business } = subject;
  const { offer, link, filled, toName, words } = await requested(subject);
  const { paperLocale: locale } = business;
  const currency = filled.currency || offer.currency;
  const minor = priceMinor(filled.amount, currency);
  return {
    ...requestLetter({
      locale,
      seller: sellerOf(business),
      accent: business.accent,
      title: offer.title,
      toName,
      sum: minor ? moneyText({ minor, currency }, locale) : '',
      text: words,
      link,
    }),
    files: [],
  };
}

export async function shortRequest(subject: Subject): Promise<string> {
  const { offer, link } = await requested(subject);
  return wordsOf(subject.business.paperLocale).offer.shortRequest(subject.business.name, offer.title, link);
}

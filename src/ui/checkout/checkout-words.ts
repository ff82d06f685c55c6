import type { Words } from '@/core/words/words';
import { payWords } from '../payer/pay-words';

/** What a checkout says; strings only, so that they reach the browser. `{price}` and `{count}` are filled in where they stand. */
export const checkoutWords = (words: Words) => {
  const { offer } = words;
  return {
    ...payWords(words),
    amount: offer.amount,
    ownAmount: offer.ownAmount,
    howOften: offer.howOften,
    agree: words.plan.agree,
    purpose: offer.purpose,
    howMany: offer.howMany,
    which: offer.which,
    choose: offer.choose,
    each: offer.each('{price}'),
    from: offer.from('{price}'),
    left: offer.left('{count}'),
    soldOut: offer.soldOut,
    currency: offer.currency,
    payIn: offer.payIn('{currency}'),
    aboutYou: offer.aboutYou,
    name: offer.name,
    email: offer.email,
    phone: offer.phone,
    optional: offer.optional,
    billing: offer.billing,
    deliveryTo: offer.deliveryTo,
    sameAddress: offer.sameAddress,
    noScript: offer.noScript,
    paidAlready: offer.paidAlready,
    seeOrder: offer.seeOrder,
    payAgain: offer.payAgain,
    country: offer.country,
    street: offer.street,
    city: offer.city,
    postalCode: offer.postalCode,
    region: offer.region,
    message: offer.message,
    haveCode: offer.haveCode,
    code: offer.code,
    useCode: offer.useCode,
    codeCounts: offer.codeCounts,
    orderFree: offer.orderFree,
    file: offer.file,
    fileKept: offer.fileKept,
    total: offer.total,
    changedSum: offer.changed,
  };
};

export type CheckoutWords = ReturnType<typeof checkoutWords>;

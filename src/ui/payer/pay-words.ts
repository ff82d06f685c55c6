import type { Words } from '@/core/words/words';

/** What the payment's own parts say; `{sum}`, `{least}`, `{most}` … are filled in where they stand. Strings only, so that they reach the browser. */
export const payWords = (words: Words) => ({
  pay: words.pay('{sum}'),
  paying: words.paying,
  whole: words.payWhole,
  part: words.payPart,
  askedNow: words.askedNow('{sum}'),
  isMeant: words.isMeant('{number}'),
  partAmount: words.partAmount,
  partSpan: words.partSpan('{least}', '{most}', '{whole}'),
  partGap: words.partGap('{most}', '{whole}', '{smallest}'),
  tipTitle: words.tipTitle,
  noTip: words.noTip,
  ownTip: words.ownTip,
  withTip: words.withTip('{sum}'),
  cardGoes: words.cardGoes,
  noScript: words.noScript,
  checking: words.checking,
  checkingMore: words.checkingMore,
  approval: words.approval,
  approvalMore: words.approvalMore,
  atYourBank: words.atYourBank,
  otherCard: words.otherCard,
  paidThanks: words.paidThanks,
  allUnderWay: words.allUnderWay,
  receiptNumber: words.receiptNumber('{number}'),
  toPayment: words.toPayment,
  cardSilent: words.cardSilent,
  processorAway: words.processorAway,
  acceptTerms: words.acceptTerms,
  firstAccept: words.firstAccept,
  firstApprove: words.firstApprove,
  refusals: words.refusals,
  troubles: words.troubles,
});

export type PayWords = ReturnType<typeof payWords>;

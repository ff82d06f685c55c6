import type { MessageKind } from '@/core/message/kinds';
import { digitalMail } from './digital-letter';
import { disputeMail } from './dispute-letters';
import {
  answerMail,
  approvalMail,
  cancelledMail,
  changedMail,
  creditMail,
  debitBackMail,
  invoiceMail,
  newsMail,
  paymentMail,
  receiptMail,
  refundMail,
  reminderMail,
  shortInvoice,
  takenBackMail,
} from './invoice-letters';
import { ownNewsMail } from './news-letters';
import { orderMail, requestMail, shortRequest } from './offer-letters';
import { parcelMail } from './parcel-letters';
import { partnerPageMail, partnerStatementMail, payoutReturnedMail } from './payout-letters';
import {
  addressLinkMail,
  addressMovedMail,
  businessClosedMail,
  codesTriedMail,
  confirmMail,
  hookFailingMail,
  identityMail,
  invitationMail,
  lostStepsLinkMail,
  newSignInMail,
  passwordChangedMail,
  passwordLinkMail,
  stepChangedMail,
  stepsLostMail,
} from './person-letters';
import {
  cardAskedMail,
  chargeNoticeMail,
  chargeRefusedMail,
  ownPageMail,
  partDueMail,
  planChangedMail,
  planEndedMail,
  planEndingMail,
  planLinkMail,
  planOverMail,
  planProposedMail,
  shortOwnPage,
  shortPlan,
} from './plan-letters';
import { readyMail } from './ready-letter';
import { giftMail, settingsMail, statementMail } from './record-letters';
import { returnMail } from './return-letter';
import type { Subject, Written } from './subject';
import { voucherMail } from './voucher-letters';

/** Who writes a kind of message: as a mail, and as a short text where it can go to a phone. */
type Writer = {
  /** Null where there is nothing left to say. */
  readonly mail: (subject: Subject) => Promise<Written | null>;
  readonly short?: (subject: Subject) => Promise<string>;
};

/** The one list of who writes what. */
export const WRITERS: Readonly<Record<MessageKind, Writer>> = {
  invoice: { mail: invoiceMail, short: shortInvoice },
  trial: { mail: invoiceMail },
  changed: { mail: changedMail, short: shortInvoice },
  reminder: { mail: reminderMail, short: shortInvoice },
  cancelled: { mail: cancelledMail, short: shortInvoice },
  'credit-note': { mail: creditMail },
  answer: { mail: answerMail },
  question: { mail: newsMail('A question') },
  notice: { mail: newsMail('News') },
  receipt: { mail: receiptMail },
  'approval-asked': { mail: approvalMail },
  'debit-returned': { mail: debitBackMail },
  'receipt-taken-back': { mail: takenBackMail },
  refund: { mail: refundMail },
  'payment-notice': { mail: paymentMail },
  'order-notice': { mail: orderMail },
  request: { mail: requestMail, short: shortRequest },
  statement: { mail: statementMail },
  'gift-letter': { mail: giftMail },
  'plan-link': { mail: planLinkMail(false), short: shortPlan },
  'plan-reminder': { mail: planLinkMail(true), short: shortPlan },
  'charge-notice': { mail: chargeNoticeMail },
  'charge-refused': { mail: chargeRefusedMail },
  'part-due': { mail: partDueMail },
  'card-asked': { mail: cardAskedMail },
  'own-page': { mail: ownPageMail, short: shortOwnPage },
  'plan-ended': { mail: planEndedMail },
  'plan-changed': { mail: planChangedMail },
  'plan-proposed': { mail: planProposedMail },
  'plan-ending': { mail: planEndingMail },
  'plan-over': { mail: planOverMail },
  'settings-changed': { mail: settingsMail },
  'confirm-address': { mail: confirmMail },
  'password-link': { mail: passwordLinkMail },
  'password-changed': { mail: passwordChangedMail },
  'new-sign-in': { mail: newSignInMail },
  'step-changed': { mail: stepChangedMail },
  'codes-tried': { mail: codesTriedMail },
  'lost-steps-link': { mail: lostStepsLinkMail },
  'steps-lost': { mail: stepsLostMail },
  'address-link': { mail: addressLinkMail },
  'address-moved': { mail: addressMovedMail },
  'business-closed': { mail: businessClosedMail },
  'hook-failing': { mail: hookFailingMail },
  identity: { mail: identityMail },
  'own-news': { mail: ownNewsMail },
  invitation: { mail: invitationMail },
  voucher: { mail: voucherMail },
  'parcel-left': { mail: parcelMail('left') },
  'parcel-door': { mail: parcelMail('door') },
  'parcel-delivered': { mail: parcelMail('delivered') },
  'parcel-late': { mail: parcelMail('late') },
  'digital-ready': { mail: digitalMail },
  'counter-ready': { mail: readyMail },
  'return-answered': { mail: returnMail },
  dispute: { mail: disputeMail },
  'payout-returned': { mail: payoutReturnedMail },
  'partner-statement': { mail: partnerStatementMail },
  'partner-page': { mail: partnerPageMail },
};

import type { GiftProblem } from '../../voucher/gift';
import type { VoucherProblem } from '../../voucher/voucher';

/** Why a voucher, or what was typed about a gift, is not taken. */
const PROBLEMS: Readonly<Record<VoucherProblem | GiftProblem | 'voucher-not-repeated', string>> = {
  'voucher-unknown': 'There is no voucher with this code. Look at its letters again.',
  'voucher-over': 'This voucher is over. Ask whoever gave it, or us.',
  'voucher-used-up': 'Nothing is left on this voucher.',
  'voucher-currency': 'This voucher is in another currency.',
  'voucher-blocked': 'This voucher cannot be used at the moment. Ask us about it.',
  'voucher-not-repeated': 'A gift voucher pays once: choose to pay once, or take the voucher out.',
  'gift-email-wrong': 'Write the whole address, as name@post.example.',
  'gift-day-wrong': 'Choose a day from today on, within a year.',
};

/** What payers read of gift vouchers, in English. */
export const voucherEn = {
  problems: PROBLEMS,
  title: 'Gift voucher',
  have: 'I have a gift voucher',
  code: 'Code of the voucher',
  look: 'Look',
  use: (sum: string) => `Use ${sum} of it`,
  payAll: 'Pay with the voucher',
  paid: (sum: string) => `${sum} is paid by the voucher.`,
  stays: (sum: string) => `${sum} stays on it.`,
  leftToPay: 'Left to pay',
  taxedLater: 'Taxed when the voucher is used',
  forWhom: 'Who is it for?',
  forMe: 'For me: it comes with the receipt',
  forOther: 'For somebody else',
  toName: 'Their name',
  toEmail: 'Their e-mail',
  toEmailHelp: 'Without one, the voucher comes to you, to be handed over.',
  on: 'To be sent on',
  onHelp: 'Empty for at once.',
  message: 'Your words to them',
  soldTo: (name: string, date: string) => `The voucher goes to ${name}, ${date}.`,
  soldToYou: 'The voucher comes to you by mail.',
  atOnce: 'at once',
  subject: (house: string, sum: string) => `A gift voucher from ${house}: ${sum}`,
  subjectFrom: (name: string, sum: string) => `${name} gives you a voucher: ${sum}`,
  from: (name: string) => `From ${name}`,
  for: (name: string) => `For ${name}`,
  good: (date: string) => `Good until ${date}`,
  goodAlways: 'Good without end',
  how: (house: string) =>
    `Type the code where you pay ${house}: on an invoice, at the checkout, or say it at the desk. What is left stays on it.`,
  see: 'See what is left',
  worth: 'Worth',
  left: 'Left on it',
  used: (date: string) => `Used ${date}`,
  givenBack: (date: string) => `Put back ${date}`,
  over: 'This voucher is over.',
  blocked: 'This voucher cannot be used at the moment.',
  usedUp: 'All of it is used.',
  download: 'Download as PDF',
};

/** What every language says of gift vouchers. */
export type VoucherWords = typeof voucherEn;

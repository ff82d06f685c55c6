/** What customers read of their own data: what is kept of them, why and how long, and how they take it along. */
export const keepingEn = {
  title: 'What is kept of you, and why',
  lead: (business: string) =>
    `${business} writes invoices and takes payments with Dahlia. This is what is kept of you for that, why, and for how long.`,
  what: 'What',
  why: 'Why',
  howLong: 'How long',
  papers: 'Invoices, receipts, credit notes and payments, with your name and address on them',
  papersWhy: 'Tax and commercial law ask the business to keep them.',
  papersLong: (years: number) => `${years} full years after the year they are of`,
  contact: 'Your name, addresses, telephone number, and what you wrote to the business',
  contactWhy: 'So that papers and answers reach you.',
  contactLong: 'Until you or the business have you erased',
  cards: 'The last four figures of a card or account, and that it may be charged',
  cardsWhy:
    'So that you and the business know which one was charged. The whole number is with the card processor alone.',
  cardsLong: 'Until you take it away',
  checkouts: 'What you typed where you began to pay and did not',
  checkoutsWhy: 'So that you can go on where you stopped.',
  days: (days: number) => (days === 1 ? '1 day' : `${days} days`),
  mails: 'What mails to you said, and to which address they went',
  mailsWhy: 'So that it can be shown that you were told.',
  months: (months: number) => (months === 1 ? '1 month' : `${months} months`),
  erased:
    'Somebody who is erased is gone everywhere but from papers that the law wants kept; from those they go when their time is over. What was sold, and for how much, stays in the books without a name.',
  backups: 'Copies that are kept against loss are overwritten after a while; nobody works with them.',
  rights:
    'You may ask the business what it keeps of you, have it put right, take it along, or have it erased. If you think that something is wrong, you may also turn to the authority for data protection where you live.',
  ask: (business: string) => `Ask ${business}`,
  yours: 'Your data',
  yoursText: 'Everything that is kept of you, as one file: your papers, and the rest in a form that programs read.',
  takeAlong: 'Take it along',
  seeWhat: 'What is kept of you, and why',
  readMe: (name: string, business: string, day: string) =>
    `Everything that ${business} keeps of ${name} with Dahlia, as of ${day}.\n\nIn papers: invoices, credit notes and receipts as they went out.\nIn files: what was handed in or sent along.\nIn everything.json: all the rest, table by table. Sums are in the smallest unit of their currency; moments are as ISO 8601 writes them.\n`,
  readMeOwn: 'Notes that the business writes for itself are not in it; ask the business for them.\n',
};

export type KeepingWords = typeof keepingEn;

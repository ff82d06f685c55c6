import { type GiftLetter, giftSum } from '@/core/statement/gifts';
import type { Statement } from '@/core/statement/statement';
import { wordsOf } from '@/core/words/words';
import { day, type Letter, letter, sumText } from './letter';

/** A customer's statement of account. */
export function statementLetter(statement: Statement, text: string): Letter {
  const words = wordsOf(statement.locale);
  const sum = sumText(statement.closingMinor, statement);
  return letter({
    locale: statement.locale,
    seller: statement.seller,
    accent: statement.accent,
    subject: words.statementSubject(statement.seller.name),
    lead: `${words.statement}, ${words.period(day(statement.from, statement.locale), day(statement.to, statement.locale))}`,
    sum,
    under: words.closingBalance,
    words: [text || words.statementText],
    rows: [],
    last: words.answerThis(statement.seller.name),
  });
}

/** The letter with which a donor gets all gifts of a year. */
export function giftMail(gifts: GiftLetter): Letter {
  const words = wordsOf(gifts.locale);
  const name = words.offer.yearLetter(String(gifts.year));
  return letter({
    locale: gifts.locale,
    seller: gifts.seller,
    accent: gifts.accent,
    subject: `${name}, ${gifts.seller.name}`,
    lead: name,
    sum: sumText(giftSum(gifts), gifts),
    under: gifts.payer.name,
    words: [words.offer.yearLetterText],
    rows: [],
    last: words.answerThis(gifts.seller.name),
  });
}

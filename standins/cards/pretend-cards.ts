/** What a pretend card does when it is charged. */
export type Behaviour =
  | 'accepted'
  | 'not-enough-money'
  | 'over-limit'
  | 'card-blocked'
  | 'wrong-security-number'
  | 'approval'
  | 'approval-at-first'
  | 'late-accepted'
  | 'late-refused'
  | 'disputed-later'
  | 'ending'
  | 'poor-at-first'
  | 'replaced'
  | 'refused'
  | 'debit';

/** A card of an invented scheme. Every number begins with 9, which no real scheme's does. A bank account is charged like one. */
export type PretendCard = {
  readonly name: string;
  readonly scheme: 'Corvid' | 'Lumen' | 'Bank account';
  readonly number: string;
  readonly behaviour: Behaviour;
  readonly words: string;
};

/** The Luhn check digit for a number without one (ISO/IEC 7812-1 annex B). */
export function checkDigit(digits: string): string {
  const sum = [...digits]
    .reverse()
    .map((digit, at) => (at % 2 === 0 ? Number(digit) * 2 : Number(digit)))
    .reduce((total, value) => total + (value > 9 ? value - 9 : value), 0);
  return String((10 - (sum % 10)) % 10);
}

const card = (
  name: string,
  scheme: 'Corvid' | 'Lumen',
  serial: string,
  behaviour: Behaviour,
  words: string,
): PretendCard => {
  const stem = `${scheme === 'Corvid' ? '9071' : '9308'}${serial.padStart(11, '0')}`;
  return { name, scheme, number: `${stem}${checkDigit(stem)}`, behaviour, words };
};

/** One number for each behaviour. */
export const PRETEND_CARDS: readonly PretendCard[] = [
  card('corvid-good', 'Corvid', '22081', 'accepted', 'Accepted'),
  card('lumen-good', 'Lumen', '9321', 'accepted', 'Accepted'),
  card('lumen-approval', 'Lumen', '6144', 'approval', 'Asks for the holder’s approval at the bank'),
  card(
    'corvid-first',
    'Corvid',
    '27272',
    'approval-at-first',
    'Asks for the holder’s approval the first time; charged again without',
  ),
  card('corvid-poor', 'Corvid', '44170', 'not-enough-money', 'Refused: not enough money'),
  card('lumen-limit', 'Lumen', '5230', 'over-limit', 'Refused: above the limit of the card'),
  card('corvid-blocked', 'Corvid', '17755', 'card-blocked', 'Refused: blocked'),
  card('lumen-code', 'Lumen', '8816', 'wrong-security-number', 'Refused: wrong security number'),
  card('corvid-silent', 'Corvid', '90009', 'refused', 'Refused without a reason'),
  card('corvid-late', 'Corvid', '30303', 'late-accepted', 'No answer in time; accepted in the end'),
  card('lumen-late', 'Lumen', '7070', 'late-refused', 'No answer in time; refused in the end'),
  card('corvid-dispute', 'Corvid', '66123', 'disputed-later', 'Accepted, disputed a week later'),
  card(
    'corvid-second',
    'Corvid',
    '51515',
    'poor-at-first',
    'Refused at first, accepted the next time, when charged again and again',
  ),
  card(
    'lumen-replaced',
    'Lumen',
    '4077',
    'replaced',
    'Accepted; a month after it is kept its number is replaced silently',
  ),
  card('lumen-ending', 'Lumen', '2024', 'ending', 'Accepted, expires at the end of this month'),
];

/** One of a hundred thousand cards that are all refused, as a stolen list would hold them. @param at 0 to 99,999 */
export const lostCard = (at: number): PretendCard =>
  card(`lumen-lost-${at}`, 'Lumen', `7${String(at).padStart(5, '0')}`, 'refused', 'Refused without a reason');

const LOST_NUMBER = /^93080{5}7(\d{5})\d$/;

/** The pretend card with this number; spaces do not matter. */
export function cardByNumber(number: string): PretendCard | undefined {
  const digits = number.replace(/\s/g, '');
  const lost = LOST_NUMBER.exec(digits)?.[1];
  const card = lost ? lostCard(Number(lost)) : PRETEND_CARDS.find((known) => known.number === digits);
  return card?.number === digits ? card : undefined;
}

/** The pretend card that a token stands for. */
export function cardByName(name: string | undefined): PretendCard | undefined {
  const lost = /^lumen-lost-(\d{1,5})$/.exec(name ?? '')?.[1];
  return lost ? lostCard(Number(lost)) : PRETEND_CARDS.find((known) => known.name === name);
}

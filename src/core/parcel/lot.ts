import type { Recipient } from './handover';
import { sameDoor } from './handover';

const WORDS = ['no', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine', 'ten', 'eleven', 'twelve'];

/** A small count as a word, a larger one in figures. */
export const numberWord = (count: number): string => WORDS[count] ?? String(count);

/** The same at the beginning of a sentence. */
export const numberLead = (count: number): string => {
  const word = numberWord(count);
  return word.charAt(0).toUpperCase() + word.slice(1);
};

/** A sale as it is gathered with others of the same door. */
type Gathered = { readonly customerId: string | null; readonly recipient: Recipient };

/** Puts sales for one door, of one customer, together, in the order in which they came. */
export function byDoor<One extends Gathered>(sales: readonly One[]): One[][] {
  const doors: One[][] = [];
  for (const sale of sales) {
    const same = doors.find(
      ([first]) =>
        first !== undefined && first.customerId === sale.customerId && sameDoor(first.recipient, sale.recipient),
    );
    if (same) same.push(sale);
    else doors.push([sale]);
  }
  return doors;
}

/** What is in a parcel, in a few words: `Rosin, dark, 2 and two more`. Counts of one are not said. */
export function contentWords(lines: readonly { readonly what: string; readonly quantity: string }[]): string {
  const [first, second, ...rest] = lines;
  const word = ({ what, quantity }: { what: string; quantity: string }) =>
    quantity === '1' ? what : `${what}, ${quantity}`;
  if (!first) return 'Nothing yet';
  if (!second) return word(first);
  return rest.length === 0
    ? `${word(first)}; ${word(second)}`
    : `${word(first)} and ${numberWord(rest.length + 1)} more`;
}

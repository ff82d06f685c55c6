import type { Address } from '../place/address';
import type { ChosenGift } from '../voucher/gift';

/** What somebody takes of an item; `quantity` as typed. */
export type ChosenItem = { readonly id: string; readonly optionId: string; readonly quantity: string };

/** What a payer chose and wrote, as typed. */
export type Choice = {
  readonly currency: string;
  readonly amount: string;
  readonly purpose: string;
  readonly items: readonly ChosenItem[];
  readonly code: string;
  /** The code of a gift voucher that pays some of it; none where there is no voucher. */
  readonly voucher?: string;
  /** For whom a voucher is bought; none for the payer. */
  readonly gift?: ChosenGift;
  /** `10%`, an amount, or nothing. */
  readonly tip: string;
  readonly name: string;
  readonly email: string;
  readonly phone: string;
  readonly billing: Address | null;
  readonly delivery: Address | null;
  readonly message: string;
  /** Answers to the offer's own questions, by the field's id; a file's is its id. */
  readonly answers: Readonly<Record<string, string>>;
  readonly acceptsTerms: boolean;
  /** How often it is paid, `month:1`; empty for once. */
  readonly repeat: string;
  /** That the card may be charged again. */
  readonly agrees: boolean;
};

/** A choice in which nothing is chosen or written yet. */
export const blankChoice = (currency: string): Choice => ({
  currency,
  amount: '',
  purpose: '',
  items: [],
  code: '',
  tip: '',
  name: '',
  email: '',
  phone: '',
  billing: null,
  delivery: null,
  message: '',
  answers: {},
  acceptsTerms: false,
  repeat: '',
  agrees: false,
});

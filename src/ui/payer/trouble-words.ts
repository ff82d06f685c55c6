import type { TroubleCode } from '@/core/words/trouble/en';
import type { Answer } from '../kit/send';

/** What can go wrong, in the language of a customer's page. */
export type Troubles = Readonly<Record<TroubleCode, string>>;

/** What an answer says is wrong, in the language of the page; empty when nothing is. */
export function troubleWords(
  troubles: Troubles,
  answer: { readonly ok: true } | Extract<Answer<never>, { ok: false }>,
) {
  if (answer.ok) return '';
  // Why an offer cannot be paid is worded where the payer's language is known.
  const [field] = answer.code === 'offer-not-open' ? answer.fields : [];
  return field?.words ?? troubles[answer.code as TroubleCode] ?? answer.words;
}

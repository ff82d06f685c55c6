import type { WorkGroup } from '@/core/today/work';
import type { RosetteState } from '../rosette-geometry';

/** What is done about a thing from its row on Today. */
export type WorkAct =
  | { readonly do: 'open'; readonly href: string; readonly words: string }
  | { readonly do: 'charge'; readonly chargeIds: readonly string[] }
  | { readonly do: 'card'; readonly customerIds: readonly string[]; readonly to: string }
  | {
      readonly do: 'remind';
      readonly invoiceIds: readonly string[];
      readonly planIds: readonly string[];
      readonly to: string;
    }
  | { readonly do: 'answer'; readonly questionId: string; readonly question: string }
  | { readonly do: 'decide'; readonly planId: string; readonly count: number; readonly sum: string }
  | {
      readonly do: 'resend';
      readonly messageId: string;
      readonly what: string;
      readonly address: string;
      readonly way: 'mail' | 'text' | 'chat';
      /** Whether it goes to a customer, who can have another address from now on. */
      readonly customer: boolean;
    }
  | { readonly do: 'try'; readonly jobKey: string };

export type WorkMark =
  | { readonly rosette: RosetteState; readonly share: number }
  | { readonly icon: 'card' | 'help' | 'hourglass' | 'mail' | 'question' | 'pen' | 'scale' | 'parcel' | 'shelf' };

/** Something of a row beside its first thing: a sentence, where it stands, and its own action, unless the row's serves it. */
export type WorkLine = {
  readonly key: string;
  readonly words: string;
  readonly href: string | null;
  readonly act: WorkAct | null;
};

/** A person, or a thing that is nobody's, on Today; sums in minor units, one for each currency. */
export type WorkRowShown = {
  readonly key: string;
  readonly mark: WorkMark;
  readonly title: string;
  readonly href: string | null;
  readonly about: string;
  readonly sums: readonly { readonly minor: number; readonly currency: string }[];
  readonly act: WorkAct | null;
  readonly lines: readonly WorkLine[];
};

export const GROUP_WORDS: Readonly<Record<WorkGroup | 'waits', string>> = {
  try: 'Try again',
  defend: 'Answer disputes',
  answer: 'Answer',
  decide: 'Decide about missed charges',
  charge: 'Charge again',
  card: 'Send a card link',
  remind: 'Remind',
  resend: 'Send again',
  deliver: 'See to parcels',
  payout: 'Give another account for what came back',
  match: 'Match with the bank',
  compare: 'Compare the books',
  order: 'Order what runs low',
  finish: 'Finish and send',
  waits: 'Under way by itself',
};

/** Acts of one kind as one; null where they are not, or cannot be done together. */
export function actOfAll(acts: readonly (WorkAct | null)[]): WorkAct | null {
  const [first, ...more] = acts;
  if (!first || more.length === 0) return first ?? null;
  let all: WorkAct = first;
  for (const act of more) {
    if (act?.do === 'charge' && all.do === 'charge')
      all = { do: 'charge', chargeIds: [...all.chargeIds, ...act.chargeIds] };
    else if (act?.do === 'card' && all.do === 'card')
      all = { ...all, customerIds: [...new Set([...all.customerIds, ...act.customerIds])] };
    else if (act?.do === 'remind' && all.do === 'remind')
      all = {
        ...all,
        invoiceIds: [...all.invoiceIds, ...act.invoiceIds],
        planIds: [...all.planIds, ...act.planIds],
      };
    else return null;
  }
  return all;
}

import type { CardSeen } from '../payment/outcome';

/** A card that the processor keeps, by its name there; `expires` is the last month in which it is good, `YYYY-MM`. */
export type KeptCard = CardSeen & { readonly id: string; readonly expires: string; readonly fingerprint: string };

/** A card on file as screens show it. */
export type ShownCard = {
  readonly id: string;
  readonly words: string;
  readonly state: 'good' | 'refusing';
  readonly trouble: string;
  /** It is over before its next charge, or soon. */
  readonly ending: boolean;
};

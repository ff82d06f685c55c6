/** A card on file as screens show it. */
export type ShownCard = {
  readonly id: string;
  readonly words: string;
  readonly state: 'good' | 'refusing';
  readonly trouble: string;
  /** It is over before its next charge, or soon. */
  readonly ending: boolean;
};

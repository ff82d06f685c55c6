import type { ReturnState } from '@/core/parcel/returning';

/** A return as the desk shows it. */
export type ReturnRowShown = {
  readonly id: string;
  readonly state: ReturnState;
  readonly stateWords: string;
  readonly name: string;
  readonly sale: string;
  readonly saleHref: string;
  readonly when: string;
  readonly reason: string;
  readonly words: string;
  readonly fileId: string | null;
  readonly answer: string;
  readonly number: string;
  /** Where its label was scanned last; empty where it was not. */
  readonly way: string;
  readonly wasPosted: boolean;
  readonly paymentId: string | null;
  readonly lines: readonly {
    readonly line: number;
    readonly what: string;
    readonly quantity: string;
    readonly toStock: string;
    readonly thrown: string;
  }[];
};

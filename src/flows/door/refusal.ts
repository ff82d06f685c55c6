import { type RefusalCode, refusalWords } from '@/core/refusal/refusal';

export type { RefusalCode };

/** A rule said no: the transaction rolls back, and the person reads `words`. `fields` names the places, where there are any. */
export class Refusal extends Error {
  override readonly name = 'Refusal';

  constructor(
    readonly code: RefusalCode,
    readonly fields: readonly { readonly field: string; readonly words: string }[] = [],
  ) {
    super(refusalWords(code));
  }

  /** The same no, said at the one place that it is about. */
  static at(field: string, code: RefusalCode): Refusal {
    return new Refusal(code, [{ field, words: refusalWords(code) }]);
  }

  get words(): string {
    return this.message;
  }
}

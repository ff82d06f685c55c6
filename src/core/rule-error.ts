/** Why a calculation refuses its input (`calculation.md` 14). */
export type RuleCode =
  | 'amount_out_of_range'
  | 'bad_quantity'
  | 'bad_price'
  | 'bad_rate'
  | 'bad_currency'
  | 'discount_too_large'
  | 'unknown_tax'
  | 'bad_schedule'
  | 'bad_date'
  | 'bad_zone'
  | 'bad_share'
  | 'refund_too_large'
  | 'bad_input';

/** A calculation was given values outside its rules; `message` names the field and the limit. */
export class RuleError extends Error {
  constructor(
    readonly code: RuleCode,
    message: string,
  ) {
    super(message);
    this.name = 'RuleError';
  }
}

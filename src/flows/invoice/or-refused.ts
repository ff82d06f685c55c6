import { RuleError } from '@/core/rule-error';
import { Refusal, type RefusalCode } from '@/flows/door/refusal';

const SAID: Partial<Record<RuleError['code'], RefusalCode>> = {
  refund_too_large: 'refund-too-large',
  bad_input: 'credited-by-lines',
  bad_quantity: 'refund-too-large',
};

/** What a rule of giving back answers; its no as one for a person. @throws Refusal `refund-too-large`, `credited-by-lines` */
export function orRefused<T>(rule: () => T): T {
  try {
    return rule();
  } catch (error) {
    const code = error instanceof RuleError ? SAID[error.code] : undefined;
    throw code ? new Refusal(code) : error;
  }
}

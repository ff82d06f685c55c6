/** How an invoice goes out: by e-mail, as a short text by message, as a link to pass on, handed over by the person, or silently by a plan that charges it. */
export type SendingWay = 'mail' | 'text' | 'chat' | 'link' | 'hand' | 'plan';

/**
 * How and to whom an invoice is sent.
 *
 * `to` are e-mail addresses (none: the customer's own and their copies), `phone` is where a message goes (empty: the
 * customer's), `text` stands in the e-mail instead of the usual words.
 */
export type SendWith = {
  readonly way: SendingWay;
  readonly to: readonly string[];
  readonly phone: string;
  readonly text: string;
};

export const sendBy = (way: SendingWay, more: Partial<SendWith> = {}): SendWith => ({
  way,
  to: [],
  phone: '',
  text: '',
  ...more,
});

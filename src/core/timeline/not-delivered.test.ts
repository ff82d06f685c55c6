import { expect, test } from 'vitest';
import { notDelivered } from './not-delivered';
import type { TimelineEvent } from './timeline';

const mail = (
  kind: 'mail-failed' | 'bounced' | 'delivered' | 'mail-handed-over',
  to = 'a@x.example',
): TimelineEvent => ({
  kind,
  what: 'invoice',
  to,
  trouble: 'no such address',
});
const of = (...events: TimelineEvent[]) => notDelivered(events.map((event) => ({ event })));

test('a message that failed is told until it is sent again or arrives, whichever way it failed and whoever else got theirs', () => {
  expect(of()).toBeNull();
  expect(of(mail('mail-handed-over'))).toBeNull();
  expect(of(mail('mail-failed'))).toMatchObject({ to: 'a@x.example', trouble: 'no such address' });
  expect(of(mail('bounced'), mail('mail-handed-over'))).toMatchObject({ what: 'invoice' });
  expect(of(mail('delivered', 'b@x.example'), mail('mail-failed'))).toMatchObject({ to: 'a@x.example' });
  expect(of(mail('mail-handed-over'), mail('mail-failed'))).toBeNull();
  expect(of(mail('delivered'), mail('bounced'))).toBeNull();
  expect(of({ kind: 'sent-again', to: 'a@x.example' }, mail('mail-failed'))).toBeNull();
});

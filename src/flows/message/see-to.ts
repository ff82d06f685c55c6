import { MAIL_ADDRESS } from '@/core/customer/mail-address';
import { MESSAGE_KINDS } from '@/core/message/kinds';
import { lockedCustomer, updateCustomer } from '@/db/customers';
import { customerOfMessage, markSeenTo, messageById } from '@/db/messages';
import { addToTimeline } from '@/db/timeline';
import { desk } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { queueMessage } from './queue-message';
import { subjectOfMessage } from './subject';

/**
 * Sends a message that did not arrive once more, to the same address or another. Asked twice it goes once.
 *
 * @throws Refusal `address-not-read` for what is none, `not-found` for a message that has arrived or was seen to
 */
export const sendAnew = desk('ask').write(async (tx, id: string, address: string): Promise<void> => {
  const message = found(await messageById(tx, id));
  const wanted = address.trim();
  if (message.way === 'mail' ? !MAIL_ADDRESS.test(wanted) : wanted.replace(/\D/g, '').length < 5)
    throw new Refusal('address-not-read');
  if (!(await markSeenTo(tx, id))) throw new Refusal('not-found');
  await queueMessage(tx, { ...message, toAddress: wanted, key: `anew:${id}` });
  const about = subjectOfMessage(message);
  if (about && MESSAGE_KINDS[message.kind].told !== 'nothing')
    await addToTimeline(tx, about, { kind: 'sent-again', to: wanted }, tx.name);
});

/** The customer of a message has this address from now on. */
export const keepAddress = desk('records').write(async (tx, messageId: string, address: string): Promise<void> => {
  const { way, kind } = found(await messageById(tx, messageId));
  const customer = await lockedCustomer(tx, (await customerOfMessage(tx, messageId)) ?? '');
  if (!customer || MESSAGE_KINDS[kind].reader !== 'customer') return;
  await updateCustomer(tx, {
    ...customer,
    ...(way === 'mail' ? { email: address.trim() } : { phone: address.trim() }),
  });
});

/** Lets a message be that did not arrive: it is said another way, or does not matter any more. */
export const letBe = desk('ask').write(async (tx, id: string): Promise<void> => {
  await markSeenTo(tx, id);
});

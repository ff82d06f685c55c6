import { lookForDisputes } from '@/flows/dispute/hear-disputes';
import { anybody } from '@/flows/door/operation';
import { lookForDebits } from '@/flows/payment/hear-debits';
import { hearOfSale } from '@/flows/payment/settle-payment';
import { ofSaleKey } from '@/flows/payment/take-payment';
import { services } from '@/outside/services';
import { isGenuineEvent } from '@/outside/signed-event';

/** Acts on an event of the processor's; false where it is not signed as the processor signs. */
export const hearCardEvent = anybody().run(
  async (house, event: { body: string; time: string; signature: string }): Promise<boolean> => {
    if (!isGenuineEvent(services().webhookSecret, event.time, event.signature, event.body)) return false;
    const said = JSON.parse(event.body) as { key?: unknown; event?: unknown };
    if (typeof said.key !== 'string') return true;
    await hearOfSale(house, said.key);
    const businessId = ofSaleKey(said.key)?.businessId;
    // What is disputed or came back is asked for, never taken from the event.
    if (said.event === 'dispute-changed' && businessId) await lookForDisputes(house.within(businessId));
    if (said.event === 'debit-returned' && businessId) await lookForDebits(house.within(businessId));
    return true;
  },
);

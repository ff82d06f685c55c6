import { anybody } from '@/flows/door/operation';
import { services } from '@/outside/services';
import { isGenuineEvent } from '@/outside/signed-event';
import { hearOfSale } from './settle-payment';

/** Acts on an event of the processor's; false where it is not signed as the processor signs. */
export const hearCardEvent = anybody().run(
  async (house, event: { body: string; time: string; signature: string }): Promise<boolean> => {
    if (!isGenuineEvent(services().webhookSecret, event.time, event.signature, event.body)) return false;
    const said = JSON.parse(event.body) as { key?: unknown };
    if (typeof said.key === 'string') await hearOfSale(house, said.key);
    return true;
  },
);

import { announce } from '@/db/jobs';
import { messageById, messageHolder, updateDelivery } from '@/db/messages';
import { insertHappening } from '@/db/timeline';
import { inBusiness, outsideBusiness } from '@/db/transaction';
import { services } from '@/outside/services';
import { isGenuineEvent } from '@/outside/signed-event';

const MESSAGE_ID = /^<?([0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12})@/;

/** Acts on what the mail server reports of a message; false where it is not signed as the mail server signs. */
export async function hearMailEvent(event: { body: string; time: string; signature: string }): Promise<boolean> {
  const { mailSecret, clock } = services();
  if (!isGenuineEvent(mailSecret, event.time, event.signature, event.body)) return false;
  const said = JSON.parse(event.body) as { messageId?: unknown; event?: unknown; reason?: unknown };
  const id = MESSAGE_ID.exec(String(said.messageId ?? ''))?.[1];
  if (!id || (said.event !== 'delivered' && said.event !== 'bounced')) return true;
  const businessId = await outsideBusiness((db) => messageHolder(db, id));
  if (!businessId) return true;
  const result = { state: said.event, trouble: said.event === 'bounced' ? String(said.reason ?? '') : null } as const;
  const now = await clock.now();
  await inBusiness(businessId, async (tx) => {
    if (!(await updateDelivery(tx, businessId, id, result))) return;
    const message = await messageById(tx, businessId, id);
    if (
      message?.invoiceId &&
      message.kind !== 'payment-notice' &&
      message.kind !== 'trial' &&
      message.kind !== 'notice'
    ) {
      const about = { what: message.kind, to: message.toAddress };
      const happening =
        result.state === 'bounced'
          ? { kind: 'bounced' as const, ...about, trouble: result.trouble ?? '' }
          : { kind: 'delivered' as const, ...about };
      await insertHappening(tx, businessId, message.invoiceId, happening, 'the mail server', now);
    }
    await announce(tx, businessId);
  });
  return true;
}

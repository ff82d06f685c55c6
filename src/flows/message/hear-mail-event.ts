import { MESSAGE_KINDS } from '@/core/message/kinds';
import { earlierMessageHolder, messageById, updateDelivery } from '@/db/messages';
import { addToTimeline } from '@/db/timeline';
import { anybody } from '@/flows/door/operation';
import { found } from '@/flows/door/rights';
import { services } from '@/outside/services';
import { isGenuineEvent } from '@/outside/signed-event';
import { subjectOfMessage } from './subject';

// `MESSAGE.BUSINESS@…`; mail from before had the message alone.
const UUID = '[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}';
const MESSAGE_ID = new RegExp(`^<?(${UUID})(?:\\.(${UUID}))?@`);

/** Acts on what the mail server reports of a message; false where it is not signed as the mail server signs. */
export const hearMailEvent = anybody().run(
  async (house, report: { body: string; time: string; signature: string }): Promise<boolean> => {
    if (!isGenuineEvent(services().mailSecret, report.time, report.signature, report.body)) return false;
    const said = JSON.parse(report.body) as { messageId?: unknown; event?: unknown; reason?: unknown };
    const [, id, holder] = MESSAGE_ID.exec(String(said.messageId ?? '')) ?? [];
    if (!id || (said.event !== 'delivered' && said.event !== 'bounced')) return true;
    const businessId = holder ?? (await house.outside((db) => earlierMessageHolder(db, id)));
    if (!businessId) return true;
    const result = { state: said.event, trouble: said.event === 'bounced' ? String(said.reason ?? '') : null } as const;
    await house.within(businessId).write(async (tx) => {
      if (!(await updateDelivery(tx, id, result))) return;
      const message = found(await messageById(tx, id));
      const about = subjectOfMessage(message);
      if (!about || MESSAGE_KINDS[message.kind].told !== 'all') return;
      const told = { what: message.kind, to: message.toAddress };
      const event =
        result.state === 'bounced'
          ? { kind: 'bounced' as const, ...told, trouble: result.trouble ?? '' }
          : { kind: 'delivered' as const, ...told };
      await addToTimeline(tx, about, event, 'the mail server');
    });
    return true;
  },
);

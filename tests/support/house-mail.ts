/** Mail about ways in: what is queued is handed over, and the links in it are found. */
import { handOverMessage } from '@/flows/post/hand-over-message';
import { asSuperuser } from './database';
import { mailOf, type StoredMail, type Workshop } from './workshop';

/** Hands over what is queued of a business, and gives the latest mail to an address. */
export async function handedOver(workshop: Workshop, businessId: string, to: string): Promise<StoredMail | undefined> {
  const queued = await asSuperuser<{ id: string }>(
    workshop.admin,
    `select id from messages where business_id = $1 and state = 'queued' order by created_at, id`,
    [businessId],
  );
  for (const { id } of queued) await handOverMessage(businessId, id);
  return (await mailOf(workshop.standIns, to))[0];
}

/** What stands in a link below a path of ours. */
export const linkIn = (text: string, path: string): string => new RegExp(`/${path}/([^\\s"<]+)`).exec(text)?.[1] ?? '';

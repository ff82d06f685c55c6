import type { MessageKind } from '../message/kinds';
import type { TimelineLine } from './timeline';

/** A message that did not arrive, as the timeline tells it. */
export type NotDelivered = { readonly what: MessageKind; readonly to: string; readonly trouble: string };

/**
 * The latest message that did not arrive and has not been sent to that address again since; null where all did or are under way.
 *
 * @param lines newest first
 */
export function notDelivered(lines: readonly Pick<TimelineLine, 'event'>[]): NotDelivered | null {
  const known = new Set<string>();
  for (const { event } of lines) {
    // Sent again after that: what came of it is not told yet.
    if (event.kind === 'sent-again') return null;
    if (!['mail-failed', 'bounced', 'delivered', 'mail-handed-over'].includes(event.kind) || !('what' in event))
      continue;
    const key = `${event.what} ${event.to}`;
    if (known.has(key)) continue;
    known.add(key);
    if (event.kind === 'mail-failed' || event.kind === 'bounced')
      return { what: event.what, to: event.to, trouble: event.trouble };
  }
  return null;
}

import type { Deed } from '@/core/find/deeds';
import { sendBy } from '@/core/invoice/send-with';
import { type FoundLine, pathOf, whatItIs } from './json-found';

/** How a deed is done: a place is opened, something is made and opened, or it is sent at once and said. */
export type Doing =
  | { readonly by: 'open'; readonly path: string }
  | { readonly by: 'make'; readonly address: string; readonly body: object; readonly path: (id: string) => string }
  | {
      readonly by: 'send';
      readonly method: 'POST' | 'PUT';
      readonly address: string;
      readonly body: object;
      readonly done: string;
    };

const DEED_WORDS: Readonly<Record<Deed, string>> = {
  remind: 'Remind of',
  record: 'Record a payment of',
  send: 'Send',
  copy: 'Copy',
  edit: 'Edit',
  credit: 'Write a credit note over',
  cancel: 'Cancel',
  pause: 'Pause',
  resume: 'Resume',
  invoice: 'New invoice for',
  plan: 'New billing plan for',
  statement: 'Statement of',
};

/** What a line says that it does: `Remind of invoice 1172`. */
export function deedWords(line: FoundLine & { readonly deed: Deed }): string {
  const what = whatItIs(line).split(',')[0] ?? '';
  const small = `${what.charAt(0).toLowerCase()}${what.slice(1)}`;
  const verb = DEED_WORDS[line.deed];
  if (line.kind === 'customer') return `${verb} ${line.name}`;
  return line.kind === 'page' || line.kind === 'link' || line.kind === 'button'
    ? `${verb} ${small} “${line.name}”`
    : `${verb} ${small}`;
}

const OFFERS = { page: true, link: true, button: true } as const;
const isOffer = (kind: string): boolean => kind in OFFERS;

/** What is done for such a line. */
export function doingOf(line: FoundLine & { readonly deed: Deed }): Doing {
  const { deed, kind, id, state } = line;
  const here = pathOf(line);
  const open = (path: string): Doing => ({ by: 'open', path });
  const turned = (to: 'paused' | 'open', action: 'pause' | 'resume', done: string): Doing =>
    isOffer(kind)
      ? { by: 'send', method: 'PUT', address: `/api/offers/${id}/state`, body: { state: to }, done }
      : {
          by: 'send',
          method: 'POST',
          address: `/api/${kind === 'plan' ? 'plans' : 'recurring'}/${id}`,
          body: { action },
          done,
        };
  switch (deed) {
    case 'remind':
      return {
        by: 'send',
        method: 'POST',
        address: `/api/invoices/${id}/remind`,
        body: { how: sendBy('mail') },
        done: `A reminder is on its way to ${line.name}`,
      };
    case 'record':
      return open(`${here}?do=received`);
    case 'credit':
      return open(`${here}?do=credit`);
    case 'cancel':
      return open(`${here}?do=cancel`);
    case 'send':
      return open(here);
    case 'copy':
      return kind === 'invoice'
        ? { by: 'make', address: '/api/invoices', body: { invoiceId: id }, path: (made) => `/ask/compose/${made}` }
        : kind === 'plan'
          ? {
              by: 'make',
              address: `/api/plans/${id}`,
              body: { action: 'duplicate' },
              path: (made) => `/ask/plans/compose?plan=${made}`,
            }
          : {
              by: 'make',
              address: '/api/offers',
              body: { placement: kind, from: id },
              path: (made) => `/ask/offer/${made}`,
            };
    case 'edit':
      if (kind === 'invoice') return open(state === 'draft' ? here : `/ask/change/${id}`);
      if (kind === 'plan')
        return open(state === 'draft' ? `/ask/plans/compose?plan=${id}` : `/ask/plans/change?plan=${id}`);
      return open(`/ask/offer/${id}`);
    case 'pause':
      return turned('paused', 'pause', `${line.about || line.name} is paused`);
    case 'resume':
      return turned('open', 'resume', `${line.about || line.name} goes on`);
    case 'invoice':
      return { by: 'make', address: '/api/invoices', body: { customerId: id }, path: (made) => `/ask/compose/${made}` };
    case 'plan':
      return open(`/ask/plans/compose?customer=${id}`);
    case 'statement':
      return open(`/records/customers/${id}/statement`);
  }
}

import { Nothing, open } from '@/app/answer';
import { givenFile } from '@/app/given-file';
import { fetchByInvoice } from '@/flows/digital/grants';

/** A press fetches it, and counts: a link that is only looked at does not. */
export const POST = open(Nothing, ({ params: { token = '', id = '' } }) =>
  givenFile(`/i/${token}`, () => fetchByInvoice(token, id)),
);

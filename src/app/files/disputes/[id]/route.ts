import { desk, fileAnswer } from '@/app/answer';
import { disputeFile } from '@/flows/dispute/file-paper';
import { DisputeFileInput } from '@/input/dispute-input';

export const GET = desk(DisputeFileInput, async (actor, { params, input }) =>
  fileAnswer(await disputeFile(actor, params.id ?? '', input.form === 'sent')),
);

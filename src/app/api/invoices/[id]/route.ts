import { desk, Nothing } from '@/app/answer';
import { PAPER_BODY } from '@/app/body';
import { discardDraft, saveDraft } from '@/flows/invoice/draft';
import { DraftInput, paperOf } from '@/input/paper-input';

export const PUT = desk(
  DraftInput,
  (actor, { input, params }) => saveDraft(actor, params.id ?? '', paperOf(input.paper), input.revision),
  { most: PAPER_BODY },
);

export const DELETE = desk(Nothing, (actor, { params }) => discardDraft(actor, params.id ?? ''));

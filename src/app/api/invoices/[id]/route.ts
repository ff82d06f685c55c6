import { desk, Nothing } from '@/app/answer';
import { discardDraft, saveDraft } from '@/flows/invoice/draft';
import { DraftInput, paperOf, windowOf } from '@/input/paper-input';

export const PUT = desk(DraftInput, (actor, { input, params }) =>
  saveDraft(actor, params.id ?? '', paperOf(input.paper), input.revision, windowOf(input)),
);

export const DELETE = desk(Nothing, (actor, { params }) => discardDraft(actor, params.id ?? ''));

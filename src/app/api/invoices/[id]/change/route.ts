import { desk } from '@/app/answer';
import { PAPER_BODY } from '@/app/body';
import { changeInvoice } from '@/flows/invoice/change-invoice';
import { ChangeInput, paperOf } from '@/input/paper-input';

export const POST = desk(
  ChangeInput,
  (actor, { input, params }) => changeInvoice(actor, params.id ?? '', paperOf(input.paper), input.version, input.tell),
  { most: PAPER_BODY },
);

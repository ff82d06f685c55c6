import { desk } from '@/app/answer';
import { changeInvoice } from '@/flows/invoice/change-invoice';
import { ChangeInput, paperOf } from '@/input/paper-input';

export const POST = desk(ChangeInput, (actor, { input, params }) =>
  changeInvoice(actor, params.id ?? '', paperOf(input.paper), input.version, input.tell),
);

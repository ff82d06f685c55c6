import { desk } from '@/app/answer';
import { ChangeInput, paperOf } from '@/app/input/paper-input';
import { changeInvoice } from '@/flows/invoice/change-invoice';

export const POST = desk(ChangeInput, (actor, { input, params }) =>
  changeInvoice(actor, params.id ?? '', paperOf(input.paper), input.version, input.tell),
);

import { open } from '@/app/answer';
import { SeenInput } from '@/app/input/pay-input';
import { noteSeen } from '@/flows/invoice/payer-page';

export const POST = open(SeenInput, ({ input, params }) => noteSeen(params.token ?? '', input.device));

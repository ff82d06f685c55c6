import { open } from '@/app/answer';
import { noteSeen } from '@/flows/invoice/payer-page';
import { SeenInput } from '@/input/pay-input';

export const POST = open(SeenInput, ({ input, params }) => noteSeen(params.token ?? '', input.device));

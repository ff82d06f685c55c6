import { fileAnswer, Nothing, open } from '@/app/answer';
import { linkedVoucherPdf } from '@/flows/voucher/voucher-page';

export const GET = open(Nothing, async ({ params }) => fileAnswer(await linkedVoucherPdf(params.token ?? '')));

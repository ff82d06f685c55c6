import { desk, fileAnswer, Nothing } from '@/app/answer';
import { deskVoucherPdf } from '@/flows/voucher/voucher-paper';

export const GET = desk(Nothing, async (actor, { params }) => fileAnswer(await deskVoucherPdf(actor, params.id ?? '')));

import { fileAnswer, Nothing, open } from '@/app/answer';
import { partnerPageCsv } from '@/flows/payout/partner-page';

export const GET = open(Nothing, async ({ params }) => fileAnswer(await partnerPageCsv(params.token ?? '')));

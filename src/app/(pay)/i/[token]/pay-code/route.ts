import { fileAnswer, Nothing, open } from '@/app/answer';
import { linkedPayCode } from '@/flows/file/pay-code';

export const GET = open(Nothing, async ({ params }) => fileAnswer(await linkedPayCode(params.token ?? '')));

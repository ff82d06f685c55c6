import { desk, fileAnswer, Nothing } from '@/app/answer';
import { sampleReceipt } from '@/flows/checkout/rehearse';

export const GET = desk(Nothing, async (actor) => fileAnswer(await sampleReceipt(actor)));

import { desk } from '@/app/answer';
import { mailGiftLetters } from '@/flows/records/gifts';
import { GiftLettersInput } from '@/input/offer-records-input';

export const POST = desk(GiftLettersInput, async (actor, { input }) => ({
  letters: await mailGiftLetters(actor, input.year, input.customerIds, input.requestKey),
}));

import { desk } from '@/app/answer';
import { GiftLettersInput } from '@/app/input/offer-records-input';
import { mailGiftLetters } from '@/flows/records/gifts';

export const POST = desk(GiftLettersInput, async (actor, { input }) => ({
  letters: await mailGiftLetters(actor, input.year, input.customerIds, input.requestKey),
}));

import { desk, fileAnswer } from '@/app/answer';
import { giftLetter } from '@/flows/records/gifts';
import { GiftYearInput } from '@/input/offer-records-input';

export const GET = desk(
  GiftYearInput,
  async (actor, { input, params }) =>
    fileAnswer(await giftLetter(actor, params.id ?? '', Number(input.year), input.currency)),
  { from: 'address' },
);

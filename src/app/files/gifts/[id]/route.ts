import { desk, fileAnswer } from '@/app/answer';
import { GiftYearInput } from '@/app/input/offer-records-input';
import { giftLetter } from '@/flows/records/gifts';

export const GET = desk(
  GiftYearInput,
  async (actor, { input, params }) =>
    fileAnswer(await giftLetter(actor, params.id ?? '', Number(input.year), input.currency)),
  'address',
);

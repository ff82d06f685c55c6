import { desk } from '@/app/answer';
import { handOverAtCounter } from '@/flows/counter/collect';
import { HandOverInput } from '@/input/counter-input';

export const POST = desk(HandOverInput, (actor, { input: { requestKey, handoverId, name, strokes, lines } }) =>
  handOverAtCounter(actor, requestKey, handoverId, { name, strokes, lines: lines.map((line) => ({ ...line })) }),
);

import { desk, Nothing } from '@/app/answer';
import { keepAddress, letBe, sendAnew } from '@/flows/message/see-to';
import { SendAnewInput } from '@/input/today-input';

/** A message that did not arrive is sent once more; its customer has the address from now on where that is wished. */
export const POST = desk(SendAnewInput, async (actor, { input, params }) => {
  const id = params.id ?? '';
  await sendAnew(actor, id, input.address);
  if (input.keep) await keepAddress(actor, id, input.address);
});

export const DELETE = desk(Nothing, (actor, { params }) => letBe(actor, params.id ?? ''));

import { desk } from '@/app/answer';
import { receiveStock } from '@/flows/stock/change-stock';
import { ReceiveInput } from '@/input/stock-input';

export const POST = desk(ReceiveInput, (actor, { input: { requestKey, lines, supplier, paper, fileId } }) =>
  receiveStock(
    actor,
    requestKey,
    lines.map(({ itemId, optionId, quantity, cost }) => ({ itemId, optionId: optionId ?? null, quantity, cost })),
    { supplier, paper, fileId: fileId ?? null },
  ),
);

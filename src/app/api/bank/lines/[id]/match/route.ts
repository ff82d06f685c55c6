import { desk } from '@/app/answer';
import { takeMatch } from '@/flows/bank/take-match';
import { MatchInput } from '@/input/bank-input';

export const POST = desk(MatchInput, (actor, { params, input }) =>
  takeMatch(actor, params.id ?? '', {
    ...input,
    parts: input.parts.map(({ kind, id, minor }) => ({ kind, id, minor: BigInt(minor) })),
  }),
);

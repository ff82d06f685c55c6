import { desk } from '@/app/answer';
import { declareParcel, rememberCustoms } from '@/flows/parcel/customs';
import { DeclareInput } from '@/input/parcel-input';

export const PUT = desk(DeclareInput, async (actor, { input: { keep, lines, ...part }, params }) => {
  const id = params.id ?? '';
  await declareParcel(
    actor,
    id,
    part,
    lines.map(({ valueMinor, netGrams, ...line }) => ({
      ...line,
      netGrams: netGrams ?? null,
      valueMinor: valueMinor === null || valueMinor === undefined ? null : BigInt(valueMinor),
    })),
  );
  if (keep) await rememberCustoms(actor, id);
});

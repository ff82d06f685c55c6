import { desk, Nothing } from '@/app/answer';
import { changeParcel } from '@/flows/parcel/pack';
import { giveLabelBack } from '@/flows/parcel/shipments';
import { ParcelInput } from '@/input/parcel-input';

export const PUT = desk(ParcelInput, (actor, { input, params }) => changeParcel(actor, params.id ?? '', { ...input }));

export const DELETE = desk(Nothing, (actor, { params }) => giveLabelBack(actor, params.id ?? ''));

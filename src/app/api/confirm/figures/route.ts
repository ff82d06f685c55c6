import { desk } from '@/app/answer';
import { confirmByFigures } from '@/flows/house/confirm';
import { FiguresInput } from '@/input/people-input';

export const POST = desk(FiguresInput, (actor, { input, address }) => confirmByFigures(actor, input.figures, address));

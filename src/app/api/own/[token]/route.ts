import { open } from '@/app/answer';
import { doOnOwnPage } from '@/flows/plan/own-page';
import { OwnPageInput } from '@/input/plan-input';

export const POST = open(OwnPageInput, ({ input, params, address }) => doOnOwnPage(params.token ?? '', input, address));

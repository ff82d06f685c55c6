import { open } from '@/app/answer';
import { OwnPageInput } from '@/app/input/plan-input';
import { doOnOwnPage } from '@/flows/plan/own-page';

export const POST = open(OwnPageInput, ({ input, params, address }) => doOnOwnPage(params.token ?? '', input, address));

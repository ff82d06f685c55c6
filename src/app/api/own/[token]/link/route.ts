import { Nothing, open } from '@/app/answer';
import { sendNewLink } from '@/flows/plan/own-page';

export const POST = open(Nothing, ({ params }) => sendNewLink(params.token ?? ''));

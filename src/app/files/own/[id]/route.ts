import { desk, Nothing, redirectAnswer } from '@/app/answer';
import { deskFilePath } from '@/flows/file/served-file';

export const GET = desk(Nothing, async (actor, { params }) =>
  redirectAnswer(await deskFilePath(actor, params.id ?? '')),
);

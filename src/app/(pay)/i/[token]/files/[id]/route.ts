import { Nothing, open, redirectAnswer } from '@/app/answer';
import { linkedFilePath } from '@/flows/file/served-file';

export const GET = open(Nothing, async ({ params }) =>
  redirectAnswer(await linkedFilePath(params.token ?? '', params.id ?? '')),
);

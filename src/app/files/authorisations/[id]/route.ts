import { desk, fileAnswer, Nothing } from '@/app/answer';
import { authorisationFile } from '@/flows/plan/authorisation-file';

export const GET = desk(Nothing, async (actor, { params }) =>
  fileAnswer(await authorisationFile(actor, params.id ?? '')),
);

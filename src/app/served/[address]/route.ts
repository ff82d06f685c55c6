import { fileAnswer, Nothing, open } from '@/app/answer';
import { servedFile } from '@/flows/file/served-file';

/** Files that people sent up, without looking at any cookie and without anything in them being able to run. */
export const GET = open(Nothing, async ({ params }) => fileAnswer(await servedFile(params.address ?? '')));

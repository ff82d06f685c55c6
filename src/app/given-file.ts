import { NextResponse } from 'next/server';
import { Refusal } from '@/flows/door/refusal';
import type { File } from '@/flows/file/kept-files';
import { fileAnswer } from './answer';

/** Hands out what was bought as a file, to be kept; where it can be fetched no more the page says so, as it stands now. */
export async function givenFile(page: string, fetched: () => Promise<File>): Promise<NextResponse> {
  try {
    const answer = fileAnswer(await fetched());
    const named = answer.headers.get('content-disposition') ?? '';
    answer.headers.set('content-disposition', named.replace(/^inline/, 'attachment'));
    return answer;
  } catch (error) {
    if (!(error instanceof Refusal && error.code === 'download-over')) throw error;
    return NextResponse.redirect(new URL(page, process.env.PUBLIC_URL), 303);
  }
}

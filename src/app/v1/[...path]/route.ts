import type { NextRequest, NextResponse } from 'next/server';
import { programAnswer } from '../answer';

const answer = async (request: NextRequest): Promise<NextResponse> =>
  programAnswer(request, request.nextUrl.pathname.replace(/^\/v1/, ''));

export { answer as DELETE, answer as GET, answer as PATCH, answer as POST, answer as PUT };

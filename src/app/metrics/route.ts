import { type NextRequest, NextResponse } from 'next/server';
import { measures } from '@/flows/house/measures';

/** Figures for a program that watches over this one, by its key. */
export async function GET(request: NextRequest): Promise<NextResponse> {
  const [, key = ''] = /^Bearer +(\S+)$/i.exec(request.headers.get('authorization') ?? '') ?? [];
  const found = await measures(key);
  const headers = {
    'cache-control': 'private, no-store',
    'content-security-policy': "default-src 'none'; frame-ancestors 'none'; sandbox",
  };
  if (!found) return new NextResponse(null, { status: 404, headers });
  return new NextResponse(found.text, { headers: { ...headers, 'content-type': found.type } });
}

import { NextResponse } from 'next/server';

/** Says that somebody is here, and nothing else: screens ask before they renew themselves. */
export const GET = (): NextResponse =>
  new NextResponse(null, { status: 204, headers: { 'cache-control': 'private, no-store' } });

import { NextResponse } from 'next/server';
import { health } from '@/flows/house/health';

/** For whoever watches over this: 200 if all parts answer, 503 if one does not. */
export async function GET(): Promise<NextResponse> {
  const parts = await health();
  const well = Object.values(parts).every(Boolean);
  return NextResponse.json({ well, ...parts }, { status: well ? 200 : 503, headers: { 'cache-control': 'no-store' } });
}

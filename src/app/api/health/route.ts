import { NextResponse } from 'next/server';
import { health } from '@/flows/house/health';

/** For whoever watches over this: 200 if all parts are well, 503 if one is not; and which start of the program this is. */
export async function GET(): Promise<NextResponse> {
  const parts = await health();
  const well = Object.values(parts).every(Boolean);
  const instance = process.env.DAHLIA_INSTANCE ?? '';
  return NextResponse.json(
    { well, ...parts, instance },
    { status: well ? 200 : 503, headers: { 'cache-control': 'private, no-store' } },
  );
}

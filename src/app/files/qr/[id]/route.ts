import { NextResponse } from 'next/server';
import { desk, Nothing } from '@/app/answer';
import { linkQr } from '@/flows/offer/link-qr';

export const GET = desk(Nothing, async (actor, { params }) => {
  const svg = await linkQr(actor, params.id ?? '');
  return new NextResponse(svg, {
    headers: { 'content-type': 'image/svg+xml', 'cache-control': 'private, no-store' },
  });
});

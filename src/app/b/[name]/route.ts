import { NextResponse } from 'next/server';
import { Nothing, open } from '@/app/answer';
import { buttonDrawing } from '@/flows/offer/button';

/** A button as a picture, for pages anywhere. */
export const GET = open(Nothing, async ({ params }) => {
  const { type, body } = await buttonDrawing(params.name ?? '');
  return new NextResponse(body, {
    headers: {
      'content-type': type,
      'cache-control': 'public, max-age=60',
      'content-security-policy': "default-src 'none'; style-src 'unsafe-inline'; sandbox",
      'cross-origin-resource-policy': 'cross-origin',
      'x-content-type-options': 'nosniff',
    },
  });
});

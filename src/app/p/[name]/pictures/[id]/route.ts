import { NextResponse } from 'next/server';
import { Nothing, open } from '@/app/answer';
import { pagePicture } from '@/flows/checkout/hosted-page';

/** A picture of a published page: drawn anew when it was sent up, so nothing hides in it. */
export const GET = open(Nothing, async ({ params }) => {
  const { bytes, type } = await pagePicture(params.name ?? '', params.id ?? '');
  return new NextResponse(new Uint8Array(bytes), {
    headers: {
      'content-type': type,
      'cache-control': 'public, max-age=86400, immutable',
      'content-security-policy': "default-src 'none'; sandbox",
      'x-content-type-options': 'nosniff',
    },
  });
});

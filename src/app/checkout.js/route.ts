import { NextResponse } from 'next/server';
import { overlayScript } from './overlay';

/** The script that opens a checkout over the business's own website. */
export const GET = () =>
  new NextResponse(overlayScript(new URL(process.env.PUBLIC_URL ?? 'http://invalid').origin), {
    headers: {
      'content-type': 'text/javascript; charset=utf-8',
      'cache-control': 'public, max-age=300',
      'cross-origin-resource-policy': 'cross-origin',
      'x-content-type-options': 'nosniff',
    },
  });

import { NextResponse } from 'next/server';
import { desk } from '@/app/answer';
import { offerQr } from '@/flows/offer/link-qr';
import { QrInput } from '@/input/file-input';

/** An offer's address as a QR code: SVG to look at and to print, PNG for programs that want one. */
export const GET = desk(
  QrInput,
  async (actor, { input, params }) => {
    const png = input.as === 'png';
    const { name, bytes } = await offerQr(actor, params.id ?? '', png ? 'png' : 'svg');
    return new NextResponse(new Uint8Array(bytes), {
      headers: {
        'content-type': png ? 'image/png' : 'image/svg+xml',
        'cache-control': 'private, no-store',
        ...(input.keep === 'yes' ? { 'content-disposition': `attachment; filename="${name}"` } : {}),
      },
    });
  },
  { from: 'address' },
);

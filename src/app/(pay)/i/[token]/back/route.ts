import { NextResponse } from 'next/server';
import { Nothing, open } from '@/app/answer';
import { returnFromBank } from '@/flows/payment/settle-payment';

/** The bank sends the payer back here: what it said is found out first, then the invoice shows it. */
export const GET = open(Nothing, async ({ params }) => {
  await returnFromBank(params.token ?? '');
  return NextResponse.redirect(new URL(`/i/${params.token}`, process.env.PUBLIC_URL), 303);
});

import { NextResponse } from 'next/server';
import { Nothing, open } from '@/app/answer';
import { orderBackFromBank, orderPage } from '@/flows/checkout/order-page';

/**
 * The bank sends the payer back here: what it said is found out first; what was refused leads back to the checkout. Who paid in a frame was
 * sent to the bank in a window of its own: that one only says what became of it, and the frame goes on.
 */
export const GET = open(Nothing, async ({ params, request }) => {
  const token = params.token ?? '';
  await orderBackFromBank(token);
  const order = await orderPage(token);
  const framed = new URL(request.url).searchParams.get('framed') === 'yes';
  const path = order?.state === 'refused' && !framed ? order.checkout : `/o/${token}${framed ? '?framed=yes' : ''}`;
  return NextResponse.redirect(new URL(path, process.env.PUBLIC_URL), 303);
});

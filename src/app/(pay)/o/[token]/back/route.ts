import { NextResponse } from 'next/server';
import { Nothing, open } from '@/app/answer';
import { orderBackFromBank, orderPage } from '@/flows/checkout/order-page';

/** The bank sends the payer back here: what it said is found out first; what was refused leads back to the checkout. */
export const GET = open(Nothing, async ({ params }) => {
  const token = params.token ?? '';
  await orderBackFromBank(token);
  const order = await orderPage(token);
  const path = order?.state === 'refused' ? `/c/${order.called}` : `/o/${token}`;
  return NextResponse.redirect(new URL(path, process.env.PUBLIC_URL), 303);
});

import { jsonPayment } from '@/app/(desk)/money/payments/json-payment';
import { desk } from '@/app/answer';
import { businessToday, paymentPage } from '@/flows/payment/payment-list';
import { PageInput } from '@/input/list-input';

export const GET = desk(PageInput, async (actor, { input }) => {
  const { business, today } = await businessToday(actor);
  const page = await paymentPage(actor, input);
  return { rows: page.rows.map((row) => jsonPayment(row, business, today)), next: page.next };
});

import { wirePayment } from '@/app/(desk)/money/payments/wire-payment';
import { desk } from '@/app/answer';
import { PageInput } from '@/app/input/list-input';
import { businessToday, paymentPage } from '@/flows/payment-list';

export const GET = desk(PageInput, async (actor, { input }) => {
  const { business, today } = await businessToday(actor);
  const page = await paymentPage(actor, input);
  return { rows: page.rows.map((row) => wirePayment(row, business, today)), next: page.next };
});

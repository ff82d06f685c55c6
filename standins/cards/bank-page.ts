import { html } from 'hono/html';
import { minorDigits } from '@/core/money/currency';
import { decimalText } from '@/core/money/decimal';
import { page } from '../pages/layout';
import type { Sale } from './processor';

/** Where the holder approves: a page of the stand-in's "bank", on which one answers and goes back. */
export function bankPage(sale: Sale) {
  const sum = sale.currency ? `${sale.currency} ${decimalText(BigInt(sale.amount), minorDigits(sale.currency))}` : '';
  if (sale.status !== 'approval') {
    return page(
      'Stand-in bank',
      html`<h1>Stand-in bank</h1><p>This payment has been answered.</p><p><a href="${sale.returnUrl}">Back</a></p>`,
    );
  }
  return page(
    'Stand-in bank',
    html`<h1>Stand-in bank</h1>
      <p>${sale.reference} asks for <b>${sum}</b> from your card ending in ${sale.card?.last4 ?? ''}. Is this you?</p>
      <form method="post">
        <button name="answer" value="approve">Approve ${sum}</button>
        <button name="answer" value="decline">This is not me</button>
      </form>
      <p class="soft">A pretend bank for pretend cards. No money moves.</p>`,
  );
}

/** The bank of a rehearsal: nothing waits for an answer, one goes back approved. Only to an address of the application. */
export function rehearsalBankPage(back: string, origins: readonly string[]) {
  const known = URL.canParse(back) && origins.includes(new URL(back).origin);
  return page(
    'Stand-in bank',
    html`<h1>Stand-in bank</h1>
      <p>A rehearsal: here the holder is asked to approve. Nothing is charged.</p>
      ${known ? html`<p><a href="${back}">Approve, and back</a></p>` : ''}`,
  );
}

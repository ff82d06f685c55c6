import { Hono } from 'hono';
import { html } from 'hono/html';
import { page } from '../pages/layout';
import type { Processor } from './processor';

const RECENT = 30;

/** A page on which payers' banks collect debits before their time, or give them back. */
export function debitPages(processor: Processor): Hono {
  const app = new Hono();
  app.post('/', async (c) => {
    const form = await c.req.formData();
    const code = String(form.get('code') ?? '');
    if (!/^([A-Z]{2}\d{2})?$/.test(code)) return c.text('A reason code has two letters and two digits, as MD06.', 400);
    const sale = processor.decideDebit(String(form.get('sale')), code);
    return sale ? c.redirect('/cards/debits', 303) : c.text('That debit cannot be decided (any more).', 409);
  });
  app.get('/', (c) => {
    const debits = processor.debits('').slice(-RECENT).reverse();
    const press = (code: string, words: string) => html`<button name="code" value="${code}">${words}</button> `;
    return c.html(
      page(
        'Stand-in processor: bank debits',
        html`<p><a href="/">Stand-ins</a></p>
          <h1>Bank debits</h1>
          <p class="soft">The latest. A debit is collected on the third banking day, by the clock.</p>
          ${debits.map(
            ({
              id,
              reference,
              amount,
              currency,
              card,
              status,
              debit,
              returned,
            }) => html`<form method="post" action="/cards/debits">
              <input type="hidden" name="sale" value="${id}" />
              <p>
                ${reference}, ${amount} minor units ${currency}, account ·${card?.last4 ?? ''}:
                ${returned ? `given back (${returned.code})` : status === 'collecting' ? `collected on ${debit?.collectsAt.slice(0, 10)}` : status}
                ${status === 'collecting' ? html`${press('', 'Collect now')}${press('AM04', 'Not enough money')}${press('AC04', 'Account closed')}` : ''}
                ${status === 'accepted' && !returned ? html`${press('MD06', 'The payer asks for it back')}${press('MD01', 'No mandate')}` : ''}
              </p>
            </form>`,
          )}`,
      ),
    );
  });
  return app;
}

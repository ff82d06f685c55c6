import { Hono } from 'hono';
import { html } from 'hono/html';
import { page } from '../pages/layout';
import type { Processor } from './processor';

const RECENT = 30;

const sum = (amount: number, currency: string): string => `${amount} minor units ${currency}`;

/** Pages on which a card's holder asks their bank for money back, and the bank decides. */
export function disputePages(processor: Processor): Hono {
  const app = new Hono();
  app.post('/', async (c) => {
    const form = await c.req.formData();
    const sale = processor.openDispute(String(form.get('sale')), String(form.get('reason')));
    return sale ? c.redirect('/cards/disputes', 303) : c.text('That payment cannot be disputed (any more).', 409);
  });
  app.post('/:id', async (c) => {
    const form = await c.req.formData();
    const sale = processor.decideDispute(c.req.param('id'), form.get('won') === 'yes');
    return sale ? c.redirect('/cards/disputes', 303) : c.text('That dispute is not there, or decided.', 409);
  });
  app.get('/', (c) => {
    const disputed = processor.disputed('');
    const others = processor
      .book()
      .filter(({ status, dispute }) => status === 'accepted' && !dispute)
      .slice(-RECENT)
      .reverse();
    return c.html(
      page(
        'Stand-in processor: disputes',
        html`<p><a href="/">Stand-ins</a></p>
          <h1>Disputes</h1>
          ${disputed.map(
            ({ reference, currency, dispute }) => html`<form method="post" action="/cards/disputes/${dispute.id}">
              <p>
                ${reference}, ${sum(dispute.amount, currency)}, ${dispute.reason}:
                ${dispute.decided ? (dispute.decided.won ? 'won by the business' : 'lost by the business') : dispute.answer ? 'answered' : `to be answered by ${dispute.answerBy}`}
                ${dispute.decided ? '' : html`<button name="won" value="yes">The business wins</button> <button name="won" value="no">The business loses</button>`}
              </p>
            </form>`,
          )}
          <h2>Ask for money back</h2>
          <p class="soft">The latest payments; the whole of what is left is asked for.</p>
          ${others.map(
            ({ id, reference, amount, currency, card }) => html`<form method="post" action="/cards/disputes">
              <input type="hidden" name="sale" value="${id}" />
              <p>
                ${reference}, ${sum(amount, currency)}, card ·${card?.last4 ?? ''}
                <button name="reason" value="not-recognised">Not recognised</button>
                <button name="reason" value="not-received">Not received</button>
              </p>
            </form>`,
          )}`,
      ),
    );
  });
  return app;
}

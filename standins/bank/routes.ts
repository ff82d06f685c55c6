import { Hono } from 'hono';
import { html } from 'hono/html';
import { page } from '../pages/layout';
import type { Accounts } from './accounts';

const grouped = (number: string): string => number.replace(/(.{4})(?=.)/g, '$1 ');

/** The bank's counter: who holds which share account, for businesses and on a page. */
export function bankRoutes(accounts: Accounts, apiKey: string): Hono {
  const app = new Hono();

  app.get('/api/accounts/:number', (c) => {
    if (c.req.header('authorization') !== `Bearer ${apiKey}`) return c.json({ words: 'unknown business' }, 401);
    const account = accounts.find(c.req.param('number'));
    return account ? c.json(account) : c.json({ words: 'no such account' }, 404);
  });

  app.post('/', async (c) => {
    const form = await c.req.formData();
    const holder = String(form.get('holder') ?? '').trim();
    const closed = String(form.get('close') ?? '');
    if (holder) accounts.openFor(holder.slice(0, 120));
    if (closed) accounts.close(closed);
    return c.redirect('/bank', 303);
  });

  app.get('/', (c) =>
    c.html(
      page(
        'Stand-in bank',
        html`<p><a href="/">Stand-ins</a></p>
          <h1>Bank</h1>
          <p class="soft">Share accounts, to which partners’ parts of payments can be paid out. No money moves.</p>
          <table>
            <tr><th>Account</th><th>Holder</th><th></th></tr>
            ${accounts.list().map(
              (account) => html`<tr>
                <td>${grouped(account.number)}</td>
                <td>${account.holder}</td>
                <td>${
                  account.open
                    ? html`<form method="post" action="/bank"><input type="hidden" name="close" value="${account.number}" /><button>Close it</button></form>`
                    : 'closed'
                }</td>
              </tr>`,
            )}
          </table>
          <h2>Open an account</h2>
          <form method="post" action="/bank"><input name="holder" maxlength="120" required aria-label="In whose name" /><button>Open</button></form>`,
      ),
    ),
  );
  return app;
}

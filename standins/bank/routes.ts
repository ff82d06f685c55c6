import { Hono } from 'hono';
import { html } from 'hono/html';
import { page } from '../pages/layout';
import type { Account, Accounts } from './accounts';
import type { Book, BookLine, TransferRequest } from './book';
import { statementXml } from './camt';

const grouped = (number: string): string => number.replace(/(.{4})(?=.)/g, '$1 ');
const text = (value: unknown, most = 140): string =>
  String(value ?? '')
    .trim()
    .slice(0, most);
const CURRENCY = /^[A-Z]{3}$/;

/** What somebody asks for, as far as it can be done; null where it cannot. */
function transferOf(json: Record<string, unknown>): TransferRequest | null {
  const minor = Number(json.minor);
  if (!json.key || !Number.isSafeInteger(minor) || minor < 1 || !CURRENCY.test(String(json.currency))) return null;
  return {
    key: text(json.key, 200),
    to: text(json.to, 40).replace(/\s/g, '').toUpperCase(),
    minor,
    currency: String(json.currency),
    words: text(json.words),
    reference: text(json.reference, 35),
    from: text(json.from, 70),
  };
}

const sumText = (minor: number): string => `${minor < 0 ? '-' : ''}${(Math.abs(minor) / 100).toFixed(2)}`;

/** An account's book as its holder sees it, its statements, and a counter. */
const accountPage = (account: Account, lines: readonly BookLine[], book: Book) => {
  const currencies = [...new Set(lines.map(({ currency }) => currency))];
  return page(
    `Account ${account.number}`,
    html`<p><a href="/bank">Bank</a></p>
      <h1>${account.holder}</h1>
      <p class="soft">Account ${grouped(account.number)}${account.open ? '' : ', closed'}</p>
      <h2>Pay in, or out</h2>
      <form method="post" action="/bank/accounts/${account.number}">
        <input name="other" maxlength="70" required placeholder="Who pays" aria-label="Who pays" />
        <input name="otherAccount" maxlength="34" placeholder="Their account" aria-label="Their account" />
        <input name="amount" type="number" step="0.01" required placeholder="Amount, below 0 to pay out" aria-label="Amount" />
        <input name="currency" maxlength="3" size="3" value="${currencies[0] ?? 'USD'}" required aria-label="Currency" />
        <input name="words" maxlength="140" size="40" placeholder="What for" aria-label="What for" />
        <input name="reference" maxlength="35" placeholder="Reference, as RF18 …" aria-label="Reference" />
        <button>Book it</button>
      </form>
      <h2>Statements</h2>
      ${currencies.map((currency) => html`<p>${currency}: ${book.daysOf(account.number, currency).map((day) => html`<a href="/bank/statements/${account.number}/${currency}/${day}.xml">${day}</a> `)}</p>`)}
      <h2>Book</h2>
      <table>
        <tr><th>Day</th><th>Other side</th><th>Words</th><th>Amount</th></tr>
        ${[...lines].reverse().map(
          (line) => html`<tr>
            <td>${line.day}</td>
            <td>${line.other}</td>
            <td>${line.words} ${line.reference}</td>
            <td>${sumText(line.minor)} ${line.currency}</td>
          </tr>`,
        )}
      </table>`,
  );
};

/** The bank's counter: accounts and their holders, transfers, statements; for businesses, and on pages. */
export function bankRoutes(accounts: Accounts, book: Book, apiKey: string): Hono {
  const app = new Hono();
  const api = new Hono();
  api.use(async (c, next) => {
    if (c.req.header('authorization') !== `Bearer ${apiKey}`) return c.json({ words: 'unknown business' }, 401);
    await next();
  });
  api.get('/accounts/:number', (c) => {
    const account = accounts.find(c.req.param('number'));
    return account ? c.json(account) : c.json({ words: 'no such account' }, 404);
  });
  api.post('/accounts', async (c) => c.json(accounts.openFor(text((await c.req.json()).holder, 120))));
  api.post('/accounts/:number/close', (c) => {
    const account = accounts.close(c.req.param('number'));
    return account ? c.json(account) : c.json({ words: 'no such account' }, 404);
  });
  api.post('/transfers', async (c) => {
    const request = transferOf((await c.req.json().catch(() => ({}))) as Record<string, unknown>);
    if (!request) return c.json({ words: 'no transfer' }, 422);
    return book.ask(request)
      ? c.json(book.stateOf(request.key))
      : c.json({ words: 'another transfer has this key' }, 409);
  });
  api.get('/transfers/:key', (c) => {
    const state = book.stateOf(c.req.param('key'));
    return state ? c.json(state) : c.json({ words: 'never seen' }, 404);
  });
  api.get('/statements/:number/:currency', (c) => {
    const account = accounts.find(c.req.param('number'));
    if (!account) return c.json({ words: 'no such account' }, 404);
    const currency = c.req.param('currency');
    const after = c.req.query('after') ?? '';
    const lines = book.linesOf(account.number).filter((line) => line.currency === currency);
    const days = book.daysOf(account.number, currency).filter((day) => day > after);
    const statements = days
      .slice(0, 40)
      .map((day) => ({ day, xml: statementXml(account.number, currency, day, lines) }));
    return c.json({ statements });
  });
  api.get('/book/:number', (c) => {
    const account = accounts.find(c.req.param('number'));
    return account ? c.json({ lines: book.linesOf(account.number) }) : c.json({ words: 'no such account' }, 404);
  });
  app.route('/api', api);

  app.get('/accounts/:number', (c) => {
    const account = accounts.find(c.req.param('number'));
    if (!account) return c.text('There is no such account.', 404);
    return c.html(accountPage(account, book.linesOf(account.number), book));
  });
  app.post('/accounts/:number', async (c) => {
    const account = accounts.find(c.req.param('number'));
    const form = await c.req.formData();
    const minor = Math.round(Number(form.get('amount')) * 100);
    const currency = text(form.get('currency'), 3).toUpperCase();
    if (!account || !Number.isSafeInteger(minor) || minor === 0 || !CURRENCY.test(currency))
      return c.text('Give an account, an amount and a currency.', 400);
    const field = (name: string, most = 140) => text(form.get(name), most);
    book.move({
      account: account.number,
      minor,
      currency,
      words: field('words'),
      reference: field('reference', 35).replace(/\s/g, '').toUpperCase(),
      endToEnd: '',
      other: field('other', 70),
      otherAccount: field('otherAccount', 34).replace(/\s/g, ''),
    });
    return c.redirect(`/bank/accounts/${account.number}`, 303);
  });
  app.get('/statements/:number/:currency/:file', (c) => {
    const account = accounts.find(c.req.param('number'));
    const day = c.req.param('file').replace(/\.xml$/, '');
    const currency = c.req.param('currency');
    if (!account || !book.daysOf(account.number, currency).includes(day)) return c.text('No such statement.', 404);
    const lines = book.linesOf(account.number).filter((line) => line.currency === currency);
    c.header('content-type', 'application/xml; charset=utf-8');
    c.header('content-disposition', `attachment; filename="${account.number}-${currency}-${day}.xml"`);
    return c.body(statementXml(account.number, currency, day, lines));
  });

  app.post('/', async (c) => {
    const form = await c.req.formData();
    const holder = text(form.get('holder'), 120);
    const closed = String(form.get('close') ?? '');
    if (holder) accounts.openFor(holder);
    if (closed) accounts.close(closed);
    return c.redirect('/bank', 303);
  });

  app.get('/', (c) =>
    c.html(
      page(
        'Stand-in bank',
        html`<p><a href="/">Stand-ins</a></p>
          <h1>Bank</h1>
          <p class="soft">Accounts to which money is paid out. Transfers are booked on the next banking day; each night a statement (camt.053) is written for all that moved. No money moves.</p>
          <table>
            <tr><th>Account</th><th>Holder</th><th></th></tr>
            ${accounts.list().map(
              (account) => html`<tr>
                <td><a href="/bank/accounts/${account.number}">${grouped(account.number)}</a></td>
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

import { Hono } from 'hono';
import { html, raw } from 'hono/html';
import { page } from '../pages/layout';

const LONGEST = 20_000;

/**
 * A website of somebody else's, on which a button can be tried: what is pasted stands on its page as it is, as it would on a real one.
 * Kept in memory only.
 */
export function shopRoutes(): Hono {
  let snippet = '';
  const app = new Hono();
  app.get('/', (c) =>
    c.html(
      page(
        'Sample website',
        html`<h1>Fernhill Music Shop</h1>
          <p class="soft">A pretend website, on which a button can be tried.</p>
          <h2>Our shelf</h2>
          <p>Strings, rosin and other small things, sent by post.</p>
          <div id="placed">${raw(snippet)}</div>
          <h2>Paste here what you want to try</h2>
          <form method="post" action="/shop">
            <textarea name="snippet" rows="5" cols="90" aria-label="Snippet">${snippet}</textarea>
            <p><button>Put it on the page</button></p>
          </form>`,
      ),
    ),
  );
  app.post('/', async (c) => {
    const form = await c.req.formData();
    snippet = String(form.get('snippet') ?? '').slice(0, LONGEST);
    return c.redirect('/shop', 303);
  });
  app.get('/thanks', (c) =>
    c.html(
      page(
        'Sample website',
        html`<h1>Fernhill Music Shop</h1>
          <p>Thank you for your order. This is what came with you:</p>
          <table>
            ${Object.entries(c.req.query()).map(([name, value]) => html`<tr><td>${name}</td><td>${value}</td></tr>`)}
          </table>`,
      ),
    ),
  );
  return app;
}
